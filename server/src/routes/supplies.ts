import { SUPPLIES, supplyStates, type FieldProblem, type SupplyDraft } from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { invalid, notFound, stale } from '../http/problem.js';
import type { Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { householdOf } from './household.js';

/** Supplies: what is kept, what is left of it, and when it has to be bought. */
export const supplyRoutes = (store: Store): Route[] => {
  const told = () => store.changed({ topic: 'supplies' });
  return [
    {
      method: 'get',
      path: '/api/v1/supplies',
      summary: 'Every supply with what is left, what it is used for, and when it runs out',
      answers: Type.Object({ supplies: Type.Array(Type.Object({ supply: schemas.Supply })) }),
      handle: () => {
        const household = householdOf(store);
        const machines = store.machines.list();
        const histories = store.entries.histories(machines);
        const house = { household, machines, histories, now: Date.now() };
        const states = supplyStates(store.supplies.list(), store.entries.stockEvents(), house);
        return { body: { household, machines, supplies: states } };
      },
    },
    {
      method: 'post',
      path: '/api/v1/supplies',
      summary: 'Keep a supply',
      body: 'SupplyDraft',
      answers: schemas.Supply,
      handle: ({ body }) => {
        const draft = body as SupplyDraft;
        householdOf(store);
        mustBeRight(draft, store);
        const supply = store.supplies.create(draft);
        told();
        return { status: 201, body: supply, version: supply.version };
      },
    },
    {
      method: 'put',
      path: '/api/v1/supplies/{id}',
      summary: 'Change a supply, or put it away',
      body: 'SupplyDraft',
      guarded: true,
      answers: schemas.Supply,
      handle: ({ params, body, version }) => {
        const current = store.supplies.get(params.id);
        if (!current) throw notFound('supply');
        if (current.version !== version) throw stale(current, body);
        mustBeRight(body as SupplyDraft, store, current.id);
        const supply = store.supplies.replace(current.id, version, body as SupplyDraft);
        told();
        return { body: supply, version: supply.version };
      },
    },
  ];
};

function mustBeRight({ item, unit }: SupplyDraft, store: Store, but?: string): void {
  const problems: FieldProblem[] = [];
  const kind = SUPPLIES.find(({ id }) => id === item);
  if (!kind && !item.startsWith('own-')) {
    problems.push({ field: 'item', message: 'The catalogue has no such supply.' });
  }
  if (kind && kind.unit !== unit) {
    problems.push({ field: 'unit', message: `The tasks reckon this one in ${kind.unit}.` });
  }
  if (store.supplies.list().some((one) => one.item === item && one.id !== but)) {
    problems.push({ field: 'item', message: 'This supply is kept already.' });
  }
  if (problems.length) throw invalid(problems);
}
