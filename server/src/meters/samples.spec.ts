import { standInLog } from '@needlecase/core/loads/stand-in/log';
import type { StandIn } from '@needlecase/core/loads/stand-in/programmes';
import type { Entry, MeterView } from '@needlecase/core';
import type { Meter } from '@needlecase/core/model/meters';
import { randomLcg } from 'd3-random';
import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { makeApp } from '../app.js';
import { openDatabase } from '../db/open.js';
import { readyApp, setup, type Fixture } from '../testing/household.js';
import { move } from '../testing/people.js';
import { MOST_SAMPLES } from '../routes/meters.js';
import request from 'supertest';

const NOW = Date.now();
const HOUR = 3_600_000;

let house: Fixture;
let meter: Meter;
beforeEach(async () => {
  house = await readyApp();
  meter = await made({ name: 'Plug', machineId: house.washer.id });
});

const made = async (draft: object): Promise<Meter> =>
  (await house.api.post('/api/v1/meters').send(draft).expect(201)).body;
const send = (samples: unknown, { id, token }: Meter = meter) =>
  house.api
    .post(`/api/v1/meters/${id}/samples`)
    .set('Authorization', `Bearer ${token}`)
    .send(samples as object);
const loads = async (machine = house.washer): Promise<Entry[]> =>
  (await house.api.get(`/api/v1/entries?machine=${machine.id}&kind=load`).expect(200)).body.entries;
const kept = (id = meter.id) => house.store.meters.get(id)!;
const log = (kinds: readonly StandIn[], count = 2, seed = 0.4) => {
  const random = randomLcg(seed);
  const options = { kinds, every: 10, noise: 1, random, loads: count };
  const { samples } = standInLog({ ...options, from: 0 });
  // It ends now.
  const by = Math.floor(NOW / 1000) * 1000 - samples.at(-1)!.at - 60_000;
  return samples.map(({ at, watts }) => ({ at: at + by, watts: Number(watts.toFixed(1)) }));
};
async function sendAll(samples: object[], to = meter): Promise<void> {
  for (let at = 0; at < samples.length; at += 9000) {
    await send(samples.slice(at, at + 9000), to).expect(201);
  }
}

describe('setting a meter up', () => {
  it('once more, since the answer was lost, makes no second one; its token is made anew', async () => {
    const draft = { id: randomUUID(), name: 'Plug of the dryer', machineId: house.dryer.id };
    const [first, again] = [await made(draft), await made(draft)];
    expect(again.id).toBe(first.id);
    expect(house.store.meters.list()).toHaveLength(2);
    const sample = [{ at: NOW, watts: 3 }];
    await send(sample, first).expect(401);
    await send(sample, again).expect(201);
    const other = { ...draft, name: 'Another' };
    await house.api.post('/api/v1/meters').send(other).expect(409);
    await house.api
      .post('/api/v1/meters')
      .send({ ...draft, id: 'no id' })
      .expect(422);
  });
});

describe('open screens', () => {
  it('are told of what a meter said last, also where it said it soon after something else', async () => {
    const heard: number[] = [];
    const tell = house.store.tell.bind(house.store);
    house.store.tell = (change) => {
      if (change.topic === 'meters') heard.push(Date.now());
      tell(change);
    };
    await send([{ at: NOW - 2000, watts: 1 }]).expect(201);
    await send([{ at: NOW - 1000, watts: 2 }]).expect(201);
    await send([{ at: NOW, watts: 3 }]).expect(201);
    expect(heard).toHaveLength(1);
    await expect.poll(() => heard.length, { timeout: 5000 }).toBe(2);
  });
});

