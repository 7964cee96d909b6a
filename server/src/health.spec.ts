import { existsSync, mkdtempSync, readdirSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Health } from '@needlecase/core/model/health';
import request from 'supertest';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { makeApp, type App } from './app.js';
import { openDatabase, type Db } from './db/open.js';
import { doJob, type JobAsk, type JobName, type JobResult } from './threads/jobs.js';
import { ago, setup } from './testing/household.js';
import { move } from './testing/people.js';
import { certificateLook, clockLook } from './work/house-looks.js';

/* What goes wrong with the house's own computer is told to its owners; that it lives is told to everybody. */

const DAY = 86_400_000;
let folder: string;
let file: string;
let db: Db;
let app: App;
let api: ReturnType<typeof request>;
let now: number;
/** Work that fails in its thread, as if it had come to a stop. */
let breaks: JobName | undefined;
/** A backup is spoiled after it was written and read. */
let spoils: boolean;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  file = join(folder, 'house.sqlite');
  db = openDatabase(file);
  now = Date.now();
  breaks = undefined;
  spoils = false;
  app = makeApp(db, {
    keeping: { file, folder: join(folder, 'kept'), now: () => now, failed: () => undefined },
    threads: {
      run: async <J extends JobName>(job: J, ask: JobAsk<J>): Promise<JobResult<J>> => {
        if (job === breaks) throw new Error('The thread came to a stop.');
        const done = await doJob({ file, store: () => app.store }, job, ask);
        if (job === 'backup' && spoils) truncateSync((ask as { target: string }).target, 900);
        return done;
      },
      close: () => Promise.resolve(),
    },
  });
  api = request(app.express);
  await api.post('/api/v1/setup').send(setup).expect(201);
});
afterEach(() => {
  app.guard?.stop();
  app.store.close();
  rmSync(folder, { recursive: true, force: true });
});

const health = async (): Promise<Health> => {
  await app.watch.look();
  return (await api.get('/api/v1/health').expect(200)).body as Health;
};
const titles = async (): Promise<string[]> => (await health()).troubles!.map(({ title }) => title);

describe('the health of the house', () => {
  it('is well while nothing is wrong, and says to strangers only whether it is', async () => {
    expect(await health()).toMatchObject({ ok: true, troubles: [] });
    await api.get('/api/v1/ready').expect(200, { ready: true });
    app.watch.say('broker', { title: 'A secret', detail: 'of the house' });
    const { text, body } = await api.get('/api/v1/health').set('X-Forwarded-For', '192.168.1.9');
    expect(body).toMatchObject({ ok: false });
    expect(text).not.toContain('secret');
    for (const role of ['guest', 'helper'] as const) {
      const { cookie } = move(app, role);
      const theirs = await api.get('/api/v1/health').set('Cookie', cookie);
      expect(theirs.text).not.toContain('secret');
    }
  });

  it('tells of a -wal that was taken away, and is not ready then', async () => {
    rmSync(`${file}-wal`);
    await api.get('/api/v1/ready').expect(503);
    expect(await titles()).toEqual([
      'Another program took house.sqlite-wal away while the server runs.',
    ]);
  });

  it('tells of a full disk as soon as something was refused', async () => {
    const pages = db.$client.pragma('page_count', { simple: true }) as number;
    db.$client.pragma(`max_page_count = ${pages}`);
    const note = { kind: 'note', at: ago(0), note: 'x'.repeat(1500) };
    let { status } = await api.post('/api/v1/entries').send(note);
    for (let i = 0; i < 50 && status === 201; i++) {
      ({ status } = await api.post('/api/v1/entries').send(note));
    }
    expect(status).toBe(507);
    expect(await titles()).toEqual(['The disk of the server is full.']);
    const { body } = await api.get('/api/v1/health');
    expect(body.troubles[0]).toMatchObject({ what: 'disk', bench: true, leads: '/house/backup' });
  });

  it('tells of a thread that came to a stop, until it has done the same work', async () => {
    breaks = 'schools';
    await api.get('/api/v1/schools').expect(500);
    expect(await titles()).toEqual(['Some work in the background failed.']);
    breaks = undefined;
    await api.get('/api/v1/schools').expect(200);
    expect(await titles()).toEqual([]);
  });

  it('tells of a meter whose broker has been silent for a day', async () => {
    const machineId = app.store.machines.list()[0]!.id;
    const meter = app.store.writeBeside(() =>
      app.store.meters.create({
        name: 'Cellar plug',
        machineId,
        mqtt: { broker: 'mqtt://house.test', topic: 'a', instant: '/at' } as never,
      }),
    );
    app.store.writeBeside(() =>
      app.store.meters.addSamples(meter.id, [{ at: Date.now() - 2 * DAY, watts: 3 }]),
    );
    expect(await titles()).toEqual(['“Cellar plug” has said nothing for a day.']);
    app.store.writeBeside(() =>
      app.store.meters.addSamples(meter.id, [{ at: Date.now() - 1000, watts: 3 }]),
    );
    expect(await titles()).toEqual([]);
  });

  it('tells of a calendar of an address that is read no more', async () => {
    const { id } = app.store.writeBeside(() => {
      const kept = app.store.busy.keep({ name: 'Shifts', days: [], readOn: '2026-01-05' });
      app.store.busy.from(kept.id, { address: 'http://192.168.1.5/shifts.ics' });
      return kept;
    });
    const [told] = await titles();
    expect(told).toMatch(/^The calendar “Shifts” could not be read since .*5 January.*\.$/);
    app.store.writeBeside(() => app.store.busy.remove(id));
    expect(await titles()).toEqual([]);
  });
});

