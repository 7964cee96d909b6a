import { dayOf } from '@needlecase/core';
import type { Digest } from '@needlecase/core/print/digest';
import { simpleParser, type ParsedMail } from 'mailparser';
import { createServer, type AddressInfo, type Socket } from 'node:net';
import request from 'supertest';
import { SMTPServer } from 'smtp-server';
import { afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { HOUSEHOLD } from '../../../demo/household.js';
import { makeApp, type App } from '../app.js';
import { openDatabase } from '../db/open.js';
import { fillDemo } from '../work/demo.js';
import { PostOffice } from './post-office.js';
import { Postman, type News } from './postman.js';

let app: App;
let api: ReturnType<typeof request>;
beforeAll(() => {
  app = makeApp(openDatabase(':memory:'));
  api = request(app.express);
  app.store.write(() => fillDemo(app.store, dayOf(Date.now(), HOUSEHOLD.zone)));
});

const opened: (() => unknown)[] = [];
afterEach(async () => {
  for (const close of opened.splice(0)) await close();
  app.store.write(() => {
    for (const { id } of app.store.mail.list()) app.store.mail.remove(id);
  });
});

const at = (port: number) => ({
  host: '127.0.0.1',
  port,
  secure: false,
  from: 'house@loom.invalid',
});

/** A real post office on this computer; what it says of a letter may be otherwise. */
async function office(answer: { data?: Error; to?: Error } = {}) {
  const letters: ParsedMail[] = [];
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onRcptTo: (_address, _session, done) => done(answer.to ?? null),
    onData: (stream, _session, done) => {
      void simpleParser(stream).then((letter) => {
        if (!answer.data) letters.push(letter);
        done(answer.data ?? null);
      });
    },
  });
  const listener = server.listen(0, '127.0.0.1');
  await new Promise((done) => listener.once('listening', done));
  opened.push(() => new Promise<void>((done) => server.close(() => done())));
  return { letters, port: (listener.address() as AddressInfo).port };
}

/** Something that listens and speaks as it is told, or not at all. */
async function oddServer(speak: (socket: Socket) => void): Promise<number> {
  const sockets = new Set<Socket>();
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.on('error', () => undefined);
    speak(socket);
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', () => done()));
  opened.push(() => {
    for (const socket of sockets) socket.destroy();
    server.close();
  });
  return (server.address() as AddressInfo).port;
}

const letter = (stop: string): Digest => ({
  subject: 'x',
  text: `x ${stop}`,
  html: `<p>${stop}</p>`,
});
const news = (urgent = false): News => ({ urgent, address: 'http://house.test', letter });
const postman = (port: number, what = news()) =>
  new Postman(app.store, () => Promise.resolve(what), at(port), undefined, 400);
const recipient = (weekday = 5) =>
  app.store.write(() => app.store.mail.add({ address: 'odo@loom.invalid', weekday }, undefined));
const row = () => app.store.mail.list()[0]!;
/** A Friday in winter, UTC; an hour later in Vienna. */
const friday = (hour: number, minute = 0) => Date.UTC(2026, 10, 27, hour, minute);

describe('the letter of the week', () => {
  it('goes out over real SMTP, and is what a mail program reads', async () => {
    const { letters, port } = await office();
    await api.put('/api/v1/mail/server').send(at(port)).expect(200);
    const { body } = await api
      .post('/api/v1/mail/recipients')
      .send({ address: 'wren@loom.invalid', weekday: 5 })
      .expect(201);
    await api.post(`/api/v1/mail/recipients/${body.id}/letter`).expect(200);
    const [one] = letters;
    expect(letters).toHaveLength(1);
    expect(one!.from?.text).toBe('house@loom.invalid');
    expect([one!.to].flat()[0]?.text).toBe('wren@loom.invalid');
    // The demo's duct is overdue, which can hurt somebody.
    expect(one!.subject).toContain('safe');
    expect(one!.text).toContain('Brush the duct run through, Cellar dryer');
    expect(one!.html).toContain('<h2>');
    const [file] = one!.attachments;
    expect(file!.contentType).toBe('text/calendar');
    expect(file!.content.toString()).toMatch(/BEGIN:VEVENT[^]*SUMMARY/);
    const stop = /No more letters: (\S+)/.exec(one!.text!)![1]!;
    expect(one!.headers.get('list')).toMatchObject({ unsubscribe: { url: stop } });

    // One link, and it is over: only by a button, and only for who has the letter.
    const path = new URL(stop).pathname;
    await api.get(path).expect(200);
    expect(app.store.mail.get(body.id)).toBeDefined();
    await api.post(path.replace(/.$/, (last) => (last === 'A' ? 'B' : 'A'))).expect(200);
    expect(app.store.mail.get(body.id)).toBeDefined();
    await api.post(path).type('form').send('List-Unsubscribe=One-Click').expect(200);
    expect(app.store.mail.get(body.id)).toBeUndefined();
    await api.get(path).expect(404);
  });

  it('goes once a week, on its day, in the evening; what is urgent once on any day', async () => {
    const { letters, port } = await office();
    recipient();
    const weekly = postman(port);
    expect(await weekly.round(friday(15, 30))).toBe(0);
    expect(await weekly.round(friday(16, 30))).toBe(1);
    expect(await weekly.round(friday(18))).toBe(0);
    expect(await weekly.round(friday(16 + 24))).toBe(0);
    const urgent = postman(port, news(true));
    expect(await urgent.round(friday(6 + 24))).toBe(0);
    expect(await urgent.round(friday(9 + 24))).toBe(1);
    expect(await urgent.round(friday(9 + 24, 5))).toBe(0);
    expect(letters).toHaveLength(2);
  });
});

