import {
  checkOwnTasks,
  checkRules,
  isZone,
  type Household,
  type HouseholdDraft,
  type MachineDraft,
  type SetupDraft,
} from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { invalid, notFound, ProblemError, stale } from '../http/problem.js';
import type { Route } from '../http/route.js';
import type { Store } from '../store/store.js';

/** @throws 404 before the first start is done */
export function householdOf(store: Store): Household {
  const household = store.household.get();
  if (!household) throw notFound('household yet');
  return household;
}

function mustHaveZone(draft: HouseholdDraft, field: string): void {
  if (!isZone(draft.zone)) {
    throw invalid([
      { field, message: 'There is no such time zone. Choose one, such as Europe/Vienna.' },
    ]);
  }
}

function mustHaveRightRules(draft: MachineDraft, prefix = ''): void {
  const problems = [...checkRules(draft), ...checkOwnTasks(draft)];
  if (problems.length) {
    throw invalid(problems.map((one) => ({ ...one, field: prefix + one.field })));
  }
}

export const householdRoutes = (store: Store): Route[] => [
  {
    method: 'post',
    path: '/api/v1/setup',
    summary: 'First start: the household and its machines, all or nothing',
    body: 'SetupDraft',
    answers: Type.Object({ household: schemas.Household, machines: Type.Array(schemas.Machine) }),
    handle: ({ body }) => {
      const { household, machines } = body as SetupDraft;
      mustHaveZone(household, 'household.zone');
      machines.forEach((draft, i) => mustHaveRightRules(draft, `machines.${i}.`));
      const there = store.household.get();
      if (there) {
        throw new ProblemError(409, 'This household is set up already.', {
          current: there,
          yours: household,
        });
      }
      const made = store.household.create(household);
      const entered = machines.map((draft) => store.machines.create(draft));
      store.changed({ topic: 'household' });
      return { status: 201, body: { household: made, machines: entered } };
    },
  },
  {
    method: 'get',
    path: '/api/v1/household',
    summary: 'The household',
    answers: schemas.Household,
    handle: () => {
      const household = householdOf(store);
      return { body: household, version: household.version };
    },
  },
  {
    method: 'put',
    path: '/api/v1/household',
    summary: 'Change the household',
    body: 'HouseholdDraft',
    guarded: true,
    answers: schemas.Household,
    handle: ({ body, version }) => {
      const draft = body as HouseholdDraft;
      const current = householdOf(store);
      if (current.version !== version) throw stale(current, draft);
      mustHaveZone(draft, 'zone');
      const household = store.household.replace(current.id, version, draft);
      store.changed({ topic: 'household' });
      return { body: household, version: household.version };
    },
  },
  {
    method: 'get',
    path: '/api/v1/machines',
    summary: 'All machines',
    answers: Type.Array(schemas.Machine),
    handle: () => ({ body: store.machines.list() }),
  },
  {
    method: 'post',
    path: '/api/v1/machines',
    summary: 'Add a machine',
    body: 'MachineDraft',
    answers: schemas.Machine,
    handle: ({ body }) => {
      householdOf(store);
      mustHaveRightRules(body as MachineDraft);
      const machine = store.machines.create(body as MachineDraft);
      store.changed({ topic: 'machines', id: machine.id });
      return { status: 201, body: machine, version: machine.version };
    },
  },
  {
    method: 'get',
    path: '/api/v1/machines/{id}',
    summary: 'One machine',
    answers: schemas.Machine,
    handle: ({ params }) => {
      const machine = store.machines.get(params.id);
      if (!machine) throw notFound('machine');
      return { body: machine, version: machine.version };
    },
  },
  {
    method: 'put',
    path: '/api/v1/machines/{id}',
    summary: 'Change a machine',
    body: 'MachineDraft',
    guarded: true,
    answers: schemas.Machine,
    handle: ({ params, body, version }) => {
      const current = store.machines.get(params.id);
      if (!current) throw notFound('machine');
      if (current.version !== version) throw stale(current, body);
      mustHaveRightRules(body as MachineDraft);
      const machine = store.machines.replace(current.id, version, body as MachineDraft);
      store.changed({ topic: 'machines', id: machine.id });
      return { body: machine, version: machine.version };
    },
  },
];
