import { checkSupply, suppliesView } from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import { mustBeRight } from '../http/problem.js';
import { route, workedRoute, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { mustHaveRoom, MOST } from '../work/ceilings.js';
import { householdOf, houseOf } from '../work/household.js';
import { currentOf } from '../work/records.js';
import { Answered, inSteps } from '../work/steps.js';

/** Supplies: what is kept, what is left of it, and when it has to be bought. */
export const supplyRoutes = (store: Store): Route[] => {
  const told = () => store.changed({ topic: 'supplies' });
  const view = new Answered(store, async () =>
    inSteps(suppliesView(houseOf(store), store.supplies.list(), store.entries.stockEvents())),
  );
  return [
    workedRoute({
      path: '/api/v1/supplies',
      summary: 'Every supply with what is left, what it is used for, and when it runs out',
      answers: 'Supplies',
      handle: () => view.get(),
    }),
    route({
      method: 'post',
      path: '/api/v1/supplies',
      summary: 'Keep a supply',
      body: 'SupplyDraft',
      answers: schemas.Supply,
      handle: ({ body }) => {
        householdOf(store);
        mustBeRight(checkSupply(body, store.supplies.list()));
        mustHaveRoom(store.supplies.list().length, MOST.supplies, 'supplies');
        const supply = store.supplies.create(body);
        told();
        return { status: 201, body: supply, version: supply.version };
      },
    }),
    route({
      method: 'put',
      path: '/api/v1/supplies/{id}',
      summary: 'Change a supply, or put it away',
      body: 'SupplyDraft',
      guarded: true,
      answers: schemas.Supply,
      handle: (ask) => {
        const { id, version } = currentOf('supply', (id) => store.supplies.get(id), ask);
        mustBeRight(checkSupply(ask.body, store.supplies.list(), id));
        const supply = store.supplies.replace(id, version, ask.body);
        told();
        return { body: supply, version: supply.version };
      },
    }),
  ];
};
