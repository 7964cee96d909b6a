import type { Entry, Machine } from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { authorOf } from '../access/caller.js';
import { mustBeRight } from '../http/problem.js';
import { route, type Route } from '../http/route.js';
import { MOST_METER } from '../http/sizes.js';
import type { Store } from '../store/store.js';
import { householdOf, machineOf } from '../work/household.js';
import type { Signals } from '../work/signals.js';
import { joinLoads, nameLoad, partLoad } from '../work/meter-by-hand.js';
import { keepMeter, meterProblems, meterView, undoMeter } from '../work/meter.js';

/** What a machine's meter read, and the loads that were found in it. */
export const meterRoutes = (store: Store, signals: Signals): Route[] => [
  route({
    method: 'get',
    path: '/api/v1/machines/{id}/meter',
    summary:
      'What a machine’s meter read on a day, and its loads; the last day where none is named',
    query: 'MeterQuery',
    answers: schemas.MeterView,
    handle: ({ params, query }) => {
      const { zone } = householdOf(store);
      const machine = machineOf(store, params.id);
      const told = signals.told(machine, zone);
      return { body: meterView(store, machine, zone, told, query.day) };
    },
  }),
  route({
    method: 'post',
    path: '/api/v1/machines/{id}/meter',
    summary:
      'Keep what was found in a meter’s log, all or nothing; loads that it told before are passed over, and what was tapped is not counted twice',
    body: 'MeterImport',
    most: MOST_METER,
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
  route({
    method: 'post',
    path: '/api/v1/machines/{id}/meter/join',
    summary: 'Say of two loads of a meter that they were one; the pause between them is learned',
    body: 'MeterJoin',
    answers: Type.Array(schemas.Entry),
    handle: ({ params, body, caller }) =>
      byHand(store, params.id, (machine, zone) => [
        joinLoads(store, machine, body.ids, { zone, author: authorOf(caller) }),
      ]),
  }),
  route({
    method: 'post',
    path: '/api/v1/machines/{id}/meter/part',
    summary: 'Say of a load of a meter that it was two; it is parted in its longest pause',
    body: 'MeterPart',
    answers: Type.Array(schemas.Entry),
    handle: ({ params, body, caller }) =>
      byHand(store, params.id, (machine, zone) =>
        partLoad(store, machine, body.id, { zone, author: authorOf(caller) }),
      ),
  }),
  route({
    method: 'post',
    path: '/api/v1/machines/{id}/meter/name',
    summary: 'Say what the programme of a load is called; others like it are called so, too',
    body: 'MeterName',
    answers: Type.Array(schemas.Entry),
    handle: ({ params, body, caller }) =>
      byHand(store, params.id, (machine, zone) => [
        nameLoad(store, machine, body, { zone, author: authorOf(caller) }),
      ]),
  }),
];

function byHand(
  store: Store,
  id: string,
  work: (machine: Machine, zone: string) => Entry[],
): { status: number; body: Entry[] } {
  const { zone } = householdOf(store);
  const machine = machineOf(store, id);
  const body = work(machine, zone);
  store.changed({ topic: 'entries', id: machine.id });
  return { status: 201, body };
}
