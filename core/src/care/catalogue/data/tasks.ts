import type { Task } from '../types.js';
import { DRYER_TASKS } from './dryer-tasks.js';
import { WASHER_TASKS } from './washer-tasks.js';

/** Every task of the catalogue. */
export const TASKS: readonly Task[] = [...DRYER_TASKS, ...WASHER_TASKS];
