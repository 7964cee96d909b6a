import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { COMMON_DRUM, heightOfLitres, tripsFor, tubLitres } from './tub.js';

describe('water in the tub', () => {
  it('is the segment of a lying cylinder: 17.8 L at 15 cm in a common drum (worked example)', () => {
    expect(tubLitres(0.15, { radius: 0.26, depth: 0.35 })).toBeCloseTo(17.8, 1);
  });

  it('is none, half and all of the cylinder at its bottom, its axis and its top (geometry)', () => {
    const { radius, depth } = COMMON_DRUM;
    const whole = Math.PI * radius ** 2 * depth * 1000;
    expect(tubLitres(0)).toBeCloseTo(0, 12);
    expect(tubLitres(radius)).toBeCloseTo(whole / 2, 9);
    expect(tubLitres(2 * radius)).toBeCloseTo(whole, 9);
  });

  it('agrees with thin slices laid on each other (trapezoid rule)', () => {
    const { radius, depth } = COMMON_DRUM;
    const slices = 200_000;
    const height = 0.11;
    const width = (y: number) => 2 * Math.sqrt(Math.max(0, radius ** 2 - (radius - y) ** 2));
    let area = 0;
    for (let i = 0; i < slices; i++) {
      const [a, b] = [i, i + 1].map((n) => (n * height) / slices) as [number, number];
      area += ((width(a) + width(b)) / 2) * (b - a);
    }
    expect(tubLitres(height)).toBeCloseTo(area * depth * 1000, 5);
  });

  it('stands as high as its litres say, in any drum, and never above it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 0.4, noNaN: true }),
        fc.double({ min: 0.15, max: 0.8, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (radius, depth, share) => {
          const drum = { radius, depth };
          const height = share * 2 * radius;
          expect(heightOfLitres(tubLitres(height, drum), drum)).toBeCloseTo(height, 4);
          expect(heightOfLitres(1e6, drum)).toBe(2 * radius);
          expect(heightOfLitres(0, drum)).toBeCloseTo(0, 4);
        },
      ),
    );
  });

  it('is carried in so many trays filled to half, or buckets', () => {
    expect(tripsFor(17.8)).toEqual({ trays: 12, buckets: 3 });
    expect(tripsFor(1.5)).toEqual({ trays: 1, buckets: 1 });
    expect(tripsFor(0)).toEqual({ trays: 0, buckets: 0 });
  });

  it.each([-0.01, 0.53, NaN, Infinity])('takes no height of %s m', (height) => {
    expect(() => tubLitres(height)).toThrow('from 0 to 0.52');
  });
});
