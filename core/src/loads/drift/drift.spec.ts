import { randomLcg, randomNormal } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { Baseline, normalOfT } from './baseline.js';
import { Cusum, TABULAR, type CusumLimits } from './cusum.js';
import { DRIFT_LIMITS, findShifts } from './drift.js';
import { closing, driftHouse } from './testing.js';

/** Normal distribution function: Abramowitz and Stegun 26.2.17, off by less than 7.5e-8. */
function phi(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const tail =
    (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x >= 0 ? 1 - tail : tail;
}

/** Mean run length of one side, by a Markov chain over its states (Brook and Evans 1972). */
function runLength({ k, h }: CusumLimits, shift: number, states = 160): number {
  const width = (2 * h) / (2 * states - 1);
  const rows = Array.from({ length: states }, (_, i) =>
    Array.from({ length: states + 1 }, (_, j) => {
      if (j === states) return 1;
      const at = (edge: number) => phi((j - i) * width + edge * width + k - shift);
      const into = j === 0 ? at(0.5) : at(0.5) - at(-0.5);
      return (i === j ? 1 : 0) - into;
    }),
  );
  // Gauss and Jordan: (I - Q) L = 1.
  for (let p = 0; p < states; p++) {
    const pivot = rows[p]!;
    for (let r = 0; r < states; r++) {
      if (r === p) continue;
      const factor = rows[r]![p]! / pivot[p]!;
      if (factor === 0) continue;
      for (let c = p; c <= states; c++) rows[r]![c]! -= factor * pivot[c]!;
    }
  }
  return rows[0]![states]! / rows[0]![0]!;
}

describe('the tabular CUSUM', () => {
  it('has the run lengths of Montgomery’s table 9.3: 465 with no shift, 10.4 with one sigma', () => {
    const up = runLength(TABULAR, 0);
    // Both sides: 1 / ARL = 1 / ARL(up) + 1 / ARL(down).
    expect(up / 2).toBeGreaterThan(460);
    expect(up / 2).toBeLessThan(470);
    const [seen, other] = [runLength(TABULAR, 1), runLength(TABULAR, -1)];
    expect(1 / (1 / seen + 1 / other)).toBeCloseTo(10.4, 1);
  });

  it('does so when it is run', () => {
    const random = randomNormal.source(randomLcg(0.5))(0, 1);
    const runs = Array.from({ length: 3000 }, () => {
      const chart = new Cusum();
      for (let n = 1; ; n++) if (chart.add(random())) return n;
    });
    const mean = runs.reduce((sum, n) => sum + n, 0) / runs.length;
    expect(mean).toBeGreaterThan(440);
    expect(mean).toBeLessThan(490);
    const shifted = Array.from({ length: 3000 }, () => {
      const chart = new Cusum();
      for (let n = 1; ; n++) if (chart.add(1 + random())) return n;
    });
    expect(shifted.reduce((sum, n) => sum + n, 0) / shifted.length).toBeCloseTo(10.4, 0);
  });

  it('tells how many figures ago the shift began', () => {
    const chart = new Cusum();
    [0, -1, 0.2, 2, 2, 2].forEach((z) => chart.add(z));
    expect(chart.add(2)).toBe('up');
    expect(chart.upSince).toBe(4);
  });
});

describe('what is usual', () => {
  // Quantiles of Student's t and the normal law, 97.5 and 99.5 %, from tables (Abramowitz and Stegun 26.10).
  it.each([
    [3.182, 3, 1.96],
    [2.571, 5, 1.96],
    [2.228, 10, 1.96],
    [2.042, 30, 1.96],
    [4.032, 5, 2.576],
    [3.169, 10, 2.576],
  ])('turns t %d of %d degrees of freedom into normal %d', (t, freedom, z) => {
    expect(Math.abs(normalOfT(t, freedom) - z)).toBeLessThan(0.015);
    expect(normalOfT(-t, freedom)).toBeCloseTo(-normalOfT(t, freedom), 12);
  });

  it('is the mean and the spread of what was seen, more and more', () => {
    const random = randomNormal.source(randomLcg(0.25))(3, 0.2);
    const baseline = new Baseline({ sigma: 0.1, loads: 6 });
    for (let i = 0; i < 4000; i++) baseline.add(random());
    expect(baseline.mean).toBeCloseTo(3, 1);
    expect(baseline.sigma).toBeCloseTo(0.2, 1);
  });
});

const DAY = 86_400_000;
const PRIOR = { sigma: 0.1, loads: 10 };
const HOUSES = 400;
const seeds = Array.from({ length: HOUSES }, (_, i) => (i + 0.5) / HOUSES);

describe('shifts of a figure', () => {
  it('are falsely told to at most one house in ten in a hundred loads', () => {
    const told = seeds.filter((seed) => findShifts(driftHouse(seed, 100), [], PRIOR).length > 0);
    expect(told.length / HOUSES).toBeLessThanOrEqual(0.1);
  });

  it('are seen, when, and how large, where the figure is a fifth more from a day on', () => {
    const shifts = seeds.map((seed) =>
      findShifts(
        driftHouse(seed, 140, (i) => (i < 60 ? 1 : 1.2)),
        [],
        PRIOR,
      ).find(({ seen }) => seen.at >= 60 * DAY),
    );
    const found = shifts.filter((one) => one !== undefined);
    expect(found.length / HOUSES).toBeGreaterThan(0.95);
    const late = found.map(({ seen }) => seen.at / DAY - 60).sort((a, b) => a - b);
    expect(late[late.length >> 1]).toBeLessThan(12);
    const begun = found.filter(({ from }) => Math.abs(from.at / DAY - 60) <= 8);
    expect(begun.length / found.length).toBeGreaterThan(0.75);
    const covered = found.filter(({ low, high }) => low <= 1.2 && 1.2 <= high).length;
    expect(covered / found.length).toBeGreaterThan(0.65);
  });

  it('of a duct that closes within ten months are told before drying takes a quarter longer, in nine houses of ten', () => {
    const early = seeds.filter((seed) => {
      const shift = findShifts(driftHouse(seed, 210, closing), [], PRIOR).find(
        ({ seen }) => seen.at >= 40 * DAY,
      );
      return shift && closing(shift.seen.at / DAY) <= 1.25;
    });
    expect(early.length / HOUSES).toBeGreaterThan(0.9);
  });

  it('end by themselves when the figure is back, and with a clean that is proved', () => {
    const [back] = findShifts(
      driftHouse(0.3, 160, (i) => (i < 50 || i >= 90 ? 1 : 1.35)),
      [],
      PRIOR,
    );
    expect(Math.abs(back!.back!.at / DAY - 90)).toBeLessThan(6);
    const dirty = driftHouse(0.3, 120, (i) => (i < 50 ? 1 : 1.35));
    const [cleaned, ...more] = findShifts(dirty, [95 * DAY], PRIOR);
    expect(cleaned!.back!.at).toBe(95 * DAY);
    expect(more).toEqual([]);
  });

  it('are none in few loads, and none of a single odd one', () => {
    expect(
      findShifts(
        driftHouse(0.2, 5, (i) => (i < 4 ? 1 : 2)),
        [],
        PRIOR,
      ),
    ).toEqual([]);
    const odd = driftHouse(0.2, 60, (i) => (i === 40 ? 4 : 1));
    expect(findShifts(odd, [], PRIOR)).toEqual([]);
  });

  it('stand at limits that are nearly as quick as the table’s', () => {
    expect(runLength(DRIFT_LIMITS, 1)).toBeLessThan(13);
  });
});
