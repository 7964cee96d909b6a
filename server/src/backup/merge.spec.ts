import { randomUUID } from 'node:crypto';
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Entry, type Machine, type Visit } from '@needlecase/core';
import type { BackupLook, RestoreDraft, Side } from '@needlecase/core/formats/backup';
import { serve, type Served } from '../testing/full-house.js';
import { photo } from '../testing/pictures.js';
import { ago, setup, worked } from '../testing/household.js';
import { ChoicesMissing, lookAtBackup, putBack } from './restore.js';
import { writeBackup } from './write.js';

let folder: string;
let common: string;
let washer: Machine;
let load: Entry;
let count = 0;
const open: Served[] = [];

const served = (): Served => {
  const file = join(folder, `${++count}.sqlite`);
  copyFileSync(common, file);
  const one = serve(file);
  open.push(one);
  return one;
};
const post = async ({ api }: Served, path: string, body: object) => {
  const answer = await api.post(`/api/v1/${path}`).send(body);
  if (answer.status >= 300) throw new Error(JSON.stringify(answer.body));
  return answer.body;
};
const rename = async ({ api }: Served, name: string) => {
  const { body } = await api.get(`/api/v1/machines/${washer.id}`).expect(200);
  const { id: _id, version, ...draft } = body as Machine;
  await api
    .put(`/api/v1/machines/${washer.id}`)
    .set('If-Match', `"${version}"`)
    .send({ ...draft, name })
    .expect(200);
};
const loadOf = () => ({ kind: 'load', machineId: washer.id, at: ago(0), count: 1 });

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  common = join(folder, 'common.sqlite');
  const first = serve(common);
  const { machines } = await post(first, 'setup', setup);
  washer = machines[0];
  load = await post(first, 'entries', loadOf());
  first.store.close();
});
afterEach(() => {
  for (const one of open.splice(0)) one.store.close();
  rmSync(folder, { recursive: true, force: true });
});

/** What a backup of the one would mean for the other. */
async function look(
  ours: Served,
  theirs: Served,
): Promise<{ look: Omit<BackupLook, 'id'>; staged: string }> {
  const zip = join(folder, `${++count}.zip`);
  const staged = join(folder, `${count}.staged`);
  await writeBackup(theirs.file, zip, Date.now());
  return { look: await lookAtBackup(ours.file, zip, staged, Date.now()), staged };
}

async function merge(ours: Served, theirs: Served, which: Side = 'theirs') {
  const found = await look(ours, theirs);
  const choices = Object.fromEntries(found.look.differences.map(({ id }) => [id, which]));
  const draft: Omit<RestoreDraft, 'id'> = { how: 'merge', choices };
  const done = putBack(ours.file, found.staged, draft, Date.now());
  ours.store.dropCaches();
  return { ...found.look, ...done };
}
const idsOf = ({ store }: Served): string[] =>
  store.entries.list({ all: true, limit: 2000 }).entries.map(({ id }) => id);

