import type { BenchView, Entry, MachineView } from '@needlecase/core';
import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import {
  ago,
  dryer,
  emptyApp,
  readyApp,
  setup,
  washer,
  type Fixture,
} from './testing/household.js';

let app: Fixture;
beforeEach(async () => {
  app = await readyApp();
});

const load = (change: object = {}) => ({
  kind: 'load',
  machineId: app.washer.id,
  at: ago(0),
  ...change,
});
const count = async (): Promise<number> =>
  (await app.api.get('/api/v1/entries?limit=200&all=true')).body.entries.length;
const bench = async (): Promise<BenchView> => (await app.api.get('/api/v1/bench').expect(200)).body;
const dueOf = async (task: string) =>
  (await bench()).states.flatMap(({ dues }) => dues).find((due) => due.task === task)!;

describe('first start', () => {
  it('has no household in an empty file', async () => {
    const { api } = emptyApp();
    await api.get('/api/v1/household').expect(404);
    await api.get('/api/v1/bench').expect(404);
    await api.post('/api/v1/machines').send(washer).expect(404);
  });

  it('stores all or nothing', async () => {
    const { api } = emptyApp();
    const wrong = { ...setup, machines: [washer, { ...dryer, loadsPerWeek: -1 }] };
    const { body } = await api.post('/api/v1/setup').send(wrong).expect(422);
    expect(body.errors).toEqual([
      { field: 'machines.1.loadsPerWeek', message: 'Give a number from 0 to 70.' },
    ]);
    await api.get('/api/v1/household').expect(404);
  });

  it('knows its time zones', async () => {
    const { api } = emptyApp();
    const wrong = { ...setup, household: { ...setup.household, zone: 'Middle/Earth' } };
    const { body } = await api.post('/api/v1/setup').send(wrong).expect(422);
    expect(body.errors[0].field).toBe('household.zone');
  });

  it('happens once', async () => {
    const { body } = await app.api.post('/api/v1/setup').send(setup).expect(409);
    expect(body.current.id).toBe(app.household.id);
    expect(await app.api.get('/api/v1/machines').then((answer) => answer.body.length)).toBe(2);
  });
});

describe('records', () => {
  it('gives 409 on a stale edit, with both versions, and overwrites nothing', async () => {
    const { id, version, ...draft } = app.washer;
    const path = `/api/v1/machines/${id}`;
    const etag = (await app.api.get(path)).headers['etag'] as string;
    expect(etag).toBe(`"${version}"`);
    await app.api
      .put(path)
      .set('If-Match', etag)
      .send({ ...draft, name: 'First' })
      .expect(200);
    const { body } = await app.api
      .put(path)
      .set('If-Match', etag)
      .send({ ...draft, name: 'Second' })
      .expect(409);
    expect(body.current.name).toBe('First');
    expect(body.yours.name).toBe('Second');
    expect((await app.api.get(path)).body).toMatchObject({ name: 'First', version: version + 1 });
  });

  it('wants If-Match', async () => {
    const { id, version: _version, ...draft } = app.household;
    await app.api.put('/api/v1/household').send(draft).expect(428);
    await app.api.put('/api/v1/household').set('If-Match', '*').send(draft).expect(428);
    expect((await app.api.get('/api/v1/household')).body.id).toBe(id);
  });

  it('drops what an edit leaves out', async () => {
    const { version, id: _id, ...draft } = app.household;
    const put = (body: object, v: number) =>
      app.api.put('/api/v1/household').set('If-Match', `"${v}"`).send(body).expect(200);
    expect((await put({ ...draft, hardness: 200 }, version)).body.hardness).toBe(200);
    expect((await put(draft, version + 1)).body).not.toHaveProperty('hardness');
  });

  it('adds machines, and lists them in order', async () => {
    await app.api
      .post('/api/v1/machines')
      .send({ ...dryer, name: 'Third' })
      .expect(201);
    const { body } = await app.api.get('/api/v1/machines');
    expect(body.map(({ name }: { name: string }) => name)).toEqual(['Washer', 'Dryer', 'Third']);
  });

  it.each<[string, object, string]>([
    ['a way that nobody asks for', { wings: 'Flap them.' }, 'ways.wings'],
    ['a way without words', { 'door-reset': '' }, 'ways.door-reset'],
    ['a way of a thousand signs', { 'door-reset': 'x'.repeat(1000) }, 'ways.door-reset'],
  ])('refuses %s beside the field', async (_what, ways, field) => {
    const answer = await app.api
      .post('/api/v1/machines')
      .send({ ...dryer, name: 'Fourth', ways })
      .expect(422);
    expect(answer.body.errors.map((error: { field: string }) => error.field)).toEqual([field]);
    const kept = { 'door-reset': 'Hold Start.', 'filter-turns': 'Left, a turn and a half.' };
    const { body } = await app.api
      .post('/api/v1/machines')
      .send({ ...dryer, name: 'Fourth', ways: kept })
      .expect(201);
    expect(body.ways).toEqual(kept);
  });
});

