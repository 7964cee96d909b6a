import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Grade } from '../../model/vocabulary.js';
import { RateBelief } from './belief.js';

type Seen = [n: number, grade: Grade];

function beliefAfter(interval: number, seen: readonly Seen[], risk = 0.1): RateBelief {
  const belief = new RateBelief(interval, risk);
  for (const [n, grade] of seen) belief.observe(grade, n);
  return belief;
}

describe('Belief', () => {
  /*
   * The same posterior by adaptive quadrature (scipy.integrate.quad) over the interval-censored
   * lognormal likelihood (scipy.stats.norm), and the due point by scipy.optimize.brentq; SciPy
   * 1.10.1, computed once.
   */
  it.each<{ interval: number; risk: number; seen: Seen[]; due: number }>([
    { interval: 50, risk: 0.1, seen: [[50, 3]], due: 47.8036 },
    {
      interval: 50,
      risk: 0.1,
      seen: [
        [30, 1],
        [45, 2],
        [70, 3],
      ],
      due: 77.9126,
    },
    {
      interval: 25,
      risk: 0.1,
      seen: [
        [25, 1],
        [25, 1],
        [30, 1],
        [28, 0],
      ],
      due: 123.1975,
    },
    {
      interval: 61,
      risk: 0.1,
      seen: [
        [60, 4],
        [40, 3],
        [35, 3],
      ],
      due: 37.5745,
    },
    {
      interval: 150,
      risk: 0.05,
      seen: [
        [140, 2],
        [160, 1],
        [120, 2],
        [170, 2],
        [150, 1],
      ],
      due: 311.66,
    },
    { interval: 12, risk: 0.2, seen: [[12, 0]], due: 62.5882 },
    { interval: 40, risk: 0.02, seen: [[20, 4]], due: 13.6656 },
  ])('agrees with SciPy to 0.5 %: $interval, $seen', ({ interval, risk, seen, due }) => {
    expect(Math.abs(beliefAfter(interval, seen, risk).dueAt() / due - 1)).toBeLessThan(0.005);
  });

  const interval = fc.double({ min: 3, max: 400, noNaN: true });
  const risk = fc.double({ min: 0.02, max: 0.3, noNaN: true });
  const grade = fc.integer({ min: 0, max: 4 }) as fc.Arbitrary<Grade>;
  const seenNear = (at: number) =>
    fc.array(fc.tuple(fc.double({ min: at * 0.3, max: at * 2, noNaN: true }), grade), {
      minLength: 1,
      maxLength: 8,
    });

  it('is due at the interval when nothing was seen', () => {
    fc.assert(
      fc.property(interval, risk, (n, r) => {
        expect(new RateBelief(n, r).dueAt() / n).toBeCloseTo(1, 3);
      }),
    );
  });

  it('never lengthens for a heavier grade', () => {
    fc.assert(
      fc.property(
        interval.chain((n) => fc.tuple(fc.constant(n), seenNear(n))),
        fc.nat(),
        ([n, seen], pick) => {
          const index = pick % seen.length;
          const [at, was] = seen[index]!;
          fc.pre(was < 4);
          const heavier = seen.with(index, [at, (was + 1) as Grade]);
          expect(beliefAfter(n, heavier).dueAt()).toBeLessThanOrEqual(
            beliefAfter(n, seen).dueAt() * (1 + 1e-9),
          );
        },
      ),
    );
  });

  it('narrows when the same thing is seen again', () => {
    fc.assert(
      fc.property(interval, fc.constantFrom<Grade>(1, 2, 3), (n, g) => {
        const spreads = [1, 2, 4, 8].map((times) =>
          beliefAfter(n, Array<Seen>(times).fill([n, g])).spread(),
        );
        expect(spreads).toEqual([...spreads].sort((a, b) => b - a));
      }),
    );
  });

  it('does not care in which order things were seen', () => {
    fc.assert(
      fc.property(
        interval.chain((n) => fc.tuple(fc.constant(n), seenNear(n))),
        ([n, seen]) => {
          const backwards = beliefAfter(n, [...seen].reverse()).dueAt();
          expect(backwards / beliefAfter(n, seen).dueAt()).toBeCloseTo(1, 9);
        },
      ),
    );
  });

  it('agrees in loads and in days: a scale on n is a scale on the due point', () => {
    fc.assert(
      fc.property(
        interval.chain((n) => fc.tuple(fc.constant(n), seenNear(n))),
        fc.double({ min: 0.2, max: 7, noNaN: true }),
        ([n, seen], scale) => {
          const scaled = seen.map(([at, g]): Seen => [at * scale, g]);
          fc.pre([...seen, ...scaled].every(([at]) => at >= 0.5));
          const ratio = beliefAfter(n * scale, scaled).dueAt() / beliefAfter(n, seen).dueAt();
          expect(ratio / scale).toBeCloseTo(1, 3);
        },
      ),
    );
  });

  it('learns nothing from a station opened straight after its clean', () => {
    const belief = new RateBelief(50);
    const before = belief.dueAt();
    expect(belief.observe(4, 0)).toBe(false);
    expect(belief.observe(4, NaN)).toBe(false);
    expect(belief.dueAt()).toBe(before);
  });

  it('stays sane after a hundred openings and after contradictions', () => {
    const sure = beliefAfter(50, Array<Seen>(100).fill([50, 1]));
    expect(sure.dueAt()).toBeGreaterThan(150);
    expect(sure.spread()).toBeLessThan(0.1);
    const torn = beliefAfter(50, [
      [50, 0],
      [50, 4],
      [50, 0],
      [50, 4],
    ]);
    expect(Number.isFinite(torn.dueAt())).toBe(true);
  });

  it('takes back what it took in, as if it had never been seen', () => {
    fc.assert(
      fc.property(
        interval.chain((n) => fc.tuple(fc.constant(n), seenNear(n), seenNear(n))),
        ([n, kept, more]) => {
          const belief = beliefAfter(n, [...kept, ...more]);
          for (const [at, g] of more) belief.takeBack(g, at);
          expect(belief.dueAt() / beliefAfter(n, kept).dueAt()).toBeCloseTo(1, 6);
        },
      ),
    );
  });

  /*
   * SciPy 1.10.1 as above, for beliefs so narrow that the grid itself would be too coarse: 60 and 240
   * openings, grades in turn.
   */
  it.each([
    { times: 60, due: 158.9767 },
    { times: 240, due: 165.3387 },
  ])('agrees with SciPy after $times openings', ({ times, due }) => {
    const seen = Array.from({ length: times }, (_, i): Seen => [30 + (i % 7), (i % 3) as Grade]);
    expect(Math.abs(beliefAfter(50, seen).dueAt() / due - 1)).toBeLessThan(0.005);
  });

  it('tells the chance of passing a level, in keeping with its due point', () => {
    fc.assert(
      fc.property(
        interval.chain((n) => fc.tuple(fc.constant(n), seenNear(n))),
        risk,
        ([n, seen], r) => {
          const belief = beliefAfter(n, seen, r);
          expect(belief.chanceAbove(0.9, belief.dueAt())).toBeCloseTo(r, 2);
        },
      ),
    );
  });

  const read = (ratio: number, n = 50, limit = 2) => {
    const belief = new RateBelief(50);
    belief.measure({ ratio, limit, error: 0.1 }, n);
    return belief;
  };

  it('takes a figure for sharper than a grade where it has grown, and for little near clean', () => {
    const graded = beliefAfter(50, [[50, 2]]);
    expect(read(1.9).spread()).toBeLessThan(graded.spread());
    expect(Math.abs(read(1.9).foulingAt(50).median - 0.85)).toBeLessThan(0.06);
    expect(read(1.02).spread()).toBeGreaterThan(graded.spread());
  });

  it('agrees with plain sums over ln r, error on the reading (trapezoid rule, 20,000 points)', () => {
    for (const [ratio, n, limit] of [
      [1.42, 50, 2],
      [1.05, 20, 1.5],
      [3, 80, 2],
    ] as const) {
      const belief = read(ratio, n, limit);
      const centre = Math.log(0.9 / 50) - 0.6 * 1.2815515655446004;
      const points = Array.from({ length: 20_000 }, (_, i) => centre - 4 + (8 * i) / 20_000);
      const weights = points.map((x) => {
        const z = (Math.log(ratio) - Math.log(1 + Math.exp(x) * n * (limit - 1))) / 0.1;
        return Math.exp(-0.5 * ((x - centre) / 0.6) ** 2 - 0.5 * z * z);
      });
      const whole = weights.reduce((sum, one) => sum + one, 0);
      let sum = 0;
      const at = weights.findIndex((one) => (sum += one) >= 0.9 * whole);
      expect(belief.dueAt() / (0.9 / Math.exp(points[at]!))).toBeCloseTo(1, 2);
    }
  });

  it('has no cliff: a hair’s breadth more in a figure moves the due point by a hair’s breadth', () => {
    let before = read(0.8).dueAt();
    for (let ratio = 0.8; ratio < 4; ratio += 0.0025) {
      const now = read(ratio).dueAt();
      expect(Math.abs(now / before - 1), `at ${ratio}`).toBeLessThan(0.02);
      expect(now).toBeLessThanOrEqual(before * (1 + 1e-9));
      before = now;
    }
  });

  /* By the same quadrature over a wider range, computed once. */
  it('does not saturate: blocked at the first load, and at 7 days of 365 three times', () => {
    expect(beliefAfter(50, [[1, 4]]).dueAt()).toBeCloseTo(2.05, 1);
    const thrice = Array<Seen>(3).fill([7, 4]);
    expect(beliefAfter(365, thrice).dueAt()).toBeCloseTo(7.1, 1);
  });

  it('tells a finite, positive due point whatever was seen, however often, after whatever use', () => {
    const grade = fc.constantFrom<Grade>(0, 1, 2, 3, 4);
    const use = fc.double({ min: -1, max: 6, noNaN: true }).map((power) => 10 ** power);
    const read = fc.tuple(use, use);
    const run = fc.tuple(use, grade, fc.constantFrom(1, 3, 30, 300, 3000));
    fc.assert(
      fc.property(
        use,
        fc.array(run, { maxLength: 4 }),
        fc.array(read),
        (interval, runs, figures) => {
          const belief = new RateBelief(interval);
          for (const [n, seen, times] of runs)
            for (let i = 0; i < times; i++) belief.observe(seen, n);
          for (const [n, ratio] of figures) belief.measure({ ratio, limit: 2, error: 0.05 }, n);
          const { early, even, late } = belief.limitAt();
          for (const figure of [belief.dueAt(), early, even, late, belief.spread()])
            expect(figure).toBeGreaterThanOrEqual(0);
          expect(belief.dueAt()).toBeGreaterThanOrEqual(belief.dueAtLeast() * (1 - 1e-9));
          expect(belief.dueAtLeast()).toBeGreaterThanOrEqual(belief.leastDueAt() * (1 - 1e-9));
          expect(belief.dueAt()).toBeLessThan(Infinity);
          expect(early).toBeLessThanOrEqual(even);
          expect(even).toBeLessThanOrEqual(late);
          expect(late).toBeLessThan(Infinity);
        },
      ),
      { numRuns: 500 },
    );
  });

  it('keeps its peak where it is narrower than a step, at the very edge of the grid', () => {
    const clean = beliefAfter(
      22,
      Array.from({ length: 25 }, (): Seen => [600, 0]),
    );
    const blocked = beliefAfter(
      400,
      Array.from({ length: 25 }, (): Seen => [0.6, 4]),
    );
    expect(clean.dueAt()).toBeGreaterThan(22 * 10);
    expect(clean.dueAt()).toBeLessThan(22 * 50);
    expect(blocked.dueAt()).toBeGreaterThanOrEqual(blocked.leastDueAt());
    expect(blocked.dueAt()).toBeLessThan(blocked.leastDueAt() * 2);
  });

  it('refuses an interval of nothing', () => {
    expect(() => new RateBelief(0)).toThrow(RangeError);
  });
});
