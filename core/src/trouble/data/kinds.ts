import { MACHINE_KINDS, type MachineKind } from '../../model/vocabulary.js';

export const WASHERS = ['front-load-washer', 'top-load-washer'] as const;
export const FRONT = ['front-load-washer'] as const;
export const DRYERS = ['vented-dryer', 'condenser-dryer', 'heat-pump-dryer'] as const;
export const VENTED = ['vented-dryer'] as const;
/** Dryers that take the water out of the air themselves. */
export const CONDENSING = ['condenser-dryer', 'heat-pump-dryer'] as const;
export const ALL: readonly MachineKind[] = MACHINE_KINDS;
