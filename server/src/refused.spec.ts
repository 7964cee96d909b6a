import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync, mkdirSync } from 'node:fs';
import { request as raw } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import request from 'supertest';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { makeApp } from './app.js';
import { openDatabase } from './db/open.js';
import { ago, dryer, readyApp, setup, washer, type Fixture } from './testing/household.js';
import { jpeg } from './testing/pictures.js';

/* What comes in askew is refused for what it is: 4xx in words, never 500, and nothing is stored. */

let house: Fixture;
beforeEach(async () => {
  house = await readyApp();
});
const note = (more: object = {}) => ({ kind: 'note', note: 'x', at: ago(0), ...more });
const stored = () => house.store.entries.count();
const send = (body: string | Buffer, headers: Record<string, string> = {}) =>
  house.api
    .post('/api/v1/entries')
    .set({ 'Content-Type': 'application/json', ...headers })
    .send(body);

describe('bodies', () => {
  afterEach(() => expect(stored()).toBe(0));
  const text = JSON.stringify(note());

  it('packed in any way: what unpacks to more than a body may be is not begun with', async () => {
    for (const encoding of ['zstd', 'compress', 'nonsense', 'gzip', 'deflate', 'br']) {
      const { body } = await send(Buffer.from(text), { 'Content-Encoding': encoding }).expect(415);
      expect(body.title).toMatch(/encoding/);
    }
    await send(deflateSync(text), { 'Content-Encoding': 'deflate' }).expect(415);
  });

  it('nested thousands deep, wherever', async () => {
    for (const deep of [
      '['.repeat(9000) + ']'.repeat(9000),
      '{"a":'.repeat(9000) + '1' + '}'.repeat(9000),
    ]) {
      const { body } = await send(`{"kind":"note","at":"${ago(0)}","more":${deep}}`).expect(422);
      expect(body.errors[0].message).toMatch(/nested/);
    }
    await house.api
      .post('/api/v1/instruments/hood-air')
      .set('Content-Type', 'application/json')
      .send('['.repeat(9000) + ']'.repeat(9000))
      .expect(422);
  });

  it('with halves of letters and NUL in texts, in keys too, at their fields', async () => {
    for (const bad of ['\\ud800', 'x\\udc00y', 'nul\\u0000']) {
      const { body } = await send(`{"kind":"note","at":"${ago(0)}","note":"${bad}"}`).expect(422);
      expect(body.errors).toEqual([
        { field: 'note', message: expect.stringMatching(/no letters|cannot be kept/) },
      ]);
      await send(`{"kind":"note","at":"${ago(0)}","${bad}":1}`).expect(422);
    }
  });

  it('whole letters outside the first plane are kept', async () => {
    const { body } = await send(JSON.stringify(note({ note: '🧺 𝔑' }))).expect(201);
    expect(body.note).toBe('🧺 𝔑');
    await house.api.post(`/api/v1/entries/${body.id}/undo`).expect(201);
    house = await readyApp();
  });

  it('that are none, of another type, in another charset', async () => {
    await send('{"kind":').expect(400);
    await send('null').expect(400);
    await send(text, { 'Content-Type': 'text/plain' }).expect(415);
    await send(text, { 'Content-Type': 'application/json; charset=iso-8859-1' }).expect(415);
  });
});

