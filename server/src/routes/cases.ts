import {
  caseState,
  checkCaseEvents,
  completed,
  entriesOfCase,
  lastFigures,
  withFigures,
  type CaseNews,
  type CaseRecord,
  type Machine,
} from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { invalid, notFound } from '../http/problem.js';
import type { Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { householdOf } from './household.js';

/** Cases of trouble: opened, added to, never rewritten. */
export const caseRoutes = (store: Store): Route[] => [
  {
    method: 'get',
    path: '/api/v1/cases',
    summary: 'Every case of trouble with everything that happened in it',
    answers: Type.Array(schemas.CaseRecord),
    handle: () => ({ body: store.cases.list() }),
  },
  {
    method: 'get',
    path: '/api/v1/cases/{id}',
    summary: 'One case of trouble',
    answers: schemas.CaseRecord,
    handle: ({ params }) => {
      const found = store.cases.get(params.id);
      if (!found) throw notFound('case');
      return { body: found };
    },
  },
  {
    method: 'post',
    path: '/api/v1/cases',
    summary:
      'Open a case, or add to one what happened since; what is in it already is passed over, so that a retry adds nothing. Codes, figures and its end also go into the log.',
    body: 'CaseNews',
    answers: schemas.CaseRecord,
    handle: ({ body }) => {
      const news = body as CaseNews;
      const { zone } = householdOf(store);
      const machine = store.machines.get(news.machineId);
      if (!machine) {
        throw invalid([{ field: 'machineId', message: 'There is no such machine.' }]);
      }
      const known = store.cases.get(news.id);
      if (known && known.machineId !== machine.id) {
        throw invalid([{ field: 'machineId', message: 'This case is of another machine.' }]);
      }
      const problems = checkCaseEvents(news.events, machine.kind, Date.now());
      if (problems.length) throw invalid(problems);
      const record = addToCase(store, news, machine, zone);
      return { status: known ? 200 : 201, body: record };
    },
  },
];

/** Adds to a case what is not in it yet, and to the log what follows from it. */
export function addToCase(
  store: Store,
  news: CaseNews,
  machine: Machine,
  zone: string,
): CaseRecord {
  const known = store.cases.get(news.id);
  if (!known) store.cases.open(news.id, machine.id);
  const record: CaseRecord = known ?? { id: news.id, machineId: machine.id, events: [] };
  let logged = false;
  const now = () => {
    const [history] = store.entries.histories([machine]);
    return withFigures(caseState(record), lastFigures(history!));
  };
  for (const event of news.events) {
    if (store.cases.knows(event.id)) continue;
    store.cases.add(record.id, event);
    record.events.push(event);
    for (const draft of entriesOfCase(event, now(), record)) {
      if (store.entries.get(draft.id!)) continue;
      store.entries.add(completed(draft, machine), { zone, author: 'household' });
      logged = true;
    }
  }
  store.changed({ topic: 'cases', id: record.id });
  if (logged) store.changed({ topic: 'entries', id: machine.id });
  return record;
}
