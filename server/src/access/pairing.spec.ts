import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { makeApp } from '../app.js';
import { openDatabase } from '../db/open.js';
import { emptyApp, readyApp, type Fixture } from '../testing/household.js';
import { cookieOf, move } from '../testing/people.js';
import request from 'supertest';

let house: Fixture;
let keeper: ReturnType<typeof move>;
beforeEach(async () => {
  house = await readyApp();
  keeper = move(house, 'keeper', 'Ilse');
  move(house, 'helper', 'Jon');
});

const newCode = async (personId?: string): Promise<string> => {
  const { body } = await house.api
    .post('/api/v1/codes')
    .set('Cookie', keeper.cookie)
    .send(personId ? { personId } : {})
    .expect(201);
  return body.code;
};
const pair = (code: string, device = 'A phone') =>
  house.api.post('/api/v1/pair').send({ code, device });
const secretIn = (answer: { headers: unknown }): string => {
  const [cookie] = (answer.headers as { 'set-cookie': string[] })['set-cookie'];
  return /=([^;]+)/.exec(cookie!)![1]!;
};

describe('a code', () => {
  it('is two halves of four, without letters that are taken for others, and read however it is typed', async () => {
    const code = await newCode();
    expect(code).toMatch(/^[2-9A-HJKMNP-TV-Z]{4}-[2-9A-HJKMNP-TV-Z]{4}$/);
    const { body } = await pair(` ${code.toLowerCase().replace('-', ' ')} `).expect(200);
    expect(body).toMatchObject({ by: 'device', role: 'keeper', person: { name: 'Ilse' } });
  });

  it('pairs one device, once, for ten minutes', async () => {
    const code = await newCode();
    await pair(code).expect(200);
    const { body } = await pair(code).expect(422);
    expect(body.errors).toEqual([{ field: 'code', message: expect.stringMatching(/was used/) }]);
    const late = await newCode();
    vi.useFakeTimers({ toFake: ['Date'] });
    vi.setSystemTime(Date.now() + 10 * 60_000 + 1);
    await pair(late).expect(422);
    vi.useRealTimers();
  });

  it('is void when a new one is made for the same person', async () => {
    const first = await newCode();
    const second = await newCode();
    await pair(first).expect(422);
    await pair(second).expect(200);
  });

  it('pairs one of two people who type it at the same moment', async () => {
    const code = await newCode();
    const answers = await Promise.all([pair(code), pair(code)]);
    expect(answers.map(({ status }) => status).toSorted()).toEqual([200, 422]);
  });

  it('and two codes pair two people at the same moment, each as who they are', async () => {
    const jon = house.store.persons.list().find(({ name }) => name === 'Jon')!;
    const codes = [await newCode(), await newCode(jon.id)];
    const answers = await Promise.all(codes.map((code) => pair(code)));
    expect(answers.map(({ body }) => body.person.name)).toEqual(['Ilse', 'Jon']);
  });

  it('is not found by ten thousand guesses, of which all but the first few are not even looked at', async () => {
    await newCode();
    const server = house.express.listen(0, '127.0.0.1');
    await once(server, 'listening');
    const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api/v1/pair`;
    const counts: Record<number, number> = {};
    for (let i = 0; i < 10_000; i += 100) {
      const guesses = Array.from({ length: 100 }, async (_, k) => {
        const code = (i + k).toString(29).padStart(8, '2');
        const { status } = await fetch(address, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify({ code, device: 'guess' }),
        });
        counts[status] = (counts[status] ?? 0) + 1;
      });
      await Promise.all(guesses);
    }
    server.closeAllConnections();
    server.close();
    expect(counts[422]! + counts[429]!).toBe(10_000);
    expect(counts[422]).toBeLessThanOrEqual(10);
    expect(house.access.devices.list()).toHaveLength(2);
  }, 30_000);
});

describe('a device', () => {
  it('has its secret in a cookie that no script reads and no other site sends; of it a digest is kept', async () => {
    const answer = await pair(await newCode())
      .set('Host', 'needlecase.local')
      .expect(200);
    const [cookie] = answer.headers['set-cookie'] as unknown as string[];
    expect(cookie).toMatch(
      /^needlecase-weak=[\w-]{43}; Max-Age=2592000; Path=\/; .*HttpOnly; SameSite=Strict$/,
    );
    const secret = secretIn(answer);
    expect(answer.text).not.toContain(secret);
    const kept = JSON.stringify(house.access.devices.list());
    expect(kept).not.toContain(secret);
    expect(answer.body.device).toMatchObject({ weak: true, here: true, name: 'A phone' });
  });

  it('over https has one that its own host alone can set, and that lasts', async () => {
    const app = makeApp(openDatabase(':memory:'), { proxies: 1 });
    const api = request(app.express);
    const person = app.store.write(() =>
      app.store.persons.create({ name: 'Ilse', thread: 'moss', role: 'keeper' }),
    );
    const { code } = app.access.devices.newCode(person.id);
    const answer = await api
      .post('/api/v1/pair')
      .set('X-Forwarded-Proto', 'https')
      .send({ code, device: 'Phone' })
      .expect(200);
    const [cookie] = answer.headers['set-cookie'] as unknown as string[];
    expect(cookie).toMatch(
      /^__Host-needlecase=[\w-]{43}; Max-Age=34560000; Path=\/; .*HttpOnly; Secure; SameSite=Strict$/,
    );
    const ask = (sent: string) =>
      api.get('/api/v1/me').set('X-Forwarded-Proto', 'https').set('Cookie', sent);
    const strong = `__Host-needlecase=${secretIn(answer)}`;
    expect((await ask(strong)).body.by).toBe('device');
    // What a sibling host puts beside it, or another name, is not listened to.
    expect((await ask(cookieOf(secretIn(answer)))).body.by).toBe('nobody');
    expect((await ask(`${strong}; __Host-needlecase=tossed`)).body.by).toBe('nobody');
    expect((await ask(`needlecase-weak=tossed; ${strong}`)).body.by).toBe('device');
  });

  it('is shut out at once when it is taken out, its stream with it', async () => {
    const other = move(house, 'helper', 'Kai');
    const server = house.express.listen(0, '127.0.0.1');
    await once(server, 'listening');
    const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api/v1`;
    const stream = await fetch(`${address}/changes`, { headers: { Cookie: other.cookie } });
    expect(stream.status).toBe(200);
    const ended = stream.text();
    await house.api
      .delete(`/api/v1/devices/${other.device.id}`)
      .set('Cookie', keeper.cookie)
      .expect(200);
    await ended;
    const { body } = await house.api.get('/api/v1/bench').set('Cookie', other.cookie).expect(401);
    expect(body.title).toMatch(/taken out/);
    const me = await house.api.get('/api/v1/me').set('Cookie', other.cookie).expect(200);
    expect(me.body).toMatchObject({ by: 'nobody', revoked: true });
    server.closeAllConnections();
    server.close();
  });

  it('goes with its person, and signs itself out', async () => {
    const other = move(house, 'helper', 'Kai');
    await house.api
      .delete(`/api/v1/persons/${other.person.id}`)
      .set('Cookie', keeper.cookie)
      .expect(200);
    await house.api.get('/api/v1/bench').set('Cookie', other.cookie).expect(401);
    const out = await house.api.post('/api/v1/sign-out').set('Cookie', keeper.cookie).expect(200);
    expect((out.headers['set-cookie'] as unknown as string[])[0]).toMatch(
      /needlecase-weak=;.*1970/,
    );
    await house.api.get('/api/v1/bench').set('Cookie', keeper.cookie).expect(401);
  });

  it('lives on while it is used, and no longer', async () => {
    vi.useFakeTimers({ toFake: ['Date'] });
    const days = (n: number) => vi.setSystemTime(Date.now() + n * 86_400_000);
    const ask = () => house.api.get('/api/v1/bench').set('Cookie', keeper.cookie);
    days(29);
    await ask().expect(200);
    days(29);
    await ask().expect(200);
    days(31);
    await ask().expect(401);
    vi.useRealTimers();
  });
});

