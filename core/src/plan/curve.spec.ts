import { describe, expect, it } from 'vitest';
import type { AheadProblem } from './ahead.js';
import { costOf } from './cost.js';
import { curve, pointOf, supported, type CurvePoint } from './curve.js';
import type { Plan } from './problem.js';
import { stepPrice, weeksAtHome } from './path.js';
import { PRICES } from './problem.js';
import { solve } from './solve.js';
import { chanceFrom } from './descent.js';
import { madeUp } from './testing.js';
import { onto, rhythmsOf } from './taking.js';

const seeds = (count: number, from = 1) => Array.from({ length: count }, (_, i) => from + i);

/** A made-up house with what each of its chores risks: nothing at once, and more the longer it is left. */
function risky(seed: number, size: { chores: number; weeks: number }): AheadProblem {
  const problem = madeUp(seed, size);
  const chance = chanceFrom(seed * 77);
  return {
    ...problem,
    chores: problem.chores.map(({ season: _season, ...chore }) => ({ ...chore, late: [] })),
    start: '2026-11-27',
    weekdays: [6],
    spans: [],
    closed: [],
    of: problem.chores.map(({ id, safety, gap }) => {
      const pace = 0.3 + chance();
      const left = Math.floor(chance() * 3);
      const by = (n: number) => 1 - Math.exp(-(((pace * n) / gap.to) ** 2));
      const weeks = Array.from({ length: size.weeks + 1 }, (_, n) => n);
      return {
        machineId: id,
        task: id,
        risk: {
          after: weeks.map(by),
          first: weeks.map((n) => by(n + left)),
          stake: 40 + 100 * chance(),
        },
        driver: 'loads' as const,
        perWeek: 5,
        free: !safety,
      };
    }),
  };
}

/** What a plan asks and risks, reckoned by nothing of the planner's. */
function reckoned(problem: AheadProblem, plan: Plan): { work: number; trouble: number } {
  const { weeks, chores, setups, places, away, of } = problem;
  let work = 0;
  for (let week = 0; week < weeks; week++) {
    const here = chores.flatMap((one, i) => (plan[i]!.includes(week) ? [one] : []));
    for (const { minutes } of here) work += minutes;
    for (const set of new Set(here.flatMap((one) => one.setups))) work += setups[set]!.minutes;
    for (const place of new Set(here.map((one) => one.place))) work += places[place]!.minutes;
  }
  let trouble = 0;
  plan.forEach((times, i) => {
    const { after, first, stake } = of[i]!.risk;
    let since = -1;
    for (let week = 0; week <= weeks; week++) {
      if (week < weeks && !times.includes(week)) continue;
      let n = 0;
      for (let w = Math.max(0, since); w < week; w++) n += chores[i]!.byLoads && away[w] ? 0 : 1;
      trouble += stake * (since < 0 ? first[week]! : after[n]!);
      since = week;
    }
  });
  return { work, trouble };
}

/** Every plan that breaks no rule, one chore's times after another's. */
function* everyPlan(problem: AheadProblem): Generator<number[][]> {
  const home = weeksAtHome(problem.away);
  const ways = problem.chores.map((chore) => {
    const found: number[][] = [];
    for (let set = 0; set < 2 ** problem.weeks; set++) {
      const times = Array.from({ length: problem.weeks }, (_, w) => w).filter(
        (w) => (set >> w) & 1,
      );
      if (times.some((week) => problem.away[week])) continue;
      const ends = [...times, problem.weeks];
      const price = ends.reduce(
        (sum, week, k) => sum + stepPrice(chore, problem.weeks, home, k ? ends[k - 1]! : -1, week),
        0,
      );
      if (price < PRICES.early) found.push(times);
    }
    return found;
  });
  const at = ways.map(() => 0);
  if (ways.some(({ length }) => length === 0)) return;
  for (;;) {
    yield at.map((k, i) => ways[i]![k]!);
    let i = 0;
    while (i < at.length && ++at[i]! === ways[i]!.length) at[i++] = 0;
    if (i === at.length) return;
  }
}

function whole(problem: AheadProblem, ask: Parameters<typeof curve>[1] = {}): CurvePoint[] {
  let last: CurvePoint[] = [];
  for (const hull of curve(problem, ask)) last = hull;
  return last;
}
const pairs = (points: readonly { work: number; trouble: number }[]) =>
  points.map(({ work, trouble }) => [work.toFixed(3), trouble.toFixed(3)].join(' '));

