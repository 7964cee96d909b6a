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
import Type from 'typebox';
import { notFound } from '../http/problem.js';
import type { Answer, FileRoute } from '../http/route.js';
import { printSheet } from '../pdf/print.js';
import type { Store } from '../store/store.js';
import { householdOf } from './household.js';
import { knownOf } from './trouble.js';

/** So many entries are looked through, loads and all. */
const MOST_ENTRIES = 2000;
const Pdf = Type.String({ title: 'Pdf' });

/** Sheets to print and hand to somebody who comes to look at a machine. */
export const handoverRoutes = (store: Store): FileRoute[] => {
  const print = async (sheet: Sheet): Promise<Answer> => {
    const pictures = sheet.photos.flatMap((id) => store.photos.picture(id) ?? []);
    const name = sheet.title.replaceAll(/[^\p{L}\p{N}]+/gu, '-').toLowerCase();
    return { body: await printSheet(sheet, pictures), fileName: `${name}.pdf` };
  };
  return [
    {
      method: 'get',
      path: '/api/v1/machines/{id}/record.pdf',
      summary:
        'A machine’s record to print: how it is built, what is open, what was done and found',
      answers: Pdf,
      gives: 'application/pdf',
      handle: ({ params }) => {
        const machine = store.machines.get(params.id);
        if (!machine) throw notFound('machine');
        const household = householdOf(store);
        const now = Date.now();
        const [history] = store.entries.histories([machine]);
        const state = stateOf(machine, history!, household, now);
        const { entries } = store.entries.list({ machine: machine.id, limit: MOST_ENTRIES });
        return print(machineSheet(machine, household, state, entries, now));
      },
    },
    {
      method: 'get',
      path: '/api/v1/cases/{id}/summary.pdf',
      summary: 'A case of trouble to print for a professional: seen, checked, measured, suspected',
      answers: Pdf,
      gives: 'application/pdf',
      handle: ({ params }) => {
        const record = store.cases.get(params.id);
        const machine = record && store.machines.get(record.machineId);
        if (!machine) throw notFound('case');
        const household = householdOf(store);
        const now = Date.now();
        const { situation, said } = knownOf(store, machine);
        const state = caseState(record);
        const view = troubleView(situationIn(situation, state), state.answers, [], said);
        return print(caseSheet(record, machine, household, view, now));
      },
    },
    {
      method: 'get',
      path: '/api/v1/runs/{id}/visit.pdf',
      summary: 'A visit to print: what came of it, or while it is open, its steps',
      answers: Pdf,
      gives: 'application/pdf',
      handle: ({ params }) => {
        const run = store.runs.get(params.id);
        if (!run) throw notFound('run');
        const entries = store.entries.ofVisit(run.id);
        return print(
          visitSheet(run, store.machines.list(), householdOf(store), entries, Date.now()),
        );
      },
    },
  ];
};
