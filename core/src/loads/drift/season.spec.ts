import { randomLcg, randomNormal } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { findShifts, type DriftFigure } from './drift.js';
import { withoutSeason } from './season.js';

const DAY = 86_400_000;
const FROM = Date.parse('2024-03-01T08:00:00Z');
const PRIOR = { sigma: 0.1, loads: 10 };
/** Drying in a room that is colder in winter, by so much of the figure's logarithm; every other day. */
function house(
  seed: number,
  days: number,
  winter: number,
  factor: (day: number) => number = () => 1,
) {
  const noise = randomNormal.source(randomLcg(seed))(0, 0.07);
  return Array.from({ length: days >> 1 }, (_, i): DriftFigure => {
    const at = FROM + 2 * i * DAY;
    const cold = Math.cos(
      (2 * Math.PI * (at - Date.parse('2024-01-15T00:00:00Z'))) / (365.25 * DAY),
    );
    return { id: String(i), at, value: 30 * factor(2 * i) * Math.exp(winter * cold + noise()) };
  });
}
const seeds = Array.from({ length: 60 }, (_, i) => (i + 0.5) / 60);
/** Shifts that are seen so many days after the first load, or later. */
const later = (figures: readonly DriftFigure[], day: number) =>
  findShifts(figures, [], PRIOR).filter(({ seen }) => seen.at >= FROM + day * DAY);

describe('what goes with the year', () => {
  it('is left alone until a year of loads is there', () => {
    const figures = house(0.3, 400, 0.12);
    expect(withoutSeason(figures, [])).toEqual(figures);
  });

  it('is no change any more in the second winter', () => {
    const told = (of: (figures: DriftFigure[]) => DriftFigure[]): number =>
      seeds.filter((seed) => later(of(house(seed, 800, 0.12)), 480).length > 0).length;
    // Of what is told within a hundred and sixty loads more, one in eight is false without any season as well.
    expect(told((figures) => figures)).toBeGreaterThan(50);
    expect(told((figures) => withoutSeason(figures, []))).toBeLessThanOrEqual(12);
  });

  it('hides no duct that closes in the second year, and makes no change where there is no season', () => {
    const closing = (day: number): number => (day < 500 ? 1 : 1 + (0.5 * (day - 500)) / 300);
    const seen = seeds.filter((seed) => {
      const [shift] = later(withoutSeason(house(seed, 800, 0.08, closing), []), 500);
      return shift !== undefined && closing((shift.seen.at - FROM) / DAY) <= 1.25;
    });
    expect(seen.length).toBeGreaterThanOrEqual(54);
    const still = (of: (figures: DriftFigure[]) => DriftFigure[]): number =>
      seeds.filter((seed) => later(of(house(seed, 800, 0)), 0).length > 0).length;
    const without = still((figures) => withoutSeason(figures, []));
    expect(without).toBeLessThanOrEqual(still((figures) => figures) + 3);
  });
});
