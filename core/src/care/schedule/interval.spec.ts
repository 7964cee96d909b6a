import { describe, expect, it } from 'vitest';
import { taskById } from '../catalogue/lookup.js';
import { inDriver } from '../catalogue/interval-figure.js';
import { sayInterval, scaled, speedUps } from './interval.js';
import { household, machine } from '../../model/testing.js';

describe('inDriver', () => {
  it('exchanges days and loads at five loads a week', () => {
    expect(inDriver({ days: 14 }, 'loads')).toBe(10);
    expect(inDriver({ loads: 10 }, 'days')).toBe(14);
    expect(inDriver({ loads: 40 }, 'loads')).toBe(40);
    expect(inDriver({ months: 12 }, 'days')).toBeCloseTo(365.25, 6);
    expect(inDriver({ everyLoad: true }, 'loads')).toBe(1);
  });

  it('takes the earlier bound where both are given', () => {
    expect(inDriver({ loads: 30, months: 3 }, 'loads')).toBe(30);
    expect(inDriver({ loads: 80, days: 70 }, 'loads')).toBe(50);
  });
});

describe('speedUps', () => {
  const found = (task: string, change: object, house: object = {}) =>
    speedUps(taskById(task), machine('front-load-washer', change), household(house)).map(
      ({ circumstance, multiplier }) => [circumstance, multiplier],
    );

  it('finds what acts on the task, and nothing else', () => {
    expect(found('gasket-folds', { habits: ['pets', 'softener'] })).toEqual([['pets', 1.5]]);
    expect(found('dispenser', { habits: ['softener'], features: { room: 'unheated' } })).toEqual([
      ['softener', 2],
      ['unheated-room', 1.25],
    ]);
    expect(found('pump-filter', {})).toEqual([]);
  });

  it('takes a riser or two elbows for a long duct, one elbow not', () => {
    expect(found('duct-run', { features: { elbows: 2 } })).toEqual([['long-duct', 1.5]]);
    expect(found('duct-run', { features: { elbows: 1, riser: 'no' } })).toEqual([]);
    expect(found('duct-run', { features: { riser: 'yes' } })).toEqual([['long-duct', 1.5]]);
  });
});

describe('scaled', () => {
  const filter = taskById('pump-filter');

  it('keeps calendar months while nothing changes the pace', () => {
    expect(scaled(filter, { months: 2 }, [], 1)).toMatchObject({ months: 2 });
    expect(scaled(filter, { months: 2 }, [], 1).loads).toBeCloseTo(43.48, 2);
  });

  it('scales loads and days sameData', () => {
    const half = scaled(filter, { months: 2 }, [], 0.5);
    expect(half.months).toBeUndefined();
    expect(half.days).toBeCloseTo(30.4, 1);
    expect(half.loads).toBeCloseTo(21.7, 1);
  });
});

describe('sayInterval', () => {
  it.each([
    [{ months: 1 }, 'every month'],
    [{ months: 2, loads: 43.4 }, 'every 2 months or 43 loads, whichever comes first'],
    [{ days: 14 }, 'every 2 weeks'],
    [{ days: 1 }, 'every day'],
    [{ days: 32.2 }, 'every 32 days'],
    [{ loads: 1 }, 'every load'],
  ])('%j: %s', (interval, said) => {
    expect(sayInterval(interval)).toBe(said);
  });
});
