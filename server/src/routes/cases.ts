import { caseState, checkCaseEvents, type CaseNews } from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { invalid, mustBeRight, notFound } from '../http/problem.js';
import { route, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { authorOf } from '../access/caller.js';
import { addToCase } from '../work/cases.js';
import { mustHaveRoom, MOST } from '../work/ceilings.js';
import { householdOf } from '../work/household.js';

/** Cases of trouble: opened, added to, never rewritten. */
export const caseRoutes = (store: Store): Route[] => {
  /** Events that are in another case already. */
  const elsewhere = ({ id, events }: CaseNews) =>
    events.flatMap((event, i) => {
      const of = store.cases.caseOf(event.id);
      if (of === undefined || of === id) return [];
      return [{ field: `events.${i}.id`, message: 'This id is of a happening in another case.' }];
    });
  const openCases = () =>
    store.cases.list().filter((one) => caseState(one).state !== 'closed').length;
  return [
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
      handle: ({ body: news, caller }) => {
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
        mustBeRight([...problems, ...elsewhere(news)]);
        if (!known) mustHaveRoom(openCases(), MOST.cases, 'cases of trouble that are not closed');
        const happened = known?.events.length ?? 0;
        const more = news.events.filter(({ id }) => store.cases.caseOf(id) === undefined).length;
        mustHaveRoom(happened + more - 1, MOST.happenings, 'happenings in this case', 'events');
        const record = addToCase(store, news, machine, { zone, author: authorOf(caller) });
        return { status: known ? 200 : 201, body: record };
      },
    }),
  ];
};
