import type { Task } from '../types.js';
import { DRYER_TASKS } from './dryer-tasks.js';
import { WASHER_TASKS } from './washer-tasks.js';
import { spoken } from '../../../regions/spoken.js';

/**
 * Every task of the catalogue, in the natural order of a visit: dry before wet, top before bottom, behind
 * the machine last. It decides where needs and effects leave the order open.
 */
export const TASKS: readonly Task[] = spoken([...DRYER_TASKS, ...WASHER_TASKS]);
