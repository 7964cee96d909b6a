import { checkCaseEvents } from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { invalid, notFound } from '../http/problem.js';
import { route, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { addToCase } from '../work/cases.js';
import { householdOf } from '../work/household.js';

/** Cases of trouble: opened, added to, never rewritten. */
export const caseRoutes = (store: Store): Route[] => [
  route({
    method: 'get',
    path: '/api/v1/cases',
    summary: 'Every case of trouble with everything that happened in it',
    answers: Type.Array(schemas.CaseRecord),
    handle: () => ({ body: store.cases.list() }),
  }),
  route({
    method: 'get',
    path: '/api/v1/cases/{id}',
    summary: 'One case of trouble',
    answers: schemas.CaseRecord,
    handle: ({ params }) => {
      const found = store.cases.get(params.id);
      if (!found) throw notFound('case');
      return { body: found };
    },
  }),
  route({
    method: 'post',
    path: '/api/v1/cases',
    summary:
      'Open a case, or add to one what happened since; what is in it already is passed over, so that a retry adds nothing. Codes, figures and its end also go into the log.',
    body: 'CaseNews',
    answers: schemas.CaseRecord,
    handle: ({ body: news }) => {
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
  }),
];
