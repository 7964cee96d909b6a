import {
  dayOf,
  type BenchView,
  type Entry,
  type MeterKept,
  type MeterView,
} from '@needlecase/core';
import { MINUTES_A_DAY, UNREAD } from '@needlecase/core/loads/log/power-series';
import { deflateRawSync } from 'node:zlib';
import { beforeEach, describe, expect, it } from 'vitest';
import { HOUSEHOLD } from '../../demo/household.js';
import { addPlug, fillDemo } from './work/demo.js';
import { ago, emptyApp, meterLoad, readyApp, type Fixture } from './testing/household.js';

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
    expect(signal!.change!.percent).toBeGreaterThan(30);
    const at = new Date().toISOString();
    const proof = { kind: 'proof', task: 'duct-run', step: 'hood-bag', result: 'good' };
    await house.api
      .post('/api/v1/entries')
      .send({ ...proof, machineId: house.dryer.id, at })
      .expect(201);
    expect((await bench()).signals).toBeUndefined();
  });

  it('what a wash tells is kept and watched, each figure by itself, and its programmes are told apart', async () => {
    const start = Date.now() - 60 * 86_400_000;
    const loads = Array.from({ length: 58 }, (_, i) => {
      const from = start + i * 86_400_000;
      const long = i % 3 > 0;
      const wash = {
        toHeat: (long ? 6 : 4) * (i < 40 ? 1 : 1.8) * (1 + 0.05 * Math.sin(7 * i)),
        perKwh: 30,
        spins: long ? 4 : 2,
        ...(i > 55 ? { pumped: 6 } : {}),
      };
      const to = new Date(from + (long ? 110 : 35) * 60_000).toISOString();
      const told = { ...meterLoad(new Date(from).toISOString()), to };
      return { ...told, wattHours: long ? 900 : 250, wash };
    });
    await kept({ loads, days: [day(loads[0]!.from.slice(0, 10), () => 1)] });
    const bench = async () => (await house.api.get('/api/v1/bench').expect(200)).body as BenchView;
    const figures = async () => ((await bench()).signals ?? []).map(({ figure }) => figure);
    expect(await figures()).toEqual(['filling', 'drain']);
    const { programmes, signals } = await view();
    expect(programmes.map(({ loads: count, minutes }) => [count, minutes])).toEqual([
      [38, 110],
      [20, 35],
    ]);
    expect(signals.map(({ figure }) => figure)).toEqual(['filling', 'drain']);
    const known = {
      ...{ kind: 'explained', machineId: house.washer.id, at: new Date().toISOString() },
      ...{ quantity: 'filling', note: 'The tap was half shut' },
    };
    await house.api.post('/api/v1/entries').send(known).expect(201);
    expect(await figures()).toEqual(['drain']);
    const wrong = await house.api
      .post('/api/v1/entries')
      .send({ ...known, quantity: 'luck' })
      .expect(422);
    expect(wrong.body.errors[0].field).toBe('quantity');
    const refused = await keep({
      loads: [{ ...MORNING, wash: { spins: -1 } }],
      days: [],
    }).expect(422);
    expect(refused.body.errors[0].field).toBe('loads.0.wash.spins');
  });
});

