import type { Day } from '../units/calendar.js';
import { PRICES, type Problem } from './problem.js';
import { PlanWeeks, type Away } from './weeks.js';

/** What leaving a task alone risks. */
export interface Risk {
  /** Chance that the station passes its limit by so many weeks after it was done, by weeks. */
  after: readonly number[];
  /** The same by the week in which it is done first, with what has passed already. */
  first: readonly number[];
  /** Minutes that such a trouble costs: to find it, and to put it right. */
  stake: number;
}

/** A task of a machine, as a chore of a plan. */
export interface ChoreOf {
  machineId: string;
  task: string;
  risk: Risk;
  /** What fouls it. */
  driver: 'loads' | 'days';
  /** Loads of its machine, at the usual pace. */
  perWeek: number;
  /** Its gaps may be chosen: no safety, no own figure. */
  free: boolean;
}

/** The problem of a house from today on; all of it can be sent. */
export interface AheadProblem extends Problem {
  /** The first day of week 0: today. */
  start: Day;
  weekdays: readonly number[];
  spans: readonly Away[];
  /** Days on which nobody can, though somebody is at home. */
  closed: readonly Day[];
  /** In the chores' order. */
  of: readonly ChoreOf[];
}

/** The weeks of a problem, with the days on which visits are. */
export const calendarOf = ({ start, weeks, weekdays, spans, closed }: AheadProblem): PlanWeeks =>
  new PlanWeeks(start, weeks, weekdays, spans, closed);

/**
 * The same problem where what is left at risk has a price: each gap is as long as that makes it worth.
 * @param pace minutes at work that a minute of trouble is worth
 */
export function atPace(problem: AheadProblem, pace: number): AheadProblem {
  return {
    ...problem,
    chores: problem.chores.map((chore, i) => {
      const { after, first, stake } = problem.of[i]!.risk;
      const price = (chance: number) => chance * stake * pace;
      return {
        ...chore,
        wear: { after: after.map(price), first: first.map(price) },
        early: PRICES.early + stake * pace,
      };
    }),
  };
}
