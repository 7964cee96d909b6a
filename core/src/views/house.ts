import {
  costOf,
  supplySteps,
  type StockEvent,
  type SupplyState,
  type YearCost,
} from '../care/house/supplies.js';
import { schoolYears, type House, type SchoolYear } from '../care/schedule/year.js';
import type { Household, Machine, Supply } from '../model/schemas.js';

/** Each school's year for a house, side by side. */
export interface SchoolsView {
  household: Household;
  schools: (SchoolYear & YearCost)[];
}

/**
 * Each school’s year for a house, with what its supplies cost.
 * @param supplies those that are kept
 */
export function schoolsView(house: House, supplies: readonly Supply[]): SchoolsView {
  const schools = schoolYears(house).map((year) => ({ ...year, ...costOf(year, supplies) }));
  return { household: house.household, schools };
}

/** Every supply with what is left, what it is used for, and when it runs out. */
export interface SuppliesView {
  household: Household;
  machines: Machine[];
  supplies: SupplyState[];
}

/**
 * The supplies of a house, the most pressing first; worked out in steps.
 * @param events all that changed a stock
 */
export function* suppliesView(
  house: House,
  supplies: readonly Supply[],
  events: readonly StockEvent[],
): Generator<undefined, SuppliesView> {
  const states = yield* supplySteps(supplies, events, house);
  return { household: house.household, machines: [...house.machines], supplies: states };
}
