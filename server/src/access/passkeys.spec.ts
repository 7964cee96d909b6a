import { beforeEach, describe, expect, it, vi } from 'vitest';
import { Authenticator } from '../testing/authenticator.js';
import { readyApp, type Fixture } from '../testing/household.js';
import { move } from '../testing/people.js';

const HOST = 'localhost:4310';
const ORIGIN = `http://${HOST}`;

let house: Fixture;
let jon: ReturnType<typeof move>;
let key: Authenticator;
beforeEach(async () => {
  house = await readyApp();
  move(house, 'keeper', 'Ilse');
  jon = move(house, 'helper', 'Jon');
  key = new Authenticator(ORIGIN);
});

const as = (method: 'get' | 'post' | 'delete', path: string, body?: object, by = jon) =>
  house.api[method](`/api/v1/${path}`).set({ Cookie: by.cookie, Host: HOST }).send(body);
const nobody = (path: string, body: object = {}) =>
  house.api.post(`/api/v1/${path}`).set('Host', HOST).send(body);
const make = async (one = key, by = jon) => {
  const { body } = await as('post', 'passkeys/options', {}, by).expect(200);
  return as('post', 'passkeys', { name: 'Phone', answer: one.made(body.challenge) }, by);
};
const asked = async () => (await nobody('sign-in/options').expect(200)).body.challenge as string;
const letIn = (answer: object) => nobody('sign-in/passkey', { device: 'Kitchen', answer });

describe('a passkey', () => {
  it('is made by its person, and lets them in; nothing of it can be read again', async () => {
    const made = await make();
    expect(made.status).toBe(201);
    expect(made.body).toMatchObject({ name: 'Phone', personId: jon.person.id });
    const { body } = await letIn(key.let(await asked())).expect(200);
    expect(body).toMatchObject({ by: 'device', role: 'helper', person: { name: 'Jon' } });
    const list = await as('get', 'passkeys').expect(200);
    expect(Object.keys(list.body[0]).toSorted()).toEqual(
      ['id', 'madeAt', 'name', 'personId', 'usedAt'].toSorted(),
    );
  });

  it('says the same of one that is not known, for another house, twice, or too late', async () => {
    await make();
    const other = new Authenticator(ORIGIN);
    const elsewhere = Object.assign(new Authenticator('https://evil.example'), {});
    const used = key.let(await asked());
    await letIn(used).expect(200);
    const late = key.let(await asked());
    vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 5 * 60_000 + 1 });
    const answers = [await letIn(late)];
    vi.useRealTimers();
    for (const answer of [used, other.let(await asked()), elsewhere.let(await asked())]) {
      answers.push(await letIn(answer));
    }
    for (const { status, body } of answers) {
      expect([status, body.errors]).toEqual([422, answers[0]!.body.errors]);
    }
    const { body } = await as('get', 'access-events', undefined, move(house, 'keeper', 'Kai'));
    expect(body[0]).toMatchObject({ what: 'turned away', more: 'by a passkey' });
  });

  it('of which a copy was used before is refused: its counter went back', async () => {
    await make();
    key.counter = 7;
    await letIn(key.let(await asked())).expect(200);
    key.counter = 3;
    await letIn(key.let(await asked())).expect(422);
  });

  it('is not made from another page, by an answer of another person’s, or twice', async () => {
    const elsewhere = new Authenticator('https://evil.example');
    expect((await make(elsewhere)).status).toBe(422);
    const { body } = await as('post', 'passkeys/options', {}).expect(200);
    const kai = move(house, 'guest', 'Kai');
    await as('post', 'passkeys', { name: 'x', answer: key.made(body.challenge) }, kai).expect(422);
    expect((await make()).status).toBe(201);
    expect((await make()).status).toBe(422);
  });

  it('is taken away by its person or a keeper, and goes with its person', async () => {
    const { body: made } = await make();
    const kai = move(house, 'guest', 'Kai');
    await as('delete', `passkeys/${made.id}`, undefined, kai).expect(404);
    await as('delete', `passkeys/${made.id}`).expect(200);
    await letIn(key.let(await asked())).expect(422);
    const again = new Authenticator(ORIGIN);
    await make(again);
    const keeper = move(house, 'keeper', 'Lea');
    await as('delete', `persons/${jon.person.id}`, undefined, keeper).expect(200);
    await letIn(again.let(await asked())).expect(422);
    expect((await as('get', 'passkeys', undefined, keeper)).body).toEqual([]);
  });

  it('wants https and a name: by number or over plain http it says so', async () => {
    for (const Host of ['127.0.0.1:4310', 'needlecase.local:4310']) {
      const { body } = await house.api
        .post('/api/v1/sign-in/options')
        .set('Host', Host)
        .send({})
        .expect(409);
      expect(body.title).toBe('A passkey needs https and a name.');
    }
  });

  it('is nobody’s where there are no persons', async () => {
    const alone = await readyApp();
    await alone.api.post('/api/v1/passkeys/options').set('Host', HOST).send({}).expect(409);
  });
});
