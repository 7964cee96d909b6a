import type { Machine } from '../../model/schemas.js';
import { plusDays, type Day } from '../../units/calendar.js';
import { tasksOf } from '../catalogue/lookup.js';
import { LOAD_HABITS, type LoadHabit } from '../catalogue/data/habits.js';
import type { History } from '../record/history.js';

/** One habit of one machine over the last seven days. It is shown, never counted against anybody. */
export interface HabitRow {
  machineId: string;
  habit: string;
  name: string;
  why: string;
  when: LoadHabit['when'];
  /** The task that keeping it does. */
  task?: string;
  /** Whether it was noted, for the last seven days, today last. */
  days: boolean[];
}

/** What is done with each load of a machine, as it is built and used. */
export function habitsOf(machine: Pick<Machine, 'kind' | 'features' | 'habits'>): LoadHabit[] {
  const tasks = new Set(tasksOf(machine).map(({ id }) => id));
  return LOAD_HABITS.filter(
    ({ kinds, only, task }) =>
      kinds.includes(machine.kind) &&
      (only === undefined || machine.habits.includes(only)) &&
      (task === undefined || tasks.has(task)),
  );
}

/** The strip of a machine: each habit with the last seven days. */
export function habitRows(machine: Machine, history: History, today: Day): HabitRow[] {
  const week = [6, 5, 4, 3, 2, 1, 0].map((ago) => plusDays(today, -ago));
  return habitsOf(machine).map(({ id, name, why, when, task }) => {
    const noted = task
      ? new Set(
          (history.openings.get(task)?.list ?? [])
            .filter(({ cleaned }) => cleaned)
            .map(({ day }) => day),
        )
      : (history.habits.get(id) ?? new Set());
    return {
      machineId: machine.id,
      habit: id,
      name,
      why,
      when,
      ...(task ? { task } : {}),
      days: week.map((day) => noted.has(day)),
    };
  });
}
