import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { BackupFile, BackupState, Restored } from '@needlecase/core/formats/backup';
import { makeApp, type App } from './app.js';
import { backupName, unwanted } from './backup/kept.js';
import { readBackup } from './backup/read.js';
import { openDatabase } from './db/open.js';
import { ago, setup } from './testing/household.js';

const DAY = 86_400_000;
let folder: string;
let kept: string;
let app: App;
let api: ReturnType<typeof request>;
let now: number;
let machineId: string;
const failures: unknown[] = [];

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  kept = join(folder, 'kept');
  now = Date.parse('2026-06-15T12:00:00Z');
  const file = join(folder, 'house.sqlite');
  const keeping = { file, folder: kept, now: () => now, failed: (e: unknown) => failures.push(e) };
  app = makeApp(openDatabase(file), { keeping });
  api = request(app.express);
  const { body } = await api.post('/api/v1/setup').send(setup).expect(201);
  machineId = body.machines[0].id;
});
afterEach(() => {
  app.store.close();
  failures.length = 0;
  rmSync(folder, { recursive: true, force: true });
});

const state = async (): Promise<BackupState> => (await api.get('/api/v1/backups').expect(200)).body;
const tap = () =>
  api.post('/api/v1/entries').send({ kind: 'load', machineId, at: ago(0), count: 1 });
const pick = async (name: string) =>
  (await api.post('/api/v1/backups/pick').send({ name }).expect(200)).body;
const restore = (body: object) => api.post('/api/v1/restore').send(body);

describe('backups that are made by the day', () => {
  it('are made once a day, each whole, and told with the last good one', async () => {
    expect(await state()).toMatchObject({ folder: kept, files: [], old: false });
    for (let hour = 0; hour < 72; hour++) {
      await app.backups.daily();
      now += DAY / 24;
    }
    const { files, old } = await state();
    expect(files).toHaveLength(3);
    expect(old).toBe(false);
    for (const { name } of files) await readBackup(join(kept, name));
  });

  it('say so when the last good one is old, and why none could be made', async () => {
    await app.backups.daily();
    now += 4 * DAY;
    expect(await state()).toMatchObject({ old: true });
    rmSync(kept, { recursive: true });
    writeFileSync(kept, 'a file where the folder was');
    await app.backups.daily();
    const { old, problem } = await state();
    expect(old).toBe(true);
    expect(problem).toMatch(/cannot be opened|is no folder/);
    expect(failures).toHaveLength(1);
    await api.post('/api/v1/backups').expect(507);
    rmSync(kept);
    await app.backups.daily();
    expect(await state()).not.toHaveProperty('problem');
  });

  it('are let go but for seven days, four weeks and twelve months', async () => {
    mkdirSync(kept);
    for (let day = 1; day <= 800; day++) {
      writeFileSync(join(kept, backupName(now - day * DAY, 'needlecase')), '');
    }
    writeFileSync(join(kept, 'my own.zip'), 'mine');
    await app.backups.daily();
    const { files } = await state();
    // 9 to 15 June; the weeks’ last 7 June and 31 May; the last days of ten months before May.
    expect(files).toHaveLength(7 + 2 + 10);
    const month = (at: number) => new Date(at).toISOString().slice(0, 7);
    expect(new Set(files.map(({ made }) => made.slice(0, 7))).size).toBe(12);
    expect(files[0]!.made.slice(0, 7)).toBe(month(now));
    expect(readdirSync(kept)).toContain('my own.zip');
  });

  it('are kept by the calendar of the household: the last days, weeks and months that have one', () => {
    const file = (made: string): BackupFile => ({
      name: backupName(Date.parse(made), 'needlecase'),
      made,
      bytes: 1,
    });
    // 23:30 UTC is the next day in Vienna, the first of a month and of an ISO week.
    const files = [
      '2026-08-31T22:30:00.000Z',
      '2026-08-30T23:00:00.000Z',
      '2026-08-30T10:00:00.000Z',
    ];
    expect(unwanted(files.map(file), 'Europe/Vienna', Date.parse('2026-09-01'))).toEqual([]);
    // What says it is of the future pushes nothing out, and stays.
    const ahead = ['2031-01-01T10:00:00.000Z', ...files].map(file);
    expect(unwanted(ahead, 'Europe/Vienna', Date.parse('2026-09-01'))).toEqual([]);
    const two = ['2026-08-30T12:00:00.000Z', '2026-08-30T10:00:00.000Z'];
    expect(
      unwanted(two.map(file), 'Europe/Vienna', Date.parse('2026-09-01')).map(({ made }) => made),
    ).toEqual([two[1]]);
  });
});

