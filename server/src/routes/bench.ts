import { benchView, machineView, schoolsView } from '@needlecase/core';
import { route, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { houseOf, householdOf, machineOf } from '../work/household.js';

/** What is derived from the log: the bench, and a machine's line. */
export const benchRoutes = (store: Store): Route[] => [
  route({
    method: 'get',
    path: '/api/v1/bench',
    summary: 'What is due, every machine’s line, and the next visit',
    answers: 'Bench',
    handle: () => ({
      body: benchView(houseOf(store), {
        visits: store.visits.open(),
        cases: store.cases.list(),
        supplies: store.supplies.list(),
        stockEvents: () => store.entries.stockEvents(),
      }),
    }),
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
    path: '/api/v1/schools',
    summary: 'What each rhythm asks of this house in a year, and the chance of being late with it',
    answers: 'Schools',
    handle: () => ({ body: schoolsView(houseOf(store), store.supplies.list()) }),
  }),
];
