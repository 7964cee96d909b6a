import { describe, expect, it } from 'vitest';
import { taskById } from '../care/catalogue/lookup.js';
import type { Entry, Household, Machine, Supply } from '../model/schemas.js';
import { yearView } from './year.js';

const NOW = Date.parse('2026-11-27T10:00:00Z');
const household = {
  ...{ id: 'h', version: 1, name: 'House', zone: 'Europe/Vienna', units: 'metric' },
  ...{ school: 'steady', risk: 0.1, energyPrice: 0.3, currency: 'EUR' },
} as Household;
const machine = {
  ...{ id: 'w', name: 'Washer', kind: 'front-load-washer', place: 'Cellar', version: 1 },
  ...{ features: {}, habits: [], loadsPerWeek: 3 },
} as unknown as Machine;
const supplies = [
  { id: 's', version: 1, item: 'citric-acid', name: 'Citric acid', unit: 'g', pack: 500, price: 4 },
  { id: 't', version: 1, item: 'tape', name: 'Tape', unit: 'pieces', pack: 1 },
] as Supply[];
const entry = (kind: Entry['kind'], at: string, more: object = {}): Entry =>
  ({
    ...{ id: at, kind, at, author: 'ann', zone: 'Europe/Vienna', machineId: 'w' },
    ...more,
  }) as Entry;
const hands = (task: string): number => taskById(task).minutes.hands;

describe('a year of care', () => {
  const filter = { task: 'pump-filter' };
  const view = yearView({
    ...{ household, machines: [machine], supplies, now: NOW },
    entries: [
      entry('done', '2025-01-01T10:00:00Z', filter),
      entry('done', '2026-03-02T10:00:00Z', filter),
      // On the 1st by the clock of the house.
      entry('done', '2026-03-31T22:30:00Z', { task: 'descale', author: 'ben' }),
      entry('opened', '2026-11-27T09:00:00Z', filter),
      entry('load', '2026-11-26T09:00:00Z', { count: 2 }),
      entry('load', '2026-11-26T19:00:00Z', { cycle: { to: '', wattHours: 900 } }),
      entry('bought', '2026-11-02T09:00:00Z', { supply: 'citric-acid', value: 1000, unit: 'g' }),
      entry('bought', '2026-11-02T09:00:00Z', { supply: 'tape', value: 1, unit: 'pieces' }),
      entry('note', '2026-11-02T09:00:00Z', { note: 'x' }),
      entry('replaced', '2026-11-03T09:00:00Z', { cost: { amount: 19.5, currency: 'EUR' } }),
      entry('called', '2026-11-04T09:00:00Z', { cost: { amount: 90, currency: 'EUR' } }),
      entry('called', '2026-11-05T09:00:00Z', { cost: { amount: 40, currency: 'CHF' } }),
    ],
  });

  it('has fifty-three weeks to today, with who worked how long', () => {
    expect(view).toMatchObject({ from: '2025-11-22', to: '2026-11-27', currency: 'EUR' });
    expect(view.weeks).toHaveLength(53);
    expect(view.weeks.at(-1)).toMatchObject({
      from: '2026-11-21',
      minutes: hands('pump-filter'),
      who: [{ author: 'ann', minutes: hands('pump-filter') }],
    });
    const sum = view.weeks.reduce((all, { minutes }) => all + minutes, 0);
    expect(sum).toBe(2 * hands('pump-filter') + hands('descale'));
    expect(view.people.map(({ author, tasks }) => [author, tasks])).toEqual([
      ['ann', 2],
      ['ben', 1],
    ]);
  });

  it('has months by the clock of the house, with what was spent and what has no price', () => {
    expect(view.months.map(({ month }) => month)).toEqual(['2026-03', '2026-04', '2026-11']);
    const last = view.months.at(-1)!;
    expect(last).toMatchObject({ supplies: 8, loads: 3, metered: 1, tasks: 1 });
    expect(last.kWh).toBeCloseTo(0.9, 9);
    expect(last.energy).toBeCloseTo(0.27, 9);
    expect(view.unpriced).toEqual(['Tape']);
    expect(last).toMatchObject({ parts: 19.5, calls: 90 });
    expect(view.otherMoney).toEqual([{ amount: 40, currency: 'CHF' }]);
  });
});
