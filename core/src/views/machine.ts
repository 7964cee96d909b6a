import { taskOf } from '../care/catalogue/lookup.js';
import { choosing, type Choosing } from '../care/house/choosing.js';
import { habitRows, type HabitRow } from '../care/house/habits.js';
import { stateOf, type MachineState } from '../care/house/machine-state.js';
import type { History } from '../care/record/history.js';
import { total } from '../care/record/load-counts.js';
import { due, limitDatesOf, type Due } from '../care/schedule/due.js';
import { questionsOf } from '../care/schedule/dues.js';
import { why, type Why } from '../care/schedule/explain.js';
import type { Household, Machine } from '../model/schemas.js';
import { dayOf, type Day } from '../units/calendar.js';

/** A due date without the engine's inner parts, and why it is when it is. */
export type TaskView = Omit<Due, 'loads'> & {
  /** Since the last clean, counted and estimated together. */
  loads?: number;
  why: Why;
};

/** What a machine's view shows. */
export interface MachineView {
  machine: Machine;
  today: Day;
  state: MachineState;
  habits: HabitRow[];
  tasks: TaskView[];
  /** What its record says for the choice of the next one. */
  choosing: Choosing;
}

/**
 * A machine with the state of every station, and why each task is due when it is.
 * @param now UTC instant, milliseconds
 */
export function machineView(
  machine: Machine,
  history: History,
  household: Household,
  now: number,
): MachineView {
  const today = dayOf(now, household.zone);
  const tasks = questionsOf(machine, history, household, now).map((question): TaskView => {
    const one = due(question);
    const { loads, ...rest } = one;
    return {
      ...rest,
      ...(loads ? { loads: total(loads) } : {}),
      why: why(question.task, one, today, limitDatesOf(question)),
    };
  });
  return {
    machine,
    today,
    state: stateOf(machine, history, household, now),
    habits: habitRows(machine, history, today),
    tasks,
    choosing: choosing(machine, tasks, today),
  };
}

/** A due date that something moved. */
export interface Moved {
  task: string;
  station: string;
  from: string;
  to: string;
  why: string;
}

/** Which due dates of a machine are others than they were, such as after a reading, and why. */
export function movedBetween(before: MachineView, after: MachineView): Moved[] {
  return after.state.dues.flatMap((due): Moved[] => {
    const was = before.state.dues.find(({ task }) => task === due.task);
    if (!was || (was.said === due.said && was.on === due.on)) return [];
    const reasons = after.tasks.find(({ task }) => task === due.task)?.why;
    return [
      {
        task: taskOf(after.machine, due.task).name,
        station: due.station,
        from: was.on ? `${was.said} (${was.on})` : was.said,
        to: due.on ? `${due.said} (${due.on})` : due.said,
        why: reasons?.evidence ?? due.why,
      },
    ];
  });
}
