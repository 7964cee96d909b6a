import { costOf } from './cost.js';
import { atPace, type AheadProblem } from './ahead.js';
import type { Plan } from './problem.js';
import { solve } from './solve.js';
import { troubleAhead } from './trouble-ahead.js';

/** A year in so many hours: a plan with what it asks and what it leaves at risk. */
export interface CurvePoint {
  /** At work in the plan's weeks, minutes, the way there counted in. */
  work: number;
  /** Minutes that the trouble to be expected costs. */
  trouble: number;
  /** Stations that pass their limit, in the mean. */
  count: number;
  plan: Plan;
}

/** Minutes at work that a minute of trouble is worth, at the two ends of the curve. */
const ENDS = { least: 1e-3, most: 10 } as const;
/** A point nearer than this to the line between its neighbours is none of its own, minutes. */
const NEAR = 1e-6;

/** What a plan asks and leaves at risk. */
export function pointOf(problem: AheadProblem, plan: Plan): CurvePoint {
  const { minutes, count } = troubleAhead(problem, plan);
  return { work: costOf(problem, plan).work, trouble: minutes, count, plan };
}

/** Points that no mixture of others beats: falling, and flatter the more is done (Andrew's monotone chain, 1979). */
export function supported(points: readonly CurvePoint[]): CurvePoint[] {
  const sorted = [...points].sort((a, b) => a.work - b.work || a.trouble - b.trouble);
  const hull: CurvePoint[] = [];
  for (const point of sorted) {
    if (hull.length && point.trouble >= hull.at(-1)!.trouble - NEAR) continue;
    while (hull.length > 1 && !isBelow(hull.at(-2)!, hull.at(-1)!, point)) hull.pop();
    hull.push(point);
  }
  return hull;
}

/** Whether the middle point lies below the line from the first to the last. */
function isBelow(first: CurvePoint, middle: CurvePoint, last: CurvePoint): boolean {
  const { work, trouble } = first;
  const across =
    (middle.work - work) * (last.trouble - trouble) -
    (middle.trouble - trouble) * (last.work - work);
  return across > NEAR * Math.max(1, last.work - work);
}

export interface CurveAsk {
  /** Plans that are known already, such as the schools': they lie on the curve or above it. */
  known?: readonly Plan[];
  /** Rounds of the solver for each point. */
  rounds?: number;
  /** Points at most that are looked for between the ends. */
  points?: number;
}

/**
 * The least trouble that so many hours can leave, point by point: the two ends first, then between two neighbours
 * where a point would help most, with the price that the line between them says (Aneja and Nair 1979). Where each
 * price is solved to its end these are all supported points.
 */
export function* curve(
  problem: AheadProblem,
  { known = [], rounds = 6, points = 14 }: CurveAsk = {},
): Generator<CurvePoint[], CurvePoint[]> {
  const all = known.map((plan) => pointOf(problem, plan));
  const at = (pace: number): CurvePoint => {
    const priced = atPace(problem, pace);
    const start = bestAt(all, pace);
    let plan: Plan = [];
    for (const progress of solve(priced, { rounds, enough: 1e-9, ...(start ? { start } : {}) })) {
      plan = progress.plan;
    }
    const point = pointOf(problem, plan);
    all.push(point);
    return point;
  };
  at(ENDS.least);
  at(ENDS.most);
  const asked = new Set<string>();
  yield supported(all);
  for (let n = 0; n < points; n++) {
    const gap = widest(supported(all), asked);
    if (!gap) break;
    const [left, right] = gap;
    asked.add(keyOf(left, right));
    at((right.work - left.work) / (left.trouble - right.trouble));
    yield supported(all);
  }
  return supported(all);
}

/** Of the plans that are there, the one that costs least at a price of trouble. */
function bestAt(all: readonly CurvePoint[], pace: number): Plan | undefined {
  const cost = ({ work, trouble }: CurvePoint) => work + pace * trouble;
  return all.reduce<CurvePoint | undefined>(
    (best, one) => (best && cost(best) <= cost(one) ? best : one),
    undefined,
  )?.plan;
}

const keyOf = (a: CurvePoint, b: CurvePoint): string =>
  [a.work, a.trouble, b.work, b.trouble].map((n) => n.toFixed(6)).join('/');

/** The two neighbours between which the most could be gained. */
function widest(
  hull: readonly CurvePoint[],
  asked: ReadonlySet<string>,
): [CurvePoint, CurvePoint] | undefined {
  const span = (hull.at(-1)?.work ?? 0) - (hull[0]?.work ?? 0) || 1;
  const fall = (hull[0]?.trouble ?? 0) - (hull.at(-1)?.trouble ?? 0) || 1;
  let best: [CurvePoint, CurvePoint] | undefined;
  let most = 0;
  hull.slice(1).forEach((right, i) => {
    const left = hull[i]!;
    const area = ((right.work - left.work) / span) * ((left.trouble - right.trouble) / fall);
    if (area > most && !asked.has(keyOf(left, right))) {
      most = area;
      best = [left, right];
    }
  });
  return best;
}