describe('the curve', () => {
  let searched = 0;
  it.each(seeds(12))(
    'is what a search of every plan there is finds, in the made-up house %i',
    (seed) => {
      const problem = risky(seed, { chores: 3, weeks: 8 });
      const every: CurvePoint[] = [];
      for (const plan of everyPlan(problem)) {
        if (costOf(problem, plan).gaveWay.length) continue;
        every.push({ ...reckoned(problem, plan), count: 0, plan });
      }
      if (every.length === 0) return;
      searched++;
      const { least, most } = { least: 1e-3, most: 10 };
      // Between the prices at its two ends.
      const right = supported(every).filter((_, i, hull) => {
        const [before, here, after] = [hull[i - 1], hull[i]!, hull[i + 1]];
        const pace = (a: CurvePoint, b: CurvePoint) => (b.work - a.work) / (a.trouble - b.trouble);
        return (!before || pace(before, here) <= most) && (!after || pace(here, after) >= least);
      });
      expect(pairs(whole(problem, { rounds: 60, points: 60 }))).toEqual(pairs(right));
    },
    30_000,
  );

  it('was searched in houses that have a plan at all', () => {
    expect(searched).toBeGreaterThan(8);
  });

  it.each(seeds(20))('falls, ever less, and each point is reckoned right: house %i', (seed) => {
    const problem = risky(seed, { chores: 9, weeks: 26 });
    const hull = whole(problem, { rounds: 3, points: 8 });
    for (const { plan, work, trouble } of hull) {
      const by = reckoned(problem, plan);
      expect(work).toBeCloseTo(by.work, 6);
      expect(trouble).toBeCloseTo(by.trouble, 6);
      const unsafe = costOf(problem, plan).gaveWay.filter(({ rule }) => rule === 'safety');
      expect(unsafe).toEqual([]);
    }
    const slopes = hull.slice(1).map((right, i) => {
      const left = hull[i]!;
      expect(right.work).toBeGreaterThan(left.work);
      expect(right.trouble).toBeLessThan(left.trouble);
      return (right.trouble - left.trouble) / (right.work - left.work);
    });
    slopes.slice(1).forEach((slope, i) => expect(slope).toBeGreaterThan(slopes[i]! - 1e-9));
  });

  it('lies on or below every plan that it is told of', () => {
    for (const seed of seeds(6)) {
      const problem = risky(seed, { chores: 8, weeks: 26 });
      let plan: Plan = [];
      for (const progress of solve(problem, { rounds: 3 })) plan = progress.plan;
      const told = pointOf(problem, plan);
      const hull = whole(problem, { rounds: 2, points: 3, known: [plan] });
      expect(isOnOrAbove(told, hull)).toBe(true);
    }
  });
});

/** Whether a point lies on a falling, convex line or above it. */
function isOnOrAbove({ work, trouble }: CurvePoint, hull: readonly CurvePoint[]): boolean {
  if (work < hull[0]!.work - 1e-6) return false;
  const i = hull.findIndex((one) => one.work >= work);
  if (i < 0) return trouble >= hull.at(-1)!.trouble - 1e-6;
  if (i === 0) return trouble >= hull[0]!.trouble - 1e-6;
  const [left, right] = [hull[i - 1]!, hull[i]!];
  const part = (work - left.work) / (right.work - left.work);
  return trouble >= left.trouble + part * (right.trouble - left.trouble) - 1e-6;
}

describe('a plan that is taken', () => {
  it('is laid down as how often each task is done, by its longest gap; safety keeps its own', () => {
    const problem = risky(4, { chores: 6, weeks: 40 });
    let plan: Plan = [];
    for (const progress of solve(problem, { rounds: 3 })) plan = progress.plan;
    const rhythms = rhythmsOf(problem, plan);
    problem.of.forEach(({ task, free }, i) => {
      const rhythm = rhythms.find((one) => one.task === task);
      if (!free) return expect(rhythm).toBeUndefined();
      const gaps = plan[i]!.slice(1).map((week, k) => week - plan[i]![k]!);
      if (gaps.length) expect(rhythm?.every).toBe(Math.max(...gaps) * 5);
    });
  });

  it('of another problem of the house is put in this one’s order', () => {
    const problem = risky(2, { chores: 4, weeks: 20 });
    const other = { ...problem, chores: [...problem.chores].reverse() };
    const plan = other.chores.map((_, i) => [i]);
    expect(onto(problem, other, plan)).toEqual([[3], [2], [1], [0]]);
  });
});
