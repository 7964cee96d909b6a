import type { Household, House, Machine } from '@needlecase/core';
import { notFound } from '../http/problem.js';
import type { Store } from '../store/store.js';

/** The household of the file. @throws 404 before the first start is done */
export function householdOf(store: Store): Household {
  const household = store.household.get();
  if (!household) throw notFound('household yet');
  return household;
}

/** A machine of the household. @throws 404 where there is none of this id */
export function machineOf(store: Store, id: string): Machine {
  const machine = store.machines.get(id);
  if (!machine) throw notFound('machine');
  return machine;
}

/** The machines that are in the house: those that were retired have only their record. */
export const inHouse = (store: Store): Machine[] =>
  store.machines.list().filter(({ retired }) => !retired);

/**
 * The house with its record, as it stands now.
 * @param only these of its machines; all where nothing is said
 * @throws 404 before the first start is done
 */
export function houseOf(store: Store, only?: ReadonlySet<string>): House {
  const household = householdOf(store);
  const all = inHouse(store);
  const machines = only ? all.filter(({ id }) => only.has(id)) : all;
  return { household, machines, histories: store.entries.histories(machines), now: Date.now() };
}