describe('ids', () => {
  it('in capitals and as urn are the same id', async () => {
    const id = randomUUID();
    const loud = id.toUpperCase();
    const machineId = `urn:uuid:${house.washer.id.toUpperCase()}`;
    const { body } = await house.api
      .post('/api/v1/entries')
      .send(note({ id: loud, machineId }))
      .expect(201);
    expect(body).toMatchObject({ id, machineId: house.washer.id });
    await house.api.post('/api/v1/entries').send(note({ id })).expect(409);
    await house.api.get(`/api/v1/machines/${house.washer.id.toUpperCase()}`).expect(200);
    await house.api.get(`/api/v1/machines/urn:uuid:${house.washer.id}/line`).expect(200);
    const page = await house.api.get(`/api/v1/entries?machine=${house.washer.id.toUpperCase()}`);
    expect(page.body.entries).toHaveLength(1);
  });

  it('that are taken already', async () => {
    const { body: first } = await house.api.post('/api/v1/entries').send(note()).expect(201);
    const { body: other } = await house.api.post('/api/v1/entries').send(note()).expect(201);
    await house.api
      .post(`/api/v1/entries/${other.id}/revision`)
      .send(note({ id: first.id }))
      .expect(409);
    const event = () => ({
      id: randomUUID(),
      at: ago(0),
      kind: 'answer',
      finding: 'drains-slowly',
      answer: 'yes',
    });
    const one = event();
    const machineId = house.washer.id;
    const told = (events: object[]) =>
      house.api.post('/api/v1/cases').send({ id: randomUUID(), machineId, events });
    await told([one]).expect(201);
    const { body } = await told([event(), one]).expect(422);
    expect(body.errors[0].field).toBe('events.1.id');
    expect(house.store.cases.list()).toHaveLength(1);
    // An entry's id is not a case's event's: what a case leaves in the log keeps its own.
    await told([{ ...event(), id: first.id }]).expect(201);
  });
});

describe('photos', () => {
  const put = (id: string, body: Buffer) =>
    house.api.put(`/api/v1/photos/${id}`).set('Content-Type', 'image/jpeg').send(body);

  it('under an id that another picture has', async () => {
    const id = randomUUID();
    await put(id, jpeg(30, 20)).expect(201);
    await put(id, jpeg(30, 20)).expect(201);
    const { body } = await put(id, jpeg(10, 10)).expect(409);
    expect(body.title).toMatch(/another photo/);
  });

  it('with anything after the picture’s end lose it; without an end they are refused', async () => {
    const id = randomUUID();
    const picture = jpeg(30, 20);
    const tail = Buffer.concat([Buffer.from('Exif\0\0 here and then'), Buffer.alloc(500)]);
    const { body } = await put(id, Buffer.concat([picture, tail])).expect(201);
    expect(body.bytes).toBe(picture.length);
    const back = await house.api.get(`/api/v1/photos/${id}`).expect(200);
    expect(Buffer.compare(back.body as Buffer, picture)).toBe(0);
    const cut = await put(randomUUID(), picture.subarray(0, -2)).expect(422);
    expect(cut.body.errors[0].message).toMatch(/cut short/);
  });
});

describe('ways of asking', () => {
  it('that are not done here, with those that are', async () => {
    const asked: [string, string, string][] = [
      ['delete', '/api/v1/entries', 'GET, HEAD, POST'],
      ['put', '/api/v1/bench', 'GET, HEAD'],
      ['patch', `/api/v1/machines/${randomUUID()}`, 'GET, HEAD, PUT, DELETE'],
      ['post', '/api/openapi.json', 'GET, HEAD'],
      ['post', '/api/v1/changes', 'GET, HEAD'],
    ];
    for (const [method, path, allow] of asked) {
      const answer = await house.api[method as 'put'](path).send({}).expect(405);
      expect(answer.headers['allow']).toBe(allow);
      expect(answer.headers['content-type']).toMatch(/problem\+json/);
    }
    await house.api.get('/api/v1/nothing').expect(404);
    await house.api.get('/api/v1/machines/%E0%A4%A').expect(404);
  });
});

