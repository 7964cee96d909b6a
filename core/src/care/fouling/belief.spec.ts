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

  it('takes a measured fouling for sharper than a grade, and a clear one for no more than clear', () => {
    const graded = beliefAfter(50, [[50, 2]]);
    const measured = new RateBelief(50);
    measured.measure(0.42, 50, 0.15);
    expect(measured.spread()).toBeLessThan(graded.spread());
    expect(measured.foulingAt(50).median).toBeCloseTo(0.42, 1);
    const [clear, clearer] = [0.09, 0].map((fouling) => {
      const belief = new RateBelief(50);
      belief.measure(fouling, 50, 0.15);
      return belief.dueAt();
    });
    expect(clear).toBe(clearer);
  });

  it('refuses an interval of nothing', () => {
    expect(() => new RateBelief(0)).toThrow(RangeError);
  });
});
