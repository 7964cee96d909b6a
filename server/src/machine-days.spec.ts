import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { benchView, type Machine } from '@needlecase/core';
import { Store } from './store/store.js';
import { openDatabase, type Db } from './db/open.js';
import { makeApp, type App } from './app.js';
import { houseOf } from './work/household.js';
import { setup } from './testing/household.js';
import request from 'supertest';

const DAY = 86_400_000;
let db: Db;
let app: App;
let api: ReturnType<typeof request>;
let machines: Machine[];

beforeEach(async () => {
  vi.useFakeTimers({ toFake: ['Date'], now: Date.parse('2026-06-15T12:00:00Z') });
  db = openDatabase(':memory:');
  app = makeApp(db);
  api = request(app.express);
  ({ machines } = (await api.post('/api/v1/setup').send(setup).expect(201)).body);
});
afterEach(() => vi.useRealTimers());

/** The bench as one who remembers nothing works it out. */
function anew(): unknown {
  const store = new Store(db);
  const kept = {
    visits: store.visits.open(),
    cases: store.cases.list(),
    supplies: store.supplies.list(),
    stockEvents: () => store.entries.stockEvents(),
  };
  return JSON.parse(JSON.stringify(benchView(houseOf(store), kept)));
}
const at = (ago: number) => new Date(Date.now() - ago * DAY).toISOString();

/** Something that changes what the bench shows. */
const act = async (what: number): Promise<void> => {
  const machine = machines[what % 2]!;
  const [latest] = app.store.entries.list({ limit: 1 }).entries;
  const post = (path: string, body: object = {}) => api.post(`/api/v1/${path}`).send(body);
  const load = { kind: 'load', machineId: machine.id, at: at(what % 9), count: 1 };
  const { id, version, ...draft } = app.store.machines.get(machine.id)!;
  const task = machine.kind === 'vented-dryer' ? 'lint-screen' : 'gasket-folds';
  switch (what % 7) {
    case 0:
      return void (await post('entries', load));
    case 1:
      return void (await post('entries', {
        ...load,
        count: undefined,
        kind: 'done',
        task,
        grade: 2,
      }));
    case 2:
      if (latest) await post(`entries/${latest.id}/undo`);
      return;
    case 3:
      await api
        .put(`/api/v1/machines/${id}`)
        .set('If-Match', `"${version}"`)
        .send({ ...draft, loadsPerWeek: 1 + (what % 20) })
        .expect(200);
      return;
    case 4: {
      const { id: _id, version: now, ...household } = app.store.household.get()!;
      const school = what % 2 ? 'careful' : 'steady';
      await api
        .put('/api/v1/household')
        .set('If-Match', `"${now}"`)
        .send({ ...household, school });
      return;
    }
    case 5:
      return void vi.setSystemTime(Date.now() + (what % 50) * 3_600_000);
    default:
      // Refused: what is remembered may not be of what was taken back.
      return void (await post('entries', { ...load, count: 999 }));
  }
};

describe('what is remembered of a machine’s day', () => {
  it('is what anybody would work out anew, whatever happened', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.nat(200), { minLength: 3, maxLength: 14 }), async (acts) => {
        for (const what of acts) {
          await act(what);
          expect((await api.get('/api/v1/bench').expect(200)).body).toEqual(anew());
        }
      }),
      { numRuns: 12, seed: 9 },
    );
  });

  it('is kept over what is refused', async () => {
    await api.get('/api/v1/bench').expect(200);
    await api
      .post('/api/v1/entries')
      .send({ kind: 'load', at: at(0) })
      .expect(422);
    const ids = machines.map(({ id }) => id);
    expect(app.store.entries.cold(ids)).toEqual([]);
  });

  it('is read at the start, those machines first that were used last', async () => {
    const [washer, dryer] = machines as [Machine, Machine];
    for (const { id } of [dryer, washer]) {
      await api
        .post('/api/v1/entries')
        .send({ kind: 'load', machineId: id, at: at(0) })
        .expect(201);
      vi.setSystemTime(Date.now() + 60_000);
    }
    app.store.entries.dropCaches();
    expect(app.store.entries.cold([dryer.id, washer.id])).toEqual([washer.id, dryer.id]);
    await app.days.warm();
    expect(app.store.entries.cold([dryer.id, washer.id])).toEqual([]);
  });
});
