import { dayOf, SECTION, sectionOf, sectionsOf, sheetFits, type Machine } from '@needlecase/core';
import type { PrintQuery } from '@needlecase/core/model/planned';
import { codeCard } from '@needlecase/core/print/code-card';
import type { HousePlan } from '@needlecase/core/views/plan';
import { wallSheet } from '@needlecase/core/print/wall-sheet';
import { houseOrigin } from '../access/reach.js';
import type { Ground } from '../access/ground.js';
import { invalid, notFound } from '../http/problem.js';
import { fileRoute, type Route } from '../http/route.js';
import type { Threads } from '../threads/threads.js';
import type { PlanAnswer } from '../work/plan-answer.js';
import { householdOf, inHouse } from '../work/household.js';
import { shortOf } from '../work/short.js';

/** So many labels are printed at once, at most: more take longer than anybody waits. */
const MOST_LABELS = 240;

/** Of a year, visits with so many tasks are printed, those that come first; whoever has more has it by its places. */
const MOST_TASKS = 1000;

/** The first visits that have no more tasks together than are printed. */
function firstOf(visits: HousePlan['visits']): HousePlan['visits'] {
  let tasks = 0;
  return visits.filter((visit) => (tasks += visit.tasks.length) <= MOST_TASKS);
}

/** Sheets for the wall, for the year, and stickers for machines. */
export function printRoutes({ store, reach }: Ground, threads: Threads, plan: PlanAnswer): Route[] {
  const addressOf = (host: string, path: string) => `${houseOrigin(reach()) ?? host}${path}`;
  /** What is printed: what stands at a place, or in a section of a large house. */
  const machinesFor = ({ place, section }: Pick<PrintQuery, 'place' | 'section'>): Machine[] => {
    householdOf(store);
    const machines = inHouse(store);
    if (place === undefined)
      return sectionOf(sectionsOf(machines, SECTION.shown), section).machines;
    const there = machines.filter((one) => one.place === place);
    if (there.length === 0) {
      throw invalid([{ field: 'place', message: 'No machine stands there.' }]);
    }
    return there;
  };
  return [
    fileRoute({
      path: '/api/v1/prints/wall.pdf',
      summary: 'The sheet for the wall of a place',
      query: 'PrintQuery',
      gives: 'application/pdf',
      handle: async ({ query: { place, paper = 'a4' }, host }) => {
        householdOf(store);
        const machines = inHouse(store);
        const here = place ?? machines[0]?.place;
        const first = machines.find((machine) => machine.place === here);
        if (here === undefined || !first) {
          throw invalid([{ field: 'place', message: 'No machine stands there.' }]);
        }
        const view = await plan.house((one) => one.place === here);
        const address = addressOf(host, `/m/${shortOf(first.id, machines)}`);
        const sheet = wallSheet(view, machines, here, address);
        const pdf = await threads.run('print-wall', { sheet, paper });
        return { body: Buffer.from(pdf), fileName: 'wall-sheet.pdf' };
      },
    }),
    fileRoute({
      path: '/api/v1/prints/year.pdf',
      summary: 'The year ahead with boxes to tick',
      query: 'PrintQuery',
      gives: 'application/pdf',
      handle: async ({ query: { paper = 'a4', ...wanted } }) => {
        const printed = new Set(machinesFor(wanted).map(({ id }) => id));
        const told = await plan.house(({ id }) => printed.has(id));
        const { household, start } = told;
        const open = told.visits.filter(({ done, skipped }) => !done && skipped === undefined);
        const visits = firstOf(open);
        const { end, minutes } =
          open.length > visits.length
            ? {
                end: visits.at(-1)!.day,
                minutes: visits.reduce((sum, one) => sum + one.minutes, 0),
              }
            : told;
        const view = { household, start, end, visits, minutes };
        const pdf = await threads.run('print-year', { view, paper });
        return { body: Buffer.from(pdf), fileName: 'year.pdf' };
      },
    }),
    fileRoute({
      path: '/api/v1/code-sheets/{id}/codes.pdf',
      summary: 'A sheet of display codes for the wall, short',
      query: 'PrintQuery',
      gives: 'application/pdf',
      handle: async ({ params, query: { paper = 'a4' }, host }) => {
        const sheet = store.codeSheets.get(params.id);
        if (!sheet) throw notFound('code sheet');
        const household = householdOf(store);
        const machines = inHouse(store);
        const fit = machines.filter((machine) => sheetFits(sheet, machine));
        const at = fit.length === 1 ? `/trouble?machine=${fit[0]!.id}` : '/trouble';
        const today = dayOf(Date.now(), household.zone);
        const card = codeCard(sheet, machines, household, today, addressOf(host, at));
        const pdf = await threads.run('print-codes', { card, paper });
        return { body: Buffer.from(pdf), fileName: 'codes.pdf' };
      },
    }),
    fileRoute({
      path: '/api/v1/prints/labels.pdf',
      summary: 'Stickers with a code for each machine',
      query: 'PrintQuery',
      gives: 'application/pdf',
      handle: async ({ query: { paper = 'a4', size = 'medium', copies = 1, ...wanted }, host }) => {
        const machines = inHouse(store);
        if (machines.length === 0) throw notFound('machine');
        const printed = machinesFor(wanted);
        const count = printed.length * copies;
        if (count > MOST_LABELS) {
          const message = `These are ${count} labels. At most ${MOST_LABELS} are printed at once.`;
          throw invalid([{ field: 'copies', message }]);
        }
        const labels = printed.flatMap(({ id, name, place }) =>
          Array.from({ length: copies }, () => ({
            machine: { name, place },
            address: addressOf(host, `/m/${shortOf(id, machines)}`),
          })),
        );
        const pdf = await threads.run('print-labels', { labels, size, paper });
        return { body: Buffer.from(pdf), fileName: 'labels.pdf' };
      },
    }),
  ];
}
