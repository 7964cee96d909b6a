import { MACHINE_KINDS } from '../model/vocabulary.js';
import type { PracticeGame } from './case.js';
import { LEVEL_IDS } from './levels.js';

/** So much is kept of a game, and no more is taken for one. */
const MOST_ACTS = 400;
const MOST_ACT = 400;

/** Whether something that a device kept is a game still; what is not is left out. */
export function isGame(kept: unknown): kept is PracticeGame {
  if (typeof kept !== 'object' || kept === null) return false;
  const { seed, level, machine, acts, fouling } = kept as Partial<PracticeGame>;
  return (
    Number.isInteger(seed) &&
    seed! >= 0 &&
    seed! < 2 ** 32 &&
    LEVEL_IDS.some((id) => id === level) &&
    typeof machine === 'object' &&
    typeof machine.name === 'string' &&
    MACHINE_KINDS.some((kind) => kind === machine.kind) &&
    typeof machine.features === 'object' &&
    (fouling === undefined || typeof fouling === 'object') &&
    Array.isArray(acts) &&
    acts.length <= MOST_ACTS &&
    acts.every((act) => typeof act === 'string' && act.length <= MOST_ACT)
  );
}
