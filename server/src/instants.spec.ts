import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { afterAll, describe, expect, it } from 'vitest';
import { makeApp } from './app.js';
import { openDatabase } from './db/open.js';
import { readyApp, setup } from './testing/household.js';

/** What no calendar can read, though it looks like an instant. */
const UNREADABLE = [
  '2026-03-01T10:00:60Z',
  '2026-03-01T10:00:00+14',
  '2026-03-01 10:00:00Z',
  '2026-03-01T24:00:00Z',
  '2026-02-30T10:00:00Z',
  '2026-03-01T10:00:00+24:00',
  '2026-13-01T10:00:00Z',
  'yesterday',
];

/** When the migration was made that mends them, and what later ones add. */
const MENDED = 1795722463166;
const LATER_TABLES = [
  'documents',
  'persons',
  'devices',
  'pairing_codes',
  'tokens',
  'passkeys',
  'links',
  'access_events',
  'set_aside',
  'absences',
  'busy_calendars',
  'planned_visits',
  'feeds',
  'meter_days',
  'meters',
  'meter_samples',
  'mail_recipients',
];

const app = await readyApp();
const load = (at: string) => ({ id: randomUUID(), machineId: app.washer.id, kind: 'load', at });

describe('instants that come in', () => {
  it.each(UNREADABLE)(
    'are refused beside the field where no calendar can read them: %s',
    async (at) => {
      const entry = await app.api.post('/api/v1/entries').send(load(at)).expect(422);
      expect(entry.body.errors).toEqual([
        { field: 'at', message: 'Give a date and time, such as 2026-03-01T09:30:00Z.' },
      ]);
      const news = {
        id: randomUUID(),
        machineId: app.washer.id,
        events: [{ id: randomUUID(), at, kind: 'answer', finding: 'wont-drain', answer: 'yes' }],
      };
      const told = await app.api.post('/api/v1/cases').send(news).expect(422);
      expect(told.body.errors[0].field).toBe('events.0.at');
      await app.api.get('/api/v1/bench').expect(200);
    },
  );

  it('are kept as the program writes them, whatever the offset', async () => {
    const { body } = await app.api
      .post('/api/v1/entries')
      .send(load('2026-03-01t10:00:00.5+02:30'))
      .expect(201);
    expect(body.at).toBe('2026-03-01T07:30:00.500Z');
    const news = {
      id: randomUUID(),
      machineId: app.washer.id,
      events: [
        {
          id: randomUUID(),
          at: '2026-03-01T10:00:00+01:00',
          kind: 'answer',
          finding: 'wont-drain',
          answer: 'yes',
        },
      ],
    };
    const told = await app.api.post('/api/v1/cases').send(news).expect(201);
    expect(told.body.events[0].at).toBe('2026-03-01T09:00:00.000Z');
  });

  it('in the progress of a visit are checked as an entry’s are', async () => {
    const task = { machineId: app.washer.id, task: 'gasket-folds' };
    const { body: run } = await app.api
      .post('/api/v1/runs')
      .send({ tasks: [task] })
      .expect(201);
    const key = `${app.washer.id}/gasket-folds`;
    const change = (progress: object) =>
      app.api
        .patch(`/api/v1/runs/${run.id}`)
        .set('If-Match', `"${run.version}"`)
        .send({ progress: { ...run.progress, ...progress } });
    const future = '9999-12-31T00:00:00Z';
    const step = `${key}/look`;
    for (const [field, progress] of [
      [
        `progress.tasks.${key}.doneAt`,
        { tasks: { [key]: { outcome: 'cleaned', doneAt: future } } },
      ],
      [`progress.ticked.${step}`, { ticked: { [step]: future } }],
      [
        `progress.timers.${step}.startedAt`,
        { timers: { [step]: { startedAt: future, seconds: 60 } } },
      ],
      [`progress.brought.${step}.at`, { brought: { [step]: { product: 'vinegar', at: future } } }],
      [
        `progress.rinsed.${step}.at`,
        { rinsed: { [step]: { entryId: randomUUID(), at: '1200-01-01T00:00:00Z' } } },
      ],
    ] as const) {
      const { body } = await change(progress).expect(422);
      expect(body.errors.map((one: { field: string }) => one.field)).toEqual([field]);
    }
    await change({ ticked: { [step]: '2026-03-01T10:00:00+01:00' } }).expect(200);
    const { body: kept } = await app.api.get(`/api/v1/runs/${run.id}`).expect(200);
    expect(kept.progress.ticked[step]).toBe('2026-03-01T09:00:00.000Z');
  });

  it('keep what the phone’s clock said beside them', async () => {
    const { body } = await app.api
      .post('/api/v1/entries')
      .send({ ...load('2026-03-01T10:00:00Z'), deviceAt: '2026-03-01T10:18:00Z' })
      .expect(201);
    expect(body.deviceAt).toBe('2026-03-01T10:18:00.000Z');
  });
});

