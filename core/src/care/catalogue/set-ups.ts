import type { VisitTask } from '../../model/schemas.js';
import { SETUPS } from './data/setups.js';
import { setUpIdsOf, isTask, taskById } from './lookup.js';
import type { Build, SetUp, Task } from './types.js';

/** Key of a task's record within a visit. */
export const taskKey = ({ machineId, task }: VisitTask): string => `${machineId}/${task}`;

/** The set-ups of some tasks of a machine, each once, in the order in which they are made. */
export function setUpsOf(machine: Build, tasks: readonly Task[]): SetUp[] {
  const ids = new Set(tasks.flatMap((task) => setUpIdsOf(task, machine)));
  return SETUPS.filter(({ id }) => ids.has(id));
}

/** Minutes at work and waiting for some tasks of one machine, each set-up counted once. */
export function minutesOf(
  machine: Build,
  tasks: readonly Task[],
): { hands: number; waiting: number } {
  const setups = setUpsOf(machine, tasks).reduce((sum, { minutes }) => sum + minutes, 0);
  return {
    hands: tasks.reduce((sum, { minutes }) => sum + minutes.hands, setups),
    waiting: tasks.reduce((sum, { minutes }) => sum + minutes.waiting, 0),
  };
}

/** Tasks without those that another of them does along the way. */
export function withoutCovered<T extends VisitTask>(tasks: readonly T[]): T[] {
  return tasks.filter(
    ({ machineId, task }) =>
      !tasks.some(
        (other) =>
          other.machineId === machineId &&
          isTask(other.task) &&
          taskById(other.task).covers?.includes(task),
      ),
  );
}