describe('samples of a meter', () => {
  it('become its loads and its days', async () => {
    await sendAll(log(['cotton']));
    house.live.read(kept());
    const found = await loads();
    expect(found).toHaveLength(2);
    expect(found[0]).toMatchObject({ source: 'meter', cycle: { unread: 0 } });
    const view: MeterView = (await house.api.get(`/api/v1/machines/${house.washer.id}/meter`)).body;
    // Right after midnight the last day has a minute or two.
    expect(view.watts.filter((watts) => watts !== null).length).toBeGreaterThan(0);
    house.live.read(kept());
    expect(await loads()).toHaveLength(2);
  });

  it('are kept once, however often they are sent, and are kept through a crash', async () => {
    const file = join(mkdtempSync(join(tmpdir(), 'needlecase-')), 'house.sqlite');
    const first = makeApp(openDatabase(file));
    const asked = request(first.express);
    const { body } = await asked.post('/api/v1/setup').send(setup).expect(201);
    const draft = { name: 'Plug', machineId: body.machines[0].id };
    const { id, token } = (await asked.post('/api/v1/meters').send(draft).expect(201)).body;
    const samples = log(['cotton'], 1).slice(0, 4000);
    const sent = (to: typeof asked) =>
      to.post(`/api/v1/meters/${id}/samples`).set('Authorization', `Bearer ${token}`).send(samples);
    expect((await sent(asked).expect(201)).body).toEqual({ kept: samples.length, known: 0 });
    expect((await sent(asked).expect(201)).body).toEqual({ kept: 0, known: samples.length });
    // It goes without a word, and another one comes up on its file.
    first.store.close();
    const second = makeApp(openDatabase(file));
    expect((await sent(request(second.express)).expect(201)).body.kept).toBe(0);
    second.live.read(second.store.meters.get(id)!);
    expect(second.store.entries.loadsBetween(body.machines[0].id, 0, NOW)).toHaveLength(1);
    second.store.close();
  });

  it('of many days at once are read after a crash, and what could not be written is written the next time', async () => {
    const file = join(mkdtempSync(join(tmpdir(), 'needlecase-')), 'house.sqlite');
    const first = makeApp(openDatabase(file));
    const { body } = await request(first.express).post('/api/v1/setup').send(setup).expect(201);
    const machineId = body.machines[0].id as string;
    const draft = { name: 'Plug', machineId };
    const { id } = (await request(first.express).post('/api/v1/meters').send(draft)).body;
    const samples = log(['cotton', 'quick'], 24);
    expect(NOW - samples[0]!.at).toBeGreaterThan(6 * 24 * HOUR);
    first.live.take(first.store.meters.get(id)!, samples);
    first.store.close();
    const { store, live } = makeApp(openDatabase(file));
    const kept = store.meters.get(id)!;
    const keep = store.meterDays.keep.bind(store.meterDays);
    store.meterDays.keep = () => {
      throw new Error('the disk is full');
    };
    expect(() => live.read(kept)).toThrow('full');
    store.meterDays.keep = keep;
    live.read(kept);
    expect(store.entries.loadsBetween(machineId, 0, NOW)).toHaveLength(24);
    const { first: day } = store.meterDays.ends(machineId)!;
    expect(day).toBe(new Date(samples[0]!.at).toISOString().slice(0, 10));
    const [oldest] = [...store.meters.samplesSince(id, 0)].flat();
    expect(oldest!.at).toBeGreaterThan(NOW - 5 * 24 * HOUR);
    store.close();
  });

  it('of another meter, or under no token that is known, are not taken', async () => {
    const other = await made({ name: 'Other', machineId: house.dryer.id });
    const one = [{ at: NOW, watts: 5 }];
    const turned = (token: string) =>
      house.api.post(`/api/v1/meters/${meter.id}/samples`).set('Authorization', token).send(one);
    expect((await turned('Bearer nonsense').expect(401)).body.title).toContain('not known');
    await turned(`Bearer ${other.token}`).expect(403);
    const reads = house.store.write(() =>
      house.access.tokens.make({ name: 'script', scopes: ['entries:read'] }),
    );
    await turned(`Bearer ${reads.token}`).expect(403);
    expect(house.store.meters.newest(meter.id)).toBeUndefined();
    // And a meter's token opens nothing else.
    for (const path of ['meters', 'bench', 'entries', `machines/${house.washer.id}/meter`]) {
      const asked = house.api.get(`/api/v1/${path}`).set('Authorization', `Bearer ${meter.token}`);
      await asked.expect(403);
    }
    await send(one).expect(201);
  });

  it('come by a token that a new one takes the place of', async () => {
    const renewed = await house.api.post(`/api/v1/meters/${meter.id}/token`).send({}).expect(201);
    await send([{ at: NOW, watts: 5 }]).expect(401);
    await send([{ at: NOW, watts: 5 }], renewed.body).expect(201);
    await house.api.delete(`/api/v1/meters/${meter.id}`).expect(200);
    await send([{ at: NOW, watts: 5 }], renewed.body).expect(401);
  });

  it('are ten thousand at most, within a second, and more of them store nothing', async () => {
    const many = Array.from({ length: MOST_SAMPLES }, (_, i) => ({
      at: NOW - (MOST_SAMPLES - i) * 1000,
      watts: i % 7,
    }));
    const begun = performance.now();
    expect((await send(many).expect(201)).body).toEqual({ kept: MOST_SAMPLES, known: 0 });
    expect(performance.now() - begun).toBeLessThan(1000);
    const one = { at: NOW - 1e8, watts: 1 };
    expect((await send([...many, one]).expect(422)).body.errors[0].message).toContain('10000');
    const [first] = [...house.store.meters.samplesSince(meter.id, 0)].flat();
    expect(first!.at).toBe(many[0]!.at);
  });

  it('that cannot be are told by their place, and the rest is kept', async () => {
    const { body } = await send([
      { at: NOW - 3000, watts: 5 },
      { at: NOW - 2000, watts: -5 },
      { at: new Date(NOW + HOUR).toISOString(), watts: 5 },
      { at: NOW - 1000, watts: 6 },
      null,
    ]).expect(422);
    expect(body.errors.map(({ field }: { field: string }) => field)).toEqual([
      ...['1.watts', '2.at', '4.at'],
    ]);
    expect(body.detail).toBe('2 of 5 samples were taken in.');
    expect([...house.store.meters.samplesSince(meter.id, 0)].flat()).toHaveLength(2);
  });

  it('come as lines, too, and a broken one is told', async () => {
    const lines = [NOW - 2000, NOW - 1000].map((at) => JSON.stringify({ at, watts: 5 }));
    const sent = (body: string) =>
      house.api
        .post(`/api/v1/meters/${meter.id}/samples`)
        .set('Authorization', `Bearer ${meter.token}`)
        .set('Content-Type', 'application/x-ndjson')
        .send(body);
    expect((await sent(`${lines.join('\n')}\n`).expect(201)).body.kept).toBe(2);
    const { body } = await sent(`${lines[0]}\n{"at":1`).expect(422);
    expect(body.errors).toEqual([{ field: '1', message: 'This is no JSON.' }]);
    await send({ at: NOW, watts: 5 }).expect(422);
    await send([]).expect(201);
  });

  it('that come an hour late fill the load that was told without them', async () => {
    const samples = log(['cotton'], 1);
    const begun = samples.findIndex(({ watts }) => watts > 100);
    const [from, to] = [samples[begun + 60]!.at, samples[begun + 60]!.at + 40 * 60_000];
    await sendAll(samples.filter(({ at }) => at < from || at > to));
    house.live.read(kept());
    const path = `/api/v1/machines/${house.washer.id}/meter/name`;
    const [{ id }] = (await loads()) as [Entry];
    await house.api.post(path).send({ id, name: 'Towels' }).expect(201);
    const before = await loads();
    expect(before).toHaveLength(1);
    expect(before[0]!.cycle!.unread).toBeGreaterThan(20);
    await sendAll(samples.filter(({ at }) => at >= from && at <= to));
    house.live.read(kept());
    const after = await loads();
    expect(after).toHaveLength(1);
    expect(after[0]!.cycle).toMatchObject({ name: 'Towels' });
    // Some seconds at its ends, by where they fall within a bin.
    expect(after[0]!.cycle!.unread).toBeLessThan(0.5);
    expect(after[0]!.cycle!.wattHours).toBeGreaterThan(before[0]!.cycle!.wattHours);
  });

  it('of one socket are told apart for a washer and a dryer', async () => {
    const both = await made({
      ...{ name: 'Both', machineId: house.washer.id, dryerId: house.dryer.id },
    });
    await sendAll(log(['cotton', 'vented'], 5, 0.15), both);
    house.live.read(kept(both.id));
    const [washed, dried] = [await loads(), await loads(house.dryer)];
    expect(washed.length + dried.length).toBe(5);
    expect(dried.length).toBeGreaterThan(0);
    for (const { cycle } of dried) expect(cycle!.heating).toBeGreaterThan(15);
  });

  it('are taken once there is room again: a held file refuses and keeps nothing', async () => {
    let free = (): void => {};
    const held = house.store.hold(
      'A backup is put back.',
      () => new Promise<void>((done) => (free = done)),
    );
    await send([{ at: NOW, watts: 5 }]).expect(503);
    free();
    await held;
    expect((await send([{ at: NOW, watts: 5 }]).expect(201)).body.kept).toBe(1);
  });
});

