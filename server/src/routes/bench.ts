import {
  benchView,
  machineView,
  SECTION,
  sectionOf,
  sectionsOf,
  type BenchView,
  type House,
  type Kept,
  type SchoolsView,
  type Section,
} from '@needlecase/core';
import type { Answer } from '../http/answer.js';
import { route, workedRoute, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import type { Threads } from '../threads/threads.js';
import { CaseLooks } from '../work/case-looks.js';
import type { HindsightKeeper } from '../work/hindsight.js';
import type { MachineDays } from '../work/machine-days.js';
import type { Signals } from '../work/signals.js';
import { chartsOf, lifeOf } from '../work/machine-record.js';
import { houseOf, householdOf, inHouse, machineOf } from '../work/household.js';
import { Answered, momentOf } from '../work/steps.js';

/** What is derived from the log: the bench, and a machine's line. */
export const benchRoutes = (
  store: Store,
  threads: Threads,
  days: MachineDays,
  hindsight: HindsightKeeper,
  signals: Signals,
): Route[] => {
  const looks = new CaseLooks(store);
  /** The bench of each section as it was answered last: the same for a minute, unless something was written. */
  const last = new Map<string, { at: string; made: number; answer: Answer<BenchView> }>();
  const bench = (asked: string | undefined, arrived: number): Answer<BenchView> => {
    householdOf(store);
    const sections = sectionsOf(inHouse(store), SECTION.shown);
    const told = sectionOf(sections, asked);
    const at = `${momentOf(store)} ${store.planned.revision}`;
    const known = last.get(told.id);
    // Many who wait for it get the same: it was made after all of them asked.
    if (known && (known.at === at || known.made >= arrived)) return known.answer;
    const made = performance.now();
    const house = houseOf(store);
    const kept = {
      visits: store.visits.open(),
      cases: store.cases.list(),
      supplies: store.supplies.list(),
      stockEvents: () => store.entries.stockEvents(),
      planned: store.planned.list(),
      look: looks.of,
      signals: signals.of(house.machines, house.household.zone),
      section: sections.length > 1 ? sectionTold(house, sections, told, days) : undefined,
    };
    const body = benchView(house, kept, days);
    const answer = { body, written: JSON.stringify(body) };
    last.set(told.id, { at, made, answer });
    return answer;
  };
  const sectionNow = (asked?: string): Section => {
    householdOf(store);
    return sectionOf(sectionsOf(inHouse(store), SECTION.shown), asked);
  };
  const schools = new Map<string, Answered<SchoolsView>>();
  const schoolsOf = (id: string): Answered<SchoolsView> => {
    const known = schools.get(id);
    if (known) return known;
    const made = new Answered(store, () => {
      const machineIds = sectionNow(id).machines.map((one) => one.id);
      return threads.run('schools', { machineIds });
    });
    schools.set(id, made);
    return made;
  };
  const year = new Answered(store, () => threads.run('year', undefined));
  return [
    workedRoute({
      path: '/api/v1/bench',
      summary: 'What is due, every machine’s line, and the next visit',
      query: 'SectionQuery',
      answers: 'Bench',
      handle: async ({ query: { section }, arrived }) => {
        await days.warm();
        return bench(section, arrived);
      },
    }),
    route({
      method: 'get',
      path: '/api/v1/machines/{id}/line',
      summary:
        'A machine’s line with the state of every station, and why each task is due when it is',
      answers: 'MachineLine',
      handle: ({ params }) => {
        const household = householdOf(store);
        const machine = machineOf(store, params.id);
        const [history] = store.entries.histories([machine]);
        return { body: machineView(machine, history!, household, Date.now()) };
      },
    }),
    route({
      method: 'get',
      path: '/api/v1/machines/{id}/charts',
      summary: 'A machine’s figures along time, with what was done to it',
      answers: 'Charts',
      handle: ({ params }) => ({ body: chartsOf(store, machineOf(store, params.id)) }),
    }),
    route({
      method: 'get',
      path: '/api/v1/machines/{id}/life',
      summary: 'A machine’s age and hours, its parts and when they are due, what they cost',
      answers: 'Life',
      handle: ({ params }) => ({ body: lifeOf(store, machineOf(store, params.id), Date.now()) }),
    }),
    workedRoute({
      path: '/api/v1/year',
      summary: 'A year of care as it was: when, who, how long, and what it cost',
      answers: 'Year',
      handle: () => {
        householdOf(store);
        return year.get();
      },
    }),
    workedRoute({
      path: '/api/v1/schools',
      summary:
        'What each rhythm asks of this house in a year, and the chance of being late with it',
      query: 'SectionQuery',
      answers: 'Schools',
      handle: async ({ query: { section } }) => schoolsOf(sectionNow(section).id).get(),
    }),
    workedRoute({
      path: '/api/v1/hindsight',
      summary: 'How well was foretold what openings showed and what was wrong',
      answers: 'Hindsight',
      handle: async () => {
        householdOf(store);
        return { body: await hindsight.view() };
      },
    }),
  ];
};

/** Which machines of a large house are shown, and how much is due in each section. */
function sectionTold(
  house: House,
  sections: readonly Section[],
  { id, machines }: Section,
  days: MachineDays,
): Kept['section'] {
  const counted = days.due(house);
  const due = new Map(house.machines.map((machine, i) => [machine.id, counted[i]!]));
  const all = sections.map((one) => ({
    id: one.id,
    due: one.machines.reduce((sum, machine) => sum + due.get(machine.id)!, 0),
  }));
  return { told: { id, all }, machines };
}
