import type { Household, Machine } from '../../model/schemas.js';
import type { Day } from '../../units/calendar.js';
import { setUpIdsOf, tasksOf } from '../catalogue/lookup.js';
import type { Interval, Task } from '../catalogue/types.js';
import { due, type Due, type DueQuestion, type DueStatus } from './due.js';
import type { History, Measured } from '../record/history.js';
import { Openings } from '../record/openings.js';

/** Due dates of all tasks of a machine. @param now UTC instant, milliseconds */
export function duesOf(
  machine: Machine,
  history: Pick<History, 'openings' | 'readings' | 'usage'>,
  household: Household,
  now: number,
): Due[] {
  return questionsOf(machine, history, household, now).map(due);
}

/** What is asked of the engine for each task of a machine. @param now UTC instant, milliseconds */
export function questionsOf(
  machine: Machine,
  history: Pick<History, 'openings' | 'readings' | 'usage'>,
  household: Household,
  now: number,
): DueQuestion[] {
  const tasks = tasksOf(machine);
  return tasks.map((task) => ({
    task,
    machine,
    household,
    openings: history.openings.get(task.id) ?? Openings.NONE,
    readings: history.readings.get(task.id) ?? NO_READINGS,
    usage: history.usage,
    calledFor: (after, at) => latestOf(callers(after, tasks, machine), history, at),
    now,
  }));
}

/** The tasks after which another one falls due. */
function callers(
  { tasks: ids = [], setups = [] }: NonNullable<Interval['after']>,
  tasks: readonly Task[],
  machine: Machine,
): Task[] {
  return tasks.filter(
    (task) =>
      ids.includes(task.id) || setUpIdsOf(task, machine).some((setup) => setups.includes(setup)),
  );
}

function latestOf(
  tasks: readonly Task[],
  { openings }: Pick<History, 'openings'>,
  after: number,
): Day | undefined {
  const later = tasks
    .flatMap(({ id }) => openings.get(id)?.list ?? [])
    .filter(({ at, cleaned }) => cleaned && at > after)
    .sort((a, b) => a.at - b.at);
  return later.at(-1)?.day;
}

const RANK: Record<DueStatus, number> = {
  due: 0,
  unknown: 1,
  soon: 2,
  fine: 3,
  off: 4,
  habit: 5,
};

type Urgency = Pick<Due, 'status' | 'on' | 'safety'>;

/**
 * Due before not known before soon before fine; of what is not known, what can hurt somebody first; else
 * the earlier date.
 * @returns a number below, at or above 0, as sorting wants it
 */
export function byUrgency(a: Urgency, b: Urgency): number {
  const unknownDanger = ({ status, safety }: Urgency) => (status === 'unknown' && safety ? 0 : 1);
  return (
    RANK[a.status] - RANK[b.status] ||
    unknownDanger(a) - unknownDanger(b) ||
    (a.on ?? '9999').localeCompare(b.on ?? '9999')
  );
}

const NO_READINGS: readonly Measured[] = [];
