import { beforeEach, expect, it } from 'vitest';
import { makeApp, type App } from '../app.js';
import { readyApp, type Fixture } from '../testing/household.js';
import { move } from '../testing/people.js';
import { houseOrigin, type Reach } from './reach.js';

const OPEN: Reach = { port: 4310, tlsPort: 4311, open: true };

let house: Fixture;
let keeper: ReturnType<typeof move>;
beforeEach(async () => {
  house = await readyApp({ reach: () => OPEN });
  keeper = move(house, 'keeper', 'Ilse');
});
const as = (method: 'get' | 'put' | 'post', path: string, body?: object) =>
  house.api[method](`/api/v1/${path}`).set('Cookie', keeper.cookie).send(body);

it('is laid down once, and all that is given out is made for it', async () => {
  const { body: before } = await as('get', 'me').expect(200);
  expect(before.settled ?? false).toBe(false);
  const { body } = await as('put', 'address', { host: 'needlecase.local' }).expect(200);
  expect(body).toContainEqual({
    host: 'needlecase.local',
    origin: 'https://needlecase.local:4311',
    named: true,
    used: true,
  });
  expect(body.filter(({ used }: { used: boolean }) => used)).toHaveLength(1);
  const origin = 'https://needlecase.local:4311';
  expect((await as('get', 'me')).body).toMatchObject({ origin, settled: true });
  expect((await as('post', 'codes', {})).body.pair).toContain(`${origin}/pair#`);
  const link = { shows: 'machine', target: house.washer.id, forWhom: 'The landlord' };
  expect((await as('post', 'links', link)).body.address).toContain(`${origin}/shared/`);
  // After a new start, too.
  const again: App = makeApp(house.db, { reach: () => OPEN });
  expect(houseOrigin(again.access.host.in(OPEN))).toBe(origin);
});

it('is one that this computer goes by', async () => {
  await as('put', 'address', { host: 'needlecase.local' }).expect(200);
  for (const host of ['evil.example', 'needlecase.local:80', '']) {
    const { body } = await as('put', 'address', { host }).expect(422);
    expect(body.errors[0].field).toBe('host');
  }
  expect((await as('get', 'me')).body.origin).toBe('https://needlecase.local:4311');
});

it('that was a number is not used any more once another computer may have it', () => {
  expect(houseOrigin({ ...OPEN, host: '192.168.77.77' })).toBe(houseOrigin(OPEN));
});

it('is not changed here where it was laid down at the installation', async () => {
  house = await readyApp({ reach: () => ({ ...OPEN, origin: 'https://laundry.example' }) });
  keeper = move(house, 'keeper', 'Ilse');
  await as('put', 'address', { host: 'needlecase.local' }).expect(409);
  expect((await as('get', 'addresses').expect(200)).body).toEqual([
    { host: 'laundry.example', origin: 'https://laundry.example', named: true, used: true },
  ]);
});
