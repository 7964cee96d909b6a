import { describe, expect, it } from 'vitest';
import { slowDrying, type MeteredLoad } from './signal.js';

const DAY = 86_400_000;
const FROM = Date.parse('2026-03-01T08:00:00Z');
/** A load every other day, an hour for 2 kWh, a few per cent up and down; longer by a factor from a load on. */
const loads = (count: number, factor: (i: number) => number = () => 1): MeteredLoad[] =>
  Array.from({ length: count }, (_, i) => {
    const from = FROM + 2 * i * DAY;
    const minutes = 60 * factor(i) * (1 + 0.05 * Math.sin(7 * i));
    return { id: String(i), from, to: from + minutes * 60_000, wattHours: 2000, unread: 0 };
  });

describe('slow drying', () => {
  it('tells since when, how much, and what waiting costs', () => {
    const signal = slowDrying(
      'dryer',
      loads(60, (i) => (i < 40 ? 1 : 1.3)),
      [],
      'Europe/Vienna',
    )!;
    expect(signal).toMatchObject({ machineId: 'dryer', finding: 'slow-drift' });
    expect(Math.abs(signal.percent - 30)).toBeLessThanOrEqual(6);
    expect(signal.low).toBeLessThan(30);
    expect(signal.high).toBeGreaterThan(30);
    expect(Math.abs(Date.parse(signal.day) - (FROM + 80 * DAY))).toBeLessThan(7 * DAY);
    expect(Math.abs(signal.now - 78)).toBeLessThanOrEqual(3);
    // Fifteen loads in thirty days, eighteen minutes each.
    expect(Math.abs(signal.hours - 4.5)).toBeLessThan(1.2);
  });

  it('tells nothing where nothing changed, of a small change, of little loads, and when it is back', () => {
    expect(slowDrying('d', loads(60), [], 'UTC')).toBeUndefined();
    expect(
      slowDrying(
        'd',
        loads(60, (i) => (i < 40 ? 1 : 1.05)),
        [],
        'UTC',
      ),
    ).toBeUndefined();
    const short = loads(60, (i) => (i < 40 ? 0.1 : 0.2));
    expect(slowDrying('d', short, [], 'UTC')).toBeUndefined();
    const back = loads(60, (i) => (i >= 30 && i < 45 ? 1.4 : 1));
    expect(slowDrying('d', back, [], 'UTC')).toBeUndefined();
  });

  it('ends with a clean that was proved', () => {
    const slow = loads(60, (i) => (i < 40 ? 1 : 1.3));
    expect(slowDrying('d', slow, [FROM + 100 * DAY], 'UTC')).toBeUndefined();
  });
});
