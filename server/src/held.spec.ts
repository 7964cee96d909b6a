import { randomUUID } from 'node:crypto';
import Database from 'better-sqlite3';
import { mkdtempSync, renameSync, rmSync, copyFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { makeApp, type App } from './app.js';
import type { openDatabase } from './db/open.js';
import { serveDatabase } from './db/open.js';
import { ago, setup } from './testing/household.js';

/* A disk that is full, a file that others hold, and one that is gone: told in words; what is there can be read. */

let folder: string;
let file: string;
let app: App;
let api: ReturnType<typeof request>;
let db: ReturnType<typeof openDatabase>;
let logged: string[];

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  file = join(folder, 'house.sqlite');
  ({ db } = serveDatabase(file));
  logged = [];
  const log = pino({ level: 'info' }, { write: (line: string) => void logged.push(line) });
  const keeping = { file, folder: join(folder, 'kept'), now: Date.now, failed: () => undefined };
  app = makeApp(db, { keeping, log });
  api = request(app.express);
  await api.post('/api/v1/setup').send(setup).expect(201);
  logged.length = 0;
});
afterEach(() => {
  app.store.close();
  rmSync(folder, { recursive: true, force: true });
});
const tap = (note = 'x'.repeat(1500)) =>
  api.post('/api/v1/entries').send({ kind: 'note', at: ago(0), note });
const reads = async () => {
  for (const view of ['bench', 'household', 'entries', 'supplies']) {
    await api.get(`/api/v1/${view}`).expect(200);
  }
};

describe('a data file in need', () => {
  it('on a full disk: 507 in words, reads go on, and then writes', async () => {
    const pages = db.$client.pragma('page_count', { simple: true }) as number;
    db.$client.pragma(`max_page_count = ${pages}`);
    let refused = await tap();
    for (let i = 0; i < 50 && refused.status === 201; i++) refused = await tap();
    expect(refused.status).toBe(507);
    expect(refused.body).toMatchObject({ title: 'The disk of the server is full.' });
    await reads();
    const before = app.store.entries.count();
    db.$client.pragma('max_page_count = 100000');
    await tap().expect(201);
    expect(app.store.entries.count()).toBe(before + 1);
  });

  it('held by another program: 503 in words, at once, and reads go on', async () => {
    const other = new Database(file);
    other.exec('BEGIN IMMEDIATE');
    const began = performance.now();
    const { body } = await tap().expect(503);
    expect(performance.now() - began).toBeLessThan(1000);
    expect(body).toMatchObject({ title: 'Another program holds the data file.' });
    await reads();
    other.exec('ROLLBACK');
    other.close();
    await tap().expect(201);
  });

  it('that cannot be written: 503 in words, and reads go on', async () => {
    db.$client.pragma('query_only = ON');
    const { body } = await tap().expect(503);
    expect(body.title).toMatch(/cannot be written/);
    await reads();
    db.$client.pragma('query_only = OFF');
    await tap().expect(201);
  });

  it('moved away, or replaced: said, and nothing goes where nobody finds it', async () => {
    renameSync(file, `${file}.away`);
    const note = () => api.post('/shared/any').send({ id: randomUUID(), note: 'x' });
    for (const answer of [await tap(), await api.get('/api/v1/bench'), await note()]) {
      expect(answer.status).toBe(503);
      expect(answer.body.title).toMatch(/moved away or replaced/);
    }
    copyFileSync(`${file}.away`, file);
    await tap().expect(503);
    rmSync(file);
    renameSync(`${file}.away`, file);
    await tap().expect(201);
    expect(logged.filter((line) => line.includes('moved away'))).not.toHaveLength(0);
  });
});

describe('the log', () => {
  it('has one line a problem, and neither headers nor tokens nor what was written down', async () => {
    db.$client.pragma('query_only = ON');
    await api
      .post('/api/v1/entries?token=hush1&before=x')
      .set({ Authorization: 'Basic hush2', Cookie: 'session=hush3' })
      .send({ kind: 'note', at: ago(0), note: 'hush4' })
      .expect(503);
    expect(logged).toHaveLength(1);
    const line = JSON.parse(logged[0]!) as { req: object; res: object; err: { stack: string } };
    expect(line).toMatchObject({ level: 50, req: { method: 'POST' }, res: { status: 503 } });
    expect(line.err.stack).toMatch(/readonly/);
    expect(logged[0]).not.toMatch(/hush/);
    logged.length = 0;
    await api.get('/api/v1/nothing').set('Authorization', 'hush').expect(404);
    expect(logged).toHaveLength(1);
    expect(logged[0]).not.toMatch(/hush/);
  });

  it('says when a data file was brought up to date, and where the old one lies', () => {
    const old = join(folder, 'old.sqlite');
    const client = new Database(old);
    client.exec(
      'CREATE TABLE __drizzle_migrations (id INTEGER PRIMARY KEY, hash TEXT, created_at)',
    );
    client.close();
    const told: object[] = [];
    serveDatabase(old, (how) => told.push(how)).db.$client.close();
    expect(told).toEqual([{ migrations: 19, copy: expect.stringContaining('.before-') }]);
  });
});