describe('the first keeper', () => {
  it('one person alone sees nothing of it at the server’s own computer', async () => {
    const app = emptyApp();
    expect((await app.api.get('/api/v1/me')).body).toEqual({
      by: 'here',
      role: 'keeper',
      persons: 0,
    });
    const { body } = await app.api.post('/api/v1/codes').send({}).expect(201);
    await app.api.post('/api/v1/pair').send({ code: body.code, device: 'Phone' }).expect(200);
    expect((await app.api.get('/api/v1/me')).body).toMatchObject({ by: 'here', persons: 1 });
  });

  it('with a second person this browser is paired, and any other is shut out', async () => {
    const app = emptyApp();
    const added = await app.api
      .post('/api/v1/persons')
      .send({ name: 'Jon', thread: 'rust', role: 'helper' })
      .expect(201);
    await app.api.get('/api/v1/persons').expect(401);
    const { body } = await app.api
      .get('/api/v1/me')
      .set('Cookie', cookieOf(secretIn(added)))
      .expect(200);
    expect(body).toMatchObject({ by: 'device', role: 'keeper', persons: 2 });
  });

  it.each([
    ['another computer handed it on', { 'X-Forwarded-For': '192.168.1.7' }],
    ['another computer says so', { Forwarded: 'for=192.168.1.7' }],
    ['it is asked by a name of the house', { Host: 'needlecase.local' }],
  ])('is nobody where %s, though the line is the computer’s own', async (_why, headers) => {
    const app = emptyApp();
    expect((await app.api.get('/api/v1/me').set(headers)).body.by).toBe('nobody');
    await app.api.get('/api/v1/machines').set(headers).expect(401);
  });

  it('stays: the last one cannot be taken out, nor made less', async () => {
    const { id } = keeper.person;
    const ask = house.api.delete(`/api/v1/persons/${id}`).set('Cookie', keeper.cookie);
    const { body } = await ask.expect(422);
    expect(body.errors[0].message).toMatch(/Somebody has to keep this house/);
    await house.api
      .put(`/api/v1/persons/${id}`)
      .set({ Cookie: keeper.cookie, 'If-Match': '"1"' })
      .send({ name: 'Ilse', thread: 'rust', role: 'helper' })
      .expect(422);
  });
});

