import { COMBINED_CAUSES } from './combined-causes.js';
import type { TroubleCause } from './types.js';
import { DRYER_CAUSES } from './dryer-causes.js';
import { WASHER_CAUSES } from './washer-causes.js';
import { spoken } from '../../regions/spoken.js';

export const CAUSES: readonly TroubleCause[] = spoken([
  ...WASHER_CAUSES,
  ...DRYER_CAUSES,
  ...COMBINED_CAUSES,
]);

/** @throws RangeError for an unknown cause */
export function causeById(id: string): TroubleCause {
  const found = CAUSES.find((one) => one.id === id);
  if (!found) throw new RangeError(`There is no cause "${id}".`);
  return found;
}
