import {
  knowsTask,
  MS_PER_DAY,
  REMEMBERED,
  checkOwnTasks,
  checkPages,
  checkRules,
  dayOf,
  isZone,
  type FieldProblem,
  type HouseholdDraft,
  type MachineDraft,
} from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { authorOf } from '../access/caller.js';
import { mustBeRight, ProblemError } from '../http/problem.js';
import { route, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { mustHaveRoom, MOST } from '../work/ceilings.js';
import { householdOf, machineOf } from '../work/household.js';
import { currentOf } from '../work/records.js';

const zoneProblems = ({ zone }: HouseholdDraft, field: string) =>
  isZone(zone)
    ? []
    : [{ field, message: 'There is no such time zone. Choose one, such as Europe/Vienna.' }];

const machineProblems = (draft: MachineDraft, prefix = '') =>
  [...checkRules(draft), ...checkOwnTasks(draft), ...checkPages(draft)].map((one) => ({
    ...one,
    field: prefix + one.field,
  }));

/** It is gone already, not some day; what took its place is another one that is still there. */
function retiredProblems(store: Store, id: string, { retired }: MachineDraft): FieldProblem[] {
  if (!retired) return [];
  const today = dayOf(Date.now(), householdOf(store).zone);
  const early =
    retired.on > today
      ? [{ field: 'retired.on', message: 'This is in the future. Give a day up to today.' }]
      : [];
  if (retired.by === undefined || retired.by === store.machines.get(id)?.retired?.by) return early;
  const heir = retired.by === id ? undefined : store.machines.get(retired.by);
  return heir && !heir.retired
    ? early
    : [...early, { field: 'retired.by', message: 'Choose another machine that is in the house.' }];
}

export const householdRoutes = (store: Store): Route[] => [
  route({
    method: 'post',
    path: '/api/v1/setup',
    summary: 'First start: the household and its machines, all or nothing',
    body: 'SetupDraft',
    answers: Type.Object(
      { household: schemas.Household, machines: Type.Array(schemas.Machine) },
      { additionalProperties: false },
    ),
    handle: ({ body: { household, machines, lastDone = [] }, caller }) => {
      mustBeRight([
        ...lastDone.flatMap(({ machine, task }, i) =>
          machines[machine] && knowsTask(machines[machine], task)
            ? []
            : [{ field: `lastDone.${i}.task`, message: 'This machine has no such task.' }],
        ),
        ...zoneProblems(household, 'household.zone'),
        ...machines.flatMap((draft, i) => machineProblems(draft, `machines.${i}.`)),
      ]);
      const there = store.household.get();
      if (there) {
        throw new ProblemError(409, 'This household is set up already.', {
          current: there,
          yours: household,
        });
      }
      const made = store.household.create(household);
      const entered = machines.map((draft) => store.machines.create(draft));
      const now = Date.now();
      for (const { machine, task, when } of lastDone) {
        const { say, days } = REMEMBERED[when];
        const at = new Date(now - days * MS_PER_DAY).toISOString();
        store.entries.add(
          {
            ...{ machineId: entered[machine]!.id, kind: 'done', task, at, source: 'log' },
            note: `As remembered at the first start: ${say.toLowerCase()}.`,
          },
          { zone: household.zone, author: authorOf(caller) },
        );
      }
      store.changed({ topic: 'household' });
      return { status: 201, body: { household: made, machines: entered } };
    },
  }),
  route({
    method: 'get',
    path: '/api/v1/household',
    summary: 'The household',
    answers: schemas.Household,
    handle: () => {
      const household = householdOf(store);
      return { body: household, version: household.version };
    },
  }),
  route({
    method: 'put',
    path: '/api/v1/household',
    summary: 'Change the household',
    body: 'HouseholdDraft',
    guarded: true,
    answers: schemas.Household,
    handle: (ask) => {
      const { id, version } = currentOf('household', () => householdOf(store), ask);
      mustBeRight(zoneProblems(ask.body, 'zone'));
      const household = store.household.replace(id, version, ask.body);
      store.changed({ topic: 'household' });
      return { body: household, version: household.version };
    },
  }),
  route({
    method: 'get',
    path: '/api/v1/machines',
    summary: 'All machines',
    answers: Type.Array(schemas.Machine),
    handle: () => ({ body: store.machines.list() }),
  }),
  route({
    method: 'post',
    path: '/api/v1/machines',
    summary: 'Add a machine',
    body: 'MachineDraft',
    answers: schemas.Machine,
    handle: ({ body }) => {
      householdOf(store);
      mustBeRight(machineProblems(body));
      mustHaveRoom(store.machines.count(), MOST.machines, 'machines');
      const machine = store.machines.create(body);
      store.changed({ topic: 'machines', id: machine.id });
      return { status: 201, body: machine, version: machine.version };
    },
  }),
  route({
    method: 'get',
    path: '/api/v1/machines/{id}',
    summary: 'One machine',
    answers: schemas.Machine,
    handle: ({ params }) => {
      const machine = machineOf(store, params.id);
      return { body: machine, version: machine.version };
    },
  }),
  route({
    method: 'put',
    path: '/api/v1/machines/{id}',
    summary: 'Change a machine',
    body: 'MachineDraft',
    guarded: true,
    answers: schemas.Machine,
    handle: (ask) => {
      const { id, version } = currentOf('machine', (id) => store.machines.get(id), ask);
      mustBeRight([...machineProblems(ask.body), ...retiredProblems(store, id, ask.body)]);
      const machine = store.machines.replace(id, version, ask.body);
      store.changed({ topic: 'machines', id: machine.id });
      return { body: machine, version: machine.version };
    },
  }),
  route({
    method: 'delete',
    path: '/api/v1/machines/{id}',
    summary: 'Take away a machine of which nothing was recorded; one with a record is retired',
    guarded: true,
    answers: schemas.Machine,
    handle: (ask) => {
      const machine = currentOf('machine', (id) => store.machines.get(id), ask);
      const isMetered = store.meters
        .list()
        .some(({ machineId, dryerId }) => machineId === machine.id || dryerId === machine.id);
      if (isMetered) {
        throw new ProblemError(409, 'A meter is set up on it. Take that away first.', {
          current: machine,
        });
      }
      if (store.documents.list(machine.id).length) {
        throw new ProblemError(409, 'Papers of it are kept. Take them away first.', {
          current: machine,
        });
      }
      const planned = store.visits
        .open()
        .some(({ tasks }) => tasks.some(({ machineId }) => machineId === machine.id));
      if (planned || !store.machines.remove(machine.id)) {
        throw new ProblemError(409, 'It has a record. Retire it instead: its record stays.', {
          current: machine,
        });
      }
      store.changed({ topic: 'machines', id: machine.id });
      return { body: machine };
    },
  }),
];
