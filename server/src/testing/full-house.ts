import { dayOf, emptyProgress, plusDays, type Machine, type Visit } from '@needlecase/core';
import { MINUTES_A_DAY } from '@needlecase/core/loads/log/power-series';
import { randomUUID } from 'node:crypto';
import { deflateRawSync } from 'node:zlib';
import request from 'supertest';
import { HOUSEHOLD } from '../../../demo/household.js';
import { makeApp, type App } from '../app.js';
import { openDatabase } from '../db/open.js';
import { fillDemo } from '../work/demo.js';
import { ago, meterLoad, worked } from './household.js';
import { photo } from './pictures.js';

/** A served data file on disk. */
export interface Served extends App {
  api: ReturnType<typeof request>;
  file: string;
}

export function serve(file: string): Served {
  const app = makeApp(openDatabase(file));
  return { ...app, file, api: request(app.express) };
}

/** Hands in a paper of a machine: a small PDF. */
export const putPaper = (
  api: ReturnType<typeof request>,
  machineId: string,
  id: string = randomUUID(),
): request.Test =>
  api
    .put(`/api/v1/documents/${id}/file`)
    .query({ machineId, kind: 'manual', name: 'Manual of the washer' })
    .set('Content-Type', 'application/octet-stream')
    .send(PAPER);
/** Enough of a PDF to be one. */
export const PAPER = Buffer.from('%PDF-1.7\n1 0 obj <<>> endobj\ntrailer <<>>\n%%EOF\n');

/**
 * The demo household with one of everything that can be kept: photos, a corrected, an undone and a restored
 * entry, a finished visit, one under way and one given up, answers kept for retries.
 */
export async function fullHouse(file: string): Promise<Served> {
  const served = serve(file);
  const { api, store } = served;
  store.write(() => fillDemo(store, dayOf(Date.now(), HOUSEHOLD.zone)));
  const machines = (await api.get('/api/v1/machines').expect(200)).body as Machine[];
  const washer = machines.find(({ kind }) => kind === 'front-load-washer')!;
  const post = async (path: string, body: object) =>
    (
      await api
        .post(`/api/v1/${path}`)
        .set('Idempotency-Key', randomUUID())
        .send(body)
        .expect((answer) => {
          if (answer.status >= 300) throw new Error(JSON.stringify(answer.body));
        })
    ).body as { id: string; version: number };
  // One person alone: whoever is at the server's own computer.
  await post('codes', {});
  const photos = [randomUUID(), randomUUID()];
  for (const id of photos) {
    await api
      .put(`/api/v1/photos/${id}`)
      .set('Content-Type', 'image/jpeg')
      .send(photo(5000))
      .expect(201);
  }
  await putPaper(api, washer.id).expect(201);
  const note = { kind: 'note', machineId: washer.id, at: ago(1), note: 'Ünder the drum', photos };
  await post('entries', note);
  const load = { kind: 'load', machineId: washer.id, at: ago(0.5), count: 2 };
  const corrected = await post('entries', load);
  await post(`entries/${corrected.id}/revision`, { ...load, count: 3, deviceAt: ago(0.4) });
  const undone = await post('entries', load);
  await post(`entries/${undone.id}/undo`, {});
  const restored = await post('entries', load);
  await post(`entries/${restored.id}/undo`, {});
  await post(`entries/${restored.id}/restore`, {});

  const begin = async (task: string) =>
    (await post('runs', { tasks: [{ machineId: washer.id, task }] })) as Visit;
  const change = (visit: Visit, body: object) =>
    api
      .patch(`/api/v1/runs/${visit.id}`)
      .set('If-Match', `"${visit.version}"`)
      .send(body)
      .expect(200);
  const done = await begin('gasket-folds');
  await change(done, { progress: worked(done.tasks, washer, 2) });
  await post(`runs/${done.id}/finish`, {});
  await change(await begin('dispenser'), { progress: { ...emptyProgress(), at: 'x' } });
  await change(await begin('pump-filter'), { state: 'abandoned' });
  const minutes = deflateRawSync(Buffer.alloc(2 * MINUTES_A_DAY)).toString('base64');
  const read = ago(3);
  await post(`machines/${washer.id}/meter`, {
    loads: [meterLoad(read)],
    days: [{ day: read.slice(0, 10), minutes }],
  });
  const day = `BEGIN:VEVENT\r\nUID:1\r\nDTSTART;VALUE=DATE:${plusDays(dayOf(Date.now(), HOUSEHOLD.zone), 99).replaceAll('-', '')}\r\nEND:VEVENT`;
  await api
    .post('/api/v1/busy')
    .set('Content-Type', 'text/calendar')
    .send(`BEGIN:VCALENDAR\r\nX-WR-CALNAME:Rowing\r\n${day}\r\nEND:VCALENDAR`)
    .expect(201);
  // The year is planned when somebody asks for it.
  await api.get('/api/v1/plan').expect(200);
  return served;
}

/** What is about this computer, and what lets somebody in here: no backup holds it. */
const HERE_ALONE = /about|backup|devices|tokens|links|set-aside|access-events|feeds/;

/** Addresses that a household's answers are read at, each record's own among them. */
export async function everyAnswer({ api, routes, store }: Served): Promise<Map<string, string>> {
  const ids: Record<string, string[]> = {
    machines: store.machines.list().map(({ id }) => id),
    cases: store.cases.list().map(({ id }) => id),
    runs: store.visits.open().map(({ id }) => id),
    photos: [],
  };
  const addresses = routes
    .filter(({ method, gives, path }) => method === 'get' && !gives && !HERE_ALONE.test(path))
    .flatMap(({ path }) => {
      const [, kind = ''] = /^\/api\/v1\/([a-z-]+)\/\{id\}/.exec(path) ?? [];
      return kind ? (ids[kind] ?? []).map((id) => path.replace('{id}', id)) : [path];
    });
  const answers = new Map<string, string>();
  const read = async (address: string) => {
    const answer = await api.get(address).expect(200);
    answers.set(address, answer.text);
    return answer.body as { entries: { photos?: string[] }[]; next?: string };
  };
  for (const address of addresses) await read(address);
  let next: string | undefined = '';
  while (next !== undefined) {
    const page = `/api/v1/entries?limit=200&all=true${next && `&before=${next}`}`;
    const { entries, next: after } = await read(page);
    next = after;
    for (const id of entries.flatMap(({ photos = [] }) => photos)) {
      const { body } = await api.get(`/api/v1/photos/${id}`).expect(200);
      answers.set(`photo ${id}`, (body as Buffer).toString('base64'));
    }
  }
  return answers;
}
