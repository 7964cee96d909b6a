import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { Agent, get, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { writeBackup } from './backup/write.js';
import { stageBackup } from './backup/stage.js';
import { openDatabase } from './db/open.js';
import { fullHouse } from './testing/full-house.js';
import { ago, readyApp, type Fixture } from './testing/household.js';
import { move } from './testing/people.js';
import { GUEST } from './work/guests.js';

/* What somebody with little right, or none, can bring about has an end. */

let app: Fixture;
let folder: string;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  app = await readyApp();
});
afterEach(() => {
  app.store.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('what a guest enters', () => {
  const load = (cookie: string, more: object) =>
    app.api
      .post('/api/v1/entries')
      .set('Cookie', cookie)
      .set('X-Forwarded-For', '192.168.1.9')
      .send({ kind: 'load', machineId: app.washer.id, at: ago(0), ...more });

  it('is of these days, and as much as a house has', async () => {
    const { cookie } = move(app, 'guest');
    const { body: old } = await load(cookie, { at: ago(GUEST.days + 0.1) }).expect(422);
    expect(old.errors[0].field).toBe('at');
    const { body: many } = await load(cookie, { count: GUEST.atOnce + 1 }).expect(422);
    expect(many.errors[0].field).toBe('count');
    await load(cookie, { at: ago(GUEST.days - 0.1), count: GUEST.atOnce }).expect(201);
    const helper = move(app, 'helper', 'Ida').cookie;
    await load(helper, { at: ago(30), count: GUEST.atOnce + 1 }).expect(201);
  });

  it('comes to an end for today; others go on', async () => {
    const { cookie } = move(app, 'guest');
    for (let i = 0; i < GUEST.aDay; i++) await load(cookie, {}).expect(201);
    const { body } = await load(cookie, {}).expect(429);
    expect(body.title).toBe(`Guests count up to ${GUEST.aDay} loads a day.`);
    expect(app.store.entries.count()).toBe(GUEST.aDay);
    await load(move(app, 'guest', 'Ben').cookie, {}).expect(201);
  });
});

it('a backup with something of the year 9999 is refused, as it is everywhere else', async () => {
  const house = await fullHouse(join(folder, 'house.sqlite'));
  const client = new Database(house.file);
  // Past all rules, as a hand at the file would.
  client.exec('DROP TRIGGER IF EXISTS entries_unchanged');
  const triggers = client
    .prepare(`SELECT name FROM sqlite_master WHERE type = 'trigger' AND tbl_name = 'entries'`)
    .pluck()
    .all() as string[];
  for (const name of triggers) client.exec(`DROP TRIGGER "${name}"`);
  client
    .prepare(`UPDATE entries SET at = ? WHERE id = (SELECT id FROM entries LIMIT 1)`)
    .run(Date.parse('9999-01-01T00:00:00Z'));
  client.close();
  house.store.close();
  const zip = join(folder, 'house.zip');
  await writeBackup(house.file, zip, Date.now());
  await expect(stageBackup(zip, join(folder, 'staged'))).rejects.toThrow(/ten years in the future/);
});

it('what another site has a browser read is not read; that we are there it may ask', async () => {
  const paths = app.routes.filter(({ method }) => method === 'get').map(({ path }) => path);
  for (const path of [...paths, '/api/openapi.json', '/api/v1/changes', '/api/v1/nothing']) {
    const { status } = await app.api
      .get(path.replace('{id}', randomUUID()))
      .set('Sec-Fetch-Site', 'cross-site');
    expect([path, status]).toEqual([path, path === '/api/v1/health' ? 200 : 403]);
  }
});

it('strangers push nothing out of the list of what happened', () => {
  const { events } = app.access;
  events.note('token made', { more: 'the meter' });
  for (let i = 0; i < 900; i++) events.note('turned away', { device: `d${i}` });
  const list = events.list();
  expect(list.filter(({ what }) => what === 'turned away')).toHaveLength(200);
  expect(list[0]).toMatchObject({ what: 'turned away', device: 'd899' });
  expect(list.at(-1)).toMatchObject({ what: 'token made', more: 'the meter' });
  const kept = app.db.$client.prepare('SELECT count(*) FROM access_events').pluck().get();
  expect(kept).toBe(201);
});

it('a link is told of once in that list, however often it is opened', async () => {
  const { link, secret } = app.access.links.make({
    ...{ shows: 'machine', target: app.washer.id, forWhom: 'The landlord' },
  });
  for (let i = 0; i < 30; i++) await app.api.get(`/shared/${secret}`).expect(200);
  expect(app.access.links.get(link.id)!.opened).toBe(30);
  expect(app.access.events.list().filter(({ what }) => what === 'link opened')).toHaveLength(1);
});

it('a screen that does not take in what it is told is let go, and the others are told', async () => {
  const server = app.express.listen(0, '127.0.0.1');
  await new Promise((done) => server.once('listening', done));
  const { port } = server.address() as AddressInfo;
  const listen = () =>
    new Promise<IncomingMessage>((done) => {
      get({ port, path: '/api/v1/changes', agent: new Agent() }, done);
    });
  const [deaf, hears] = [await listen(), await listen()];
  deaf.on('error', () => undefined);
  deaf.pause();
  let heard = 0;
  hears.on('data', (piece: Buffer) => (heard += piece.length));
  const id = 'x'.repeat(20_000);
  const closed = new Promise((done) => deaf.socket.once('close', done));
  for (let i = 0; i < 2000 && !deaf.socket.closed; i++) {
    app.store.tell({ topic: 'entries', id });
    await new Promise((next) => setImmediate(next));
  }
  deaf.resume();
  await closed;
  expect(hears.destroyed).toBe(false);
  const before = heard;
  app.store.tell({ topic: 'plan' });
  while (heard === before) await new Promise((next) => setImmediate(next));
  app.changes.close();
  server.closeAllConnections();
  server.close();
});

it('files are for nobody else, whatever made them', async () => {
  const file = join(folder, 'open.sqlite');
  writeFileSync(file, '', { mode: 0o666 });
  const before = process.umask(0);
  try {
    openDatabase(file).$client.close();
    const house = await fullHouse(join(folder, 'house.sqlite'));
    await writeBackup(house.file, join(folder, 'house.zip'), Date.now());
    for (const name of readdirSync(folder)) {
      expect([name, (statSync(join(folder, name)).mode & 0o777).toString(8)]).toEqual([
        name,
        '600',
      ]);
    }
    house.store.close();
  } finally {
    process.umask(before);
  }
});
