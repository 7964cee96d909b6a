import { randomLcg, randomNormal } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { Usage } from '../care/record/load-counts.js';
import type { CaseRecord, Entry, Machine } from '../model/schemas.js';
import { chartsView, quantile, trendOf } from './charts.js';

const DAY = 86_400_000;
const FROM = Date.parse('2026-01-01T10:00:00Z');
const washer = {
  ...{ id: 'w', name: 'Washer', kind: 'front-load-washer', place: 'Cellar', version: 1 },
  ...{ features: {}, habits: [], loadsPerWeek: 3 },
} as unknown as Machine;
let ids = 0;
const entry = (kind: Entry['kind'], day: number, more: object = {}): Entry => ({
  ...{ id: String(++ids), kind, machineId: 'w', author: 'a', source: 'api', zone: 'UTC' },
  ...{ at: new Date(FROM + day * DAY).toISOString(), recordedAt: '', ...more },
});
const drain = (day: number, value: number) =>
  entry('reading', day, { quantity: 'drain-time', value, unit: 's' });
const usage = new Usage(
  Array.from({ length: 100 }, (_, i) => ({ at: FROM + i * DAY, count: 1 })),
  3,
);
const view = (entries: Entry[], cases: CaseRecord[] = [], units: 'metric' | 'us' = 'metric') =>
  chartsView({ machine: washer, entries, cases, usage, units });

describe('quantiles', () => {
  it('are those of R’s default (type 7): quantile(c(1, 2, 4, 8, 16), c(.1, .5, .9)), from memory', () => {
    const values = [1, 2, 4, 8, 16];
    expect(quantile(values, 0.1)).toBeCloseTo(1.4, 9);
    expect(quantile(values, 0.5)).toBe(4);
    expect(quantile(values, 0.9)).toBeCloseTo(12.8, 9);
    expect(quantile([], 0.5)).toBeNaN();
  });
});

describe('a trend', () => {
  const points = (values: number[]) =>
    values.map((value, i) => ({ at: FROM + i * 30 * DAY, loads: i, value }));

  it('of a straight line is its slope, whatever one odd figure says', () => {
    expect(trendOf(points([1, 3, 5, 7, 9]))).toMatchObject({ monthly: 2, start: 1 });
    expect(trendOf(points([1, 3, 5, 700, 9, 11, 13]))!.monthly).toBe(2);
  });

  it('by hand: the slopes of 1, 2, 4, 3 are 1, 1.5, 2/3, 2, 1/2, -1; the middle of them 5/6', () => {
    expect(trendOf(points([1, 2, 4, 3]))!.monthly).toBeCloseTo(5 / 6, 9);
  });

  it('of too few figures, or of one moment, is none', () => {
    expect(trendOf(points([1, 2, 3]))).toBeUndefined();
    expect(trendOf(points([1, 2, 3, 4]).map((one) => ({ ...one, at: FROM })))).toBeUndefined();
  });

  it('of noise about a rise finds it', () => {
    const noise = randomNormal.source(randomLcg(0.2))(0, 3);
    const many = points(Array.from({ length: 300 }, (_, i) => 20 + 0.5 * i + noise()));
    expect(Math.abs(trendOf(many)!.monthly - 0.5)).toBeLessThan(0.02);
  });
});