describe('papers and places', () => {
  it('keeps what a machine’s papers say, and where the house shuts off', async () => {
    const identity = { model: 'Loom 7', serial: 'A-1', boughtOn: '2024-02-01', price: 900 };
    const { body } = await app.api
      .post('/api/v1/machines')
      .send({ ...dryer, name: 'Fifth', identity })
      .expect(201);
    expect(body.identity).toEqual(identity);
    const wrong = { ...dryer, name: 'Sixth', identity: { warrantyUntil: '2024-02-31' } };
    const answer = await app.api.post('/api/v1/machines').send(wrong).expect(422);
    expect(answer.body.errors[0].field).toBe('identity.warrantyUntil');
  });
});

describe('entries', () => {
  it('stores the same Idempotency-Key once, and says the same again', async () => {
    const key = randomUUID();
    const draft = load();
    const send = () => app.api.post('/api/v1/entries').set('Idempotency-Key', key).send(draft);
    const [first, second] = [await send().expect(201), await send().expect(201)];
    expect(second.body).toEqual(first.body);
    expect(await count()).toBe(1);
    await app.api
      .post('/api/v1/entries')
      .set('Idempotency-Key', key)
      .send(load({ count: 2 }))
      .expect(422);
    expect(await count()).toBe(1);
  });

  it('stores the same id once even without a key', async () => {
    const draft = load({ id: randomUUID() });
    await app.api.post('/api/v1/entries').send(draft).expect(201);
    await app.api.post('/api/v1/entries').send(draft).expect(409);
    expect(await count()).toBe(1);
  });

  it.each<[string, () => object, string]>([
    ['a wrong kind', () => load({ kind: 'dance' }), 'kind'],
    ['the far future', () => load({ at: '2199-01-01T00:00:00Z' }), 'at'],
    ['negative loads', () => load({ count: -2 }), 'count'],
    ['an unknown machine', () => load({ machineId: randomUUID() }), 'machineId'],
    ['an id that is none', () => load({ machineId: '1; DROP TABLE entries' }), 'machineId'],
    ['a field nobody knows', () => load({ wings: 2 }), 'wings'],
    ['work at the wrong machine', () => load({ kind: 'done', task: 'duct-run' }), 'task'],
  ])('refuses %s beside the field and stores nothing', async (_what, draft, field) => {
    const answer = await app.api.post('/api/v1/entries').send(draft()).expect(422);
    expect(answer.type).toBe('application/problem+json');
    expect(answer.body.errors.map((error: { field: string }) => error.field)).toEqual([field]);
    expect(answer.body.errors[0].message).toMatch(/[.]$/);
    expect(await count()).toBe(0);
  });

  it('refuses broken JSON, other types, oversized bodies and arrays, and stores nothing', async () => {
    const post = () => app.api.post('/api/v1/entries');
    await post().set('Content-Type', 'application/json').send('{"kind": "lo').expect(400);
    await post().set('Content-Type', 'text/plain').send('load').expect(415);
    await post()
      .send({ ...load(), note: 'x'.repeat(1_100_000) })
      .expect(413);
    await post().send([load()]).expect(422);
    await post().set('Content-Type', 'application/json').send('null').expect(400);
    expect(await count()).toBe(0);
  });

  it('corrects by a new entry, keeps the old one readable, and refuses a second correction', async () => {
    const { body: first } = await app.api.post('/api/v1/entries').send(load()).expect(201);
    const path = `/api/v1/entries/${first.id}/revision`;
    const { body: second } = await app.api
      .post(path)
      .send(load({ count: 3 }))
      .expect(201);
    expect(second).toMatchObject({ revises: first.id, count: 3 });
    const current = (await app.api.get('/api/v1/entries')).body.entries as Entry[];
    expect(current.map(({ id }) => id)).toEqual([second.id]);
    const { body } = await app.api
      .post(path)
      .send(load({ count: 4 }))
      .expect(409);
    expect(body.current.count).toBe(3);
    expect(body.yours.count).toBe(4);
    expect(await count()).toBe(2);
  });

  it('undoes, restores, and undoes once only', async () => {
    const { body: entry } = await app.api.post('/api/v1/entries').send(load()).expect(201);
    const at = `/api/v1/entries/${entry.id}`;
    await app.api.post(`${at}/undo`).expect(201);
    expect((await bench()).loads[0]!.today).toBe(0);
    await app.api.post(`${at}/undo`).expect(409);
    const { body: back } = await app.api.post(`${at}/restore`).expect(201);
    expect(back).toMatchObject({ kind: 'load', count: 1, at: entry.at });
    expect((await bench()).loads[0]!.today).toBe(1);
    await app.api.post(`${at}/restore`).expect(409);
    await app.api.post(`/api/v1/entries/${back.id}/undo`).expect(201);
    expect((await bench()).loads[0]!.today).toBe(0);
  });

  it('cannot be changed or deleted behind the API’s back', async () => {
    await app.api.post('/api/v1/entries').send(load()).expect(201);
    const raw = (statement: string) => () => app.store.sql(statement);
    expect(raw('UPDATE entries SET count = 9')).toThrow('append-only');
    expect(raw('DELETE FROM entries')).toThrow('append-only');
  });

  it('pages through the log without loss or repeat, by machine, station and kind', async () => {
    for (let i = 0; i < 25; i++) {
      await app.api
        .post('/api/v1/entries')
        .send(load({ at: ago(Math.floor(i / 5)) }))
        .expect(201);
    }
    await app.api
      .post('/api/v1/entries')
      .send({ kind: 'note', machineId: app.dryer.id, station: 'hood', note: 'Nest', at: ago(1) })
      .expect(201);
    const seen: string[] = [];
    let next: string | undefined = '';
    while (next !== undefined) {
      const query: string = next ? `&before=${encodeURIComponent(next)}` : '';
      const { body } = await app.api.get(`/api/v1/entries?limit=7${query}`).expect(200);
      seen.push(...body.entries.map(({ id }: Entry) => id));
      next = body.next;
    }
    expect(seen).toHaveLength(26);
    expect(new Set(seen).size).toBe(26);
    const only = async (query: string) =>
      (await app.api.get(`/api/v1/entries?${query}`).expect(200)).body.entries.length;
    expect(await only(`machine=${app.dryer.id}`)).toBe(1);
    expect(await only('station=hood')).toBe(1);
    expect(await only('kind=note')).toBe(1);
    await app.api.get('/api/v1/entries?limit=1000').expect(422);
    await app.api.get('/api/v1/entries?limit=many').expect(422);
    await app.api.get('/api/v1/entries?before=yesterday').expect(422);
  });
});

