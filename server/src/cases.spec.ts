import type { CaseRecord, CodeSheet, TroubleStart, TroubleView } from '@needlecase/core';
import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { ago, readyApp, type Fixture } from './testing/household.js';

let house: Fixture;
beforeEach(async () => {
  house = await readyApp();
});

const event = (kind: string, more: object = {}, days = 0) => ({
  id: randomUUID(),
  at: ago(days),
  kind,
  ...more,
});
const slow = () => event('answer', { finding: 'drains-slowly', answer: 'yes' }, 2);
const sheet = {
  format: 'needlecase-code-sheet-1',
  maker: 'Brackenfold',
  family: 'Loops',
  kinds: ['front-load-washer'],
  rows: [
    { code: 'HEM-18', says: 'Not pumped out', class: 'drain', stations: ['pump-filter'] },
    { code: 'TUK', says: 'Clean the drum', class: 'reminder' },
  ],
};

describe('cases over the API', () => {
  const send = (body: object) => house.api.post('/api/v1/cases').send(body);

  it('opens a case once, however often it is sent, and adds what is new', async () => {
    const id = randomUUID();
    const first = slow();
    const machineId = house.washer.id;
    await send({ id, machineId, events: [first] }).expect(201);
    await send({ id, machineId, events: [first] }).expect(200);
    const measure = event('measure', { quantity: 'drain-time', value: 118, unit: 's' }, 1);
    const { body } = await send({ id, machineId, events: [first, measure] }).expect(200);
    expect((body as CaseRecord).events).toHaveLength(2);
    const log = await house.api.get('/api/v1/entries?kind=reading').expect(200);
    expect(log.body.entries).toMatchObject([{ value: 118, caseId: id, source: 'case' }]);
  });

  it('stores nothing of news with a fault, and names the field', async () => {
    const id = randomUUID();
    const bad = event('measure', { quantity: 'drain-time', value: -3, unit: 's' });
    const { body } = await send({ id, machineId: house.washer.id, events: [slow(), bad] }).expect(
      422,
    );
    expect(body.errors[0].field).toBe('events.1.value');
    await house.api.get(`/api/v1/cases/${id}`).expect(404);
    const strange = await send({ id, machineId: randomUUID(), events: [slow()] }).expect(422);
    expect(strange.body.errors[0].field).toBe('machineId');
  });

  it('keeps a case with its machine', async () => {
    const id = randomUUID();
    await send({ id, machineId: house.washer.id, events: [slow()] }).expect(201);
    await send({ id, machineId: house.dryer.id, events: [event('rest')] }).expect(422);
  });

  it('closes into the log, with the figure before and the one after', async () => {
    const id = randomUUID();
    const events = [
      slow(),
      event('measure', { quantity: 'drain-time', value: 118, unit: 's' }, 2),
      event('fix', { cause: 'filter-clogged', task: 'pump-filter' }, 1),
      event('measure', { quantity: 'drain-time', value: 60, unit: 's' }),
      event('gone', { finding: 'drains-slowly', gone: true }),
      event('close', { ending: 'fixed' }),
    ];
    await send({ id, machineId: house.washer.id, events }).expect(201);
    const { body } = await house.api.get('/api/v1/entries?kind=case').expect(200);
    expect(body.entries[0].note).toContain('118 before, 60 after');
    const bench = await house.api.get('/api/v1/bench').expect(200);
    expect(bench.body.cases).toEqual([]);
  });

  it('cannot be rewritten in the data file', async () => {
    await send({ id: randomUUID(), machineId: house.washer.id, events: [slow()] }).expect(201);
    expect(() => house.store.sql('UPDATE case_events SET recorded_at = 0')).toThrow(
      /never changed/,
    );
    expect(() => house.store.sql('DELETE FROM case_events')).toThrow(/never deleted/);
  });

  it('prints a summary', async () => {
    const id = randomUUID();
    await send({ id, machineId: house.washer.id, events: [slow()] }).expect(201);
    const { body, headers } = await house.api.get(`/api/v1/cases/${id}/summary.pdf`).expect(200);
    expect(headers['content-type']).toBe('application/pdf');
    expect((body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    await house.api.get(`/api/v1/cases/${randomUUID()}/summary.pdf`).expect(404);
  });

  it('stands on the bench while it is open, and the machine’s figures come with its trouble', async () => {
    const id = randomUUID();
    const measure = event('measure', { quantity: 'drain-time', value: 70, unit: 's' });
    await send({ id, machineId: house.washer.id, events: [slow(), measure] }).expect(201);
    const bench = await house.api.get('/api/v1/bench').expect(200);
    expect(bench.body.cases).toMatchObject([{ id, title: 'It drains slowly' }]);
    const start = await house.api.get(`/api/v1/machines/${house.washer.id}/trouble`).expect(200);
    expect((start.body as TroubleStart).figures['drain-time']).toMatchObject([{ value: 70 }]);
  });
});

describe('code sheets over the API', () => {
  const add = (body: object) => house.api.post('/api/v1/code-sheets').send(body);

  it('keeps, changes under its version, and takes away a sheet', async () => {
    const { body } = await add(sheet).expect(201);
    const { id, version } = body as CodeSheet;
    const put = (tag: number, rows: object[]) =>
      house.api
        .put(`/api/v1/code-sheets/${id}`)
        .set('If-Match', `"${tag}"`)
        .send({ ...sheet, rows });
    await put(version, []).expect(200);
    const late = await put(version, sheet.rows).expect(409);
    expect(late.body.current.rows).toEqual([]);
    await house.api.delete(`/api/v1/code-sheets/${id}`).set('If-Match', '"2"').expect(200);
    expect((await house.api.get('/api/v1/code-sheets').expect(200)).body).toEqual([]);
  });

  it('refuses a sheet that is there, and rows that mean nothing', async () => {
    await add(sheet).expect(201);
    expect((await add({ ...sheet, maker: 'BRACKENFOLD' }).expect(422)).body.errors[0].field).toBe(
      'family',
    );
    const twice = { ...sheet, family: 'Two', rows: [...sheet.rows, sheet.rows[0]] };
    expect((await add(twice).expect(422)).body.errors[0].field).toBe('rows.2.code');
    expect((await add({ ...sheet, family: 'x', colour: 1 }).expect(422)).body.errors[0].field).toBe(
      'colour',
    );
  });

  it('publishes its format as a JSON Schema', async () => {
    const { body } = await house.api.get('/api/v1/code-sheet.schema.json').expect(200);
    expect(body.$schema).toContain('2020-12');
    expect(body.required).toContain('rows');
  });

  it('reads a code for a machine, and what it means moves the suspects', async () => {
    await add(sheet).expect(201);
    const { id, version, ...draft } = house.washer;
    await house.api
      .put(`/api/v1/machines/${id}`)
      .set('If-Match', `"${version}"`)
      .send({ ...draft, maker: 'Brackenfold' })
      .expect(200);
    const ask = async (code: string) =>
      (
        await house.api
          .post('/api/v1/trouble/suspects')
          .send({ machineId: id, answers: {}, code })
          .expect(200)
      ).body as TroubleView & { code: { is: string; say: string } };
    const read = await ask('H£M18');
    expect(read.code.say).toBe('You typed H£M18, your sheet has HEM-18.');
    expect(read.suspects[0]!.cause).toBe('filter-clogged');
    expect(read.suspects[0]!.chance).toBeGreaterThan(0.5);
    expect((await ask('🧺')).code.is).toBe('unreadable');
    expect((await ask('NIP9')).code.is).toBe('unknown');
    const long = await house.api
      .post('/api/v1/trouble/suspects')
      .send({ machineId: id, answers: {}, code: 'x'.repeat(10_000) })
      .expect(422);
    expect(long.body.errors[0]).toEqual({ field: 'code', message: 'At most 40 characters.' });
    const none = await house.api
      .post('/api/v1/trouble/suspects')
      .send({ kind: 'vented-dryer', answers: {}, code: 'NIP1' })
      .expect(422);
    expect(none.body.errors[0].field).toBe('code');
  });
});