describe('files of the application', () => {
  let folder: string;
  let app: ReturnType<typeof request>;
  beforeAll(() => {
    folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
    mkdirSync(join(folder, '.git'));
    writeFileSync(join(folder, '.git/config'), 'secret');
    writeFileSync(join(folder, '.env'), 'secret');
    writeFileSync(join(folder, 'index.html'), '<script src="main-ABCDEFGH.js"></script>');
    writeFileSync(join(folder, 'main-ABCDEFGH.js'), 'console.log(1)');
    app = request(makeApp(openDatabase(':memory:'), { webRoot: folder }).express);
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  it('whose name begins with a dot are not there, nor is a page in their place', async () => {
    for (const path of ['/.env', '/.git/config', '/.git', '/a/.hidden/b', '/%2egit/config']) {
      await app.get(path).expect(404);
    }
    await app.get('/log').expect(200);
  });

  it('asked for in part, or only if unchanged, in ways that cannot be', async () => {
    await app.get('/main-ABCDEFGH.js').set('Range', 'bytes=900-').expect(416);
    await app.get('/main-ABCDEFGH.js').set('If-Match', '"other"').expect(412);
    await app
      .get('/main-ABCDEFGH.js')
      .set('If-Unmodified-Since', 'Thu, 01 Jan 1970 00:00:00 GMT')
      .expect(412);
    const { headers } = await app.post('/log').send({}).expect(405);
    expect(headers['allow']).toBe('GET, HEAD');
  });

  it('and addresses that no browser would ask', async () => {
    const server = makeApp(openDatabase(':memory:'), { webRoot: folder }).express.listen(0);
    const { port } = server.address() as AddressInfo;
    const status = (path: string) =>
      new Promise<number>((done, failed) =>
        raw({ port, path, host: '127.0.0.1' }, (answer) => {
          answer.resume();
          done(answer.statusCode!);
        })
          .on('error', failed)
          .end(),
      );
    for (const path of ['/%', '/%00', '//', '/../../etc/passwd', `/${'a'.repeat(7000)}`, '/%ff']) {
      expect(await status(path), path).toBeLessThan(500);
    }
    server.close();
  });
});

describe('more than a household can have', () => {
  it('machines', async () => {
    house.store.write(() => {
      for (let i = 0; i < 498; i++) house.store.machines.create({ ...dryer, name: `Dryer ${i}` });
    });
    const { body } = await house.api.post('/api/v1/machines').send(washer).expect(422);
    expect(body.errors).toEqual([{ field: '', message: expect.stringMatching(/500 machines/) }]);
    expect(setup.machines).toHaveLength(2);
  });

  it('visits under way, whose progress is not in the bench’s answer', async () => {
    const tasks = [{ machineId: house.washer.id, task: 'gasket-folds' }];
    house.store.write(() => {
      for (let i = 0; i < 50; i++) house.store.visits.create({ tasks });
    });
    const { body } = await house.api.post('/api/v1/runs').send({ tasks }).expect(422);
    expect(body.errors[0].message).toMatch(/50 visits under way/);
    const { body: bench } = await house.api.get('/api/v1/bench').expect(200);
    expect(bench.runs).toHaveLength(50);
    expect(bench.runs[0]).not.toHaveProperty('progress');
    expect(bench.runs[0]).toMatchObject({ state: 'active', tasks });
  });

  it('open cases, and happenings in one', async () => {
    const told = (id: string, n: number) => ({
      id,
      machineId: house.washer.id,
      events: Array.from({ length: n }, () => ({
        id: randomUUID(),
        at: ago(0),
        kind: 'answer',
        finding: 'drains-slowly',
        answer: 'yes',
      })),
    });
    const send = (body: object) => house.api.post('/api/v1/cases').send(body);
    const id = randomUUID();
    for (let i = 0; i < 5; i++) await send(told(id, 200)).expect(i ? 200 : 201);
    const full = await send(told(id, 1)).expect(422);
    expect(full.body.errors[0]).toMatchObject({ field: 'events' });
    for (let i = 1; i < 100; i++) await send(told(randomUUID(), 1)).expect(201);
    const { body } = await send(told(randomUUID(), 1)).expect(422);
    expect(body.errors[0].message).toMatch(/100 cases/);
  });
});