describe('a tap of what a meter told before', () => {
  const standing = async () => (await log()).filter(({ kind }) => kind === 'load');
  const loads = async () => (await standing()).reduce((sum, { count = 1 }) => sum + count, 0);

  it('counts nothing twice, keeps what was said, and is taken back alone', async () => {
    await kept({ loads: [MORNING], days: [] });
    const tapped = await tap('2026-03-02T09:40:00.000Z', { programme: 'hot', note: 'towels' });
    expect(tapped).toMatchObject({ kind: 'load', source: 'api' });
    const [load, ...more] = await standing();
    expect(more).toEqual([]);
    expect(load).toMatchObject({
      ...{ at: MORNING.from, source: 'meter', programme: 'hot', note: 'towels' },
      cycle: { wattHours: 640, tapped: true },
    });
    // A second one is another load.
    await tap('2026-03-02T09:50:00.000Z');
    expect(await loads()).toBe(2);
    await house.api.post(`/api/v1/entries/${tapped.id}/undo`).expect(201);
    expect(await loads()).toBe(2);
    const [again] = (await standing()).filter(({ cycle }) => cycle);
    expect(again).not.toHaveProperty('programme');
    expect(again!.cycle).not.toHaveProperty('tapped');
    expect(await kept({ loads: [MORNING], days: [] })).toMatchObject({ added: 0, known: 1 });
    expect(await loads()).toBe(2);
  });

  it('of several loads takes those that were told, and leaves the rest a tap', async () => {
    await kept({ loads: [MORNING, EVENING], days: [] });
    await tap('2026-03-02T20:00:00.000Z', { count: 3 });
    expect(await loads()).toBe(3);
    await tap('2026-03-02T20:05:00.000Z');
    expect(await loads()).toBe(4);
  });

  it('is a load by itself where the meter told of none that is near, or of one that was tapped', async () => {
    await tap('2026-03-02T09:30:00.000Z');
    await kept({ loads: [MORNING], days: [] });
    expect(await loads()).toBe(1);
    await tap('2026-03-02T09:45:00.000Z');
    await tap('2026-03-04T09:45:00.000Z');
    expect(await loads()).toBe(3);
  });

  it('sent twice under one key is one', async () => {
    await kept({ loads: [MORNING], days: [] });
    const entry = { kind: 'load', machineId: house.washer.id, at: '2026-03-02T09:40:00.000Z' };
    for (let i = 0; i < 2; i++) {
      await house.api
        .post('/api/v1/entries')
        .set('Idempotency-Key', 'tap-in-the-cellar')
        .send(entry)
        .expect(201);
    }
    expect(await loads()).toBe(1);
  });
});

describe('loads that are put right by hand', () => {
  const soaked = day('2026-03-02', (m) => (m >= 550 && m < 565 ? 1 : m >= 480 ? 300 : 1));
  const said = (what: string, body: object) => house.api.post(`${path}/${what}`).send(body);
  const standing = async () =>
    (await log()).map(({ at, cycle }) => [at.slice(11, 16), cycle!.to.slice(11, 16)]);

  it('that were one are joined, and it is learned; in a later file they are known', async () => {
    const second = { ...meterLoad('2026-03-02T09:25:00.000Z'), unread: 20 };
    const loads = [MORNING, second];
    const { ids } = await kept({ loads, days: [soaked] });
    expect((await view()).pause).toBe(12);
    const [both] = (await said('join', { ids }).expect(201)).body;
    expect(both).toMatchObject({ at: MORNING.from, cycle: { to: second.to, joined: 15 } });
    expect(await standing()).toEqual([['08:00', '10:35']]);
    expect((await view()).pause).toBe(15.5);
    expect(await kept({ loads, days: [] })).toMatchObject({ added: 0, known: 2 });
    const whole = { ...MORNING, to: second.to };
    expect(await kept({ loads: [whole], days: [] })).toMatchObject({ added: 0, known: 1 });
    expect(await standing()).toEqual([['08:00', '10:35']]);
    await said('join', { ids }).expect(422);
  });

  it('that was two is parted where its meter rested, and what was said of it stays', async () => {
    const long = { ...MORNING, to: '2026-03-02T10:35:00.000Z' };
    await tap('2026-03-02T11:00:00.000Z', { note: 'towels', programme: 'hot' });
    const { ids } = await kept({ loads: [long], days: [soaked] });
    const [first, second] = (await said('part', { id: ids[0] }).expect(201)).body;
    expect([first.note, first.programme, second.note]).toEqual(['towels', 'hot', undefined]);
    expect(await standing()).toEqual([
      ['09:25', '10:35'],
      ['08:00', '09:10'],
    ]);
    expect((await view()).pause).toBe(12);
    const none = await said('part', { id: second.id }).expect(422);
    expect(none.body.errors[0].message).toContain('No pause');
    expect(await kept({ loads: [long], days: [] })).toMatchObject({ added: 0, known: 1 });
  });

  it('are called by a name, and others like them, too', async () => {
    const { ids } = await kept({ loads: [MORNING, EVENING], days: [soaked] });
    await said('name', { id: ids[0], name: ' Cotton 60 ' }).expect(201);
    const { names, loads } = await view('2026-03-02');
    expect(loads.map(({ id }) => names[id])).toEqual(['Cotton 60', 'Cotton 60']);
    const [named] = loads.filter(({ cycle }) => cycle!.name);
    await said('name', { id: named!.id, name: '' }).expect(201);
    expect((await view('2026-03-02')).names).toEqual({});
    await said('name', { id: ids[0], name: 'x' }).expect(422);
    await said('name', { id: named!.id, name: 'x'.repeat(41) }).expect(422);
  });
});

