import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { withoutSecrets } from '../http/log.js';
import { readyApp, type Fixture } from '../testing/household.js';
import { move } from '../testing/people.js';

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
