import type { AheadProblem } from './ahead.js';
import type { Plan } from './problem.js';

/** What a plan leaves at risk. */
export interface TroubleAhead {
  /** Stations that pass their limit within the plan's weeks, in the mean. */
  count: number;
  /** Minutes that this costs. */
  minutes: number;
  /** By chore, the count. */
  of: number[];
}

/** The trouble to be expected under a plan: after each time the chance that the limit is passed before the next. */
export function troubleAhead({ weeks, chores, of, away }: AheadProblem, plan: Plan): TroubleAhead {
  const home = (from: number, to: number) =>
    away.slice(from, to).reduce((sum, is) => sum + (is ? 0 : 1), 0);
  const each = plan.map((times, i) => {
    const { after, first } = of[i]!.risk;
    const ends = [...times, weeks];
    return ends.reduce((sum, week, k) => {
      if (k === 0) return first[week]!;
      const from = ends[k - 1]!;
      return sum + after[chores[i]!.byLoads ? home(from, week) : week - from]!;
    }, 0);
  });
  return {
    of: each,
    count: each.reduce((a, b) => a + b, 0),
    minutes: each.reduce((sum, n, i) => sum + n * of[i]!.risk.stake, 0),
  };
}
