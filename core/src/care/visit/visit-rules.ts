import type { FieldProblem } from '../../model/check.js';
import { QUANTITIES } from '../../model/quantities.js';
import type { Machine, Visit, VisitDraft, VisitProgress } from '../../model/schemas.js';
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

/** What is wrong with the figures that a visit has noted: those that cannot be. */
export function checkProgress(
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
