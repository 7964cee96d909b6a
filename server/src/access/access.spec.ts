import { randomUUID } from 'node:crypto';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { INSTRUMENTS, type Instrument } from '@needlecase/core';
import { keyOf } from '../http/route.js';
import { cookieOf, move } from '../testing/people.js';
import { ago, readyApp, type Fixture } from '../testing/household.js';
import { ROWS } from './rows.js';

/** Who may ask for what, written out: G guest, H helper, K keeper, T a token that reads entries, * everybody. */
const MAY = `
* get /api/v1/health
* get /api/v1/ready
* get /api/v1/me
* post /api/v1/pair
* post /api/v1/sign-in
* post /api/v1/sign-in/options
* post /api/v1/sign-in/passkey
GHK get /api/openapi.json
GHK get /api/v1/changes
GHK get /api/v1/household
GHK get /api/v1/machines
GHK get /api/v1/machines/{id}
GHK get /api/v1/machines/{id}/line
GHK get /api/v1/machines/{id}/trouble
GHK get /api/v1/trouble/likely
GHK get /api/v1/bench
GHK get /api/v1/code-sheets
GHK get /api/v1/code-sheet.schema.json
GHK get /api/v1/persons
GHK post /api/v1/move
GHK get /api/v1/passkeys
GHK post /api/v1/passkeys
GHK post /api/v1/passkeys/options
GHK delete /api/v1/passkeys/{id}
GHK post /api/v1/trouble/suspects
${INSTRUMENTS.map(({ name, api }: Instrument) => `GHK post /api/v1/instruments/${api ?? name}`).join('\n')}
HKT get /api/v1/entries
HK post /api/v1/entries
HK post /api/v1/entries/{id}/undo
HK post /api/v1/entries/{id}/restore
HK post /api/v1/entries/{id}/revision
HK get /api/v1/cases
HK post /api/v1/cases
HK get /api/v1/cases/{id}
HK get /api/v1/cases/{id}/summary.pdf
HK get /api/v1/machines/{id}/record.pdf
HK get /api/v1/machines/{id}/life
HK get /api/v1/documents
HK get /api/v1/code-sheets/{id}/codes.pdf
HK get /api/v1/documents/{id}/file
HK put /api/v1/documents/{id}/file
HK put /api/v1/documents/{id}
K delete /api/v1/documents/{id}
HK get /api/v1/runs
HK post /api/v1/runs
HK get /api/v1/runs/{id}
HK patch /api/v1/runs/{id}
HK post /api/v1/runs/{id}/finish
HK post /api/v1/runs/{id}/undo
HK get /api/v1/runs/{id}/visit.pdf
HK get /api/v1/photos/{id}
HK put /api/v1/photos/{id}
HK get /api/v1/supplies
HK get /api/v1/meters
K post /api/v1/meters
K put /api/v1/meters/{id}
K delete /api/v1/meters/{id}
K post /api/v1/meters/{id}/token
K post /api/v1/meters/{id}/samples
K post /api/v1/meters/{id}/stand-in
HK get /api/v1/schools
HK get /api/v1/hindsight
HK get /api/v1/machines/{id}/meter
HK post /api/v1/machines/{id}/meter
HK post /api/v1/machines/{id}/meter/undo
HK post /api/v1/machines/{id}/meter/join
HK post /api/v1/machines/{id}/meter/part
HK post /api/v1/machines/{id}/meter/name
HK get /api/v1/vent-runs
HK post /api/v1/vent-runs
HK put /api/v1/vent-runs/{id}
HK delete /api/v1/vent-runs/{id}
HK get /api/v1/plan
HK get /api/v1/plan/ahead
HK get /api/v1/plan/problem
HK put /api/v1/plan/visits/{id}
HK get /api/v1/plan/visits/{id}/visit.ics
HK get /api/v1/calendar.ics
HK get /api/v1/prints/wall.pdf
HK get /api/v1/prints/year.pdf
HK get /api/v1/prints/labels.pdf
HK get /api/v1/feeds
HK post /api/v1/feeds
HK delete /api/v1/feeds/{id}
HK get /api/v1/busy
HK post /api/v1/busy
HK delete /api/v1/busy/{id}
HK get /api/v1/absences
HK post /api/v1/absences
HK put /api/v1/absences/{id}
HK delete /api/v1/absences/{id}
HK get /api/v1/machines/{id}/charts
HK get /api/v1/year
HK post /api/v1/old-notes
HK post /api/v1/old-notes/undo
HKT get /api/v1/entries.csv
HKT get /api/v1/readings.csv
HKT get /api/v1/loads.csv
HKT get /api/v1/done.ics
GHK get /api/v1/record.schema.json
K get /api/v1/record.json
HK get /api/v1/backups
HK get /api/v1/about
HK get /api/v1/shares
K post /api/v1/setup
K put /api/v1/household
K put /api/v1/plan/rhythms
K post /api/v1/busy/address
K get /api/v1/mail
K put /api/v1/mail/server
K delete /api/v1/mail/server
K post /api/v1/mail/recipients
K delete /api/v1/mail/recipients/{id}
K post /api/v1/mail/recipients/{id}/letter
K post /api/v1/machines
K put /api/v1/machines/{id}
K delete /api/v1/machines/{id}
K post /api/v1/supplies
K put /api/v1/supplies/{id}
K post /api/v1/code-sheets
K put /api/v1/code-sheets/{id}
K delete /api/v1/code-sheets/{id}
K post /api/v1/backups
K get /api/v1/backup.zip
K post /api/v1/backups/look
K post /api/v1/backups/pick
K post /api/v1/restore
K post /api/v1/persons
K put /api/v1/persons/{id}
K delete /api/v1/persons/{id}
K put /api/v1/persons/{id}/passphrase
K delete /api/v1/persons/{id}/passphrase
K get /api/v1/addresses
K put /api/v1/address
K post /api/v1/codes
K get /api/v1/devices
K delete /api/v1/devices/{id}
K get /api/v1/tokens
K post /api/v1/tokens
K delete /api/v1/tokens/{id}
K get /api/v1/links
K post /api/v1/links
K delete /api/v1/links/{id}
K get /api/v1/access-events
K get /api/v1/set-aside
K get /api/v1/set-aside/{id}/photo
K post /api/v1/set-aside/{id}/take
K delete /api/v1/set-aside/{id}
* post /api/v1/sign-out
`
  .trim()
  .split('\n')
  .map((line) => {
    const [who, method, path] = line.split(' ') as [string, string, string];
    return { who, method, path, key: `${method} ${path}` };
  });

