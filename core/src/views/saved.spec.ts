import { describe, expect, it } from 'vitest';
import type { Entry } from '../model/schemas.js';
import { machine } from '../model/testing.js';
import { savedByCare } from './saved.js';

const DAY = 86_400_000;
const START = Date.parse('2026-03-01T08:00:00Z');
const dryer = machine('vented-dryer', { name: 'Dryer' });
const load = (day: number, kWh: number, minutes: number): Entry =>
  ({
    ...{ kind: 'load', machineId: dryer.id, at: new Date(START + day * DAY).toISOString() },
    cycle: {
      wattHours: 1000 * kWh,
      to: new Date(START + day * DAY + minutes * 60_000).toISOString(),
    },
  }) as Entry;
const clean = (day: number, task = 'duct-run'): Entry =>
  ({
    ...{ kind: 'done', machineId: dryer.id, task },
    at: new Date(START + day * DAY + 3_600_000).toISOString(),
  }) as Entry;
const days = (from: number, count: number) => Array.from({ length: count }, (_, i) => from + i);
const saved = (...entries: Entry[]) =>
  savedByCare(
    [dryer],
    entries.sort((a, b) => a.at.localeCompare(b.at)),
    START,
    'UTC',
  );

describe('what care saved', () => {
  it('is what the loads after a clean took less than the last before it', () => {
    // By hand: 4 kWh and 80 min before, 3 kWh and 60 min after, twenty loads: 20 kWh, 6 h 40 min.
    const one = saved(
      ...days(0, 8).map((day) => load(day, 4, 80)),
      clean(10),
      clean(10, 'hood'),
      ...days(11, 20).map((day) => load(day, 3, 60)),
    );
    expect(one).toHaveLength(1);
    expect(one[0]).toMatchObject({ loads: 20, energy: 20, day: '2026-03-11', machine: 'Dryer' });
    expect(one[0]!.hours).toBeCloseTo(20 / 3, 9);
    expect(one[0]!.what).toHaveLength(2);
  });

  it('goes to the next clean, and is told below nothing where it took more', () => {
    const two = saved(
      ...days(0, 5).map((day) => load(day, 3, 60)),
      clean(6),
      ...days(7, 5).map((day) => load(day, 3.2, 60)),
      clean(13),
      ...days(14, 5).map((day) => load(day, 2, 60)),
    );
    expect(two.map(({ loads }) => loads)).toEqual([5, 5]);
    expect(two[0]!.energy).toBeCloseTo(-1, 9);
    expect(two[1]!.energy).toBeCloseTo(6, 9);
  });

  it('is not told of too few loads, of loads long ago, or of what is done with each load', () => {
    const before = days(0, 8).map((day) => load(day, 4, 80));
    const after = days(11, 8).map((day) => load(day, 3, 60));
    expect(saved(...before, clean(10), load(11, 3, 60), load(12, 3, 60))).toEqual([]);
    expect(saved(...before, clean(70), ...days(71, 8).map((day) => load(day, 3, 60)))).toEqual([]);
    expect(saved(...before, clean(10, 'lint-screen'), ...after)).toEqual([]);
    expect(saved(...before, ...after)).toEqual([]);
  });
});
