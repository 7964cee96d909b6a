import { randomUUID } from 'node:crypto';
import type { Entry } from '@needlecase/core';
import type { Aside } from '@needlecase/core/model/access';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { withoutSecrets } from '../http/log.js';
import { readyApp, type Fixture } from '../testing/household.js';
import { move } from '../testing/people.js';
import { jpeg } from '../testing/pictures.js';

let house: Fixture;
let keeper: ReturnType<typeof move>;
beforeEach(async () => {
  house = await readyApp();
  keeper = move(house, 'keeper', 'Ilse');
  move(house, 'helper', 'Jon');
});
const as = (method: 'get' | 'post' | 'delete', path: string, body?: object) =>
  house.api[method](`/api/v1/${path}`).set('Cookie', keeper.cookie).send(body);

describe('a link', () => {
  const newLink = async (shows: 'machine' | 'case' = 'machine', target = house.washer.id) => {
    const { body } = await as('post', 'links', { shows, target, forWhom: 'The landlord' }).expect(
      201,
    );
    return { id: body.id as string, path: new URL(body.address as string).pathname };
  };

  it('shows one machine’s record to whoever has it, and counts its openings', async () => {
    const { path, id } = await newLink();
    const { text, headers } = await house.api.get(path).expect(200);
    expect(text).toContain('Washer');
    expect(text).toContain('The landlord');
    expect(headers['x-robots-tag']).toBe('noindex');
    const pdf = await house.api.get(`${path}/sheet.pdf`).expect(200);
    expect(pdf.headers['content-type']).toBe('application/pdf');
    expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    const { body } = await as('get', 'links').expect(200);
    expect(body).toEqual([expect.objectContaining({ id, opened: 1, forWhom: 'The landlord' })]);
    expect(JSON.stringify(body)).not.toContain(path.split('/').at(-1)!);
    const events = await as('get', 'access-events').expect(200);
    expect(events.body[0]).toMatchObject({ what: 'link opened', more: 'The landlord' });
  });

  it('ends after a fortnight, or when it is taken back; another one never was', async () => {
    const { path, id } = await newLink();
    const second = await newLink();
    await as('delete', `links/${id}`).expect(200);
    for (const where of [path, `${path}/sheet.pdf`, '/shared/guess', '/shared/guess/sheet.pdf']) {
      await house.api.get(where).expect(404);
    }
    await house.api.get(second.path).expect(200);
    vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 14 * 86_400_000 + 1 });
    await house.api.get(second.path).expect(404);
    vi.useRealTimers();
  });

  it('is made for what is there, and what it is called is not read as a page', async () => {
    const missing = { shows: 'case', target: house.washer.id, forWhom: 'x' };
    const { body } = await as('post', 'links', missing).expect(422);
    expect(body.errors[0].field).toBe('target');
    const odd = { shows: 'machine', target: house.washer.id, forWhom: '<script>alert(1)</script>' };
    const made = await as('post', 'links', odd).expect(201);
    const { text } = await house.api.get(new URL(made.body.address as string).pathname).expect(200);
    expect(text).not.toContain('<script>alert');
  });

  it('stands in no log', () => {
    expect(withoutSecrets('/shared/abc-DEF_9/sheet.pdf?x=1')).toBe('/shared/…/sheet.pdf?x=1');
    expect(withoutSecrets('/api/v1/x?token=abc&y=2')).toBe('/api/v1/x?token=…&y=2');
  });
});

