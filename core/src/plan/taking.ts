import type { PlanTaken } from '../model/planned.js';
import type { AheadProblem } from './ahead.js';
import type { Plan } from './problem.js';
import { WEEK } from './weeks.js';

/** A task that a year does once, or not at all, is done again after so many weeks. */
const ONCE = 52;

/**
 * How often each task is done by a plan whose gaps were left open, to be laid down: the longest gap that it has.
 * What can hurt somebody, and what has a figure of its own, is not among them.
 */
export function rhythmsOf({ chores, of, weeks }: AheadProblem, plan: Plan): PlanTaken['rhythms'] {
  return of.flatMap(({ machineId, task, free, driver, perWeek }, i) => {
    if (!free) return [];
    const { gap, first } = chores[i]!;
    const times = plan[i]!;
    const gaps = times.slice(1).map((week, k) => week - times[k]!);
    // A task that comes once goes on as long as it may: until the plan ends, at least.
    const longest = gaps.length
      ? Math.max(...gaps)
      : Math.min(gap.to, Math.max(ONCE, weeks - (times[0] ?? first.from)));
    if (longest > 700) return [];
    const byLoads = driver === 'loads' && perWeek > 0;
    const every = Math.max(1, Math.round(byLoads ? longest * perWeek : longest * WEEK));
    return [{ machineId, task, every, unit: byLoads ? ('loads' as const) : ('days' as const) }];
  });
}

/** A plan of another problem of the same house, in the order of this one's chores. */
export function onto(problem: AheadProblem, other: AheadProblem, plan: Plan): number[][] {
  const index = new Map(other.chores.map(({ id }, i) => [id, i]));
  return problem.chores.map(({ id }) => {
    const i = index.get(id);
    return i === undefined ? [] : plan[i]!.filter((week) => week < problem.weeks);
  });
}
