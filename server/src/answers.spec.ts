import { dayOf, INSTRUMENTS, type CaseNews, type Machine } from '@needlecase/core';
import { STAND_IN_BROKER } from '@needlecase/core/model/stand-ins';
import Ajv from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import { randomUUID } from 'node:crypto';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { deflateRawSync } from 'node:zlib';
import { join } from 'node:path';
import request, { type Response } from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { HOUSEHOLD } from '../../demo/household.js';
import { makeApp, type App } from './app.js';
import { openDatabase } from './db/open.js';
import { answerSchema, openApi } from './http/openapi.js';
import type { Route } from './http/route.js';
import { StandInPlug } from './meters/stand-in-plug.js';
import { Authenticator } from './testing/authenticator.js';
import { move } from './testing/people.js';
import { putPaper } from './testing/full-house.js';
import { meterLoad } from './testing/household.js';
import { fillDemo } from './work/demo.js';

/*
 * Every route is asked on the demo household, and what it really answers is held against the schema that the
 * OpenAPI document gives for it. A route that nobody asks here fails.
 */

let app: App;
let api: ReturnType<typeof request>;
let machine: Machine;
const ajv = new Ajv.default({ strict: false, discriminator: true });
addFormats.default(ajv);

let folder: string;
let plug: StandInPlug;
beforeAll(async () => {
  plug = await StandInPlug.open();
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  const file = join(folder, 'house.sqlite');
  const keeping = { file, folder: join(folder, 'kept'), now: Date.now, failed: console.error };
  app = makeApp(openDatabase(file), {
    keeping,
    plug,
    reach: () => ({ port: 1, open: true, host: 'needlecase.local' }),
  });
  api = request(app.express);
  app.store.write(() => fillDemo(app.store, dayOf(Date.now(), HOUSEHOLD.zone)));
  machine = app.store.machines.list()[0]!;
  const { components } = openApi(app.routes) as { components: object };
  ajv.addSchema({ $id: 'document', components });
});

afterAll(async () => {
  app.brokers.close();
  await plug.close();
  app.store.close();
  rmSync(folder, { recursive: true, force: true });
});

type Asked = () => PromiseLike<Response>;
const now = () => new Date().toISOString();
const post = (path: string, body?: object) => api.post(`/api/v1/${path}`).send(body);
const get = (path: string) => api.get(`/api/v1/${path}`);
const noted = async () => (await post('entries', { kind: 'note', note: 'x', at: now() })).body.id;
const paper = async () => (await putPaper(api, machine.id)).body.id as string;
const visit = async () =>
  (await post('runs', { tasks: [{ machineId: machine.id, task: 'pump-filter' }] })).body;
const finished = async () => {
  const { id } = await visit();
  await post(`runs/${id}/finish`);
  return id as string;
};
const again = async (path: string) => {
  const { id: _id, version, ...draft } = (await get(path)).body;
  return api.put(`/api/v1/${path}`).set('If-Match', `"${version}"`).send(draft);
};
const sheet = () => app.store.codeSheets.list()[0]!;
const run = () => app.store.ventRuns.list()[0]!;
const supply = () => app.store.supplies.list()[0]!;
const news = (): CaseNews => ({
  id: randomUUID(),
  machineId: machine.id,
  events: [
    { id: randomUUID(), at: now(), kind: 'answer', finding: 'drains-slowly', answer: 'yes' },
  ],
});

const calendarOf = (name: string) =>
  [
    ...['BEGIN:VCALENDAR', 'VERSION:2.0', `X-WR-CALNAME:${name}`, 'BEGIN:VEVENT', 'UID:1'],
    ...['DTSTART;VALUE=DATE:20270306', 'END:VEVENT', 'END:VCALENDAR'],
  ].join('\r\n');
const readIn = (name: string) =>
  api.post('/api/v1/busy').set('Content-Type', 'text/calendar').send(calendarOf(name));

