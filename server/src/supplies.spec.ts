import type { SchoolsView, SuppliesView, SupplyDraft } from '@needlecase/core';
import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { ago, readyApp, type Fixture } from './testing/household.js';

const soap: SupplyDraft = {
  item: 'dish-soap',
  name: 'Green soap',
  unit: 'ml',
  pack: 500,
  price: 2,
};

let app: Fixture;
beforeEach(async () => {
  app = await readyApp();
});

const shelf = async () => {
  const { body } = await app.api.get('/api/v1/supplies').expect(200);
  return (body as SuppliesView).supplies;
};
const enter = (entry: object) =>
  app.api.post('/api/v1/entries').send({ at: new Date().toISOString(), ...entry });

describe('supplies', () => {
  it('are kept, counted, bought and used up by work, and undoing gives them back', async () => {
    await app.api.post('/api/v1/supplies').send(soap).expect(201);
    const left = async () => (await shelf())[0]!.left;
    expect(await left()).toBeUndefined();
    await enter({ kind: 'stock', supply: 'dish-soap', value: 120, unit: 'ml', at: ago(20) }).expect(
      201,
    );
    expect(await left()).toBe(120);
    const { body: work } = await enter({
      kind: 'done',
      machineId: app.washer.id,
      task: 'pump-filter',
      at: ago(9),
    }).expect(201);
    expect(await left()).toBe(110);
    await enter({ kind: 'bought', supply: 'dish-soap', value: 500, unit: 'ml', at: ago(1) }).expect(
      201,
    );
    expect(await left()).toBe(610);
    await app.api.post(`/api/v1/entries/${work.id}/undo`).expect(201);
    expect(await left()).toBe(620);
    expect((await shelf())[0]!.uses.map(({ task }) => task)).toContain('pump-filter');
  });

  it('take what a run says was used', async () => {
    await app.api.post('/api/v1/supplies').send(soap).expect(201);
    await enter({ kind: 'stock', supply: 'dish-soap', value: 100, unit: 'ml', at: ago(1) }).expect(
      201,
    );
    const key = `${app.washer.id}/pump-filter`;
    const { body: run } = await app.api
      .post('/api/v1/runs')
      .send({ tasks: [{ machineId: app.washer.id, task: 'pump-filter' }] })
      .expect(201);
    const used = [{ supply: 'dish-soap', amount: 35 }];
    const progress = { ...run.progress, tasks: { [key]: { outcome: 'cleaned', used } } };
    await app.api
      .patch(`/api/v1/runs/${run.id}`)
      .set('If-Match', `"${run.version}"`)
      .send({ progress })
      .expect(200);
    await app.api.post(`/api/v1/runs/${run.id}/finish`).expect(200);
    expect((await shelf())[0]!.left).toBe(65);
  });

  it.each<[string, object, string]>([
    ['an unknown kind', { ...soap, item: 'unobtainium' }, 'item'],
    ['another unit than the tasks reckon in', { ...soap, unit: 'g' }, 'unit'],
    ['an empty pack', { ...soap, pack: 0 }, 'pack'],
    ['a price below nothing', { ...soap, price: -1 }, 'price'],
    ['no name', { ...soap, name: ' ' }, 'name'],
  ])('refuse %s, beside the field, and store nothing', async (_what, draft, field) => {
    const { body } = await app.api.post('/api/v1/supplies').send(draft).expect(422);
    expect(body.errors.map((one: { field: string }) => one.field)).toContain(field);
    expect(await shelf()).toEqual([]);
  });

  it('are kept once, and changed only by who saw the newest', async () => {
    const { body: kept } = await app.api.post('/api/v1/supplies').send(soap).expect(201);
    await app.api.post('/api/v1/supplies').send(soap).expect(422);
    const at = `/api/v1/supplies/${kept.id}`;
    await app.api
      .put(at)
      .set('If-Match', '"1"')
      .send({ ...soap, price: 3 })
      .expect(200);
    const { body } = await app.api.put(at).set('If-Match', '"1"').send(soap).expect(409);
    expect(body.current.price).toBe(3);
    await app.api
      .put(`/api/v1/supplies/${randomUUID()}`)
      .set('If-Match', '"1"')
      .send(soap)
      .expect(404);
    await app.api
      .put(at)
      .set('If-Match', '"2"')
      .send({ ...soap, putAway: true })
      .expect(200);
    expect((await shelf())[0]!.supply).toMatchObject({ putAway: true, price: 2 });
  });

  it('are named in a count only when they are kept', async () => {
    const { body } = await enter({ kind: 'stock', supply: 'vinegar', value: 5, unit: 'ml' }).expect(
      422,
    );
    expect(body.errors[0]).toEqual({
      field: 'supply',
      message: 'Add this supply under House first.',
    });
  });

  it('are missed on the bench before the visit that would run out', async () => {
    await app.api.post('/api/v1/supplies').send(soap).expect(201);
    await enter({ kind: 'stock', supply: 'dish-soap', value: 3, unit: 'ml', at: ago(1) }).expect(
      201,
    );
    await enter({
      kind: 'done',
      machineId: app.washer.id,
      task: 'pump-filter',
      at: ago(200),
      used: [],
    }).expect(201);
    const { body } = await app.api.get('/api/v1/bench').expect(200);
    expect(body.short).toEqual([
      expect.objectContaining({ item: 'dish-soap', left: 3, unit: 'ml' }) as object,
    ]);
  });
});

