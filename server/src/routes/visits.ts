import { checkProgress, checkVisit, entriesOf, sharesTask, type Visit } from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { mustBeRight, notFound, ProblemError } from '../http/problem.js';
import { route, type Ask, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { authorOf } from '../access/caller.js';
import { undo } from '../work/entries.js';
import { mustHaveRoom, MOST } from '../work/ceilings.js';
import { householdOf } from '../work/household.js';
import { currentOf } from '../work/records.js';

const FinishedVisit = Type.Object(
  { run: schemas.Visit, entries: Type.Array(schemas.Entry) },
  { additionalProperties: false },
);

export const visitRoutes = (store: Store): Route[] => {
  const find = (id: string) => store.visits.get(id);
  const known = ({ params }: Pick<Ask, 'params'>): Visit => {
    const visit = find(params.id);
    if (!visit) throw notFound('visit');
    return visit;
  };
  const told = (visit: Visit) => store.changed({ topic: 'runs', id: visit.id });

  return [
    route({
      method: 'get',
      path: '/api/v1/runs',
      summary: 'Visits begun and not ended',
      answers: Type.Array(schemas.Visit),
      handle: () => ({ body: store.visits.open() }),
    }),
    route({
      method: 'post',
      path: '/api/v1/runs',
      summary: 'Begin a visit of some tasks',
      body: 'VisitDraft',
      answers: schemas.Visit,
      handle: ({ body }) => {
        mustBeRight(checkVisit(body, store.machines.list()));
        const underWay = body.onlyIfNew && store.visits.open().find((one) => sharesTask(one, body));
        if (underWay) {
          throw new ProblemError(409, 'This work is under way already.', {
            detail: 'Go on with the visit that was begun, or begin another all the same.',
            current: underWay,
            yours: body,
          });
        }
        const open = store.visits.open().length;
        mustHaveRoom(open, MOST.visits, 'visits under way');
        const visit = store.visits.create(body);
        told(visit);
        return { status: 201, body: visit, version: visit.version };
      },
    }),
    route({
      method: 'get',
      path: '/api/v1/runs/{id}',
      summary: 'One visit',
      answers: schemas.Visit,
      handle: (ask) => {
        const visit = known(ask);
        return { body: visit, version: visit.version };
      },
    }),
    route({
      method: 'patch',
      path: '/api/v1/runs/{id}',
      summary: 'Keep the progress of a visit; pause it, go on, or give it up',
      body: 'VisitChange',
      guarded: true,
      answers: schemas.Visit,
      handle: (ask) => {
        const visit = currentOf('visit', find, ask);
        if (visit.state === 'finished') {
          throw new ProblemError(409, 'This visit is finished.', {
            current: visit,
            yours: ask.body,
          });
        }
        const { progress } = ask.body;
        if (progress)
          mustBeRight(checkProgress(visit, progress, store.machines.list(), Date.now()));
        const changed = store.visits.change(visit, ask.body);
        told(changed);
        return { body: changed, version: changed.version };
      },
    }),
    route({
      method: 'post',
      path: '/api/v1/runs/{id}/finish',
      summary: 'Finish a visit: what was done and measured is recorded',
      answers: FinishedVisit,
      handle: (ask) => {
        const visit = known(ask);
        if (visit.state === 'finished') {
          const entries = store.entries.ofVisit(visit.id);
          return { body: { run: visit, entries }, version: visit.version };
        }
        const { zone } = householdOf(store);
        const origin = { zone, author: authorOf(ask.caller), runId: visit.id };
        const entries = entriesOf(visit, store.machines.list(), Date.now()).map((draft) =>
          store.entries.add(draft, origin),
        );
        const finished = store.visits.change(visit, { state: 'finished' });
        told(finished);
        store.changed({ topic: 'entries' });
        return { body: { run: finished, entries }, version: finished.version };
      },
    }),
    route({
      method: 'post',
      path: '/api/v1/runs/{id}/undo',
      summary: 'Take a finished visit back: its entries are undone, and it can go on',
      answers: schemas.Visit,
      handle: (ask) => {
        const visit = known(ask);
        if (visit.state !== 'finished') {
          throw new ProblemError(409, 'This visit is not finished.', { current: visit });
        }
        undo(store, store.entries.ofVisit(visit.id), householdOf(store).zone, authorOf(ask.caller));
        const open = store.visits.change(visit, { state: 'paused' });
        told(open);
        store.changed({ topic: 'entries' });
        return { body: open, version: open.version };
      },
    }),
  ];
};
