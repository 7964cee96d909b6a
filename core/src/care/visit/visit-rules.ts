import type { FieldProblem } from '../../model/check.js';
import { instantsIn } from '../../model/instants.js';
import { QUANTITIES } from '../../model/quantities.js';
import {
  VisitProgress as VisitProgressSchema,
  type Machine,
  type Visit,
  type VisitDraft,
  type VisitProgress,
} from '../../model/schemas.js';
import { wrongTime } from '../../units/clock.js';
import { isWrong, readReading } from '../../units/reading.js';
import { tasksOf } from '../catalogue/lookup.js';
import { planVisit, type VisitMachine } from './plan.js';

/** What is wrong with a visit to be begun: machines that are not there, tasks that they do not have. */
export function checkVisit({ tasks }: VisitDraft, machines: readonly Machine[]): FieldProblem[] {
  return tasks.flatMap(({ machineId, task }, index): FieldProblem[] => {
    const machine = machines.find(({ id }) => id === machineId);
    if (!machine) {
      return [{ field: `tasks.${index}.machineId`, message: 'There is no such machine.' }];
    }
    return tasksOf(machine).some(({ id }) => id === task)
      ? []
      : [{ field: `tasks.${index}.task`, message: 'This machine has no such task.' }];
  });
}

/**
 * What is wrong with what a visit has noted: figures that cannot be, times that have not come yet.
 * @param now UTC instant, milliseconds
 */
export function checkProgress(
  visit: Pick<Visit, 'tasks'>,
  progress: VisitProgress,
  machines: readonly VisitMachine[],
  now: number,
): FieldProblem[] {
  const times = instantsIn(VisitProgressSchema, progress).flatMap(
    ({ path, at }): FieldProblem[] => {
      const message = wrongTime(at, now);
      return message ? [{ field: `progress.${path}`, message }] : [];
    },
  );
  return [...times, ...wrongFigures(visit, progress, machines)];
}

function wrongFigures(
  visit: Pick<Visit, 'tasks'>,
  { readings }: Pick<VisitProgress, 'readings'>,
  machines: readonly VisitMachine[],
): FieldProblem[] {
  if (Object.keys(readings).length === 0) return [];
  return planVisit(visit.tasks, machines).steps.flatMap(({ key, step }): FieldProblem[] => {
    const told = readings[key];
    if (!told || !step.reading) return [];
    const { unit } = QUANTITIES[step.reading];
    const reading = readReading({ quantity: step.reading, value: told.value, unit });
    return isWrong(reading)
      ? [{ field: `progress.readings.${key}.value`, message: reading.message }]
      : [];
  });
}

type WithTasks = Pick<Visit, 'tasks'>;

/** Whether two visits have a task of the same machine in common: begun twice, it would be recorded twice. */
export const sharesTask = (a: WithTasks, b: WithTasks): boolean =>
  a.tasks.some((one) =>
    b.tasks.some(({ machineId, task }) => machineId === one.machineId && task === one.task),
  );