describe('charts of a machine', () => {
  const work = entry('done', 40, { task: 'pump-filter', station: 'pump-filter' });
  const entries = [
    ...[0, 10, 20, 30].map((day) => drain(day, 20 + day)),
    work,
    ...[41, 45, 50, 60, 90].map((day) => drain(day, 20 + (day - 40) / 2)),
    entry('replaced', 70, { station: 'drain-hose' }),
    entry('opened', 80, { task: 'dispenser', station: 'dispenser' }),
    entry('load', 85, {
      cycle: {
        to: new Date(FROM + 85 * DAY + 3_600_000).toISOString(),
        wattHours: 640,
      },
    }),
    entry('note', 86, { note: 'no mark' }),
  ];

  it('have each quantity with what it is when clean, its range, and its trend since the last clean', () => {
    const { series } = view(entries);
    expect(series.map(({ id }) => id)).toEqual([
      'drain-time',
      'load-minutes',
      'load-energy',
      'loads',
    ]);
    const [one] = series;
    expect(one!.points).toHaveLength(9);
    expect(one!.points[0]).toMatchObject({ loads: 1, value: 20 });
    // Read within three weeks of the clean: 20.5, 22.5, 25, 30.
    expect(one!.clean).toBeCloseTo(23.75, 9);
    expect(one!.trend!.monthly).toBeCloseTo(15, 6);
    expect(one!.trend!.from).toBe(FROM + 41 * DAY);
    expect(series[1]!.points).toMatchObject([{ value: 60 }]);
    expect(series[2]!.points).toMatchObject([{ value: 0.64 }]);
  });

  it('mark what was done, looked at and replaced, and trouble', () => {
    const opened = new Date(FROM + 35 * DAY).toISOString();
    const answer = { id: 'e', kind: 'answer', finding: 'drains-slowly', answer: 'yes', at: opened };
    const record = { id: 'c', machineId: 'w', events: [answer] } as unknown as CaseRecord;
    const { marks } = view(entries, [record]);
    expect(marks.map(({ kind }) => kind)).toEqual(['case', 'cleaned', 'replaced', 'looked']);
    expect(marks[0]!.at).toBe(FROM + 35 * DAY);
    expect(marks[1]).toMatchObject({ station: 'pump-filter', say: 'Clean the pump filter' });
  });

  it('keep a phone’s figures apart from those of another, and of another place', () => {
    const shakes = (day: number, value: number, device: string, placement: string) =>
      entry('reading', day, {
        ...{ quantity: 'spin-shake', value, unit: 'm/s²', device, placement },
      });
    const { series } = view([
      ...[
        shakes(1, 2, 'Odo’s', 'lid'),
        shakes(2, 9, 'Wren’s', 'lid'),
        shakes(3, 1, 'Odo’s', 'side'),
      ],
      shakes(4, 2.2, 'Odo’s', 'lid'),
    ]);
    const told = series.filter(({ id }) => id.startsWith('spin-shake'));
    expect(told.map(({ taken, points }) => [taken, points.map(({ value }) => value)])).toEqual([
      ['Odo’s, lid', [2, 2.2]],
      ['Wren’s, lid', [9]],
      ['Odo’s, side', [1]],
    ]);
    expect(told[0]!.say).toBe('How hard the spin shakes the phone (Odo’s, lid)');
  });

  it('are in the units that the house reads', () => {
    const litres = entry('reading', 1, { quantity: 'fill-litres', value: 3.785411784, unit: 'L' });
    const [one] = view([litres], [], 'us').series;
    expect(one).toMatchObject({ unit: 'gal' });
    expect(one!.points[0]!.value).toBeCloseTo(1, 4);
    expect(view([litres]).series[0]).toMatchObject({ unit: 'L' });
  });

  it('of many figures show each week’s middle one, and of ten years come soon', () => {
    const many = Array.from({ length: 3650 }, (_, i) => drain(i, 20 + (i % 7)));
    const begun = Date.now();
    const [one] = view(many).series;
    expect(Date.now() - begun).toBeLessThan(1000);
    expect(one!.points.length).toBeLessThanOrEqual(523);
    // But for the first and the last, which are not whole.
    for (const { value } of one!.points.slice(1, -1)) expect(value).toBe(23);
  });

  it('of a machine without a record are none', () => {
    const none = chartsView({
      ...{ machine: washer, entries: [], cases: [], units: 'metric' },
      usage: new Usage([], 3),
    });
    expect(none).toEqual({ series: [], marks: [] });
  });
});
