import fc from 'fast-check';
import { randomLcg, randomNormal } from 'd3-random';
import { describe, expect, it } from 'vitest';
import type { Grade } from '../../model/vocabulary.js';
import { inDriver } from '../catalogue/interval-figure.js';
import { taskById } from '../catalogue/lookup.js';
import { Usage } from '../record/load-counts.js';
import { Openings, type Opening } from '../record/openings.js';
import { RateBelief } from './belief.js';
import { learn, type LearningQuestion } from './learning.js';

const DAY = 86_400_000;
const FROM = Date.parse('2020-01-06T00:00:00Z');
const task = taskById('pump-filter');
/** A load a day, each counted. */
const usage = new Usage(
  Array.from({ length: 4000 }, (_, i) => ({ at: FROM + i * DAY, count: 1 })),
  7,
);

/** Cleaned first, then opened after so many loads each time. */
function openings(seen: readonly (readonly [loads: number, grade?: Grade])[]): Openings {
  let at = FROM + DAY / 2;
  const all = [[0] as const, ...seen].map(([loads, grade], i): Opening => {
    at += loads * DAY;
    const day = new Date(at).toISOString().slice(0, 10);
    return {
      entryId: `e${i}`,
      at,
      day,
      task: task.id,
      cleaned: true,
      ...(grade === undefined ? {} : { grade }),
    };
  });
  return new Openings(all);
}

const question = (
  seen: readonly (readonly [number, Grade?])[],
  change: Partial<LearningQuestion> = {},
): LearningQuestion => ({
  task,
  openings: openings(seen),
  readings: [],
  usage,
  base: 50,
  risk: 0.1,
  own: false,
  ...change,
});

const sighting = fc.tuple(fc.integer({ min: 5, max: 120 }), fc.constantFrom<Grade>(0, 1, 2, 3, 4));

/**
 * The rule as it is written down: at each opening by half at most, never past the most, never past an age
 * at which it failed, and after a heavy find by 15 % of its age at most.
 */
function byTheRule(seen: readonly (readonly [number, Grade])[], base: number): number {
  const belief = new RateBelief(base, 0.1);
  const most = Math.max(2 * inDriver(task.intervals.stretch, 'loads'), base);
  let failed = Infinity;
  return seen.reduce((before, [n, grade]) => {
    belief.observe(grade, n);
    if (grade === 4) failed = Math.min(failed, n);
    const found = grade >= 3 ? 1.15 * n : Infinity;
    return Math.min(belief.dueAt(), 1.5 * before, most, failed, found);
  }, base);
}