describe('the daily backup', () => {
  const kept = () => readdirSync(join(folder, 'kept'));

  it('is put back in trial, and what is left of that is nothing', async () => {
    await app.backups.daily();
    expect(kept()).toHaveLength(1);
    expect(readdirSync(folder).filter((name) => name.includes('.staged-'))).toEqual([]);
    expect(await titles()).toEqual([]);
  });

  it('that does not come back never counts, is told, and only the newest such one is kept', async () => {
    spoils = true;
    for (let i = 0; i < 3; i++) {
      now += DAY / 24;
      await app.backups.daily();
    }
    expect(kept()).toEqual([expect.stringMatching(/\.zip\.bad$/)]);
    expect((await app.backups.state()).files).toEqual([]);
    expect(await titles()).toContain('The last backup failed.');
    spoils = false;
    await app.backups.daily();
    expect((await titles()).filter((title) => title.includes('backup'))).toEqual([]);
  });

  it('that could not be tried out is not called bad for it: the disk was full, or the thread ended', async () => {
    breaks = 'try-backup';
    await app.backups.daily();
    expect(kept()).toEqual([expect.stringMatching(/\.zip$/)]);
    expect(await titles()).toContain('The last backup failed.');
    expect((await api.get('/api/v1/health')).text).toContain('could not be tried out');
    breaks = undefined;
    await app.backups.make();
    expect((await titles()).filter((title) => title.includes('backup'))).toEqual([]);
  });

  it('is made, tried out and can be put back after a clock was a year ahead while entries came in', async () => {
    const ahead = Date.now() + 365 * DAY;
    const id = app.store.machines.list()[0]!.id;
    db.$client
      .prepare(
        `INSERT INTO entries (id, machine_id, kind, at, day, zone, author, source, recorded_at, count, more)
         VALUES ('6f9619ff-8b86-4011-b42d-00c04fc964ff', ?, 'load', ?, ?, 'Europe/Vienna', 'household', 'api', ?, 1, '{}')`,
      )
      .run(id, ahead, new Date(ahead).toISOString().slice(0, 10), ahead);
    await app.backups.daily();
    const [name] = kept();
    expect(name).toMatch(/\.zip$/);
    const { body } = await api.post('/api/v1/backups/pick').send({ name }).expect(200);
    expect((body as { backup: { entries: number } }).backup.entries).toBe(1);
  });

  it('is made again after a clock was ahead once: one of the future is told, and is not the newest', async () => {
    now += 5 * 365 * DAY;
    await app.backups.daily();
    now -= 5 * 365 * DAY;
    await app.backups.daily();
    await app.backups.daily();
    expect(kept()).toHaveLength(2);
    now += DAY;
    await app.backups.daily();
    expect(kept()).toHaveLength(3);
    const state = await app.backups.state();
    expect(state).toMatchObject({ ahead: 1, old: false });
    expect(await titles()).toEqual(['A backup is dated in the future.']);
  });

  it('that was missed for three days is told', async () => {
    await app.backups.daily();
    now += 4 * DAY;
    expect(await titles()).toEqual(['The last good backup is more than three days old.']);
  });

  it('is not made of what is not the file any more', async () => {
    rmSync(`${file}-shm`);
    writeFileSync(`${file}-shm`, '');
    await app.backups.daily();
    expect(existsSync(join(folder, 'kept')) ? kept() : []).toEqual([]);
  });
});

describe('the clock', () => {
  const hours = (n: number) => n * 3_600_000;

  it('that jumps is told for a day; one that goes, and a night’s sleep, are not', () => {
    let counted = 0;
    let at = Date.parse('2026-10-25T00:30:00Z');
    const look = clockLook(
      () => counted,
      () => undefined,
    );
    const after = (real: number, shown = real) => {
      counted += real;
      at += shown;
      return look(at) as { title: string } | undefined;
    };
    // Over the change of the hour and a leap second: instants do not care.
    for (let i = 0; i < 100; i++) expect(after(60_000)).toBeUndefined();
    expect(after(60_000, hours(9))).toBeUndefined();
    expect(after(60_000, -hours(3))?.title).toBe('The clock of the server went back by 3 hours.');
    expect(after(hours(23))?.title).toContain('went back');
    expect(after(hours(2))).toBeUndefined();
    expect(after(60_000, 400 * DAY)?.title).toBe(
      'The clock of the server went forward by 400 days.',
    );
  });

  it('that was set back before the start is seen by what was recorded', () => {
    const look = clockLook(
      () => 0,
      () => Date.parse('2031-05-01T00:00:00Z'),
    );
    expect(look(Date.parse('2026-12-02T00:00:00Z'))).toMatchObject({
      title: 'The clock of the server is behind what was recorded.',
    });
  });
});

it('a certificate near its end is told, and one that has ended', () => {
  const until = Date.parse('2026-12-20T00:00:00Z');
  const look = certificateLook(() => until);
  expect(look(until - 15 * DAY)).toBeUndefined();
  expect(look(until - 13 * DAY)).toMatchObject({
    title: 'The certificate ends on 20 December 2026.',
  });
  expect(look(until + DAY)).toMatchObject({ title: 'The certificate ended on 20 December 2026.' });
  expect(certificateLook(() => undefined)(until)).toBeUndefined();
});
