import type { Machine } from '../../model/schemas.js';
import type { Day } from '../../units/calendar.js';
import { taskOf } from '../catalogue/lookup.js';
import type { Due, DueStatus } from './due.js';
import { sayState, why } from './explain.js';

export interface DueSummary {
  machineId: string;
  task: string;
  name: string;
  station: string;
  status: DueStatus;
  said: string;
  why: string;
  /** Work for somebody trained: told, and never proposed as a visit. */
  professional?: true;
  /** Neglected, it can hurt somebody. */
  safety?: true;
  on?: Day;
}

/**
 * A due date in a few words, for the bench and the line.
 * @param today calendar date in the household’s zone
 */
export function dueSummary(machine: Machine, one: Due, today: Day): DueSummary {
  const task = taskOf(machine, one.task);
  return {
    machineId: machine.id,
    task: one.task,
    name: task.name,
    station: one.station,
    status: one.status,
    said: sayState(one, machine, today),
    why: why(task, one, today).short,
    ...(task.professional ? { professional: true as const } : {}),
    ...(one.safety ? { safety: one.safety } : {}),
    ...(one.on ? { on: one.on } : {}),
  };
}
