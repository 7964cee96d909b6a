import { describe, expect, it } from 'vitest';
import type { Entry } from '@needlecase/core';
import { ago, readyApp } from './testing/household.js';

const written = (i: number) => `2024-01-0${i} | pump filter`;

describe('notes from before', () => {
  const house = async () => {
    const fixture = await readyApp();
    const { api, washer } = fixture;
    const note = (i: number, more: object = {}) => ({
      written: written(i),
      entry: {
        ...{ kind: 'done', machineId: washer.id, task: 'pump-filter' },
        ...{ at: `2024-01-0${i}T11:00:00.000Z`, note: 'pump filter', ...more },
      },
    });
    const send = (notes: object[]) => api.post('/api/v1/old-notes').send({ notes });
    const entries = async () =>
      (await api.get('/api/v1/entries?limit=200').expect(200)).body.entries as Entry[];
    return { ...fixture, note, send, entries };
  };

  it('become entries, once however often they come, as many as are written alike', async () => {
    const { note, send, entries } = await house();
    const notes = [note(1), note(2), note(2)];
    const { body } = await send(notes).expect(201);
    expect(body).toMatchObject({ added: 3, known: 0 });
    expect(await entries()).toHaveLength(3);
    expect((await entries())[0]).toMatchObject({ source: 'import', station: 'pump-filter' });
    expect((await send(notes).expect(201)).body).toEqual({ added: 0, known: 3, ids: [] });
    // Somebody chose another task for it this time: it is the same line all the same.
    expect((await send([note(1, { task: 'drain-hose' })])).body.known).toBe(1);
    expect((await send([...notes, note(3)])).body).toMatchObject({ added: 1, known: 3 });
    expect(await entries()).toHaveLength(4);
  });

  it('are taken back by one tap, and stand again when they come once more', async () => {
    const { api, note, send, entries } = await house();
    const { ids } = (await send([note(1), note(2)])).body;
    expect((await api.post('/api/v1/old-notes/undo').send({ ids }).expect(201)).body.undone).toBe(
      2,
    );
    expect(await entries()).toEqual([]);
    expect((await api.post('/api/v1/old-notes/undo').send({ ids }).expect(201)).body.undone).toBe(
      0,
    );
    const again = (await send([note(1), note(2)]).expect(201)).body;
    expect(again).toMatchObject({ added: 2, known: 0 });
    expect(await entries()).toHaveLength(2);
    await api.post('/api/v1/old-notes/undo').send({ ids: again.ids }).expect(201);
    expect(await entries()).toEqual([]);
  });

  it('take back nothing that was not taken in', async () => {
    const { api, washer, entries } = await house();
    const draft = { kind: 'note', machineId: washer.id, at: ago(1), note: 'By hand' };
    const { body } = await api.post('/api/v1/entries').send(draft).expect(201);
    await api
      .post('/api/v1/old-notes/undo')
      .send({ ids: [body.id] })
      .expect(201);
    expect(await entries()).toHaveLength(1);
  });

  it('are refused whole where one of them cannot be, with its place', async () => {
    const { note, send, entries } = await house();
    const future = note(2, { at: '2199-01-01T00:00:00.000Z' });
    const { body } = await send([note(1), future]).expect(422);
    expect(body.errors[0].field).toBe('notes.1.entry.at');
    expect((await send([note(1, { task: 'hood' })]).expect(422)).body.errors[0].field).toBe(
      'notes.0.entry.task',
    );
    await send([]).expect(422);
    expect(await entries()).toEqual([]);
  });

  it('move due dates as any work does', async () => {
    const { api, washer, send, note } = await house();
    const due = async () => {
      const { states } = (await api.get('/api/v1/bench').expect(200)).body;
      const state = states.find((one: { machineId: string }) => one.machineId === washer.id);
      return state.dues.find((one: { task: string }) => one.task === 'pump-filter').said;
    };
    const before = await due();
    await send([note(1, { at: ago(1) })]).expect(201);
    expect(await due()).not.toEqual(before);
  });
});

describe('the log', () => {
  it('is sought by words of notes, finds and codes, whatever their case, and by photos', async () => {
    const { api, washer } = await readyApp();
    const add = async (draft: object) =>
      (
        await api
          .post('/api/v1/entries')
          .send({ machineId: washer.id, at: ago(1), ...draft })
          .expect(201)
      ).body as Entry;
    const note = await add({ kind: 'note', note: 'A plug of felt, 100 % wool' });
    const found = await add({
      ...{ kind: 'done', task: 'pump-filter' },
      found: [{ what: 'hair grip', count: 2 }],
    });
    const code = await add({ kind: 'code', code: 'HEM18' });
    await add({ kind: 'load', count: 1 });
    const sought = async (words: string) =>
      ((await api.get('/api/v1/entries').query({ words }).expect(200)).body.entries as Entry[]).map(
        ({ id }) => id,
      );
    expect(await sought('felt PLUG')).toEqual([note.id]);
    expect(await sought('grip')).toEqual([found.id]);
    expect(await sought('hem')).toEqual([code.id]);
    // Names of fields and signs of patterns are words like others.
    for (const words of ['what', 'count', '_', '%%', 'felt nothing']) {
      expect(await sought(words), words).toEqual([]);
    }
    expect(await sought('100 %')).toEqual([note.id]);
    for (const none of ['', '%20', '%00', 'felt%00plug', 'x'.repeat(101)]) {
      const { body } = await api.get(`/api/v1/entries?words=${none}`).expect(422);
      expect(body.errors[0].field, none).toBe('words');
    }
    const { body } = await api.get('/api/v1/entries?photos=true').expect(200);
    expect(body.entries).toEqual([]);
  });
});