describe('what is due', () => {
  it('moves with a clean and comes back exactly when it is undone', async () => {
    const before = await dueOf('pump-filter');
    expect(before.status).toBe('unknown');
    const { body } = await app.api
      .post('/api/v1/entries')
      .send({ kind: 'done', task: 'pump-filter', machineId: app.washer.id, grade: 2, at: ago(3) })
      .expect(201);
    expect(body.station).toBe('pump-filter');
    expect((await dueOf('pump-filter')).status).toBe('fine');
    await app.api.post(`/api/v1/entries/${body.id}/undo`).expect(201);
    expect(await dueOf('pump-filter')).toEqual(before);
  });

  it('follows a change of the machine at once', async () => {
    await app.api
      .post('/api/v1/entries')
      .send({ kind: 'done', task: 'gasket-folds', machineId: app.washer.id, at: ago(3) })
      .expect(201);
    const before = (await dueOf('gasket-folds')).on!;
    const { id, version, ...draft } = app.washer;
    await app.api
      .put(`/api/v1/machines/${id}`)
      .set('If-Match', `"${version}"`)
      .send({ ...draft, habits: ['door-shut'] })
      .expect(200);
    expect((await dueOf('gasket-folds')).on! < before).toBe(true);
  });

  it('explains itself on the machine’s line', async () => {
    const { body } = await app.api.get(`/api/v1/machines/${app.dryer.id}/line`).expect(200);
    const line = body as MachineView;
    expect(line.tasks.map(({ task }) => task)).toContain('duct-run');
    expect(line.habits.map(({ habit }) => habit)).toEqual([
      'not-overfilled',
      'alike',
      'nobody-inside',
      'at-home',
      'cooled-down',
      'screen',
    ]);
    for (const { why } of line.tasks) {
      expect(why.interval).toMatch(/^(Every|With every) .*the rhythm “Steady” says/i);
    }
    await app.api.get(`/api/v1/machines/${randomUUID()}/line`).expect(404);
    await app.api.get('/api/v1/machines/nonsense/line').expect(422);
  });
});

