import {
  benchView,
  machineView,
  SECTION,
  sectionOf,
  sectionsOf,
  type BenchView,
  type EntryKind,
  type House,
  type Kept,
} from '@needlecase/core';
import { yearView } from '@needlecase/core/views/year';
import type { Answer } from '../http/answer.js';
import { route, workedRoute, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import type { Threads } from '../threads/threads.js';
import { CaseLooks } from '../work/case-looks.js';
import type { HindsightKeeper } from '../work/hindsight.js';
import type { MachineDays } from '../work/machine-days.js';
import type { Signals } from '../work/signals.js';
import { chartsOf, lifeOf } from '../work/machine-record.js';
import { houseOf, householdOf, machineOf } from '../work/household.js';
import { Remember } from '../work/steps.js';

/** What is derived from the log: the bench, and a machine's line. */
export const benchRoutes = (
  store: Store,
  threads: Threads,
  days: MachineDays,
  hindsight: HindsightKeeper,
  signals: Signals,
): Route[] => {
  const looks = new CaseLooks(store);
  /** The bench as it was answered last: the same for a minute, unless something was written. */
  const last = new Remember<Answer<BenchView>>();
  const bench = (asked: string | undefined): Answer<BenchView> => {
    const at = [store.revision, Math.floor(Date.now() / MINUTE_MS)];
    return last.getOr(asked ?? '', at, () => {
      const house = houseOf(store);
      const kept = {
        visits: store.visits.open(),
        cases: store.cases.list(),
        supplies: store.supplies.list(),
        stockEvents: () => store.entries.stockEvents(),
        planned: store.planned.list(),
        look: looks.of,
        signals: signals.of(house.machines, house.household.zone),
        section: sectionIn(house, asked, days),
      };
      const body = benchView(house, kept, days);
      return { body, written: JSON.stringify(body) };
    });
  };
  return [
    workedRoute({
      path: '/api/v1/bench',
      summary: 'What is due, every machine’s line, and the next visit',
      query: 'SectionQuery',
      answers: 'Bench',
      handle: async ({ query: { section } }) => {
        await days.warm();
        return bench(section);
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
    route({
      method: 'get',
      path: '/api/v1/year',
      summary: 'A year of care as it was: when, who, how long, and what it cost',
      answers: 'Year',
      handle: () => {
        const household = householdOf(store);
        const now = Date.now();
        const entries = store.entries.inOrder({ kinds: OF_A_YEAR, from: now - YEAR_MS });
        const kept = { machines: store.machines.list(), supplies: store.supplies.list() };
        return { body: yearView({ household, ...kept, entries, now }) };
      },
    }),
    workedRoute({
      path: '/api/v1/schools',
      summary:
        'What each rhythm asks of this house in a year, and the chance of being late with it',
      answers: 'Schools',
      handle: async () => ({ body: await threads.run('schools', undefined) }),
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
function sectionIn(house: House, asked: string | undefined, days: MachineDays): Kept['section'] {
  const sections = sectionsOf(house.machines, SECTION.shown);
  if (sections.length === 1) return undefined;
  const due = new Map(
    house.machines.map((machine, i) => {
      const { state } = days.of(machine, house.histories[i]!, house.household, house.now);
      return [machine.id, state.dues.filter(({ status }) => status === 'due').length];
    }),
  );
  const { id, machines } = sectionOf(sections, asked);
  const all = sections.map((one) => ({
    id: one.id,
    due: one.machines.reduce((sum, machine) => sum + due.get(machine.id)!, 0),
  }));
  return { told: { id, all }, machines };
}

const MINUTE_MS = 60_000;
/** What a year of care is told from, and from how long ago at most. */
const OF_A_YEAR: readonly EntryKind[] = [
  ...(['done', 'opened', 'bought', 'load'] as const),
  ...(['replaced', 'called'] as const),
];
const YEAR_MS = 430 * 86_400_000;
