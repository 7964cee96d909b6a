import { plusDays } from '@needlecase/core';
import request from 'supertest';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { makeApp, type App } from './app.js';
import { openDatabase } from './db/open.js';
import { doJob, type JobAsk, type JobName, type JobResult } from './threads/jobs.js';
import { dryer, setup, washer } from './testing/household.js';

/* A year takes a while to be planned, in a thread of its own; what changes meanwhile must not end in a mixture. */

let app: App;
let api: ReturnType<typeof request>;
/** What is to happen while a plan is being made. */
let meanwhile: (() => Promise<unknown>)[];
beforeEach(async () => {
  meanwhile = [];
  app = makeApp(openDatabase(':memory:'), {
    threads: {
      async run<J extends JobName>(job: J, ask: JobAsk<J>): Promise<JobResult<J>> {
        const made = await doJob({ file: undefined, store: () => app.store }, job, ask);
        if (job === 'plan') await meanwhile.shift()?.();
        return made;
      },
      close: () => Promise.resolve(),
    },
  });
  api = request(app.express);
  await api
    .post('/api/v1/setup')
    .send({ ...setup, machines: [washer, dryer, { ...dryer, name: 'Second', place: 'Attic' }] })
    .expect(201);
});
afterEach(() => app.store.close());

const machines = () => app.store.machines.list();
const change = (i: number, more: object) => async () => {
  const { id, version, ...draft } = machines()[i]!;
  await api
    .put(`/api/v1/machines/${id}`)
    .set('If-Match', `"${version}"`)
    .send({ ...draft, ...more })
    .expect(200);
};
const remove = (i: number) => async () => {
  const { id, version } = machines()[i]!;
  await api.delete(`/api/v1/machines/${id}`).set('If-Match', `"${version}"`).expect(200);
};
const absence = async () => {
  const start = plusDays(new Date().toISOString().slice(0, 10), 20);
  await api
    .post('/api/v1/absences')
    .send({ from: start, to: plusDays(start, 9) })
    .expect(201);
};

/** What a calendar says of its events. */
const uids = (text: string) => [...text.matchAll(/^UID:(\S+)/gm)].map(([, uid]) => uid);

describe('while a year is being planned', () => {
  it.each([
    ['a machine goes', remove(2)],
    ['a machine becomes another kind', change(1, { kind: 'condenser-dryer', features: {} })],
    ['a machine moves', change(2, { place: 'Cellar' })],
    ['somebody goes away', absence],
    ['a rhythm changes', change(0, { school: 'stretch' })],
  ])('%s: calendar, plan and sheets are of what holds then', async (_what, happens) => {
    meanwhile = [happens, () => Promise.resolve()];
    const first = await api.get('/api/v1/calendar.ics');
    expect(first.status).toBe(200);
    const { body: plan, status } = await api.get('/api/v1/plan');
    expect(status).toBe(200);
    const again = await api.get('/api/v1/calendar.ics').expect(200);
    // What was answered first is what is answered now that nothing changes any more.
    expect(uids(first.text)).toEqual(uids(again.text));
    const known = new Set(machines().map(({ id }) => id));
    for (const { tasks } of plan.visits) {
      for (const { machineId } of tasks) expect(known.has(machineId)).toBe(true);
    }
    expect(plan.places.toSorted()).toEqual(
      [...new Set(machines().map(({ place }) => place))].toSorted(),
    );
    await api.get('/api/v1/prints/wall.pdf').expect(200);
    await api.get('/api/v1/plan/ahead').expect(200);
  });

  it('is answered though something is written each time that it is planned', async () => {
    let writes = 0;
    const load = async () => {
      writes++;
      const machineId = machines()[0]!.id;
      await api
        .post('/api/v1/entries')
        .send({ kind: 'load', machineId, at: new Date().toISOString(), count: 3 })
        .expect(201);
    };
    meanwhile = [load, change(2, { place: 'Cellar' }), load, remove(2), load, load];
    const { body, status } = await api.get('/api/v1/plan');
    expect(status).toBe(200);
    expect(writes).toBeGreaterThan(0);
    expect(body.visits.length).toBeGreaterThan(0);
    const known = new Set(machines().map(({ id }) => id));
    const named = body.visits.flatMap(({ tasks }: { tasks: { machineId: string }[] }) => tasks);
    expect(named.every(({ machineId }: { machineId: string }) => known.has(machineId))).toBe(true);
    await api.get('/api/v1/calendar.ics').expect(200);
    // Nothing is written any more: the plan is of what holds.
    meanwhile = [];
    await vi.waitFor(async () => {
      expect((await api.get('/api/v1/plan')).body.making).toBeUndefined();
    });
  });

  it('many who ask at once, with changes between them, are all answered', async () => {
    meanwhile = [absence, change(2, { place: 'Cellar' }), remove(2), change(0, { name: 'Tub' })];
    const asked = ['calendar.ics', 'plan', 'plan/ahead', 'calendar.ics', 'prints/year.pdf', 'plan'];
    const answers = await Promise.all(asked.map((path) => api.get(`/api/v1/${path}`)));
    expect(answers.map(({ status }) => status)).toEqual(asked.map(() => 200));
  });
});