describe('putting a backup back', () => {
  it('puts what was then in the place of what is now, which is kept; twice is once', async () => {
    const before = (await api.get('/api/v1/entries?all=true')).text;
    const { body: file } = await api.post('/api/v1/backups').expect(201);
    await tap().expect(201);
    const look = await pick(file.name);
    expect(look).toMatchObject({ same: true, backup: { entries: 0 }, here: { entries: 1 } });
    const answer = (await restore({ id: look.id, how: 'replace' }).expect(200)).body as Restored;
    expect((await api.get('/api/v1/entries?all=true')).text).toBe(before);
    expect((await restore({ id: look.id, how: 'replace' }).expect(200)).body).toEqual(answer);
    // And back again.
    const undo = await pick(answer.before!);
    expect(undo).toMatchObject({ backup: { entries: 1 } });
    await restore({ id: undo.id, how: 'replace' }).expect(200);
    expect(app.store.entries.count()).toBe(1);
  });

  it('lets nobody write meanwhile: nothing can fall between what is kept and what comes', async () => {
    const { body: file } = await api.post('/api/v1/backups').expect(201);
    const { id } = await pick(file.name);
    const going = restore({ id, how: 'replace' }).then((answer) => answer);
    let refused = 0;
    let stored = 0;
    for (let i = 0; i < 20; i++) {
      const { status } = await tap();
      if (status === 503) refused++;
      else stored++;
    }
    const { before } = (await going).body as Restored;
    expect(refused).toBeGreaterThan(0);
    const { counts } = await readBackup(join(kept, before!));
    // Whatever was taken is in what was kept, or here.
    expect(counts['entries']! + app.store.entries.count()).toBe(stored);
  });

  it('asks which holds, at its field, and then goes on', async () => {
    const { body: file } = await api.post('/api/v1/backups').expect(201);
    const { body: machine } = await api.get(`/api/v1/machines/${machineId}`);
    const { id: _id, version, ...draft } = machine;
    await api
      .put(`/api/v1/machines/${machineId}`)
      .set('If-Match', `"${version}"`)
      .send({ ...draft, name: 'Other' })
      .expect(200);
    const { id } = await pick(file.name);
    const { body } = await restore({ id, how: 'merge' }).expect(422);
    expect(body.errors[0].field).toBe(`choices.${machineId}`);
    await restore({ id, how: 'merge', choices: { [machineId]: 'theirs' } }).expect(200);
    expect(app.store.machines.get(machineId)!.name).toBe('Washer');
  });

  it('fills a file that has no household yet', async () => {
    const { body: file } = await api.post('/api/v1/backups').expect(201);
    const zip = readFileSync(join(kept, (file as BackupFile).name));
    const other = join(folder, 'other.sqlite');
    const keeping = {
      file: other,
      folder: join(folder, 'more'),
      now: Date.now,
      failed: () => undefined,
    };
    const fresh = makeApp(openDatabase(other), { keeping });
    const { body: look } = await request(fresh.express)
      .post('/api/v1/backups/look')
      .set('Content-Type', 'application/zip')
      .send(zip)
      .expect(200);
    expect(look).not.toHaveProperty('here');
    await request(fresh.express)
      .post('/api/v1/restore')
      .send({ id: look.id, how: 'replace' })
      .expect(200);
    expect(fresh.store.household.get()).toEqual(app.store.household.get());
    expect(readdirSync(folder).filter((name) => /staged|upload/.test(name))).toEqual([]);
    fresh.store.close();
  });

  it('says what is wrong with what was handed in, and leaves nothing lying', async () => {
    const send = (type: string, body: Buffer) =>
      api.post('/api/v1/backups/look').set('Content-Type', type).send(body);
    const { body } = await send('application/zip', Buffer.from('no zip')).expect(422);
    expect(body.errors).toEqual([{ field: 'backup', message: expect.stringMatching(/no backup/) }]);
    await send('text/plain', Buffer.from('x')).expect(415);
    await api.post('/api/v1/backups/pick').send({ name: '../house.sqlite' }).expect(404);
    await restore({ id: machineId, how: 'replace' }).expect(422);
    await restore({ id: machineId, how: 'sideways' }).expect(422);
    expect(readdirSync(folder).filter((name) => /staged|upload/.test(name))).toEqual([]);
  });

  it('gives one to take along, which is read again before, and leaves none lying', async () => {
    const answer = await api
      .get('/api/v1/backup.zip')
      .buffer(true)
      .parse((response, done) => {
        const pieces: Buffer[] = [];
        response.on('data', (piece: Buffer) => pieces.push(piece));
        response.on('end', () => done(null, Buffer.concat(pieces)));
      })
      .expect(200);
    expect(answer.headers['content-disposition']).toMatch(/needlecase-.*\.zip/);
    const path = join(folder, 'taken.zip');
    writeFileSync(path, answer.body as Buffer);
    await readBackup(path);
    expect(readdirSync(folder).filter((name) => /upload/.test(name))).toEqual([]);
  });
});
