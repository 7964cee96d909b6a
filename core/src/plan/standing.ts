import type { Day } from '../units/calendar.js';
import { inOneGo } from '../units/steps.js';
import { calendarOf, type AheadProblem } from './ahead.js';
import { costOf, type GaveWay } from './cost.js';
import { Descent } from './descent.js';
import { partsOf, together } from './parts.js';
import type { Plan } from './problem.js';
import { boundOf } from './relax.js';
import { solve, type Progress } from './solve.js';

/** A visit as it was planned before. */
export interface Standing {
  day: Day;
  place: string;
  tasks: readonly { machineId: string; task: string }[];
  /** It stays on its day: moved by hand, pinned, or begun. */
  held?: boolean;
  /** Its tasks are left out this once. */
  skipped?: boolean;
}

/** Visits of so many weeks are not moved by an entry. */
export const CALM_WEEKS = 4;
/** Of two plans whose costs differ by less than this part, the one nearer to yesterday's. */
const ALIKE = 0.01;
const ROUNDS = 10;
/** How often a plan is gone on from, at most. */
const MOST_TIMES = 4;
/** Of the relaxation, for the bound. */
const STEPS = 80;

/** The chores' indexes by machine and task. */
const indexesOf = ({ of }: AheadProblem): Map<string, number> =>
  new Map(of.map(({ machineId, task }, i) => [`${machineId}/${task}`, i]));

/** The weeks of visits, as a plan. @param wanted which visits */
export function weeksOf(
  problem: AheadProblem,
  standing: readonly Standing[],
  wanted: (visit: Standing, week: number, chore: number) => boolean = () => true,
): number[][] {
  const calendar = calendarOf(problem);
  const index = indexesOf(problem);
  const plan = problem.chores.map(() => new Set<number>());
  for (const visit of standing) {
    const week = calendar.weekOf(visit.day);
    if (visit.day < problem.start || week >= problem.weeks) continue;
    for (const { machineId, task } of visit.tasks) {
      const chore = index.get(`${machineId}/${task}`);
      if (chore !== undefined && wanted(visit, week, chore)) plan[chore]!.add(week);
    }
  }
  return plan.map((weeks) => [...weeks].sort((a, b) => a - b));
}

/** What is fixed: what was laid down by hand, and the visits of the next weeks as far as they still make sense. */
export function fixedBy(problem: AheadProblem, standing: readonly Standing[]): number[][] {
  const byHand = weeksOf(problem, standing, ({ held, skipped }) => Boolean(held ?? skipped));
  return fixedIn(problem, weeksOf(problem, standing), byHand);
}

function fixedIn(problem: AheadProblem, plan: Plan, byHand: Plan): number[][] {
  return plan.map((weeks, i) => {
    const { first, gap, safety } = problem.chores[i]!;
    const fixed = new Set(byHand[i]);
    let last: number | undefined;
    for (const week of weeks) {
      if (week >= CALM_WEEKS) break;
      // Done since, it is not wanted any more; and what can hurt somebody may have to come sooner.
      const early = last === undefined ? week < first.from : week - last < gap.from;
      const unsafe = safety && week > (last === undefined ? first.to : last + gap.to);
      if (early || unsafe) continue;
      fixed.add(week);
      last = week;
    }
    return [...fixed].sort((a, b) => a - b);
  });
}

/**
 * The plan of today out of that of yesterday: what was laid down by hand stays, the next weeks' visits stay where
 * nothing that can hurt somebody asks otherwise, and the rest moves only where that saves enough. Out of the same plan
 * it is the same.
 * @param rounds of the solver, for the plan to hold it against
 */
export function replan(
  problem: AheadProblem,
  standing: readonly Standing[],
  rounds = ROUNDS,
): Progress {
  const parts = partsOf(problem);
  return together(
    problem,
    parts,
    parts.map((part) => replanPart(part.problem, standing, rounds)),
  );
}

function replanPart(
  problem: AheadProblem,
  standing: readonly Standing[],
  rounds: number,
): Progress {
  const told = (plan: Plan): Progress => {
    const cost = costOf(problem, plan).total;
    return { plan, cost, bound: boundOf(problem, cost, STEPS) };
  };
  const ahead = standing.filter(({ day }) => day >= problem.start);
  if (ahead.length === 0) {
    const { plan } = inOneGo(solve(problem, { rounds, steps: 0 }));
    return told(goneOn(problem, plan, fixedIn(problem, plan, []), rounds));
  }
  const fixed = fixedBy(problem, ahead);
  return told(goneOn(problem, united(weeksOf(problem, ahead), fixed), fixed, rounds));
}

/** Better as long as that saves enough: then planned anew from it, nothing moves. */
function goneOn(problem: AheadProblem, start: Plan, fixed: Plan, rounds: number): Plan {
  const byHand = fixed;
  let plan = start;
  for (let round = 0; round < MOST_TIMES; round++) {
    const held = round === 0 ? fixed : fixedIn(problem, plan, byHand);
    const descent = new Descent(problem, { start: plan, fixed: held });
    descent.settle();
    plan = descent.plan;
    const anew = inOneGo(solve(problem, { rounds, fixed: held, start: plan, steps: 0 }));
    if (anew.cost >= costOf(problem, plan).total * (1 - ALIKE)) break;
    plan = anew.plan;
  }
  return plan;
}

const united = (a: Plan, b: Plan): number[][] =>
  a.map((weeks, i) => [...new Set([...weeks, ...b[i]!])].sort((x, y) => x - y));

/**
 * How late a chore comes in a week, by the times before it.
 * @param chore its index
 * @param week counted from today's, 0
 * @returns weeks; 0 where in time
 */
export function lateBy(problem: AheadProblem, plan: Plan, chore: number, week: number): number {
  const { first, gap } = problem.chores[chore]!;
  const before = plan[chore]!.filter((one) => one < week).at(-1);
  return Math.max(0, week - (before === undefined ? first.to : before + gap.to));
}

/** What gave way, without what was laid down by hand. */
export const beyondHand = (gaveWay: readonly GaveWay[], byHand: Plan): GaveWay[] =>
  gaveWay.filter((one) => one.rule === 'minutes' || !byHand[one.chore]!.includes(one.week));

/**
 * How late a chore comes at the most from a week on, when it is moved from there.
 * @param plan without the time that is moved
 * @param chore its index
 * @param old the week that it is moved from
 * @param week the one that it is moved to
 * @returns the number of weeks; 0 where all of it is in time
 */
export function lateAfter(
  problem: AheadProblem,
  plan: Plan,
  chore: number,
  old: number,
  week: number,
): number {
  const times = [...new Set([...plan[chore]!, week])].sort((a, b) => a - b);
  const moved = plan.map((weeks, i) => (i === chore ? times : weeks));
  return Math.max(
    ...times
      .filter((one) => one >= Math.min(old, week))
      .map((one) => lateBy(problem, moved, chore, one)),
  );
}
