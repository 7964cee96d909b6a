import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { authorOf } from '../access/caller.js';
import { mustBeRight } from '../http/problem.js';
import { route, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { householdOf, machineOf } from '../work/household.js';
import { keepMeter, meterProblems, meterView, undoMeter } from '../work/meter.js';

/** Bytes of what is taken in at once. */
export const MOST_METER = 6_000_000;

/** What a machine's meter read, and the loads that were found in it. */
export const meterRoutes = (store: Store): Route[] => [
  route({
    method: 'get',
    path: '/api/v1/machines/{id}/meter',
    summary:
      'What a machine’s meter read on a day, and its loads; the last day where none is named',
    query: 'MeterQuery',
    answers: schemas.MeterView,
    handle: ({ params, query }) => {
      const { zone } = householdOf(store);
      return { body: meterView(store, machineOf(store, params.id), zone, query.day) };
    },
  }),
  route({
    method: 'post',
    path: '/api/v1/machines/{id}/meter',
    summary:
      'Keep what was found in a meter’s log, all or nothing; loads that it told before are passed over, and what was tapped is not counted twice',
    body: 'MeterImport',
    answers: schemas.MeterKept,
    handle: ({ params, body, caller }) => {
      const { zone } = householdOf(store);
      const machine = machineOf(store, params.id);
      mustBeRight(meterProblems(body, Date.now()));
      const kept = keepMeter(store, machine, body, { zone, author: authorOf(caller) });
      store.changed({ topic: 'entries', id: machine.id });
      return { status: 201, body: kept };
    },
  }),
  route({
    method: 'post',
    path: '/api/v1/machines/{id}/meter/undo',
    summary: 'Take loads of a meter back that came in together; what was tapped stands as it did',
    body: 'MeterUndo',
    answers: Type.Object({ undone: Type.Integer() }, { additionalProperties: false }),
    handle: ({ params, body, caller }) => {
      const { zone } = householdOf(store);
      const machine = machineOf(store, params.id);
      const undone = undoMeter(store, machine, body.ids, { zone, author: authorOf(caller) });
      store.changed({ topic: 'entries', id: machine.id });
      return { status: 201, body: { undone } };
    },
  }),
];
