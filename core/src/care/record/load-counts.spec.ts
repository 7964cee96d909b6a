import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MS_PER_DAY } from '../../units/calendar.js';
import { total, Usage, type LoadCount } from './load-counts.js';

const START = Date.UTC(2026, 0, 1);
const day = (n: number) => START + n * MS_PER_DAY;
const taps = (...days: number[]): LoadCount[] => days.map((n) => ({ at: day(n), count: 1 }));

describe('Usage', () => {
  it('stands in with the usual loads where nothing was ever counted', () => {
    expect(new Usage([], 7).between(day(0), day(30))).toEqual({
      counted: 0,
      estimated: expect.closeTo(30, 6) as number,
    });
  });

  it('counts what was tapped, whatever the order of entry', () => {
    const usage = new Usage(taps(9, 1, 4, 6), 5);
    expect(usage.between(day(0.5), day(9))).toMatchObject({ counted: 4 });
    expect(usage.between(day(1), day(6)).counted).toBe(2);
  });

  it('takes two quiet weeks at their word, and then stands in', () => {
    const usage = new Usage(taps(0, 44), 7);
    expect(usage.between(day(0), day(14)).estimated).toBe(0);
    expect(usage.between(day(0), day(24)).estimated).toBeCloseTo(10, 6);
    expect(usage.between(day(0), day(44))).toEqual({
      counted: 1,
      estimated: expect.closeTo(30, 6) as number,
    });
  });

  it('lets loads entered afterwards for a past week take the place of the stand-in', () => {
    const before = new Usage(taps(0, 40), 7);
    const after = new Usage(taps(0, 12, 13, 14, 26, 40), 7);
    expect(before.between(day(0), day(40)).estimated).toBeCloseTo(26, 6);
    expect(after.between(day(0), day(40))).toEqual({ counted: 5, estimated: 0 });
  });

  it('has no use when nothing passed', () => {
    const usage = new Usage(taps(1), 7);
    expect(total(usage.between(day(5), day(5)))).toBe(0);
    expect(total(usage.between(day(6), day(5)))).toBe(0);
  });

  it('adds up over any split, and never runs backwards', () => {
    const days = fc.array(fc.double({ min: 0, max: 200, noNaN: true }), { maxLength: 40 });
    const moment = fc.double({ min: -50, max: 260, noNaN: true });
    fc.assert(
      fc.property(days, fc.tuple(moment, moment, moment), (tapped, moments) => {
        const [a, b, c] = moments.sort((x, y) => x - y).map(day) as [number, number, number];
        const usage = new Usage(taps(...tapped), 5);
        const [ab, bc, ac] = [usage.between(a, b), usage.between(b, c), usage.between(a, c)];
        expect(total(ab)).toBeGreaterThanOrEqual(-1e-9);
        expect(total(ab) + total(bc)).toBeCloseTo(total(ac), 6);
      }),
    );
  });

  it('finds when so many loads had passed', () => {
    const usage = new Usage(taps(1, 2, 3, 4), 5);
    expect(usage.passed(day(0.5), 3, day(10))).toBeCloseTo(day(3), -5);
    expect(usage.passed(day(0.5), 5, day(10))).toBeUndefined();
  });

  it('reckons the pace from the last eight weeks, or from the usual week', () => {
    expect(new Usage([], 4).weeklyRate(day(0))).toEqual({ perWeek: 4, counted: false });
    const daily = new Usage(taps(-1, ...Array.from({ length: 56 }, (_, i) => i + 0.5)), 4);
    expect(daily.weeklyRate(day(56))).toEqual({ perWeek: 7, counted: true });
  });
});
