import {
  caseSheet,
  caseState,
  machineSheet,
  situationIn,
  stateOf,
  troubleView,
  visitSheet,
  type Sheet,
} from '@needlecase/core';
import type { Answer } from '../http/answer.js';
import { notFound } from '../http/problem.js';
import { fileRoute, type Route } from '../http/route.js';
import { printSheet } from '../pdf/print.js';
import type { Store } from '../store/store.js';
import { knownOf } from '../work/cases.js';
import { householdOf, machineOf } from '../work/household.js';

/** So many entries are looked through, loads and all. */
const MOST_ENTRIES = 2000;

/** Sheets to print and hand to somebody who comes to look at a machine. */
export const handoverRoutes = (store: Store): Route[] => {
  const print = async (sheet: Sheet): Promise<Answer<Buffer>> => {
    const pictures = sheet.photos.flatMap((id) => store.photos.picture(id) ?? []);
    const name = sheet.title.replaceAll(/[^\p{L}\p{N}]+/gu, '-').toLowerCase();
    return { body: await printSheet(sheet, pictures), fileName: `${name}.pdf` };
  };
  return [
    fileRoute({
      path: '/api/v1/machines/{id}/record.pdf',
      summary:
        'A machine’s record to print: how it is built, what is open, what was done and found',
      gives: 'application/pdf',
      handle: ({ params }) => {
        const machine = machineOf(store, params.id);
        const household = householdOf(store);
        const now = Date.now();
        const [history] = store.entries.histories([machine]);
        const state = stateOf(machine, history!, household, now);
        const { entries } = store.entries.list({ machine: machine.id, limit: MOST_ENTRIES });
        return print(machineSheet(machine, household, state, entries, now));
      },
    }),
    fileRoute({
      path: '/api/v1/cases/{id}/summary.pdf',
      summary: 'A case of trouble to print for a professional: seen, checked, measured, suspected',
      gives: 'application/pdf',
      handle: ({ params }) => {
        const record = store.cases.get(params.id);
        if (!record) throw notFound('case');
        const machine = machineOf(store, record.machineId);
        const household = householdOf(store);
        const now = Date.now();
        const { situation, said } = knownOf(store, machine);
        const state = caseState(record);
        const view = troubleView(situationIn(situation, state), state.answers, [], said);
        return print(caseSheet(record, machine, household, view, now));
      },
    }),
    fileRoute({
      path: '/api/v1/runs/{id}/visit.pdf',
      summary: 'A visit to print: what came of it, or while it is open, its steps',
      gives: 'application/pdf',
      handle: ({ params }) => {
        const visit = store.visits.get(params.id);
        if (!visit) throw notFound('visit');
        const entries = store.entries.ofVisit(visit.id);
        return print(
          visitSheet(visit, store.machines.list(), householdOf(store), entries, Date.now()),
        );
      },
    }),
  ];
};