describe('a meter', () => {
  it('is of a machine that there is, and two of one socket are a washer and a dryer', async () => {
    const [machineId, dryerId] = [house.washer.id, house.dryer.id];
    const wrong = async (draft: object) =>
      (
        await house.api
          .post('/api/v1/meters')
          .send({ name: 'x', ...draft })
          .expect(422)
      ).body.errors[0].field;
    expect(await wrong({ machineId: randomUUID() })).toBe('machineId');
    expect(await wrong({ machineId: dryerId, dryerId: machineId })).toBe('dryerId');
    expect(await wrong({ machineId, mqtt: { broker: 'http://x', topic: 'a', unit: 'W' } })).toBe(
      'mqtt.broker',
    );
    const listens = { broker: 'mqtt://127.0.0.1:1', unit: 'W' };
    expect(
      await wrong({ machineId, mqtt: { ...listens, broker: 'mqtt://x:99999', topic: 'a' } }),
    ).toBe('mqtt.broker');
    expect(await wrong({ machineId, mqtt: { ...listens, topic: 'a/#' } })).toBe('mqtt.topic');
    expect(
      await wrong({ machineId, mqtt: { ...listens, broker: 'mqtt://u:p@x', topic: 'a' } }),
    ).toBe('mqtt.broker');
    expect(
      await wrong({ machineId, mqtt: { broker: 'mqtt://stand-in', unit: 'W', topic: 'a' } }),
    ).toBe('mqtt.broker');
  });

  it('that goes to another machine has told what it said of the one that it was at, and of no other', async () => {
    await sendAll(log(['cotton'], 1));
    const moved = house.api.put(`/api/v1/meters/${meter.id}`).set('If-Match', '"1"');
    await moved.send({ name: 'Plug', machineId: house.dryer.id }).expect(200);
    house.live.read(kept());
    expect([await loads(), await loads(house.dryer)].map(({ length }) => length)).toEqual([1, 0]);
  });

  it('tells nobody its password, and keeps it for its own broker alone', async () => {
    const mqtt = { broker: 'mqtt://127.0.0.1:1', topic: 'a', unit: 'W', user: 'u' };
    const draft = { name: 'x', machineId: house.washer.id };
    const set = await made({ ...draft, mqtt: { ...mqtt, password: 'secret' } });
    expect(JSON.stringify(set)).not.toContain('secret');
    expect(set.mqtt!.password).toBe(true);
    const put = async (version: number, broker: string): Promise<Meter> =>
      (
        await house.api
          .put(`/api/v1/meters/${set.id}`)
          .set('If-Match', `"${version}"`)
          .send({ ...draft, mqtt: { ...mqtt, broker } })
          .expect(200)
      ).body;
    expect((await put(1, mqtt.broker)).mqtt!.password).toBe(true);
    expect((await put(2, 'mqtt://127.0.0.2:1')).mqtt!.password).toBe(false);
    house.brokers.close();
  });

  it('is the keepers’, and its machine is not taken away from under it', async () => {
    const helper = move(house, 'helper');
    const asked = house.api.post('/api/v1/meters').set('Cookie', helper.cookie);
    await asked.send({ name: 'x', machineId: house.washer.id }).expect(403);
    const answer = await house.api
      .delete(`/api/v1/machines/${house.washer.id}`)
      .set('If-Match', `"${house.washer.version}"`)
      .set('Cookie', move(house, 'keeper').cookie);
    expect(answer.status).toBe(409);
    expect(answer.body.title).toContain('meter');
  });
});
