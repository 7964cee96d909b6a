import { randomUUID } from 'node:crypto';
import type { Document } from '@needlecase/core/model/documents';
import { beforeEach, describe, expect, it } from 'vitest';
import { soundOnly } from './http/sound.js';
import { PAPER, putPaper } from './testing/full-house.js';
import { emptyApp, setup } from './testing/household.js';
import { jpeg } from './testing/pictures.js';

describe('papers of machines', () => {
  let api: ReturnType<typeof emptyApp>['api'];
  let machineId: string;
  const put = (body: Buffer, query: object = {}, type = 'application/octet-stream') =>
    api
      .put(`/api/v1/documents/${randomUUID()}/file`)
      .query({ machineId, kind: 'receipt', name: 'Receipt', ...query })
      .set('Content-Type', type)
      .send(body);
  const wrong = (answer: { body: unknown }) =>
    (answer.body as { errors: { field: string; message: string }[] }).errors[0]!;
  const list = async () => (await api.get('/api/v1/documents').expect(200)).body as Document[];

  beforeEach(async () => {
    ({ api } = emptyApp());
    await api.post('/api/v1/setup').send(setup).expect(201);
    machineId = ((await api.get('/api/v1/machines')).body as { id: string }[])[0]!.id;
  });

  it('are kept once, and come back as they are, to be shown', async () => {
    const id = randomUUID();
    const first = await putPaper(api, machineId, id).expect(201);
    expect(first.body).toEqual({
      ...{ id, version: 1, machineId, kind: 'manual', name: 'Manual of the washer' },
      ...{ type: 'application/pdf', bytes: PAPER.length },
    });
    // The answer was lost: the same again is the same.
    expect((await putPaper(api, machineId, id).expect(200)).body).toEqual(first.body);
    expect(await list()).toHaveLength(1);
    const back = await api.get(`/api/v1/documents/${id}/file`).buffer(true).expect(200);
    expect(back.headers['content-type']).toBe('application/pdf');
    expect(back.headers['content-disposition']).toBe('inline; filename="Manual of the washer.pdf"');
    expect(back.headers['x-content-type-options']).toBe('nosniff');
    expect(Buffer.compare(back.body as Buffer, PAPER)).toBe(0);
  });

  it('of the largest size are kept, and are not gone through byte by byte as JSON is', async () => {
    const large = Buffer.concat([
      ...[Buffer.from('%PDF-1.7\n'), Buffer.alloc(19_999_985, 0xa7), Buffer.from('\n%%EOF')],
    ]);
    await put(large).expect(201);
    expect((await list())[0]!.bytes).toBe(large.length);
    const body = Object.defineProperty(Buffer.from('%PDF-'), 'looked', {
      enumerable: true,
      get: () => expect.unreachable('A file was gone through.'),
    });
    let told: unknown = 'nothing';
    soundOnly({ body } as never, {} as never, (problem) => (told = problem));
    expect(told).toBeUndefined();
  });

  it('are what is in them, whatever is said of them', async () => {
    expect((await put(jpeg(40, 30)).expect(201)).body).toMatchObject({ type: 'image/jpeg' });
    expect(wrong(await put(Buffer.from('<svg onload="x()"/>')).expect(422))).toMatchObject({
      ...{ field: 'file', message: expect.stringContaining('no PDF') as string },
    });
    expect(wrong(await put(PAPER.subarray(0, 20)).expect(422)).message).toContain('cut short');
    await put(PAPER, {}, 'text/html').expect(415);
    expect(await list()).toHaveLength(1);
  });

  it('are told beside the field where something is wrong, and nothing is stored', async () => {
    const large = await put(Buffer.alloc(20_000_001)).expect(413);
    expect(large.body).toMatchObject({ title: 'This is larger than 20 MB.' });
    expect(wrong(await put(PAPER, { machineId: randomUUID() }).expect(422)).field).toBe(
      'machineId',
    );
    expect(wrong(await put(PAPER, { name: ' ' }).expect(422)).field).toBe('name');
    expect(wrong(await put(PAPER, { kind: 'novel' }).expect(422)).field).toBe('kind');
    const id = randomUUID();
    await putPaper(api, machineId, id).expect(201);
    await api
      .put(`/api/v1/documents/${id}/file`)
      .query({ machineId, kind: 'manual', name: 'Another' })
      .set('Content-Type', 'application/octet-stream')
      .send(jpeg(40, 30))
      .expect(409);
    expect(await list()).toHaveLength(1);
  });

  it('are called otherwise and taken away, by who saw them as they are', async () => {
    const { id } = (await put(PAPER).expect(201)).body as Document;
    const draft = { machineId, kind: 'manual', name: 'Manual, second edition' };
    const at = `/api/v1/documents/${id}`;
    await api.put(at).send(draft).expect(428);
    await api.put(at).set('If-Match', '"1"').send(draft).expect(200);
    await api.put(at).set('If-Match', '"1"').send(draft).expect(409);
    await api.delete(at).set('If-Match', '"2"').expect(200);
    await api.get(`${at}/file`).expect(404);
    expect(await list()).toEqual([]);
  });

  it('keep their machine from being taken away unseen', async () => {
    const { id: paper } = (await put(PAPER).expect(201)).body as Document;
    const { version } = (await api.get(`/api/v1/machines/${machineId}`)).body as {
      version: number;
    };
    const away = () => api.delete(`/api/v1/machines/${machineId}`).set('If-Match', `"${version}"`);
    expect((await away().expect(409)).body).toMatchObject({
      title: 'Papers of it are kept. Take them away first.',
    });
    await api.delete(`/api/v1/documents/${paper}`).set('If-Match', '"1"').expect(200);
    await away().expect(200);
  });

  it('have pages that tell of tasks and steps, kept with the machine', async () => {
    const { id } = (await put(PAPER).expect(201)).body as Document;
    const { version, id: _id, ...machine } = (await api.get(`/api/v1/machines/${machineId}`)).body;
    const pages = [{ document: id, page: 23, task: 'pump-filter', step: 'drips' }];
    const change = (more: object) =>
      api
        .put(`/api/v1/machines/${machineId}`)
        .set('If-Match', `"${version}"`)
        .send({ ...machine, ...more });
    expect(wrong(await change({ pages: [{ ...pages[0], page: 0 }] }).expect(422)).field).toBe(
      'pages.0.page',
    );
    expect((await change({ pages }).expect(200)).body).toMatchObject({ pages });
  });
});
