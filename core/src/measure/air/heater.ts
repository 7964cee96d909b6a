import type { Household, Machine } from '../../model/schemas.js';
import { rulesOf } from '../../regions/rules.js';

/** W of a machine's heater: by its type plate, or as is usual in this kind of house. */
export const heaterOf = (
  machine: Pick<Machine, 'features'> | undefined,
  household: Pick<Household, 'region' | 'units'>,
): number => machine?.features.heater ?? rulesOf(household).heater;
