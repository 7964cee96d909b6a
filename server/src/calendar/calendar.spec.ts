import { dayOf, plusDays } from '@needlecase/core';
import type { PlannedVisitView, PlanView } from '@needlecase/core/views/plan';
import ICAL from 'ical.js';
import { createServer, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { HOUSEHOLD } from '../../../demo/household.js';
import { makeApp, type App } from '../app.js';
import { openDatabase } from '../db/open.js';
import { fillDemo } from '../work/demo.js';
import { busyDays } from './read.js';
import { writeCalendar } from './write.js';

let app: App;
let api: ReturnType<typeof request>;
beforeAll(() => {
  app = makeApp(openDatabase(':memory:'));
  api = request(app.express);
  app.store.write(() => fillDemo(app.store, dayOf(Date.now(), HOUSEHOLD.zone)));
});

const plan = async (): Promise<PlanView> => (await api.get('/api/v1/plan').expect(200)).body;
const feed = async (more: object = {}) =>
  (
    await api
      .post('/api/v1/feeds')
      .send({ name: 'Wren’s phone', evening: true, begins: true, ...more })
      .expect(201)
  ).body as { id: string; address: string };
const pathOf = (address: string) => new URL(address).pathname;
const read = async (address: string): Promise<string> =>
  (await api.get(pathOf(address)).expect(200)).text;

/** As an outside parser reads it (ical.js, of the makers of a well-known calendar program). */
function events(text: string) {
  const calendar = new ICAL.Component(ICAL.parse(text) as unknown[]);
  for (const zone of calendar.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(zone);
  return calendar.getAllSubcomponents('vevent').map((component) => {
    const event = new ICAL.Event(component);
    return {
      component,
      uid: event.uid,
      sequence: event.sequence,
      summary: event.summary,
      description: event.description,
      start: event.startDate,
      end: event.endDate,
      status: component.getFirstPropertyValue('status'),
      alarms: component.getAllSubcomponents('valarm'),
    };
  });
}

describe('the calendar that programs read', () => {
  it('holds each visit once, at its time in the household’s zone, with reminders', async () => {
    const view = await plan();
    const { address } = await feed();
    const all = events(await read(address));
    expect(all).toHaveLength(view.visits.length + view.away.length);
    expect(new Set(all.map(({ uid }) => uid)).size).toBe(all.length);
    for (const visit of view.visits) {
      const { start, end, sequence, alarms, description } = all.find(
        ({ uid }) => uid === visit.id,
      )!;
      expect(start.toString()).toBe(`${visit.day}T10:00:00`);
      expect(start.zone.tzid).toBe('Europe/Vienna');
      expect(end.subtractDate(start).toSeconds() / 60).toBe(Math.max(15, visit.minutes));
      expect(sequence).toBe(visit.version - 1);
      expect(alarms).toHaveLength(2);
      for (const { name } of visit.tasks) expect(description).toContain(name);
    }
  });

  it('has every line of 75 octets at most, and names outside of ASCII whole', async () => {
    const household = app.store.household.get()!;
    const { id, version, ...draft } = household;
    const name = 'Größe & Æther; «кухня», 洗濯';
    app.store.write(() => app.store.household.replace(id, version, { ...draft, name }));
    const text = await read((await feed()).address);
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    const calendar = new ICAL.Component(ICAL.parse(text) as unknown[]);
    expect(calendar.getFirstPropertyValue('x-wr-calname')).toBe(`${name}: laundry care`);
    expect(text).toMatch(/^DTSTAMP:\d{8}T\d{6}Z\r$/m);
    expect(text).not.toMatch(/^(DTSTAMP|LAST-MODIFIED):\d{8}T\d{6}\r$/m);
  });

  it('tells the hour right on both sides of both changes of the clock', async () => {
    const view = await plan();
    const days = ['2027-03-27', '2027-03-28', '2027-10-30', '2027-10-31'];
    const [visit] = view.visits;
    const visits = days.map((day, i): PlannedVisitView => ({ ...visit!, id: `v${i}`, day }));
    const changed = new Map(visits.map(({ id }) => [id, '2026-11-27T10:00:00Z']));
    const text = writeCalendar({
      view: { ...view, visits, away: [] },
      ...{ address: 'http://house.test', changed, reminders: { evening: true, begins: false } },
    });
    // Central European time: UTC+1 until the last Sunday of March and from that of October on.
    const utc = events(text).map(({ start }) => new Date(start.toUnixTime() * 1000).toISOString());
    expect(utc).toEqual([
      '2027-03-27T09:00:00.000Z',
      '2027-03-28T08:00:00.000Z',
      '2027-10-30T08:00:00.000Z',
      '2027-10-31T09:00:00.000Z',
    ]);
  });

  it('keeps a visit’s name over a move, a giving and a leaving out, and numbers it higher', async () => {
    const { address } = await feed();
    const view = await plan();
    const { id } = view.visits.find(
      ({ day, window, tasks }) =>
        window && day > plusDays(view.start, 60) && tasks.every(({ safety }) => !safety),
    )!;
    const seen: number[] = [];
    const look = async () => {
      const one = events(await read(address)).find(({ uid }) => uid === id)!;
      seen.push(one.sequence);
      return one;
    };
    const change = async (body: object) => {
      const visit = (await plan()).visits.find((one) => one.id === id)!;
      await api
        .put(`/api/v1/plan/visits/${id}`)
        .set('If-Match', `"${visit.version}"`)
        .send(body)
        .expect(200);
    };
    await look();
    const visit = (await plan()).visits.find((one) => one.id === id)!;
    const day = plusDays(visit.day, 1);
    await change({ day });
    expect((await look()).start.toString()).toBe(`${day}T10:00:00`);
    await change({ who: 'Odo' });
    await look();
    await change({ skipped: 'No water' });
    const out = await look();
    expect(out.status).toBe('CANCELLED');
    expect(out.description).toContain('No water');
    expect(seen).toEqual([...seen].sort((a, b) => a - b));
    expect(new Set(seen).size).toBe(seen.length);
  });

  it('is asked in vain where nothing changed, and is gone when it is taken back', async () => {
    const { id, address } = await feed();
    const path = pathOf(address);
    // Each asking of a test has a port of its own, which its links would name.
    const ask = () => api.get(path).set('Host', 'localhost:8080');
    const first = await ask().expect(200);
    expect(first.headers['content-type']).toBe('text/calendar; charset=utf-8');
    await ask().set('If-None-Match', first.headers['etag']!).expect(304);
    await ask().set('If-None-Match', '"other"').expect(200);
    await api.get(path.replace(/.\.ics$/, 'x.ics')).expect(404);
    await api.delete(`/api/v1/feeds/${id}`).expect(200);
    await api.get(path).expect(404);
    await api.get(path).set('If-None-Match', first.headers['etag']!).expect(404);
  });

  it('tells one person’s visits where that is asked for, and never its secret again', async () => {
    const { address } = await feed({ who: 'Odo', evening: false, begins: false });
    const view = await plan();
    const all = events(await read(address)).filter(({ summary }) => /: /.test(summary));
    const odos = view.visits.filter(({ who }) => who === 'Odo').map(({ id }) => id);
    expect(odos.length).toBeGreaterThan(3);
    expect(all.flatMap(({ alarms }) => alarms)).toEqual([]);
    for (const uid of odos) expect(all.some((one) => one.uid === uid)).toBe(true);
    for (const { id, who } of view.visits) {
      if (who !== 'Odo') expect(all.some((one) => one.uid === id)).toBe(false);
    }
    const list = (await api.get('/api/v1/feeds')).text;
    expect(list).not.toContain(address.split('/').at(-1)!.replace('.ics', ''));
  });

  it('hands out a single visit', async () => {
    const { visits } = await plan();
    const { text } = await api.get(`/api/v1/plan/visits/${visits[0]!.id}/visit.ics`).expect(200);
    expect(events(text).map(({ uid }) => uid)).toEqual([visits[0]!.id]);
  });
});

const calendar = (...lines: string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR'].join('\r\n');
const event = (...lines: string[]) =>
  calendar('BEGIN:VEVENT', 'UID:1', 'DTSTAMP:20261127T000000Z', ...lines, 'END:VEVENT');
const days = (text: string) => busyDays(text, '2026-11-27', '2027-11-21', 'Europe/Vienna');

describe('a calendar that is read in', () => {
  it('closes whole days, and such as are taken for four hours', () => {
    expect(days(event('DTSTART;VALUE=DATE:20261224', 'DTEND;VALUE=DATE:20261227'))).toEqual([
      '2026-12-24',
      '2026-12-25',
      '2026-12-26',
    ]);
    expect(days(event('DTSTART:20270306T080000Z', 'DTEND:20270306T130000Z'))).toEqual([
      '2027-03-06',
    ]);
    expect(days(event('DTSTART:20270306T080000Z', 'DTEND:20270306T100000Z'))).toEqual([]);
  });

  it('goes by the household’s days, wherever the event was made', () => {
    // From 23:00 to 04:00 in Vienna: an hour of one day, four of the next.
    expect(days(event('DTSTART:20270306T220000Z', 'DTEND:20270307T030000Z'))).toEqual([
      '2027-03-07',
    ]);
  });

  it('follows what comes again, also since 1970', () => {
    const weekly = event('DTSTART;VALUE=DATE:19700103', 'RRULE:FREQ=WEEKLY;BYDAY=SA');
    const found = days(weekly);
    expect(found).toHaveLength(52);
    for (const day of found) expect(new Date(`${day}T12:00:00Z`).getUTCDay()).toBe(6);
    expect(days(event('DTSTART;VALUE=DATE:19700101', 'RRULE:FREQ=DAILY;COUNT=400'))).toEqual([]);
  });

  it('passes over what was cancelled, and over what takes no time', () => {
    const at = ['DTSTART:20270306T080000Z', 'DTEND:20270306T150000Z'];
    expect(days(event(...at, 'STATUS:CANCELLED'))).toEqual([]);
    expect(days(event(...at, 'TRANSP:TRANSPARENT'))).toEqual([]);
  });

  it.each([
    ['nonsense', 'nonsense'],
    ['nothing', ''],
    ['a card', 'BEGIN:VCARD\r\nFN:x\r\nEND:VCARD'],
    ['an event each second since 1970', event('DTSTART:19700101T000000Z', 'RRULE:FREQ=SECONDLY')],
    ['a day that is none', event('DTSTART:20271399T990000Z', 'RRULE:FREQ=DAILY;UNTIL=x')],
  ])('of %s is refused beside its field, and nothing is stored', async (_what, text) => {
    const before = app.store.busy.list();
    const { body } = await api
      .post('/api/v1/busy')
      .set('Content-Type', 'text/calendar')
      .send(text || ' ')
      .expect(422);
    expect(body.errors[0].field).toBe('calendar');
    expect(app.store.busy.list()).toEqual(before);
  });

  it('of 50 MB is refused before it is read', async () => {
    const { body } = await api
      .post('/api/v1/busy')
      .set('Content-Type', 'text/calendar')
      .send(`BEGIN:VCALENDAR\r\n${'X'.repeat(50_000_000)}`)
      .expect(413);
    expect(body.title).toBeTruthy();
  });

  it('keeps visits off its days, and takes the place of the one read in before', async () => {
    const view = await plan();
    const visit = view.visits.find(
      ({ day, tasks, held, done }) =>
        !done && !held && day > plusDays(view.start, 70) && tasks.every(({ safety }) => !safety),
    )!;
    const send = (day: string) =>
      api
        .post('/api/v1/busy')
        .set('Content-Type', 'text/calendar')
        .send(
          calendar(
            'X-WR-CALNAME:Rowing',
            ...['BEGIN:VEVENT', 'UID:2', `DTSTART;VALUE=DATE:${day.replaceAll('-', '')}`],
            'END:VEVENT',
          ),
        )
        .expect(201);
    await send('20270101');
    await send(visit.day);
    expect(app.store.busy.list()).toMatchObject([
      { name: 'Rowing', days: [visit.day], version: 2 },
    ]);
    expect((await plan()).visits.some(({ day }) => day === visit.day)).toBe(false);
  });

  describe('from an address', () => {
    let server: Server;
    let address: string;
    let answer: (response: ServerResponse) => void;
    beforeAll(async () => {
      server = createServer((_request, response) => answer(response));
      await new Promise<void>((done) => server.listen(0, '127.0.0.1', () => done()));
      address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/mine.ics`;
    });
    afterAll(() => server.close());
    const read = (from: string) =>
      api.post('/api/v1/busy/address').send({ address: from, atHome: true });
    const gives = (day: string) =>
      (answer = (response) =>
        response.end(
          calendar(
            'X-WR-CALNAME:School',
            'BEGIN:VEVENT',
            'UID:3',
            `DTSTART;VALUE=DATE:${day}`,
            'END:VEVENT',
          ),
        ));

    it('is read, and again on another day; the address is told to nobody', async () => {
      gives('20270306');
      const { body, text } = await read(address).expect(201);
      expect(body.days).toEqual(['2027-03-06']);
      expect(text).not.toContain('mine.ics');
      expect((await api.get('/api/v1/busy')).text).not.toContain('mine.ics');
      gives('20270313');
      await app.busy.refresh();
      expect(app.store.busy.get(body.id)!.days).toEqual(['2027-03-06']);
      app.store.write(() =>
        app.store.busy.keep({ name: 'School', days: body.days, readOn: '2026-01-01' }),
      );
      await app.busy.refresh();
      expect(app.store.busy.get(body.id)!.days).toEqual(['2027-03-13']);
      // Where nobody answers any more, what was read stays.
      answer = (response) => response.writeHead(500).end();
      app.store.write(() =>
        app.store.busy.keep({ name: 'School', days: ['2027-03-13'], readOn: '2026-01-01' }),
      );
      await app.busy.refresh();
      expect(app.store.busy.get(body.id)!.days).toEqual(['2027-03-13']);
    });

    it.each<[string, string | undefined, (response: ServerResponse) => void]>([
      ['is none', 'ftp://house.test/x.ics', () => undefined],
      ['is of nobody', 'http://127.0.0.1:1/x.ics', () => undefined],
      ['asks to sign in', undefined, (response) => response.writeHead(401).end()],
      ['gives a page', undefined, (response) => response.end('<html>sign in</html>')],
      ['gives 3 MB', undefined, (response) => response.end('X'.repeat(3_000_000))],
    ])('that %s is refused beside its field', async (_what, from, how) => {
      answer = how;
      const before = app.store.busy.list();
      const { body } = await read(from ?? address).expect(422);
      expect(body.errors[0].field).toBe('address');
      expect(app.store.busy.list()).toEqual(before);
    });
  });
});
