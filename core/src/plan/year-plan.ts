import type { Day } from '../units/calendar.js';
import { costOf, visitsOf, type GaveWay } from './cost.js';
import type { HouseProblem } from './house-problem.js';
import type { Progress } from './solve.js';

/** A visit of the year ahead. */
export interface PlannedVisit {
  day: Day;
  place: string;
  /** At work, minutes, without the way there. */
  minutes: number;
  tasks: PlannedTask[];
  /** Minutes that it saves against doing each task by itself, the way there counted in. */
  saves: number;
}

export interface PlannedTask {
  machineId: string;
  task: string;
  minutes: number;
  /** Neglected, it can hurt somebody: it does not slip. */
  safety: boolean;
  /** It comes later than its interval says, at a price. */
  slips: boolean;
}

/** The year ahead of a house. */
export interface YearPlan {
  visits: PlannedVisit[];
  /** A year at work, the way to each visit counted in, minutes. */
  minutes: number;
  /** Each task on a day of its own, minutes. */
  apart: number;
  /** How much dearer it is at most than the best there can be, as a part. */
  within: number;
  /** Rules that gave way. */
  gaveWay: readonly GaveWay[];
}

/** A plan of weeks as visits on days, with what it costs and saves. */
export function yearPlan(problem: HouseProblem, { plan, cost, bound }: Progress): YearPlan {
  const { chores, setups, places, of, days, start } = problem;
  const { work, gaveWay } = costOf(problem, plan);
  const alone = (chore: number): number => {
    const { minutes, setups: needs, place } = chores[chore]!;
    return minutes + needs.reduce((sum, s) => sum + setups[s]!.minutes, 0) + places[place]!.minutes;
  };
  const slips = slipsIn(problem, plan);
  const visits = visitsOf(problem, plan).map(({ week, place, chores: done, minutes }) => ({
    day: days[week] ?? start,
    place: places[place]!.id,
    minutes,
    tasks: done.map((chore) => ({
      machineId: of[chore]!.machineId,
      task: of[chore]!.task.id,
      minutes: chores[chore]!.minutes,
      safety: chores[chore]!.safety,
      slips: slips.has(`${chore}/${week}`),
    })),
    saves: done.reduce((sum, chore) => sum + alone(chore), 0) - minutes - places[place]!.minutes,
  }));
  return {
    visits,
    minutes: work,
    apart: plan.reduce((sum, weeks, chore) => sum + weeks.length * alone(chore), 0),
    within: bound > 0 ? cost / bound - 1 : Infinity,
    gaveWay,
  };
}

/** The times that come later than the interval says, as `chore/week`. */
function slipsIn({ chores, away }: HouseProblem, plan: Progress['plan']): Set<string> {
  const homeWeeks = (from: number, to: number) => away.slice(from, to).filter((is) => !is).length;
  return new Set(
    plan.flatMap((weeks, chore) => {
      const { first, gap, byLoads } = chores[chore]!;
      return weeks
        .filter((week, i) => {
          const before = weeks[i - 1];
          if (before === undefined) return week > first.to;
          return (byLoads ? homeWeeks(before, week) : week - before) > gap.to;
        })
        .map((week) => `${chore}/${week}`);
    }),
  );
}
