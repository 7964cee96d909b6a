import { PRICES, type Chore, type Problem } from './problem.js';

/** How many weeks with somebody at home there are before each week, and after the last. */
export function weeksAtHome(away: readonly boolean[]): Int32Array {
  const before = new Int32Array(away.length + 1);
  away.forEach((is, week) => (before[week + 1] = before[week]! + (is ? 0 : 1)));
  return before;
}

/** What it costs that a chore is late by so many weeks, minutes. */
export function latenessOf({ late, safety }: Chore, weeks: number): number {
  if (weeks <= 0) return 0;
  if (safety) return weeks * PRICES.unsafe;
  const most = late.length;
  if (weeks <= most) return late[weeks - 1]!;
  return (late[most - 1] ?? 0) + (weeks - most) * PRICES.late;
}

/**
 * What one time after another costs by when they are, without what the work itself costs.
 * @param from week of the time before; -1 where it is the first
 * @param to week of this one; the number of weeks where none comes any more
 */
export function stepPrice(
  chore: Chore,
  weeks: number,
  home: Int32Array,
  from: number,
  to: number,
): number {
  const ends = to === weeks;
  const { first, gap, byLoads } = chore;
  if (from < 0) return firstPrice(chore, to - first.to, ends ? 0 : first.from - to, to);
  const passed = byLoads ? home[to]! - home[from]! : to - from;
  return laterPrice(chore, passed - gap.to, ends ? 0 : gap.from - passed, passed);
}

/** Due only after the last week, it may wait. */
const firstPrice = (chore: Chore, late: number, early: number, week: number): number =>
  latenessOf(chore, late) +
  Math.max(0, early) * (chore.early ?? PRICES.early) +
  (chore.wear?.first[week] ?? 0);
const laterPrice = (chore: Chore, late: number, early: number, passed: number): number =>
  latenessOf(chore, late) +
  Math.max(0, early) * (chore.early ?? PRICES.early) +
  (chore.wear?.after[passed] ?? 0);

/** The times of one chore, and what they cost. */
export interface Path {
  weeks: number[];
  cost: number;
}

/** What a step costs by the weeks that pass, as `stepPrice` has it: to another time, to the end, and to the first. */
interface Steps {
  between: Float64Array;
  toEnd: Float64Array;
  first: Float64Array;
}
const known = new WeakMap<Chore, Steps>();

function stepsOf(chore: Chore, weeks: number): Steps {
  let steps = known.get(chore);
  if (steps?.between.length !== weeks + 1) {
    const { gap } = chore;
    const passed = Array.from({ length: weeks + 1 }, (_, n) => n);
    steps = {
      toEnd: Float64Array.from(passed, (n) => laterPrice(chore, n - gap.to, 0, n)),
      between: Float64Array.from(passed, (n) => laterPrice(chore, n - gap.to, gap.from - n, n)),
      first: Float64Array.from(passed, (to) => stepPrice(chore, weeks, NOWHERE, -1, to)),
    };
    known.set(chore, steps);
  }
  return steps;
}
const NOWHERE = new Int32Array(0);

/**
 * The cheapest times of one chore: the shortest path over the weeks, exact, by dynamic programming (Bellman 1957).
 *
 * @param at what doing it in a week costs, minutes: never below 0
 * @param fixed weeks in which it is done whatever it costs
 */
export function cheapestTimes(
  chore: Chore,
  { weeks }: Pick<Problem, 'weeks'>,
  home: Int32Array,
  at: ArrayLike<number>,
  fixed: readonly number[] = [],
): Path {
  const { between, toEnd, first } = stepsOf(chore, weeks);
  const { byLoads, gap } = chore;
  // By week: the cheapest way to the end from there, and where it goes on.
  const cost = new Float64Array(weeks + 1);
  const next = new Int32Array(weeks + 1);
  const isFixed = new Uint8Array(weeks);
  for (const week of fixed) isFixed[week] = 1;
  let until = weeks;
  for (let week = weeks - 1; week >= 0; week--) {
    let best = Infinity;
    let goesTo = weeks;
    const here = home[week]!;
    for (let to = week + 1; to <= until; to++) {
      const passed = byLoads ? home[to]! - here : to - week;
      const step = to === weeks ? toEnd[passed]! : between[passed]!;
      // Past its time, each week only makes it dearer.
      if (step >= best && passed > gap.to) break;
      const price = step + cost[to]!;
      if (price < best) {
        best = price;
        goesTo = to;
      }
    }
    cost[week] = best + at[week]!;
    next[week] = goesTo;
    if (isFixed[week]) until = week;
  }
  let best = Infinity;
  let start = weeks;
  for (let to = 0; to <= until; to++) {
    const price = first[to]! + cost[to]!;
    if (price < best) {
      best = price;
      start = to;
    }
  }
  const times: number[] = [];
  for (let week = start; week < weeks; week = next[week]!) times.push(week);
  return { weeks: times, cost: best };
}
