import type { BenchView } from '@needlecase/core';
import type { PlanView } from '@needlecase/core/views/plan';
import request from 'supertest';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { makeApp, type App } from './app.js';
import { openDatabase } from './db/open.js';
import { dryer, setup, washer } from './testing/household.js';
import { doJob, type JobAsk, type JobName, type JobResult } from './threads/jobs.js';

/* A house with many machines is told and planned a section at a time; no answer is larger than a phone takes in. */

const MOST_BYTES = 500_000;

let app: App;
let api: ReturnType<typeof request>;
/** Of which place each plan was made. */
let planned: string[];
/** A plan is not ready before this. */
let ready: Promise<unknown>;
afterEach(() => app.store.close());

async function house(places: Record<string, number>): Promise<void> {
  planned = [];
  ready = Promise.resolve();
  app = makeApp(openDatabase(':memory:'), {
    threads: {
      async run<J extends JobName>(job: J, ask: JobAsk<J>): Promise<JobResult<J>> {
        const place = { file: undefined, store: () => app.store };
        if (job !== 'plan') return doJob(place, job, ask);
        const { problem } = ask as JobAsk<'plan'>;
        planned.push(problem.places[0]!.id);
        await ready;
        return doJob(place, job, ask);
      },
      close: () => Promise.resolve(),
    },
  });
  api = request(app.express);
  const machines = Object.entries(places).flatMap(([place, count]) =>
    Array.from({ length: count }, (_, i) => ({
      ...(i % 2 ? dryer : washer),
      name: `${place} ${i}`,
      place,
    })),
  );
  await api
    .post('/api/v1/setup')
    .send({ ...setup, machines })
    .expect(201);
}

const plan = async (section?: string): Promise<PlanView> =>
  (await api.get('/api/v1/plan').query(section === undefined ? {} : { section })).body;
const wholePlan = async (section?: string): Promise<PlanView> =>
  vi.waitFor(
    async () => {
      const view = await plan(section);
      expect(view.making).toBeUndefined();
      return view;
    },
    { timeout: 20_000, interval: 100 },
  );
const idsAt = (place: string) =>
  app.store.machines
    .list()
    .filter((one) => one.place === place)
    .map(({ id }) => id);

