import type { BenchView, Entry, MeterKept, MeterView } from '@needlecase/core';
import { MINUTES_A_DAY, UNREAD } from '@needlecase/core/loads/log/power-series';
import { deflateRawSync } from 'node:zlib';
import { beforeEach, describe, expect, it } from 'vitest';
import { meterLoad, readyApp, type Fixture } from './testing/household.js';

let house: Fixture;
let path: string;
beforeEach(async () => {
  house = await readyApp();
  path = `/api/v1/machines/${house.washer.id}/meter`;
});

const keep = (body: object) => house.api.post(path).send(body);
const kept = async (body: object): Promise<MeterKept> => (await keep(body).expect(201)).body;
const view = async (day?: string): Promise<MeterView> =>
  (await house.api.get(day ? `${path}?day=${day}` : path).expect(200)).body;
const tap = async (at: string, more: object = {}): Promise<Entry> => {
  const entry = { kind: 'load', machineId: house.washer.id, at, ...more };
  return (await house.api.post('/api/v1/entries').send(entry).expect(201)).body;
};
const log = async (): Promise<Entry[]> =>
  (await house.api.get(`/api/v1/entries?machine=${house.washer.id}&kind=load`).expect(200)).body
    .entries;
const day = (name: string, watts: (minute: number) => number) => {
  const bytes = Buffer.alloc(2 * MINUTES_A_DAY);
  for (let i = 0; i < MINUTES_A_DAY; i++) bytes.writeUInt16LE(watts(i), 2 * i);
  return { day: name, minutes: deflateRawSync(bytes).toString('base64') };
};

const MORNING = meterLoad('2026-03-02T08:00:00.000Z');
const EVENING = meterLoad('2026-03-02T18:00:00.000Z');