/** Loads with a pause in the middle, by their entries. */
const loadsAt = async (...from: string[]): Promise<string[]> => {
  const minutes = Buffer.alloc(2880);
  for (let m = 0; m < 1440; m++) minutes.writeUInt16LE(m % 30 < 5 ? 1 : 300, 2 * m);
  const day = { day: from[0]!.slice(0, 10), minutes: deflateRawSync(minutes).toString('base64') };
  const loads = from.map((at) => meterLoad(at));
  return (await post(`machines/${machine.id}/meter`, { loads, days: [day] })).body.ids;
};
const meter = () => post('meters', { name: 'Plug', machineId: machine.id });
const STOOD_IN = {
  ...{ broker: STAND_IN_BROKER, topic: 'plug', figure: '/power', instant: '/at', unit: 'W' },
};

/** A mail server that is not there. */
const MAIL = { host: '127.0.0.1', port: 1, secure: false, from: 'needlecase@house.invalid' };
const written = async (address: string) =>
  (await post('mail/recipients', { address, weekday: 5 })).body.id as string;

const picked = async () => {
  const { name } = (await post('backups')).body;
  return post('backups/pick', { name });
};

/** How each address is asked; the instruments are asked in instruments.spec.ts. */
let oldNotes = 0;
/** A line of old notes, another each time. */
const OLD_NOTE = () => ({
  written: `line ${++oldNotes}`,
  entry: {
    kind: 'note',
    machineId: machine.id,
    at: '2024-03-05T10:00:00.000Z',
    note: 'From the old book',
  },
});
const ASKED: Record<string, Asked> = {
  'post /api/v1/setup': () =>
    request(makeApp(openDatabase(':memory:')).express)
      .post('/api/v1/setup')
      .send({ household: HOUSEHOLD, machines: [draftOf(machine)] }),
  'get /api/v1/household': () => get('household'),
  'put /api/v1/household': () => again('household'),
  'get /api/v1/machines': () => get('machines'),
  'post /api/v1/machines': () => post('machines', draftOf(machine)),
  'get /api/v1/machines/{id}': () => get(`machines/${machine.id}`),
  'put /api/v1/machines/{id}': () => again(`machines/${machine.id}`),
  'delete /api/v1/machines/{id}': async () => {
    const { body: made } = await post('machines', { ...draftOf(machine), name: 'A mistake' });
    const { id, version } = made as { id: string; version: number };
    return api.delete(`/api/v1/machines/${id}`).set('If-Match', `"${version}"`);
  },
  'get /api/v1/bench': () => get('bench'),
  'get /api/v1/machines/{id}/line': () => get(`machines/${machine.id}/line`),
  'get /api/v1/machines/{id}/life': () => get(`machines/${machine.id}/life`),
  'get /api/v1/machines/{id}/charts': () => get(`machines/${machine.id}/charts`),
  'get /api/v1/year': () => get('year'),
  'post /api/v1/old-notes': () => post('old-notes', { notes: [OLD_NOTE()] }),
  'post /api/v1/old-notes/undo': async () => {
    const { ids } = (await post('old-notes', { notes: [OLD_NOTE()] })).body;
    return post('old-notes/undo', { ids });
  },
  'get /api/v1/schools': () => get('schools'),
  'get /api/v1/hindsight': () => get('hindsight'),
  'get /api/v1/plan': () => get('plan'),
  'get /api/v1/plan/ahead': () => get('plan/ahead'),
  'get /api/v1/plan/problem': () => get('plan/problem?school=often&minutes=45&weekdays=67'),
  'put /api/v1/plan/visits/{id}': async () => {
    const { visits } = (await get('plan')).body;
    const { id, version } = visits.at(-1);
    return api
      .put(`/api/v1/plan/visits/${id}`)
      .set('If-Match', `"${version}"`)
      .send({ held: true, who: 'Odo' });
  },
  'put /api/v1/plan/rhythms': () =>
    api.put('/api/v1/plan/rhythms').send({
      rhythms: [{ machineId: machine.id, task: 'pump-filter', every: 90, unit: 'loads' }],
    }),
  'get /api/v1/mail': () => get('mail'),
  'put /api/v1/mail/server': () => api.put('/api/v1/mail/server').send(MAIL),
  'delete /api/v1/mail/server': () => api.delete('/api/v1/mail/server'),
  'post /api/v1/mail/recipients': () =>
    post('mail/recipients', { address: 'odo@house.invalid', weekday: 5 }),
  'delete /api/v1/mail/recipients/{id}': async () =>
    api.delete(`/api/v1/mail/recipients/${await written('x@house.invalid')}`),
  'post /api/v1/mail/recipients/{id}/letter': async () => {
    await api.put('/api/v1/mail/server').send(MAIL);
    return post(`mail/recipients/${await written('y@house.invalid')}/letter`);
  },
  'get /api/v1/feeds': () => get('feeds'),
  'post /api/v1/feeds': () => post('feeds', { name: 'x', evening: true, begins: false }),
  'delete /api/v1/feeds/{id}': async () => {
    const { id } = (await post('feeds', { name: 'y', evening: false, begins: false })).body;
    return api.delete(`/api/v1/feeds/${id}`);
  },
  'get /api/v1/busy': () => get('busy'),
  'post /api/v1/busy': () => readIn('Work'),
  'post /api/v1/busy/address': async () => {
    const there = createServer((_request, response) => response.end(calendarOf('Far')));
    await new Promise<void>((done) => there.listen(0, '127.0.0.1', () => done()));
    const { port } = there.address() as AddressInfo;
    const answer = await post('busy/address', {
      address: `http://127.0.0.1:${port}/`,
      atHome: true,
    });
    there.close();
    return answer;
  },
  'delete /api/v1/busy/{id}': async () =>
    api.delete(`/api/v1/busy/${(await readIn('Other')).body.id}`),
  'get /api/v1/absences': () => get('absences'),
  'post /api/v1/absences': () => post('absences', { from: '2031-02-01', to: '2031-02-09' }),
  'put /api/v1/absences/{id}': () => {
    const { id, version, ...draft } = app.store.absences.list()[0]!;
    return api.put(`/api/v1/absences/${id}`).set('If-Match', `"${version}"`).send(draft);
  },
  'delete /api/v1/absences/{id}': async () => {
    const { id, version } = app.store.absences.list()[0]!;
    return api.delete(`/api/v1/absences/${id}`).set('If-Match', `"${version}"`);
  },
  'get /api/v1/entries': () => get('entries?limit=200&all=true'),
  'post /api/v1/entries': () => post('entries', { kind: 'note', note: 'x', at: now() }),
  'post /api/v1/entries/{id}/revision': async () =>
    post(`entries/${await noted()}/revision`, { kind: 'note', note: 'y', at: now() }),
  'post /api/v1/entries/{id}/undo': async () => post(`entries/${await noted()}/undo`),
  'post /api/v1/entries/{id}/restore': async () => {
    const id = await noted();
    await post(`entries/${id}/undo`);
    return post(`entries/${id}/restore`);
  },
  'get /api/v1/runs': async () => {
    await visit();
    return get('runs');
  },
  'post /api/v1/runs': () =>
    post('runs', { tasks: [{ machineId: machine.id, task: 'dispenser' }] }),
  'get /api/v1/runs/{id}': async () => get(`runs/${(await visit()).id}`),
  'patch /api/v1/runs/{id}': async () =>
    api
      .patch(`/api/v1/runs/${(await visit()).id}`)
      .set('If-Match', '"1"')
      .send({ state: 'paused' }),
  'post /api/v1/runs/{id}/finish': async () => post(`runs/${(await visit()).id}/finish`),
  'post /api/v1/runs/{id}/undo': async () => post(`runs/${await finished()}/undo`),
  'get /api/v1/supplies': () => get('supplies'),
  'post /api/v1/supplies': () =>
    post('supplies', { item: 'own-1', name: 'Pads', unit: 'pieces', pack: 10 }),
  'put /api/v1/supplies/{id}': () => {
    const { id, version, ...draft } = supply();
    return api.put(`/api/v1/supplies/${id}`).set('If-Match', `"${version}"`).send(draft);
  },
  'get /api/v1/machines/{id}/trouble': () => get(`machines/${machine.id}/trouble`),
  'get /api/v1/trouble/likely': () => get('trouble/likely'),
  'post /api/v1/trouble/suspects': () =>
    post('trouble/suspects', { machineId: machine.id, answers: { 'drains-slowly': 'yes' } }),
  'get /api/v1/cases': () => get('cases'),
  'get /api/v1/cases/{id}': () => get(`cases/${app.store.cases.list()[0]!.id}`),
  'post /api/v1/cases': () => post('cases', news()),
  'get /api/v1/code-sheets': () => get('code-sheets'),
  'get /api/v1/code-sheet.schema.json': () => get('code-sheet.schema.json'),
  'post /api/v1/code-sheets': () => post('code-sheets', { ...bare(sheet()), family: 'Another' }),
  'put /api/v1/code-sheets/{id}': () =>
    api
      .put(`/api/v1/code-sheets/${sheet().id}`)
      .set('If-Match', `"${sheet().version}"`)
      .send(bare(sheet())),
  'delete /api/v1/code-sheets/{id}': () =>
    api.delete(`/api/v1/code-sheets/${sheet().id}`).set('If-Match', `"${sheet().version}"`),
  'get /api/v1/machines/{id}/meter': () => get(`machines/${machine.id}/meter`),
  'post /api/v1/machines/{id}/meter': () =>
    post(`machines/${machine.id}/meter`, {
      loads: [meterLoad('2026-03-02T08:00:00.000Z')],
      days: [],
    }),
  'post /api/v1/machines/{id}/meter/undo': () =>
    post(`machines/${machine.id}/meter/undo`, { ids: [randomUUID()] }),
  'post /api/v1/machines/{id}/meter/join': async () => {
    const ids = await loadsAt('2026-03-04T08:00:00.000Z', '2026-03-04T09:20:00.000Z');
    return post(`machines/${machine.id}/meter/join`, { ids });
  },
  'post /api/v1/machines/{id}/meter/part': async () => {
    const [id] = await loadsAt('2026-03-05T08:00:00.000Z');
    return post(`machines/${machine.id}/meter/part`, { id });
  },
  'post /api/v1/machines/{id}/meter/name': async () => {
    const [id] = await loadsAt('2026-03-06T08:00:00.000Z');
    return post(`machines/${machine.id}/meter/name`, { id, name: 'Cotton 60' });
  },
  'get /api/v1/meters': async () => {
    await meter();
    return get('meters');
  },
  'post /api/v1/meters': () => meter(),
  'put /api/v1/meters/{id}': async () => {
    const { id, version } = (await meter()).body;
    return api
      .put(`/api/v1/meters/${id}`)
      .set('If-Match', `"${version}"`)
      .send({ name: 'Plug', machineId: machine.id, mqtt: STOOD_IN });
  },
  'delete /api/v1/meters/{id}': async () => api.delete(`/api/v1/meters/${(await meter()).body.id}`),
  'post /api/v1/meters/{id}/token': async () => post(`meters/${(await meter()).body.id}/token`, {}),
  'post /api/v1/meters/{id}/samples': async () =>
    post(`meters/${(await meter()).body.id}/samples`, [{ at: now(), watts: 5 }]),
  'post /api/v1/meters/{id}/stand-in': async () => {
    const draft = { name: 'Plug', machineId: machine.id, mqtt: STOOD_IN };
    const { id } = (await post('meters', draft)).body;
    return post(`meters/${id}/stand-in`, { programme: 'cotton', speed: 60 });
  },
  'get /api/v1/documents': async () => {
    await paper();
    return get('documents');
  },
  'put /api/v1/documents/{id}/file': () => putPaper(api, machine.id),
  'put /api/v1/documents/{id}': async () =>
    api
      .put(`/api/v1/documents/${await paper()}`)
      .set('If-Match', '"1"')
      .send({ machineId: machine.id, kind: 'receipt', name: 'Receipt' }),
  'delete /api/v1/documents/{id}': async () =>
    api.delete(`/api/v1/documents/${await paper()}`).set('If-Match', '"1"'),
  'get /api/v1/vent-runs': () => get('vent-runs'),
  'post /api/v1/vent-runs': () => post('vent-runs', bare(run())),
  'put /api/v1/vent-runs/{id}': () =>
    api
      .put(`/api/v1/vent-runs/${run().id}`)
      .set('If-Match', `"${run().version}"`)
      .send(bare(run())),
  'delete /api/v1/vent-runs/{id}': () =>
    api.delete(`/api/v1/vent-runs/${run().id}`).set('If-Match', `"${run().version}"`),
  'get /api/v1/backups': () => get('backups'),
  'post /api/v1/backups': () => post('backups'),
  'post /api/v1/backups/look': async () => {
    const { name } = (await post('backups')).body;
    const zip = readFileSync(join(folder, 'kept', name));
    return api.post('/api/v1/backups/look').set('Content-Type', 'application/zip').send(zip);
  },
  'post /api/v1/backups/pick': picked,
  'post /api/v1/restore': async () => {
    const { id } = (await picked()).body;
    return post('restore', { id, how: 'replace' });
  },
};