describe('the border', () => {
  it('keeps strict headers on every answer', async () => {
    const { headers } = await app.api.get('/api/v1/bench');
    const policy = headers['content-security-policy'] as string;
    expect(policy).toContain("default-src 'none'");
    expect(policy).toMatch(/script-src 'self'(;|$)/);
    expect(policy).not.toContain('unsafe-eval');
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers).not.toHaveProperty('x-powered-by');
  });

  it('answers unknown addresses and methods as problems', async () => {
    expect((await app.api.get('/api/v1/nothing').expect(404)).type).toBe(
      'application/problem+json',
    );
    await app.api.delete(`/api/v1/machines/${app.washer.id}/line`).expect(405);
    await app.api.get('/api/v1/machines/%E0%A4%A').expect(404);
  });

  it('lets no other site write', async () => {
    await app.api
      .post('/api/v1/entries')
      .set('Origin', 'https://elsewhere.example')
      .send(load())
      .expect(403);
    await app.api
      .post('/api/v1/entries')
      .set('Sec-Fetch-Site', 'cross-site')
      .send(load())
      .expect(403);
    expect(await count()).toBe(0);
  });

  it('describes itself: every route is in the OpenAPI document, every schema resolves', async () => {
    const { body } = await app.api.get('/api/openapi.json').expect(200);
    expect(body.openapi).toBe('3.1.0');
    const paths = Object.keys(body.paths);
    expect(paths).toContain('/api/v1/runs/{id}/finish');
    expect(
      body.paths['/api/v1/machines/{id}'].put.parameters.map((p: { name: string }) => p.name),
    ).toEqual(['id', 'If-Match', 'Idempotency-Key']);
    expect(JSON.stringify(body.paths['/api/v1/entries'].post.requestBody)).toContain('"machineId"');
    const refs = [...JSON.stringify(body).matchAll(/"\$ref":"#\/components\/schemas\/(\w+)"/g)];
    for (const [, name] of refs) expect(body.components.schemas).toHaveProperty(name!);
  });
});

describe('a machine that is gone', () => {
  const put = (id: string, version: number, body: object) =>
    app.api.put(`/api/v1/machines/${id}`).set('If-Match', `"${version}"`).send(body);
  const ids = async () => (await bench()).machines.map(({ id }) => id);

  it('is retired with its record, is in no bench and no plan, and comes back', async () => {
    const { id, version, ...draft } = app.washer;
    await app.api.post('/api/v1/entries').send(load()).expect(201);
    const retired = { on: '2026-01-05', why: 'replaced', by: app.dryer.id };
    const gone = await put(id, version, { ...draft, retired }).expect(200);
    expect(await ids()).toEqual([app.dryer.id]);
    const plan = await app.api.get('/api/v1/plan').expect(200);
    expect(JSON.stringify(plan.body.visits)).not.toContain(id);
    const log = await app.api.get(`/api/v1/entries?machine=${id}`).expect(200);
    expect(log.body.entries).toHaveLength(1);
    const back = await put(id, gone.body.version as number, draft).expect(200);
    expect(back.body.retired).toBeUndefined();
    expect(await ids()).toContain(id);
  });

  it('names only another machine of the house as what took its place', async () => {
    const { id, version, ...draft } = app.washer;
    const retired = { on: '2026-01-05', why: 'replaced', by: id };
    const { body } = await put(id, version, { ...draft, retired }).expect(422);
    expect(body.errors[0].field).toBe('retired.by');
  });

  it('is gone already, not some day', async () => {
    const { id, version, ...draft } = app.washer;
    const retired = { on: '2999-01-01', why: 'broken' };
    const { body } = await put(id, version, { ...draft, retired }).expect(422);
    expect(body.errors).toEqual([
      { field: 'retired.on', message: 'This is in the future. Give a day up to today.' },
    ]);
  });

  it('is deleted only where nothing was recorded', async () => {
    const take = ({ id, version }: { id: string; version: number }) =>
      app.api.delete(`/api/v1/machines/${id}`).set('If-Match', `"${version}"`);
    await app.api.post('/api/v1/entries').send(load()).expect(201);
    const kept = await take(app.washer).expect(409);
    expect(kept.body.title).toContain('Retire it instead');
    const { id: _id, version: _version, ...draft } = app.washer;
    const made = await app.api
      .post('/api/v1/machines')
      .send({ ...draft, name: 'Mistake' })
      .expect(201);
    await take(made.body as { id: string; version: number }).expect(200);
    await app.api.get(`/api/v1/machines/${made.body.id}`).expect(404);
  });
});