describe('what a meter told', () => {
  it('is counted once, whether it was tapped or not, and keeps what was tapped', async () => {
    const tapped = await tap('2026-03-02T09:30:00.000Z', { programme: 'hot', note: 'towels' });
    expect(await kept({ loads: [MORNING, EVENING], days: [] })).toMatchObject({
      ...{ added: 1, matched: 1, known: 0 },
    });
    const entries = await log();
    expect(entries).toHaveLength(2);
    const morning = entries.find(({ at }) => at === MORNING.from)!;
    expect(morning).toMatchObject({
      ...{ source: 'meter', count: 1, programme: 'hot', note: 'towels', revises: tapped.id },
      cycle: { wattHours: 640, heating: 14 },
    });
  });

  it('is the same when it comes again, and stays away once it was struck out', async () => {
    const { ids } = await kept({ loads: [MORNING, EVENING], days: [] });
    const later = { ...EVENING, from: '2026-03-02T18:01:10.000Z' };
    expect(await kept({ loads: [MORNING, later], days: [] })).toMatchObject({ added: 0, known: 2 });
    await house.api.post(`/api/v1/entries/${ids[1]}/undo`).expect(201);
    expect(await kept({ loads: [MORNING, EVENING], days: [] })).toMatchObject({
      added: 0,
      known: 2,
    });
    expect(await log()).toHaveLength(1);
  });

  it('is taken back as a whole, and what was tapped stands as it did', async () => {
    const at = '2026-03-02T09:30:00.000Z';
    await tap(at, { programme: 'hot' });
    const { ids } = await kept({ loads: [MORNING, EVENING], days: [] });
    const undo = () => house.api.post(`${path}/undo`).send({ ids }).expect(201);
    expect((await undo()).body).toEqual({ undone: 2 });
    expect((await undo()).body).toEqual({ undone: 0 });
    const entries = await log();
    expect(entries).toHaveLength(1);
    expect(entries[0]).toMatchObject({ at, programme: 'hot', source: 'api' });
    expect(entries[0]).not.toHaveProperty('cycle');
  });

  it('takes of a tap of several loads those that were found', async () => {
    await tap('2026-03-02T20:00:00.000Z', { count: 3 });
    expect(await kept({ loads: [MORNING, EVENING], days: [] })).toMatchObject({ matched: 2 });
    const entries = await log();
    expect(entries.reduce((sum, { count = 1 }) => sum + count, 0)).toBe(3);
    expect(entries.filter(({ source }) => source === 'meter')).toHaveLength(2);
  });

  it('shows a day by the clock of the house, with its loads', async () => {
    // The house is in Vienna: its day begins at 23:00 UTC.
    const watts = (minute: number) => (minute < 60 ? UNREAD : minute === 61 ? 2000 : 1);
    await kept({ loads: [MORNING], days: [day('2026-03-01', () => 7), day('2026-03-02', watts)] });
    const shown = await view('2026-03-02');
    expect(shown).toMatchObject({ from: '2026-03-01T23:00:00.000Z', first: '2026-03-01' });
    expect(shown.watts).toHaveLength(1440);
    expect(shown.watts.slice(58, 62)).toEqual([7, 7, null, null]);
    expect(shown.watts[60 + 61]).toBe(2000);
    expect(shown.loads.map(({ at }) => at)).toEqual([MORNING.from]);
    expect(shown.month).toEqual({ loads: 1, kWh: 0.64 });
    expect((await view()).day).toBe('2026-03-03');
    // The night in which the clocks go forward has an hour less.
    expect((await view('2026-03-29')).watts).toHaveLength(1380);
  });

  it('adds to a day what was not read before', async () => {
    await kept({ loads: [], days: [day('2026-03-02', (m) => (m < 700 ? 5 : UNREAD))] });
    await kept({ loads: [], days: [day('2026-03-02', (m) => (m < 600 ? UNREAD : 9))] });
    const { watts } = await view('2026-03-02');
    expect([watts[60 + 599], watts[60 + 600], watts[60 + 1300]]).toEqual([5, 9, 9]);
  });

  it.each([
    [
      'a load that ends before it begins',
      { ...MORNING, to: '2026-03-02T07:00:00.000Z' },
      'loads.0.to',
    ],
    ['a load of two days', { ...MORNING, to: '2026-03-04T07:00:00.000Z' }, 'loads.0.to'],
    ['a load to come', meterLoad('2199-03-02T08:00:00.000Z'), 'loads.0.to'],
    ['no energy', { ...MORNING, wattHours: -1 }, 'loads.0.wattHours'],
    ['absurd energy', { ...MORNING, wattHours: 1e308 }, 'loads.0.wattHours'],
  ])('is refused whole, with the field: %s', async (_, load, field) => {
    const { body } = await keep({ loads: [load], days: [day('2026-03-02', () => 1)] }).expect(422);
    expect(body.errors[0].field).toBe(field);
    expect((await view()).watts).toEqual([]);
    expect(await log()).toEqual([]);
  });

  it.each([
    ['no packing', 'AAAA'],
    ['too long a day', deflateRawSync(Buffer.alloc(2_000_000)).toString('base64')],
    ['too short a day', deflateRawSync(Buffer.alloc(10)).toString('base64')],
  ])('keeps no day that is none: %s', async (_, minutes) => {
    const { body } = await keep({ loads: [], days: [{ day: '2026-03-02', minutes }] }).expect(422);
    expect(body.errors[0].field).toBe('days.0.minutes');
  });

  it('takes four years at once, and nothing larger than anybody has', async () => {
    const noisy = (name: string) => day(name, (m) => (m * 7919) % 2000);
    const from = Date.parse('2020-01-01T00:00:00Z');
    const days = Array.from({ length: 1461 }, (_, i) =>
      noisy(new Date(from + i * 86_400_000).toISOString().slice(0, 10)),
    );
    expect(JSON.stringify(days).length).toBeGreaterThan(1_000_000);
    expect((await keep({ loads: [], days }).expect(201)).body.days).toBe(1461);
    const { body } = await keep({ loads: [], days: [], more: 'x'.repeat(7_000_000) }).expect(413);
    expect(body.title).toContain('larger than 6 MB');
  });

  it('keeps a machine from being deleted', async () => {
    await kept({ loads: [], days: [day('2026-03-02', () => 1)] });
    await house.api
      .delete(`/api/v1/machines/${house.washer.id}`)
      .set('If-Match', `"${house.washer.version}"`)
      .expect(409);
  });

  it('that drying got slower stands on the bench, until a clean of its air is proved', async () => {
    const dryer = `/api/v1/machines/${house.dryer.id}/meter`;
    const start = Date.now() - 120 * 86_400_000;
    const loads = Array.from({ length: 55 }, (_, i) => {
      const from = start + 2 * i * 86_400_000;
      const minutes = 60 * (i < 40 ? 1 : 1.4) * (1 + 0.04 * Math.sin(7 * i));
      const to = new Date(from + minutes * 60_000).toISOString();
      return { ...meterLoad(new Date(from).toISOString()), to, wattHours: 2000 };
    });
    await house.api
      .post(dryer)
      .send({ loads, days: [day(loads[0]!.from.slice(0, 10), () => 1)] })
      .expect(201);
    const bench = async () => (await house.api.get('/api/v1/bench').expect(200)).body as BenchView;
    const [signal] = (await bench()).signals ?? [];
    expect(signal).toMatchObject({ machineId: house.dryer.id, finding: 'slow-drift' });
    expect(signal!.percent).toBeGreaterThan(30);
    const at = new Date().toISOString();
    const proof = { kind: 'proof', task: 'duct-run', step: 'hood-bag', result: 'good' };
    await house.api
      .post('/api/v1/entries')
      .send({ ...proof, machineId: house.dryer.id, at })
      .expect(201);
    expect((await bench()).signals).toBeUndefined();
  });
});