/** Somebody who may do everything, and as whom it is asked from then on. */
let someone: ReturnType<typeof move> | undefined;
const as = (method: 'get' | 'post' | 'put' | 'delete', path: string, body?: object) => {
  someone ??= move(app, 'keeper');
  return api[method](`/api/v1/${path}`).set('Cookie', someone.cookie).send(body);
};
/** As asked by a name: a passkey belongs to one. */
const byName = (method: 'get' | 'post' | 'delete', path: string, body?: object) =>
  as(method, path, body).set('Host', 'localhost:1');
async function passkey(key = new Authenticator('http://localhost:1')): Promise<Response> {
  const { body } = await byName('post', 'passkeys/options', {});
  return byName('post', 'passkeys', { name: 'x', answer: key.made(body.challenge) });
}
const PHRASE = { passphrase: 'four words of a house' };
const PERSON = { thread: 'moss', role: 'helper' };
const LINK = () => ({ shows: 'machine', target: machine.id, forWhom: 'The landlord' });
/** What a device sent after it was taken out. */
async function aside(): Promise<string> {
  const gone = move(app, 'helper', `Gone ${randomUUID().slice(0, 8)}`);
  app.access.devices.revoke(gone.device.id);
  await post('entries', { id: randomUUID(), kind: 'note', note: 'x', at: now() })
    .set('Cookie', gone.cookie)
    .expect(401);
  return app.access.aside.list().at(-1)!.id;
}
Object.assign(ASKED, {
  'get /api/v1/health': () => get('health'),
  'get /api/v1/ready': () => get('ready'),
  'get /api/v1/me': () => get('me'),
  'get /api/v1/about': () => get('about'),
  'get /api/v1/shares': () => as('get', 'shares'),
  'post /api/v1/pair': async () => {
    const { code } = (await post('codes', {})).body;
    return post('pair', { code, device: 'A phone' });
  },
  'post /api/v1/sign-in': async () => {
    const [{ id, name }] = (await as('get', 'persons')).body;
    await as('put', `persons/${id}/passphrase`, PHRASE);
    return post('sign-in', { name, ...PHRASE, device: 'Shared computer' });
  },
  'post /api/v1/sign-out': () => post('sign-out', {}),
  'get /api/v1/persons': () => as('get', 'persons'),
  'post /api/v1/persons': () => as('post', 'persons', { ...PERSON, name: 'Ilse' }),
  'put /api/v1/persons/{id}': async () => {
    const { id } = (await as('post', 'persons', { ...PERSON, name: 'Jon' })).body;
    return as('put', `persons/${id}`, { ...PERSON, name: 'Jonas' }).set('If-Match', '"1"');
  },
  'delete /api/v1/persons/{id}': async () => {
    const { id } = (await as('post', 'persons', { ...PERSON, name: 'Kai' })).body;
    return as('delete', `persons/${id}`);
  },
  'put /api/v1/persons/{id}/passphrase': () =>
    as('put', `persons/${someone!.person.id}/passphrase`, PHRASE),
  'delete /api/v1/persons/{id}/passphrase': () =>
    as('delete', `persons/${someone!.person.id}/passphrase`),
  'post /api/v1/codes': () => as('post', 'codes', {}),
  'post /api/v1/move': () => as('post', 'move'),
  'get /api/v1/devices': () => as('get', 'devices'),
  'delete /api/v1/devices/{id}': async () => {
    const other = move(app, 'guest', 'Mika');
    return as('delete', `devices/${other.device.id}`);
  },
  'get /api/v1/tokens': () => as('get', 'tokens'),
  'post /api/v1/tokens': () => as('post', 'tokens', { name: 'A script', scopes: ['entries:read'] }),
  'delete /api/v1/tokens/{id}': async () => {
    const { id } = (await as('post', 'tokens', { name: 'Old', scopes: ['entries:read'] })).body;
    return as('delete', `tokens/${id}`);
  },
  'get /api/v1/links': () => as('get', 'links'),
  'post /api/v1/links': () => as('post', 'links', LINK()),
  'delete /api/v1/links/{id}': async () =>
    as('delete', `links/${(await as('post', 'links', LINK())).body.id}`),
  'get /api/v1/access-events': () => as('get', 'access-events'),
  'get /api/v1/addresses': () => as('get', 'addresses'),
  'put /api/v1/address': () => as('put', 'address', { host: 'needlecase.local' }),
  'get /api/v1/passkeys': async () => {
    await passkey();
    return byName('get', 'passkeys');
  },
  'post /api/v1/passkeys/options': () => byName('post', 'passkeys/options', {}),
  'post /api/v1/passkeys': () => passkey(),
  'delete /api/v1/passkeys/{id}': async () =>
    byName('delete', `passkeys/${(await passkey()).body.id}`),
  'post /api/v1/sign-in/options': () => byName('post', 'sign-in/options', {}),
  'post /api/v1/sign-in/passkey': async () => {
    const key = new Authenticator('http://localhost:1');
    await passkey(key);
    const { body } = await byName('post', 'sign-in/options', {});
    return byName('post', 'sign-in/passkey', { device: 'x', answer: key.let(body.challenge) });
  },
  'get /api/v1/set-aside': async () => {
    await aside();
    return as('get', 'set-aside');
  },
  'post /api/v1/set-aside/{id}/take': async () => as('post', `set-aside/${await aside()}/take`),
  'delete /api/v1/set-aside/{id}': async () => as('delete', `set-aside/${await aside()}`),
} satisfies Record<string, Asked>);