describe('what is learned of an interval', () => {
  it('is the interval itself while nothing was seen', () => {
    expect(learn(question([]))).toMatchObject({ learned: 50, evidence: [] });
    expect(learn(question([[40]])).learned).toBe(50);
  });

  it('follows the rule of restraint, however the record goes', () => {
    fc.assert(
      fc.property(fc.array(sighting, { minLength: 1, maxLength: 12 }), (seen) => {
        const { learned } = learn(question(seen));
        expect(learned).toBeCloseTo(byTheRule(seen, 50), 6);
      }),
      { numRuns: 60 },
    );
  });

  it('is shorter, or no longer, the worse the last find', () => {
    fc.assert(
      fc.property(
        fc.array(sighting, { maxLength: 6 }),
        fc.integer({ min: 5, max: 120 }),
        (seen, n) => {
          const after = ([0, 1, 2, 3, 4] as const).map(
            (grade) => learn(question([...seen, [n, grade]])).learned,
          );
          for (let i = 1; i < 5; i++) expect(after[i]!).toBeLessThanOrEqual(after[i - 1]! + 1e-9);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('never lengthens an own figure, and says that it held', () => {
    const clear = Array.from({ length: 8 }, () => [60, 0] as const);
    expect(learn(question(clear, { own: true }))).toMatchObject({ learned: 50, held: 'own' });
    expect(learn(question([[40, 4]], { own: true })).learned).toBeLessThan(40);
  });

  it('says why it did not lengthen further', () => {
    expect(learn(question([[60, 0]]))).toMatchObject({ learned: 75, held: 'restraint' });
    const long = Array.from({ length: 30 }, () => [110, 0] as const);
    const most = 2 * inDriver(task.intervals.stretch, 'loads');
    expect(learn(question(long))).toMatchObject({ learned: most, held: 'stretch' });
  });

  it('passes over what is seen straight after a clean, and what has no grade', () => {
    expect(learn(question([[0, 4]])).evidence).toEqual([]);
    expect(learn(question([[30], [30, 2]])).evidence).toHaveLength(1);
  });

  it('is worked out once for the same question, and anew for another', () => {
    const asked = question([[45, 2]]);
    const first = learn(asked);
    expect(learn({ ...asked })).toBe(first);
    expect(learn({ ...asked, base: 40 })).not.toBe(first);
    expect(learn({ ...asked, openings: openings([[45, 2]]) })).not.toBe(first);
  });
});

describe('a breakdown teaches', () => {
  it('no date is later than an age at which it failed', () => {
    fc.assert(
      fc.property(fc.array(sighting, { minLength: 1, maxLength: 12 }), (seen) => {
        const { learned } = learn(question(seen));
        for (const [n, grade] of seen) if (grade === 4) expect(learned).toBeLessThanOrEqual(n);
        const [n, grade] = seen.at(-1)!;
        if (grade === 3) expect(learned).toBeLessThanOrEqual(1.15 * n + 1e-9);
      }),
      { numRuns: 100 },
    );
  });

  it('blocked at 41 loads: never later than 41; a heavy find at 60: never later than 69', () => {
    expect(learn(question([[41, 4]], { base: 80 })).learned).toBeLessThanOrEqual(41);
    const sure = Array.from({ length: 9 }, () => [60, 1] as const);
    expect(learn(question([...sure, [41, 4], ...sure], { base: 80 }))).toMatchObject({
      learned: 41,
      held: 'failed',
    });
    expect(learn(question([[60, 3]], { base: 90 })).learned).toBeLessThanOrEqual(69);
  });

  it('heavy, moderate, heavy does not lengthen 29 to 62', () => {
    const { learned } = learn(
      question(
        [
          [29, 3],
          [29, 2],
          [29, 3],
        ],
        { base: 29 },
      ),
    );
    expect(learned).toBeLessThanOrEqual(1.15 * 29 + 1e-9);
  });

  it('holds nothing once something of its cause was changed and noted', () => {
    const seen = [[41, 4] as const, ...Array.from({ length: 6 }, () => [60, 0] as const)];
    const asked = question(seen);
    expect(learn(asked).learned).toBeLessThanOrEqual(41);
    const changedOn = asked.openings.list[2]!.day;
    expect(learn({ ...asked, changedOn }).learned).toBeGreaterThan(41);
  });
});

describe('figures read at the machine', () => {
  const read = (loads: number, value: number) => {
    const at = FROM + DAY / 2 + loads * DAY;
    const day = new Date(at).toISOString().slice(0, 10);
    return { entryId: `r${loads}`, at, day, quantity: 'drain-time' as const, value };
  };

  it('tell nothing without one of the clean machine to hold them against', () => {
    expect(learn(question([], { readings: [read(30, 90)] })).seen.measured).toBe(0);
  });

  it('shorten the interval where the figure grew, and tell against what', () => {
    const readings = [read(1, 40), read(30, 76)];
    const { learned, evidence, seen } = learn(question([], { readings }));
    expect(seen.measured).toBe(1);
    expect(evidence[0]!.measured).toMatchObject({ quantity: 'drain-time', value: 76, clean: 40 });
    expect(learned).toBeLessThan(50);
  });

  /** A duct that lasts `lasts` loads, its time read three times with an error of 10 %. */
  function afterNoise(lasts: number, seed: number): number {
    const random = randomLcg(seed / 1000);
    const noise = randomNormal.source(random)(0, 0.1);
    const duct = taskById('duct-run');
    const readings = [1, 25, 40, 55].map((loads) => {
      const value = 3 * (1 + (loads / lasts) * (2 - 1)) * Math.exp(noise());
      return { ...read(loads, value), quantity: 'bag-fill-time' as const };
    });
    return learn(question([], { task: duct, base: 130, readings })).learned;
  }

  it('three noisy ones of a duct that lasts 130 loads do not learn below 90, in the median', () => {
    const learned = Array.from({ length: 201 }, (_, i) => afterNoise(130, i + 1)).sort(
      (a, b) => a - b,
    );
    expect(learned[100]).toBeGreaterThanOrEqual(90);
  });

  it('of one that lasts 40 loads are believed', () => {
    const learned = Array.from({ length: 51 }, (_, i) => afterNoise(40, i + 1)).sort(
      (a, b) => a - b,
    );
    expect(learned[25]).toBeLessThan(70);
  });

  it('of a screen’s light tell the more fouling the less passes, each phone against itself', () => {
    const light = (loads: number, value: number, taken: string) => ({
      ...{ ...read(loads, value), quantity: 'screen-light' as const, taken },
    });
    const readings = [
      ...[light(1, 40, 'mine'), light(2, 80, 'another')],
      // Half of its own, and as much as ever: the limit is 1.6 times less.
      ...[light(20, 20, 'mine'), light(21, 80, 'another')],
    ];
    const { evidence } = learn(
      question([], { task: taskById('lint-screen-wash'), base: 40, readings }),
    );
    expect(evidence.map(({ measured }) => measured!.fouling)).toEqual([
      expect.closeTo(1 / 0.6, 9),
      0,
    ]);
    expect(evidence[0]!.measured!.clean).toBe(40);
  });

  it('of drying minutes have the error that their own scatter shows', () => {
    const minutes = (spread: number) =>
      learn(
        question([], {
          task: taskById('duct-run'),
          base: 130,
          readings: [0, 1, 2, 30].map((loads, i) => ({
            ...read(loads, 60 * Math.exp(spread * [1, -1, 0, 2][i]!)),
            quantity: 'drying-minutes' as const,
          })),
        }),
      ).evidence[0]!.measured!.error;
    expect(minutes(0.3)).toBeGreaterThan(1.2 * minutes(0.02));
  });
});