describe('a file that holds an instant which no calendar can read', () => {
  const file = join(tmpdir(), `needlecase-${randomUUID()}.sqlite`);
  afterAll(() => {
    for (const end of ['', '-wal', '-shm']) rmSync(file + end, { force: true });
  });

  it('is mended when it is brought up to date', async () => {
    const db = openDatabase(file);
    const old = request(makeApp(db).express);
    const { body } = await old.post('/api/v1/setup').send(setup).expect(201);
    const machineId = body.machines[0].id as string;
    const news = {
      id: randomUUID(),
      machineId,
      events: [
        {
          id: randomUUID(),
          at: '2026-03-01T10:00:00Z',
          kind: 'answer',
          finding: 'wont-drain',
          answer: 'yes',
        },
      ],
    };
    await old.post('/api/v1/cases').send(news).expect(201);
    // As an older program stored it.
    const [guard] = db.$client
      .prepare(
        "SELECT sql FROM sqlite_master WHERE type = 'trigger' AND name = 'case_events_are_not_changed'",
      )
      .pluck()
      .all() as string[];
    db.$client.exec(
      `DROP TRIGGER case_events_are_not_changed;
       UPDATE case_events SET event = replace(event, '10:00:00.000Z', '10:00:60Z');
       ${guard};
       ${LATER_TABLES.map((name) => `DROP TABLE ${name};`).join('\n')}
       ALTER TABLE households DROP COLUMN plan;
       ALTER TABLE households DROP COLUMN widened;
       ALTER TABLE machines DROP COLUMN retired;
       ALTER TABLE machines DROP COLUMN pages;
       DELETE FROM __drizzle_migrations WHERE created_at >= ${MENDED}`,
    );
    db.$client.close();
    const again = openDatabase(file);
    const api = request(makeApp(again).express);
    const { body: cases } = await api.get('/api/v1/cases').expect(200);
    expect(cases[0].events[0].at).toBe('2026-03-01T10:00:59.000Z');
    await api.get('/api/v1/bench').expect(200);
    again.$client.close();
  });
});

describe('a server', () => {
  const household = (id: string) => ({ 'Needlecase-Household': id });

  it('takes what is sent to its own household, and tells which it is', async () => {
    const { headers } = await app.api
      .post('/api/v1/entries')
      .set(household(app.household.id))
      .send(load('2026-03-01T10:00:00Z'))
      .expect(201);
    expect(headers['needlecase-household']).toBe(app.household.id);
  });

  it('refuses in words what is for another, or for one where there is none yet', async () => {
    const { body } = await app.api
      .post('/api/v1/entries')
      .set(household(randomUUID()))
      .send(load('2026-03-01T10:00:00Z'))
      .expect(421);
    expect(body.title).toBe('This is the Needlecase of another household.');
    expect(body.detail).toContain('Nothing was stored.');
    const empty = request(makeApp(openDatabase(':memory:')).express);
    const { body: said } = await empty
      .post('/api/v1/entries')
      .set(household(app.household.id))
      .send(load('2026-03-01T10:00:00Z'))
      .expect(421);
    expect(said.title).toBe('This Needlecase has no household yet.');
  });
});
