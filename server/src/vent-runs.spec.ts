import type { KeptVentRun, TroubleStart } from '@needlecase/core';
import { beforeEach, expect, it } from 'vitest';
import { readyApp, type Fixture } from './testing/household.js';

let house: Fixture;
beforeEach(async () => {
  house = await readyApp();
});
const of = (value: number, unit: string) => ({ value, unit });
const run = (length: number) => ({
  pieces: [{ is: 'straight', length: of(length, 'm'), direction: 'level' }],
  material: 'smooth-metal',
  diameter: of(4, 'in'),
});
const keep = (body: object) => house.api.post('/api/v1/vent-runs').send(body);

it('keeps runs, changes them under their version, and takes them away', async () => {
  const { body } = await keep({ name: 'Short', machineId: house.dryer.id, run: run(3) }).expect(
    201,
  );
  const { id } = body as KeptVentRun;
  const put = (tag: number) =>
    house.api
      .put(`/api/v1/vent-runs/${id}`)
      .set('If-Match', `"${tag}"`)
      .send({ name: 'Long', run: run(9) });
  expect((await put(1).expect(200)).body).toMatchObject({ name: 'Long', version: 2 });
  await put(1).expect(409);
  await house.api.delete(`/api/v1/vent-runs/${id}`).set('If-Match', '"2"').expect(200);
  expect((await house.api.get('/api/v1/vent-runs').expect(200)).body).toEqual([]);
});

it('stores no run that cannot be reckoned, and names the field', async () => {
  const { body } = await keep({ name: 'x', run: { ...run(3), diameter: of(0, 'mm') } }).expect(422);
  expect(body.errors[0].field).toBe('run.diameter');
  const empty = await keep({ name: 'x', run: { ...run(3), pieces: [] } }).expect(422);
  expect(empty.body.errors[0].field).toBe('run.pieces');
  expect((await house.api.get('/api/v1/vent-runs').expect(200)).body).toEqual([]);
});

it('makes a run that is too long by design likelier in trouble', async () => {
  const circumstances = async () =>
    (
      (await house.api.get(`/api/v1/machines/${house.dryer.id}/trouble`).expect(200))
        .body as TroubleStart
    ).situation.circumstances ?? [];
  expect(await circumstances()).not.toContain('long-run');
  await keep({ name: 'Too long', machineId: house.dryer.id, run: run(14) }).expect(201);
  expect(await circumstances()).toContain('long-run');
});