/** What shuts a caller out, and with what. */
type Verdict = 'in' | 401 | 403 | 421;

describe('the table of who may ask for what', () => {
  let house: Fixture;
  let headers: Record<string, Record<string, string>>;

  beforeAll(async () => {
    house = await readyApp();
    const keeper = move(house, 'keeper');
    const helper = move(house, 'helper');
    const guest = move(house, 'guest');
    const gone = move(house, 'keeper', 'gone');
    house.access.devices.revoke(gone.device.id);
    const orphan = move(house, 'keeper', 'orphan');
    const { token, stolen, link } = house.store.write(() => {
      house.store.persons.remove(orphan.person.id);
      const stolen = house.access.tokens.make({ name: 'stolen', scopes: ['entries:read'] });
      house.access.tokens.revoke(stolen.id);
      return {
        token: house.access.tokens.make({ name: 'script', scopes: ['entries:read'] }).token!,
        stolen: stolen.token!,
        link: house.access.links.make({
          shows: 'machine',
          target: house.washer.id,
          forWhom: 'The landlord',
        }).secret,
      };
    });
    headers = {
      nobody: {},
      guest: { Cookie: guest.cookie },
      helper: { Cookie: helper.cookie },
      keeper: { Cookie: keeper.cookie },
      revoked: { Cookie: gone.cookie },
      orphan: { Cookie: orphan.cookie },
      token: { Authorization: `Bearer ${token}` },
      'token taken back': { Authorization: `Bearer ${stolen}` },
      link: { Authorization: `Bearer ${link}` },
      'link as a cookie': { Cookie: cookieOf(link) },
      'strong cookie over plain http': { Cookie: `__Host-needlecase=${keeper.secret}` },
      'keeper of another household': {
        Cookie: keeper.cookie,
        'Needlecase-Household': randomUUID(),
      },
    };
  });

  const verdict = (caller: string, who: string): Verdict => {
    if (who === '*') return caller === 'keeper of another household' ? 421 : 'in';
    const letter = { guest: 'G', helper: 'H', keeper: 'K', token: 'T' }[caller];
    if (letter === undefined) return caller === 'keeper of another household' ? 421 : 401;
    return who.includes(letter) ? 'in' : 403;
  };

  it('has a row for each address, and an address for each row', () => {
    const known = [
      ...house.routes.map(keyOf),
      'get /api/openapi.json',
      'get /api/v1/changes',
    ].toSorted();
    expect(Object.keys(ROWS).toSorted()).toEqual(known);
    expect(MAY.map(({ key }) => key).toSorted()).toEqual(known);
  });

  it.each(MAY)('$who: $key', async ({ who, method, path }) => {
    const address = path.replace('{id}', randomUUID());
    for (const [caller, sent] of Object.entries(headers)) {
      const isStream = path === '/api/v1/changes';
      const expected = verdict(caller, who);
      // A stream that is let in does not end; whose household it is, it does not say.
      if (isStream && (expected === 'in' || expected === 421)) continue;
      // What the API is, is the same in every house.
      if (path.endsWith('openapi.json') && expected === 421) continue;
      const asked = house.api[method as 'get'](address)
        .set(sent)
        .ok(() => true);
      const { status } = await (method === 'get' ? asked : asked.send({}));
      const got = status === 401 || status === 403 || status === 421 ? status : 'in';
      expect(`${caller}: ${got}`).toBe(`${caller}: ${expected}`);
    }
  });
});

