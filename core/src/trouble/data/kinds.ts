import { MACHINE_KINDS, type MachineKind } from '../../model/vocabulary.js';

export {
  CONDENSING,
  DRYERS,
  DRYING,
  FRONT_LOADERS as FRONT,
  VENTED,
  WASHERS,
} from '../../model/vocabulary.js';
export const ALL: readonly MachineKind[] = MACHINE_KINDS;