describe('the air that the watts tell', () => {
  const dried = (daysAgo: number, duty: number) => ({
    ...meterLoad(ago(daysAgo)),
    ...{ duty, heater: 5200 },
  });
  const told = async (loads: object[]): Promise<MeterKept> =>
    (
      await house.api
        .post(`/api/v1/machines/${house.dryer.id}/meter`)
        .send({ loads, days: [] })
        .expect(201)
    ).body;
  const readings = async (): Promise<Entry[]> =>
    (await house.api.get(`/api/v1/entries?machine=${house.dryer.id}&kind=reading`).expect(200)).body
      .entries;
  const duct = async (): Promise<{ use: number; fouling: { median: number } }> => {
    const { body } = await house.api.get(`/api/v1/machines/${house.dryer.id}/line`).expect(200);
    return body.tasks.find(({ task }: { task: string }) => task === 'duct-run');
  };

  it('is a reading of the duct like any other, against its own clean, and once', async () => {
    const clean = { kind: 'done', machineId: house.dryer.id, task: 'duct-run', at: ago(60) };
    await house.api.post('/api/v1/entries').send(clean).expect(201);
    const free = [59, 58.8, 58.6].map((days) => dried(days, 0.93));
    await told(free);
    const before = await duct();
    expect(await readings()).toHaveLength(1);
    const short = [30, 28, 26, 24, 22, 20, 18, 16, 14].map((days) => dried(days, 0.5));
    const { ids, added } = await told(short);
    expect([added, ids.length]).toEqual([9, 12]);
    expect(await readings()).toHaveLength(4);
    const after = await duct();
    expect(after.fouling.median / after.use).toBeGreaterThan(
      1.5 * (before.fouling.median / before.use),
    );
    expect(await told(short)).toMatchObject({ known: 9, ids: [] });
    expect(await readings()).toHaveLength(4);
    const undo = `/api/v1/machines/${house.dryer.id}/meter/undo`;
    expect((await house.api.post(undo).send({ ids }).expect(201)).body).toEqual({ undone: 9 });
    expect(await readings()).toHaveLength(1);
  });

  it('is none of a gas dryer, of which the watts tell the motor alone', async () => {
    const { id: _id, version, ...draft } = house.dryer;
    await house.api
      .put(`/api/v1/machines/${house.dryer.id}`)
      .set('If-Match', `"${version}"`)
      .send({ ...draft, features: { energy: 'gas' } })
      .expect(200);
    await told([30, 28, 26].map((days) => dried(days, 0.5)));
    expect(await readings()).toEqual([]);
  });
});

describe('the plug of the demo household', () => {
  it('tells of loads that were tapped, and adds none', () => {
    const today = dayOf(Date.now(), HOUSEHOLD.zone);
    const { store } = emptyApp();
    store.write(() => fillDemo(store, today));
    const machine = store.machines.list().find(({ name }) => name === 'Top-floor dryer')!;
    const standing = () =>
      store.entries
        .loadsBetween(machine.id, 0, Date.now())
        .filter(({ revisedBy }) => !revisedBy)
        .reduce((sum, { count = 1 }) => sum + count, 0);
    const before = standing();
    store.write(() => addPlug(store, today));
    expect(standing()).toBe(before);
    const told = store.entries
      .loadsBetween(machine.id, 0, Date.now())
      .filter(({ source, revisedBy }) => source === 'meter' && !revisedBy);
    expect(told.length).toBeGreaterThan(10);
    expect(store.meterDays.ends(machine.id)).toBeDefined();
  });
});