describe('a helper', () => {
  it('says how a machine is built, and changes nothing else of it', async () => {
    const house = await readyApp();
    const by = (role: 'helper' | 'guest') => {
      const { cookie } = move(house, role);
      return (more: object) => {
        const { id, version, ...draft } = house.store.machines.get(house.washer.id)!;
        return house.api
          .put(`/api/v1/machines/${id}`)
          .set({ Cookie: cookie, 'If-Match': `"${version}"` })
          .send({ ...draft, ...more });
      };
    };
    const ways = { 'filter-turns': 'To the left.' };
    const [helper, guest] = [by('helper'), by('guest')];
    await helper({ ways }).expect(200);
    await helper({ ways, name: 'Mine' }).expect(403);
    await helper({ ways, rules: [] }).expect(403);
    await guest({ ways: {} }).expect(403);
    expect(house.store.machines.get(house.washer.id)).toMatchObject({ ways, name: 'Washer' });
  });
});

describe('a guest', () => {
  let house: Fixture;
  let guest: ReturnType<typeof move>;
  let helper: ReturnType<typeof move>;
  const as = (who: { cookie: string }, path: string, body: object = {}) =>
    house.api.post(`/api/v1/${path}`).set('Cookie', who.cookie).send(body);
  const load = () => ({ kind: 'load', machineId: house.washer.id, at: ago(0), count: 1 });
  const news = (id: string = randomUUID()) => ({
    id,
    machineId: house.washer.id,
    events: [
      { id: randomUUID(), at: ago(0), kind: 'answer', finding: 'wont-drain', answer: 'yes' },
    ],
  });

  beforeEach(async () => {
    house = await readyApp();
    guest = move(house, 'guest');
    helper = move(house, 'helper');
  });

  it('counts loads in their own name, takes back their own, and nothing else', async () => {
    const { body: own } = await as(guest, 'entries', load()).expect(201);
    expect(own.author).toBe(guest.person.id);
    const { body: other } = await as(helper, 'entries', { ...load(), author: 'forged' }).expect(
      201,
    );
    expect(other.author).toBe(helper.person.id);
    await as(guest, `entries/${other.id}/undo`).expect(403);
    await as(guest, `entries/${own.id}/undo`).expect(201);
    await as(guest, 'entries', { ...load(), kind: 'note', note: 'x' }).expect(403);
  });

  it('reports trouble, and does not write in what others look into', async () => {
    const one = news();
    await as(guest, 'cases', one).expect(201);
    await as(guest, 'cases', news(one.id)).expect(403);
    await as(guest, 'cases', news(one.id.toUpperCase())).expect(403);
    await as(guest, 'cases', news(`urn:uuid:${one.id}`)).expect(403);
    await as(helper, 'cases', news(one.id)).expect(200);
  });

  it('is named by every kind of work that is recorded', async () => {
    const { body: visit } = await as(helper, 'runs', {
      tasks: [{ machineId: house.washer.id, task: 'gasket-folds' }],
    }).expect(201);
    expect(visit.state).toBe('active');
    const { body: done } = await as(helper, `runs/${visit.id}/finish`).expect(200);
    for (const { author } of done.entries) expect(author).toBe(helper.person.id);
  });
});