describe('a note that is left by a link', () => {
  const open = async (shows: 'machine' | 'case' = 'machine', notes = true) => {
    const target = shows === 'machine' ? house.washer.id : await newCase();
    const { body } = await as('post', 'links', { shows, target, forWhom: 'Mr Blau', notes });
    return new URL(body.address as string).pathname;
  };
  const newCase = async () => {
    const id = randomUUID();
    const at = new Date().toISOString();
    const answer = {
      id: randomUUID(),
      at,
      kind: 'answer',
      finding: 'drains-slowly',
      answer: 'yes',
    };
    await as('post', 'cases', { id, machineId: house.washer.id, events: [answer] }).expect(201);
    return id;
  };
  const note = (more: object = {}) => ({ id: randomUUID(), note: 'Pump changed.', ...more });
  const PHOTO = jpeg(80, 60).toString('base64');
  const waiting = async () => (await as('get', 'set-aside').expect(200)).body as Aside[];
  const entries = async () => (await as('get', 'entries').expect(200)).body.entries as Entry[];

  it('waits for a yes, with its photo, and is then the machine’s, from whom it is', async () => {
    const path = await open();
    const sent = note({ photo: PHOTO });
    // Tapped twice, or tried again: one.
    for (let i = 0; i < 2; i++) await house.api.post(path).send(sent).expect(201);
    const before = (await entries()).length;
    const [one, ...more] = await waiting();
    expect(more).toEqual([]);
    expect(one).toMatchObject({ from: 'Mr Blau', byLink: true, photo: true, what: 'entry' });
    const { body: picture } = await as('get', `set-aside/${one!.id}/photo`).expect(200);
    expect((picture as Buffer).equals(jpeg(80, 60))).toBe(true);
    await as('post', `set-aside/${one!.id}/take`).expect(200);
    const [entry, ...others] = await entries();
    expect(others).toHaveLength(before);
    expect(entry).toMatchObject({
      kind: 'note',
      note: 'Mr Blau: Pump changed.',
      machineId: house.washer.id,
    });
    expect(entry!.author).toBe('household');
    const photo = await as('get', `photos/${entry!.photos![0]}`).expect(200);
    expect((photo.body as Buffer).equals(jpeg(80, 60))).toBe(true);
    expect(await waiting()).toEqual([]);
    await as('get', `set-aside/${one!.id}/photo`).expect(404);
    // Sent once more, it is known.
    await house.api.post(path).send(sent).expect(201);
    expect(await waiting()).toEqual([]);
  });

  it('about a case belongs to it; let go, nothing of it stays', async () => {
    const path = await open('case');
    await house.api.post(path).send(note()).expect(201);
    const [one] = await waiting();
    await as('post', `set-aside/${one!.id}/take`).expect(200);
    expect((await entries())[0]!.caseId).toBeDefined();
    await house.api.post(path).send(note()).expect(201);
    const before = await entries();
    await as('delete', `set-aside/${(await waiting())[0]!.id}`).expect(200);
    expect(await entries()).toEqual(before);
  });

  it('wants something in it, a photo that is one, and a link that may', async () => {
    const path = await open();
    const wrong = [
      [note({ note: '  ' }), 'note'],
      [note({ note: 'x'.repeat(1901) }), 'note'],
      [note({ photo: Buffer.from('no photo').toString('base64') }), 'photo'],
      [note({ photo: jpeg(80, 60).subarray(0, -2).toString('base64') }), 'photo'],
      [note({ id: 'mine' }), 'id'],
    ] as const;
    for (const [body, field] of wrong) {
      const answer = await house.api.post(path).send(body).expect(422);
      expect(answer.body.errors[0].field).toBe(field);
    }
    await house.api
      .post(await open('machine', false))
      .send(note())
      .expect(404);
    await house.api.post('/shared/guess').send(note()).expect(404);
    await house.api.post(path).set('Origin', 'https://evil.example').send(note()).expect(403);
    expect(await waiting()).toEqual([]);
    const { text } = await house.api.get(await open('machine', false)).expect(200);
    expect(text).not.toContain('<form');
  });

  it('fills nothing: twenty wait of one link, and thirty are tried in a quarter of an hour', async () => {
    const path = await open();
    const statuses: Record<number, number> = {};
    for (let i = 0; i < 40; i++) {
      const { status } = await house.api.post(path).send(note());
      statuses[status] = (statuses[status] ?? 0) + 1;
    }
    expect(statuses).toEqual({ 201: 20, 429: 20 });
    expect(await waiting()).toHaveLength(20);
  });
});

