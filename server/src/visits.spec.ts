import { type Visit, type VisitProgress } from '@needlecase/core';
import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { readyApp, worked as allDone, type Fixture } from './testing/household.js';

let app: Fixture;
let visit: Visit;
beforeEach(async () => {
  app = await readyApp();
  visit = (
    await app.api
      .post('/api/v1/runs')
      .send({ tasks: [{ machineId: app.washer.id, task: 'gasket-folds' }] })
      .expect(201)
  ).body;
});

const patch = (body: object, version = visit.version) =>
  app.api.patch(`/api/v1/runs/${visit.id}`).set('If-Match', `"${version}"`).send(body);

const worked = (grade: 0 | 1 | 2 | 3 | 4): VisitProgress => allDone(visit.tasks, app.washer, grade);

describe('runs', () => {
  it('are not begun twice unasked, also where only some of the work is the same', async () => {
    const one = (task: string) => ({ machineId: app.washer.id, task });
    const begin = (tasks: object[], more: object = { onlyIfNew: true }) =>
      app.api.post('/api/v1/runs').send({ tasks, ...more });
    const { body } = await begin([one('dispenser'), one('gasket-folds')]).expect(409);
    expect(body.current).toMatchObject({ id: visit.id });
    await begin([one('gasket-folds')], {}).expect(201);
    await begin([one('dispenser')]).expect(201);
    await begin([one('dispenser')]).expect(409);
    const { body: open } = await app.api.get('/api/v1/runs').expect(200);
    expect(open).toHaveLength(3);
    for (const { id, version } of open as Visit[]) {
      await app.api
        .patch(`/api/v1/runs/${id}`)
        .set('If-Match', `"${version}"`)
        .send({ state: 'abandoned' })
        .expect(200);
    }
    await begin([one('dispenser')]).expect(201);
  });

  it('begins only tasks that the machines have', async () => {
    const begin = (tasks: object[]) => app.api.post('/api/v1/runs').send({ tasks }).expect(422);
    const wrong = [
      await begin([{ machineId: app.washer.id, task: 'duct-run' }]),
      await begin([{ machineId: randomUUID(), task: 'duct-run' }]),
      await begin([]),
    ];
    expect(wrong.map(({ body }) => body.errors[0].field)).toEqual([
      'tasks.0.task',
      'tasks.0.machineId',
      'tasks',
    ]);
  });

  it('keeps progress, is paused, and is found again', async () => {
    const progress = { ...worked(1), at: 'somewhere' };
    await patch({ progress, state: 'paused' }).expect(200);
    const { body } = await app.api.get('/api/v1/runs');
    expect(body).toHaveLength(1);
    expect(body[0]).toMatchObject({ state: 'paused', progress, version: 2 });
  });

  it('shows both versions when two screens work on it', async () => {
    await patch({ progress: worked(1) }).expect(200);
    const { body } = await patch({ progress: worked(3) }).expect(409);
    expect(Object.values(body.current.progress.tasks)).toEqual([{ grade: 1 }]);
    expect(Object.values(body.yours.progress.tasks)).toEqual([{ grade: 3 }]);
  });

  it('refuses progress that is none', async () => {
    const { body } = await patch({
      progress: { ...worked(1), timers: { x: { startedAt: 'now' } } },
    }).expect(422);
    expect(body.errors[0].field).toMatch(/^progress\.timers\.x/);
    await patch({ state: 'finished' }).expect(422);
  });

  it('writes its entries once, however often it is finished', async () => {
    await patch({ progress: worked(2) }).expect(200);
    const finish = () => app.api.post(`/api/v1/runs/${visit.id}/finish`).expect(200);
    const [first, second] = [await finish(), await finish()];
    // The work, and its proof that only the next load can give.
    expect(first.body.entries.map(({ kind }: { kind: string }) => kind)).toEqual(['done', 'proof']);
    expect(first.body.entries[0]).toMatchObject({
      kind: 'done',
      grade: 2,
      runId: visit.id,
      source: 'run',
    });
    const idsOf = ({ body }: typeof first) =>
      (body.entries as { id: string }[]).map(({ id }) => id).sort();
    expect(idsOf(second)).toEqual(idsOf(first));
    await patch({ state: 'paused' }, first.body.run.version).expect(409);
    expect((await app.api.get('/api/v1/runs')).body).toEqual([]);
  });

  it('is taken back whole, goes on, and is finished anew', async () => {
    await patch({ progress: worked(2) }).expect(200);
    await app.api.post(`/api/v1/runs/${visit.id}/undo`).expect(409);
    await app.api.post(`/api/v1/runs/${visit.id}/finish`).expect(200);
    const { body: open } = await app.api.post(`/api/v1/runs/${visit.id}/undo`).expect(200);
    expect(open.state).toBe('paused');
    expect((await app.api.get('/api/v1/entries')).body.entries).toEqual([]);
    const { body } = await app.api.post(`/api/v1/runs/${visit.id}/finish`).expect(200);
    expect(body.entries).toHaveLength(2);
  });
});
