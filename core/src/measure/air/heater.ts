import type { Machine } from '../../model/schemas.js';
import type { UnitSystem } from '../../model/vocabulary.js';

/**
 * W of a vented dryer's heater where its type plate was not read: on the household plug of most of the
 * world, or on the 240 V 30 A circuit of North America. Common practice.
 */
const USUAL_HEATER: Readonly<Record<UnitSystem, number>> = { metric: 2500, us: 5400 };

/** W of a machine's heater, by its type plate or as is usual where these units are. */
export const heaterOf = (
  machine: Pick<Machine, 'features'> | undefined,
  units: UnitSystem,
): number => machine?.features.heater ?? USUAL_HEATER[units];
