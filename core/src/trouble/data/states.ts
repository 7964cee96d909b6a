import type { HiddenSign } from './types.js';
import { WASHERS } from './kinds.js';

/**
 * What nobody sees as such, and from which several signs follow: causes make it, and it makes the signs.
 * Common practice; the figures are judgement.
 */
export const HIDDEN_STATES: readonly HiddenSign[] = [
  {
    id: 'water-stands',
    kinds: WASHERS,
    leak: 0.003,
    shows: { 'wont-drain': 0.97, 'door-locked': 0.75, 'code-drain': 0.75, 'wont-spin': 0.85 },
  },
];
