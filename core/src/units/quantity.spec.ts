import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { convert, DIMENSIONS, ownUnit, sayAmount, unitsOf, type DimensionId } from './quantity.js';

describe('quantities', () => {
  // Outside check: GNU Units 2.22.
  it.each<[number, DimensionId, string, string, number]>([
    [120, 'flow', 'ft³/min', 'm³/s', 0.056633693],
    [97, 'flow', 'ft³/min', 'L/s', 45.778902],
    [3.4, 'flow', 'gal/min', 'L/min', 12.8704],
    [500, 'flow', 'm³/h', 'L/s', 138.88889],
    [1, 'volume', 'gal', 'L', 3.7854118],
    [1, 'volume', 'cup', 'ml', 236.58824],
    [1, 'volume', 'fl oz', 'ml', 29.57353],
    [4, 'volume', 'ft³', 'L', 113.26739],
    [1200, 'speed', 'ft/min', 'm/s', 6.096],
    [5, 'speed', 'km/h', 'm/s', 1.3888889],
    [8.45, 'mass', 'lb', 'kg', 3.8328555],
    [2, 'mass', 'oz', 'g', 56.699046],
    [0.25, 'length', 'in', 'mm', 6.35],
    [131, 'temperature', '°F', '°C', 55],
    [3, 'energy', 'kWh', 'MJ', 10.8],
    [6, 'area', 'in²', 'cm²', 38.7096],
    [100, 'pressure', 'hPa', 'kPa', 10],
  ])('%s %s: %s to %s is %s', (value, dimension, from, to, wanted) => {
    expect(convert(value, dimension, from, to) / wanted).toBeCloseTo(1, 7);
  });

  it('takes an inch of water for 249.09 Pa (GNU Units; tables differ by the water’s temperature)', () => {
    expect(Math.abs(convert(1, 'pressure', 'inH2O', 'Pa') / 249.08891 - 1)).toBeLessThan(5e-5);
  });

  // By definition: 10 mg CaO, a grain a US gallon, 10 mg CaCO3, a grain an imperial gallon; a litre each.
  it.each([
    ['°dH', 17.85],
    ['gpg', 17.12],
    ['°f', 10],
    ['°e', 14.25],
  ])('1 %s of hardness is %s mg/L of CaCO3', (unit, wanted) => {
    expect(Math.abs(convert(1, 'hardness', unit, 'mg/L') - wanted)).toBeLessThan(0.006);
  });

  it('comes back from every unit as it went', () => {
    for (const dimension of Object.keys(DIMENSIONS) as DimensionId[]) {
      for (const unit of unitsOf(dimension)) {
        fc.assert(
          fc.property(fc.double({ min: 0.001, max: 1e4, noNaN: true }), (value) => {
            const there = convert(value, dimension, ownUnit(dimension), unit);
            const back = convert(there, dimension, unit, ownUnit(dimension));
            return Math.abs(back / value - 1) < 1e-9 || Math.abs(back - value) < 1e-9;
          }),
          { numRuns: 20 },
        );
      }
    }
  });

  it('throws for a unit of something else, and says figures short', () => {
    expect(() => convert(1, 'length', 'kg', 'm')).toThrow(RangeError);
    expect(sayAmount(56.5432, 'L/s')).toBe('56.5 L/s');
    expect(sayAmount(3, '')).toBe('3');
  });
});