describe('the schools side by side', () => {
  it('tell visits, hours, supplies and the chance for this house', async () => {
    await app.api.post('/api/v1/supplies').send(soap).expect(201);
    const { body } = await app.api.get('/api/v1/schools').expect(200);
    const { schools } = body as SchoolsView;
    expect(schools.map(({ school }) => school)).toEqual(['often', 'steady', 'stretch', 'count']);
    const [often, , stretch] = schools;
    expect(often!.visits).toBeGreaterThan(stretch!.visits);
    expect(often!.money).toBeGreaterThan(stretch!.money);
    expect(often!.chance).toBeLessThan(stretch!.chance);
  });
});

describe('own tasks and the daily strip', () => {
  const own = {
    id: 'own-oil',
    name: 'Oil the hinge',
    station: 'whole',
    every: 3,
    unit: 'months',
    minutes: 5,
    unplugged: false,
    steps: ['One drop.'],
  };
  const change = (draft: object) => {
    const { id, version, ...rest } = app.washer;
    return app.api
      .put(`/api/v1/machines/${id}`)
      .set('If-Match', `"${version}"`)
      .send({ ...rest, ...draft });
  };

  it('store an own task, let it be done, and keep its entries when it goes', async () => {
    await change({ ownTasks: [own] }).expect(200);
    const done = { kind: 'done', machineId: app.washer.id, task: 'own-oil', at: ago(2) };
    const { body: entry } = await enter(done).expect(201);
    expect(entry.station).toBe('whole');
    const { body: line } = await app.api.get(`/api/v1/machines/${app.washer.id}/line`).expect(200);
    const task = line.tasks.find((one: { task: string }) => one.task === 'own-oil');
    expect(task.status).toBe('fine');
    app.washer.version = 2;
    await change({}).expect(200);
    const { body: log } = await app.api.get('/api/v1/entries').expect(200);
    expect(log.entries.some((one: { task?: string }) => one.task === 'own-oil')).toBe(true);
    await app.api.get('/api/v1/bench').expect(200);
  });

  it('refuse an own task at no station of the machine, or without steps', async () => {
    const wrong = async (task: object) =>
      (await change({ ownTasks: [task] }).expect(422)).body.errors[0].field as string;
    expect(await wrong({ ...own, station: 'hood' })).toBe('ownTasks.0.station');
    expect(await wrong({ ...own, steps: [] })).toBe('ownTasks.0.steps');
    expect(await wrong({ ...own, every: 0 })).toBe('ownTasks.0.every');
  });

  it('note a habit for the day, once in the log and once on the strip', async () => {
    const id = randomUUID();
    const habit = { id, kind: 'habit', machineId: app.washer.id, habit: 'pockets' };
    await enter(habit).set('Idempotency-Key', id).expect(201);
    const { body } = await app.api.get('/api/v1/bench').expect(200);
    const row = body.habits.find((one: { habit: string }) => one.habit === 'pockets');
    expect(row.days).toEqual([false, false, false, false, false, false, true]);
  });

  it('let a load say what it was', async () => {
    const before = ago(1);
    await enter({ kind: 'done', machineId: app.washer.id, task: 'drum-clean', at: ago(3) }).expect(
      201,
    );
    const load = { kind: 'load', machineId: app.washer.id, count: 6, at: before };
    await enter({ ...load, programme: 'cool' }).expect(201);
    const { body } = await app.api.get(`/api/v1/machines/${app.washer.id}/line`).expect(200);
    const clean = body.tasks.find((one: { task: string }) => one.task === 'drum-clean');
    expect(Math.round(clean.use - clean.loads)).toBe(3);
    await enter({ ...load, programme: 'lukewarm' }).expect(422);
  });
});