describe('a pass phrase', () => {
  const PHRASE = 'four words of a house';
  const set = (id: string, by: { cookie: string }, passphrase = PHRASE) =>
    house.api.put(`/api/v1/persons/${id}/passphrase`).set('Cookie', by.cookie).send({ passphrase });
  const signIn = (name: string, passphrase: string, headers = {}) =>
    house.api.post('/api/v1/sign-in').set(headers).send({ name, passphrase, device: 'Shared' });

  it('lets its person in, by salted digest; anything else says the same', async () => {
    await set(keeper.person.id, keeper).expect(200);
    const digest = house.store.persons.passphraseOf(keeper.person.id)!;
    expect(digest).toMatch(/^scrypt\$131072\$8\$1\$/);
    expect(digest).not.toContain(PHRASE);
    expect((await signIn('ilse', PHRASE).expect(200)).body.person.name).toBe('Ilse');
    const wrong = await signIn('Ilse', 'four words of a horse').expect(422);
    const nobody = await signIn('Nobody', PHRASE).expect(422);
    expect(nobody.body.errors).toEqual(wrong.body.errors);
  });

  it('has fifteen characters and more, and is never asked over plain http', async () => {
    const { body } = await set(keeper.person.id, keeper, 'too short').expect(422);
    expect(body.errors[0].field).toBe('passphrase');
    const far = { Host: 'needlecase.local' };
    await signIn('Ilse', PHRASE, far).expect(403);
    await set(keeper.person.id, keeper).set(far).expect(403);
  });

  it('is one’s own to set, and a keeper’s, but no other’s', async () => {
    const other = move(house, 'helper', 'Kai');
    await set(other.person.id, other).expect(200);
    await set(other.person.id, keeper).expect(200);
    await set(keeper.person.id, other).expect(403);
  });

  it('is tried five times, then after longer and longer waits, and no more than ten times', async () => {
    vi.useFakeTimers({ toFake: ['Date'] });
    const tried = async () => {
      const { status, headers } = await house.api.post('/api/v1/sign-in').send({ name: 'Ilse' });
      return status === 429 ? Number(headers['retry-after']) : status;
    };
    for (let i = 0; i < 5; i++) expect(await tried()).toBe(422);
    for (const seconds of [1, 2, 4, 8, 16]) {
      expect(await tried()).toBe(seconds);
      vi.setSystemTime(Date.now() + seconds * 1000);
      expect(await tried()).toBe(422);
    }
    vi.setSystemTime(Date.now() + 32_000);
    expect(await tried()).toBeGreaterThan(700);
  });

  it('is tried as fast as ever after the right one', async () => {
    await set(keeper.person.id, keeper).expect(200);
    for (let round = 0; round < 2; round++) {
      for (let i = 0; i < 4; i++) await signIn('Ilse', 'four words of a horse').expect(422);
      await signIn('Ilse', PHRASE).expect(200);
    }
  });
});

it('who came in, who was turned away, what was given and taken back is noted', async () => {
  await pair(await newCode(), 'Jon’s phone').expect(200);
  await pair('AAAA-AAAA', 'Somebody’s').expect(422);
  const { body } = await house.api
    .get('/api/v1/access-events')
    .set('Cookie', keeper.cookie)
    .expect(200);
  expect(body.map(({ what, device }: { what: string; device: string }) => [what, device])).toEqual([
    ['turned away', 'Somebody’s'],
    ['paired', 'Jon’s phone'],
    ['code made', 'Ilse’s phone'],
  ]);
});

afterEach(() => {
  vi.useRealTimers();
  house.store.close();
});