describe('merging a backup of the same household', () => {
  it('takes in what is missing here, doubles nothing, and adds nothing the second time', async () => {
    const [ours, theirs] = [served(), served()];
    await post(ours, 'entries', loadOf());
    await post(theirs, 'entries', loadOf());
    const id = randomUUID();
    await theirs.api.put(`/api/v1/photos/${id}`).set('Content-Type', 'image/jpeg').send(photo(100));
    await post(theirs, 'entries', {
      ...loadOf(),
      kind: 'note',
      note: 'x',
      count: undefined,
      photos: [id],
    });
    await post(theirs, 'machines', setup.machines[1]!);
    const all = new Set([...idsOf(ours), ...idsOf(theirs)]);
    expect((await merge(ours, theirs)).added).toEqual({ entries: 2, machines: 1, photos: 1 });
    expect(idsOf(ours).toSorted()).toEqual([...all].toSorted());
    await ours.api.get(`/api/v1/photos/${id}`).expect(200);
    expect((await ours.api.get('/api/v1/machines')).body).toHaveLength(3);
    expect(await merge(ours, theirs)).toMatchObject({ added: {}, differences: [] });
  });

  it('asks where a record differs, proposing the one that was changed more often', async () => {
    const [ours, theirs] = [served(), served()];
    await rename(ours, 'Ours');
    await rename(theirs, 'Theirs');
    const even = (await look(ours, theirs)).look;
    expect(even.differences).toEqual([
      {
        id: washer.id,
        what: 'Machine “Ours”',
        fields: [{ name: 'name', ours: 'Ours', theirs: 'Theirs' }],
      },
    ]);
    await rename(theirs, 'Theirs again');
    const { look: uneven, staged } = await look(ours, theirs);
    expect(uneven.differences[0]).toMatchObject({ proposed: 'theirs' });
    expect(() => putBack(ours.file, staged, { how: 'merge' }, Date.now())).toThrow(ChoicesMissing);
    expect(ours.store.machines.get(washer.id)).toMatchObject({ name: 'Ours', version: 2 });
    await merge(ours, theirs, 'ours');
    expect(ours.store.machines.get(washer.id)).toMatchObject({ name: 'Ours', version: 2 });
    await merge(ours, theirs);
    // Whoever still has the old one finds out.
    expect(ours.store.machines.get(washer.id)).toMatchObject({ name: 'Theirs again', version: 4 });
    await ours.api.get('/api/v1/bench').expect(200);
  });

  it('asks where an entry was corrected on both sides, and not where both say the same', async () => {
    const [ours, theirs] = [served(), served()];
    const corrected = async (one: Served, n: number) =>
      post(one, `entries/${load.id}/revision`, { ...loadOf(), at: load.at, count: n });
    await corrected(ours, 2);
    await corrected(theirs, 3);
    const { look: found } = await look(ours, theirs);
    expect(found.differences).toMatchObject([
      { id: load.id, fields: [{ name: 'count', ours: '2', theirs: '3' }] },
    ]);
    const counts = () => ours.store.entries.list({}).entries.map((entry) => entry.count);
    await merge(ours, theirs, 'ours');
    expect(counts()).toEqual([2]);
    await merge(ours, theirs);
    expect(counts()).toEqual([3]);
    expect(await merge(ours, theirs)).toMatchObject({ added: {}, differences: [] });

    const [a, b] = [served(), served()];
    for (const one of [a, b]) await post(one, `entries/${load.id}/undo`, {});
    expect((await look(a, b)).look).toMatchObject({ added: {}, differences: [] });
  });

  it('does not record a visit twice that was finished on both sides', async () => {
    const first = serve(common);
    const tasks = [{ machineId: washer.id, task: 'gasket-folds' }];
    const visit = (await post(first, 'runs', { tasks })) as Visit;
    first.store.close();
    const [ours, theirs, idle] = [served(), served(), served()];
    for (const one of [ours, theirs]) {
      await one.api
        .patch(`/api/v1/runs/${visit.id}`)
        .set('If-Match', '"1"')
        .send({ progress: worked(visit.tasks, washer, 1) })
        .expect(200);
      await post(one, `runs/${visit.id}/finish`, {});
    }
    const done = (one: Served) => one.store.entries.list({ kind: 'done' }).entries.length;
    const recorded = done(ours);
    expect(recorded).toBeGreaterThan(0);
    await merge(ours, theirs);
    expect(done(ours)).toBe(recorded);
    // Finished there only: it is finished here, too, with its work; or it goes on here, without.
    expect((await look(idle, theirs)).look.differences[0]).toMatchObject({ proposed: 'theirs' });
    await merge(idle, theirs, 'ours');
    expect(done(idle)).toBe(0);
    await merge(idle, theirs);
    expect(done(idle)).toBe(recorded);
    expect(idle.store.visits.get(visit.id)).toMatchObject({ state: 'finished' });
  });

  it('takes in cases, and what happened in one that both have', async () => {
    const first = serve(common);
    const answer = (finding: string) => ({
      id: randomUUID(),
      at: ago(0),
      kind: 'answer',
      finding,
      answer: 'yes',
    });
    const id = randomUUID();
    const told = (one: Served, finding: string, of = id) =>
      post(one, 'cases', { id: of, machineId: washer.id, events: [answer(finding)] });
    await told(first, 'drains-slowly');
    first.store.close();
    const [ours, theirs] = [served(), served()];
    await told(ours, 'gurgle');
    await told(theirs, 'code-drain');
    await told(theirs, 'drains-slowly', randomUUID());
    await merge(ours, theirs);
    const events = ours.store.cases
      .get(id)!
      .events.map((event) => (event as { finding: string }).finding);
    expect(events).toEqual(['drains-slowly', 'gurgle', 'code-drain']);
    expect(ours.store.cases.list()).toHaveLength(2);
  });

  it('is refused for another household, which can only take the place of this one', async () => {
    const ours = served();
    const other = serve(join(folder, 'other.sqlite'));
    open.push(other);
    await post(other, 'setup', setup);
    const { look: found, staged } = await look(ours, other);
    expect(found.same).toBe(false);
    expect(() => putBack(ours.file, staged, { how: 'merge' }, Date.now())).toThrow(
      /same household/,
    );
    putBack(ours.file, staged, { how: 'replace' }, Date.now());
    expect(ours.store.household.get()!.id).toBe(other.store.household.get()!.id);
  });

  it('whatever was done on both sides: every entry is there once, and a second time changes nothing', async () => {
    const act = async (one: Served, what: number): Promise<void> => {
      const current = one.store.entries.list({ limit: 200 }).entries;
      const some = current[what % Math.max(1, current.length)];
      switch (what % 5) {
        case 0:
        case 1:
          return void (await post(one, 'entries', loadOf()));
        case 2:
          if (some)
            await post(one, `entries/${some.id}/revision`, { ...loadOf(), count: 1 + (what % 7) });
          return;
        case 3:
          if (some) await post(one, `entries/${some.id}/undo`, {});
          return;
        default:
          return rename(one, `Name ${what}`);
      }
    };
    const acts = fc.array(fc.nat(97), { maxLength: 12 });
    await fc.assert(
      fc.asyncProperty(acts, acts, async (here, there) => {
        const [ours, theirs] = [served(), served()];
        for (const what of here) await act(ours, what);
        for (const what of there) await act(theirs, what);
        const before = idsOf(ours);
        const { differences } = await merge(ours, theirs);
        const after = idsOf(ours);
        expect(new Set(after).size).toBe(after.length);
        expect(before.filter((id) => !after.includes(id))).toEqual([]);
        if (!differences.some(({ what }) => what.startsWith('Entry'))) {
          // What both sides did alike (an entry undone twice) is there once.
          const alike = idsOf(theirs).filter((id) => !after.includes(id));
          for (const id of alike) expect(theirs.store.entries.get(id)!.revises).toBeDefined();
        }
        expect(await merge(ours, theirs)).toMatchObject({ added: {}, differences: [] });
        await ours.api.get('/api/v1/bench').expect(200);
      }),
      { numRuns: 15, seed: 16 },
    );
  });
});