describe('a mail server', () => {
  it('that is away is told of, and tried again later and later, until the letter left once', async () => {
    recipient();
    const { letters, port } = await office();
    const gone = postman(1);
    expect(await gone.round(friday(17))).toBe(0);
    expect(row()).toMatchObject({ problem: 'The mail server cannot be reached.', tries: 1 });
    expect(row().sentOn).toBeNull();
    expect(await gone.round(friday(17, 4))).toBe(0);
    expect(row().tries).toBe(1);
    expect(await gone.round(friday(17, 6))).toBe(0);
    expect(row().tries).toBe(2);
    const there = postman(port);
    expect(await there.round(friday(17, 10))).toBe(0);
    expect(await there.round(friday(17, 20))).toBe(1);
    expect(await there.round(friday(17, 40))).toBe(0);
    expect(row()).toMatchObject({ problem: null, tries: 0, sentOn: '2026-11-27' });
    expect(letters).toHaveLength(1);
  });

  it.each([
    ['that refuses the letter', { data: Object.assign(new Error('no'), { responseCode: 554 }) }],
    ['that refuses the address', { to: Object.assign(new Error('no'), { responseCode: 550 }) }],
  ])('%s is told of with its number', async (_what, answer) => {
    const { port, letters } = await office(answer);
    recipient();
    expect(await postman(port).round(friday(17))).toBe(0);
    expect(row().problem).toMatch(/refused the letter \(55[04]\)/);
    expect(row().sentOn).toBeNull();
    expect(letters).toEqual([]);
  });

  it('that hangs keeps nobody waiting', async () => {
    const port = await oddServer(() => undefined);
    recipient();
    const begun = Date.now();
    expect(await postman(port).round(friday(17))).toBe(0);
    expect(Date.now() - begun).toBeLessThan(3000);
    expect(row().problem).toMatch(/does not answer|cannot be reached/);
    expect(row().sentOn).toBeNull();
  });

  it('that breaks off while the letter is handed over is not tried again: it may have arrived', async () => {
    let handed = 0;
    const port = await oddServer((socket) => {
      socket.write('220 hello\r\n');
      let data = false;
      socket.on('data', (piece: Buffer) => {
        const said = piece.toString();
        if (data) {
          if (!said.includes('\r\n.\r\n')) return;
          handed++;
          return void socket.destroy();
        }
        if (/^DATA/m.test(said)) {
          data = true;
          return void socket.write('354 go on\r\n');
        }
        socket.write('250 ok\r\n');
      });
    });
    recipient();
    const one = postman(port);
    expect(await one.round(friday(17))).toBe(0);
    expect(handed).toBe(1);
    expect(row().problem).toContain('may not have arrived');
    expect(row().sentOn).toBe('2026-11-27');
    expect(await one.round(friday(18))).toBe(0);
    expect(await one.round(friday(21))).toBe(0);
    expect(handed).toBe(1);
  });

  it('is never asked twice for the same letter, though two rounds begin at once', async () => {
    const { letters, port } = await office();
    recipient();
    const one = postman(port);
    await Promise.all([one.round(friday(17)), one.round(friday(17)), one.round(friday(17))]);
    expect(letters).toHaveLength(1);
  });

  it('is not told what lets it in, nor is anybody who asks', async () => {
    await api
      .put('/api/v1/mail/server')
      .send({ ...at(25), user: 'odo', password: 'hush-hush' })
      .expect(200);
    const { text } = await api.get('/api/v1/mail').expect(200);
    expect(text).not.toContain('hush-hush');
    expect(JSON.parse(text).server.password).toBe(true);
    // Changed without a password, the one before stays.
    await api.put('/api/v1/mail/server').send({ ...at(26), user: 'odo' });
    expect(app.store.mail.server?.password).toBe('hush-hush');
  });
});

describe('what is wrong', () => {
  beforeEach(() => {
    recipient();
  });
  it.each([
    ['server', { ...at(0) }, 'port'],
    ['server', { ...at(25), host: 'mail example' }, 'host'],
    ['server', { ...at(25), from: 'nobody' }, 'from'],
    ['recipients', { address: 'nobody', weekday: 5 }, 'address'],
    ['recipients', { address: 'a@b\r\nBcc: c@d', weekday: 5 }, 'address'],
    ['recipients', { address: 'x@loom.invalid', weekday: 9 }, 'weekday'],
    ['recipients', { address: 'odo@loom.invalid', weekday: 5 }, 'address'],
  ])('of a %s is told beside its field: %j', async (path, body, field) => {
    const before = [app.store.mail.server, app.store.mail.list()];
    const asked =
      path === 'server' ? api.put('/api/v1/mail/server') : api.post('/api/v1/mail/recipients');
    const answer = await asked.send(body).expect(422);
    expect(answer.body.errors[0].field).toBe(field);
    expect([app.store.mail.server, app.store.mail.list()]).toEqual(before);
  });
});

describe('the post office that stands in for a real one', () => {
  it('takes letters, and shows their words', async () => {
    const { office: standIn, server } = await PostOffice.open();
    opened.push(() => standIn.close());
    recipient();
    const subject = 'Größe: nächste Woche, «кухня»';
    const said: News = {
      ...news(),
      letter: (stop) => ({ subject, text: `Für Odo: Größe\n${stop}`, html: '<p>x</p>' }),
    };
    const one = new Postman(app.store, () => Promise.resolve(said), server);
    expect(await one.round(friday(17))).toBe(1);
    expect(standIn.letters).toMatchObject([{ to: 'odo@loom.invalid', subject }]);
    expect(standIn.letters[0]!.text).toContain('Für Odo: Größe');
  });
});
