import { MACHINE_KINDS } from '@needlecase/core';
import { describe, expect, it } from 'vitest';
import { history } from './history.js';
import { HOUSEHOLD, MACHINES } from './household.js';

const TODAY = '2026-11-24';

describe('the demo household', () => {
  const entries = history(TODAY, HOUSEHOLD.zone);

  it('is the same for the same day', () => {
    expect(history(TODAY, HOUSEHOLD.zone)).toEqual(entries);
  });

  it('is two years long, ends yesterday at the latest, and has every machine in it', () => {
    const days = entries.map(({ at }) => at.slice(0, 10)).sort();
    expect(days[0]! < '2024-12-05').toBe(true);
    expect(days.at(-1)! <= TODAY).toBe(true);
    expect(new Set(entries.map(({ machine }) => machine))).toEqual(new Set(Object.keys(MACHINES)));
    expect(Object.values(MACHINES).every(({ kind }) => MACHINE_KINDS.includes(kind))).toBe(true);
  });

  it('has the filter that was neglected once until the washer stood full', () => {
    const filter = entries.filter(({ task, kind }) => task === 'pump-filter' && kind === 'done');
    const times = filter.map(({ at }) => Date.parse(at)).sort((a, b) => a - b);
    const gaps = times.slice(1).map((at, i) => (at - times[i]!) / 86_400_000);
    expect(Math.max(...gaps)).toBeGreaterThan(180);
    expect(filter.some(({ grade, trays }) => grade === 4 && trays === 9)).toBe(true);
  });

  it('has a dryer that takes longer and longer since its duct was cleaned', () => {
    const minutes = entries.filter(({ quantity }) => quantity === 'drying-minutes');
    expect(minutes.at(-1)!.value! / minutes[0]!.value!).toBeGreaterThan(1.15);
  });
});