describe('the plan of a large house', () => {
  it('is told by section, each by itself, and together it is of all machines', async () => {
    await house({ Attic: 3, Cellar: 13 });
    const first = await wholePlan();
    expect(first.section).toEqual({
      id: 'Attic',
      all: [{ id: 'Attic' }, { id: 'Cellar' }, { id: 'Cellar (2)' }],
    });
    const views = [first, await wholePlan('Cellar'), await wholePlan('Cellar (2)')];
    for (const view of views) {
      const own = new Set(view.machines.map(({ id }) => id));
      expect(view.visits.length).toBeGreaterThan(0);
      const work = view.visits.flatMap(({ tasks }) => tasks);
      expect(work.every(({ machineId }) => own.has(machineId))).toBe(true);
      expect(JSON.stringify(view).length).toBeLessThan(MOST_BYTES);
    }
    const told = views.flatMap(({ machines }) => machines.map(({ id }) => id));
    expect(told.toSorted()).toEqual([...idsAt('Attic'), ...idsAt('Cellar')].toSorted());
    // A section that is no more is the first.
    expect((await plan('Yard')).section!.id).toBe('Attic');

    const { text } = await api.get('/api/v1/calendar.ics').expect(200);
    const uids = [...text.matchAll(/^UID:(\S+)/gm)].map(([, uid]) => uid);
    const ids = views.flatMap(({ visits }) => visits.map(({ id }) => id));
    expect(uids.length).toBeGreaterThan(0);
    expect(ids).toEqual(expect.arrayContaining(uids));
    await api.get('/api/v1/prints/wall.pdf?place=Cellar').expect(200);
    await api.get('/api/v1/prints/year.pdf').expect(200);
  });

  it('is made anew only where something changed', async () => {
    await house({ Attic: 4, Cellar: 9 });
    const [attic, cellar] = [await wholePlan('Attic'), await wholePlan('Cellar')];
    planned = [];
    const [machineId] = idsAt('Cellar');
    const load = { kind: 'load', machineId, at: new Date().toISOString(), count: 9 };
    await api.post('/api/v1/entries').send(load).expect(201);
    expect(await wholePlan('Attic')).toEqual(attic);
    await wholePlan('Cellar');
    expect(planned).toEqual(['Cellar']);

    const visit = cellar.visits.find(({ done }) => !done)!;
    const { body, status } = await api
      .put(`/api/v1/plan/visits/${visit.id}`)
      .set('If-Match', `"${visit.version}"`)
      .send({ held: true });
    expect([status, body.held]).toEqual([200, true]);
    expect(await wholePlan('Attic')).toEqual(attic);
  });

  it('that takes long is told as it stands, and nothing is printed of what is not planned yet', async () => {
    await house({ Attic: 13 });
    let go = (): void => undefined;
    ready = new Promise<void>((done) => (go = done));
    const before = Date.now();
    const view = await plan();
    expect(Date.now() - before).toBeLessThan(3000);
    expect([view.making, view.visits]).toEqual([true, []]);
    expect(view.tasks.length).toBeGreaterThan(0);
    const refused = await api.get('/api/v1/calendar.ics').expect(503);
    expect(refused.body.title).toBe('The year is still being planned.');
    go();
    const made = await wholePlan();
    await wholePlan('Attic (2)');
    expect(made.visits.length).toBeGreaterThan(0);

    // What stands is told while it is planned anew, without what is not there any more.
    ready = new Promise<void>((done) => (go = done));
    const { id, version } = app.store.machines.list()[0]!;
    await api.delete(`/api/v1/machines/${id}`).set('If-Match', `"${version}"`).expect(200);
    const stands = await plan();
    expect(stands.making).toBe(true);
    expect(stands.visits.length).toBeGreaterThan(0);
    const work = stands.visits.flatMap(({ tasks }) => tasks);
    expect(work.some(({ machineId }) => machineId === id)).toBe(false);
    await api.get('/api/v1/calendar.ics').expect(200);
    go();
    await wholePlan();
    await wholePlan('Attic (2)');
  });
});

describe('the bench of a large house', () => {
  it('shows a section, knows every machine, and how much is due in each', async () => {
    await house({ Attic: 3, Cellar: 40 });
    const bench = async (section: string): Promise<BenchView> =>
      (await api.get('/api/v1/bench').query({ section }).expect(200)).body;
    const [attic, cellar] = [await bench('Attic'), await bench('Cellar')];
    for (const [place, view] of Object.entries({ Attic: attic, Cellar: cellar })) {
      const own = idsAt(place).toSorted();
      expect(view.section!.id).toBe(place);
      expect(view.machines).toHaveLength(43);
      expect(view.states.map(({ machineId }) => machineId).toSorted()).toEqual(own);
      expect(view.loads.map(({ machineId }) => machineId).toSorted()).toEqual(own);
      expect(view.visit!.tasks.every(({ machineId }) => own.includes(machineId))).toBe(true);
      const due = view.states.flatMap(({ dues }) => dues.filter(({ status }) => status === 'due'));
      expect(view.section!.all.find(({ id }) => id === place)!.due).toBe(due.length);
      expect(JSON.stringify(view).length).toBeLessThan(MOST_BYTES);
    }
    expect((await api.get('/api/v1/bench')).body.section.id).toBe('Attic');
  });

  it('has so many labels printed at once', async () => {
    await house({ Attic: 3, Cellar: 40 });
    await api.get('/api/v1/prints/labels.pdf?section=Cellar').expect(200);
    const { body } = await api
      .get('/api/v1/prints/labels.pdf?section=Cellar&copies=24')
      .expect(422);
    expect(body.errors).toEqual([
      {
        field: 'copies',
        message: 'These are 960 labels. At most 240 are printed at once.',
      },
    ]);
    await api.get('/api/v1/prints/labels.pdf?place=Yard').expect(422);
  });
});