describe('a token', () => {
  it('is told once, does what it was made for, and nothing after it was taken back', async () => {
    const { body } = await as('post', 'tokens', {
      name: 'A script',
      scopes: ['entries:read'],
    }).expect(201);
    expect(body.token).toMatch(/^needlecase_[\w-]{43}$/);
    const ask = (path: string) =>
      house.api.get(`/api/v1/${path}`).set('Authorization', `Bearer ${body.token}`);
    await ask('entries').expect(200);
    await ask('bench').expect(403);
    const list = await as('get', 'tokens').expect(200);
    expect(JSON.stringify(list.body)).not.toContain(body.token);
    expect(list.body[0]).toHaveProperty('usedAt');
    await as('delete', `tokens/${body.id}`).expect(200);
    await ask('entries').expect(401);
  });
});

it('a device goes over to the safe address as the same person, by a code of two minutes', async () => {
  const { body } = await as('post', 'move').expect(201);
  expect(Date.parse(body.until) - Date.now()).toBeLessThanOrEqual(120_000);
  const paired = await house.api.post('/api/v1/pair').send({ code: body.code, device: 'Phone' });
  expect(paired.body.person.name).toBe('Ilse');
});

describe('a device that was taken out, and comes back from a cellar', () => {
  const note = (id: string) => ({
    id,
    kind: 'note',
    note: 'Belt squeals',
    at: '2026-01-02T10:00:00Z',
  });
  const send = (cookie: string, body: ReturnType<typeof note>) =>
    house.api
      .post('/api/v1/entries')
      .set({ Cookie: cookie, 'Idempotency-Key': body.id })
      .send(body);
  const waiting = async () => (await as('get', 'set-aside').expect(200)).body as { id: string }[];
  const entries = async () => (await as('get', 'entries?kind=note').expect(200)).body.entries;

  it('loses nothing and doubles nothing: a keeper says whether it holds, and it is let in again', async () => {
    const kai = move(house, 'helper', 'Kai');
    house.access.devices.revoke(kai.device.id);
    const body = note(randomUUID());
    const first = await send(kai.cookie, body).expect(401);
    expect(first.body.detail).toMatch(/waits for the yes/);
    await send(kai.cookie, body).expect(401);
    expect(await entries()).toEqual([]);
    const [one, ...more] = await waiting();
    expect(more).toEqual([]);
    await as('post', `set-aside/${one!.id}/take`).expect(200);
    await as('post', `set-aside/${one!.id}/take`).expect(404);
    expect(await entries()).toEqual([
      expect.objectContaining({
        ...note(body.id),
        author: kai.person.id,
        at: '2026-01-02T10:00:00.000Z',
      }),
    ]);
    // Its own try, once it is in again, is the same deed.
    const { secret } = house.access.devices.pair(kai.person.id, 'Kai’s phone', true);
    await send(`needlecase-weak=${secret}`, body).expect(201);
    expect(await entries()).toHaveLength(1);
  });

  it('is let go where it does not hold, and what is wrong with it is said beside its field', async () => {
    const kai = move(house, 'helper', 'Kai');
    house.access.devices.revoke(kai.device.id);
    await send(kai.cookie, { ...note(randomUUID()), at: '2199-01-01T00:00:00Z' }).expect(401);
    const [one] = await waiting();
    const { body } = await as('post', `set-aside/${one!.id}/take`).expect(422);
    expect(body.errors[0].field).toBe('at');
    await as('delete', `set-aside/${one!.id}`).expect(200);
    expect(await waiting()).toEqual([]);
    expect(await entries()).toEqual([]);
  });

  it('fills nothing, and gets in nowhere else', async () => {
    const kai = move(house, 'keeper', 'Kai');
    house.access.devices.revoke(kai.device.id);
    for (let i = 0; i < 205; i++) await send(kai.cookie, note(randomUUID()));
    expect(await waiting()).toHaveLength(200);
    await house.api.post('/api/v1/machines').set('Cookie', kai.cookie).send({}).expect(401);
    await house.api.post('/api/v1/entries').send(note(randomUUID())).expect(401);
    expect(await waiting()).toHaveLength(200);
  });
});