/** Files are looked into elsewhere. */
const FILES = ['photo', '.pdf', '.zip', '.ics', '.csv', '/record.'];

function bare<T extends { id: string; version: number }>(record: T): Omit<T, 'id' | 'version'> {
  const { id: _id, version: _version, ...rest } = record;
  return rest;
}
const draftOf = (one: Machine) => bare(one);

const nameOf = ({ method, path }: Route): string => `${method} ${path}`;
const known = makeApp(openDatabase(':memory:')).routes;

describe('every address of the API', () => {
  const asked = known.filter(
    ({ path, gives }) =>
      !path.startsWith('/api/v1/instruments/') &&
      !FILES.some((part) => path.includes(part)) &&
      !(gives && path.endsWith('/file')),
  );

  it('is asked here', () => {
    expect(asked.map(nameOf).sort()).toEqual(Object.keys(ASKED).sort());
    const instruments = known.filter(({ path }) => path.startsWith('/api/v1/instruments/'));
    expect(instruments).toHaveLength(INSTRUMENTS.length);
  });

  it.each(asked.map((route) => [nameOf(route), route] as const))(
    '%s answers what its schema says',
    async (name, route) => {
      const answer = await ASKED[name]!();
      expect(answer.status, JSON.stringify(answer.body).slice(0, 300)).toBeLessThan(300);
      const { $ref: ref, ...schema } = answerSchema(route) as { $ref?: string };
      const right = ajv.compile(ref === undefined ? schema : { $ref: `document${ref}` });
      right(answer.body);
      expect(right.errors ?? []).toEqual([]);
    },
  );
});
