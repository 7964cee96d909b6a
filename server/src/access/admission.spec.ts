import { once } from 'node:events';
import { createServer } from 'node:http';
import { connect } from 'node:net';
import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { unsound } from '../http/sound.js';
import { endsWhenStill, UNDER_WAY } from './admission.js';
import { readyApp, type Fixture } from '../testing/household.js';
import { move } from '../testing/people.js';
import { ROWS } from './rows.js';

/* Who may send what is decided before it is read: the server here is asked as from the house's network. */

let app: Fixture;
let port: number;
let close: () => void;
beforeEach(async () => {
  app = await readyApp();
  const server = app.express.listen(0, '127.0.0.1');
  await new Promise((done) => server.once('listening', done));
  ({ port } = server.address() as AddressInfo);
  close = () => {
    app.changes.close();
    server.closeAllConnections();
    server.close();
    app.store.close();
  };
});
afterEach(() => close());

/** Sends the head of a request, and nothing of its body. @returns the first line of the answer */
function headOnly(method: string, path: string, headers: Record<string, string>): Promise<string> {
  return new Promise((done) => {
    const socket = connect(port, '127.0.0.1');
    const lines = Object.entries({
      Host: `localhost:${port}`,
      'X-Forwarded-For': '192.168.1.9',
      'Content-Type': 'application/json',
      ...headers,
    }).map(([name, value]) => `${name}: ${value}\r\n`);
    socket.write(`${method} ${path} HTTP/1.1\r\n${lines.join('')}\r\n`);
    let said = '';
    socket.on('data', (piece) => {
      said += String(piece);
      if (!said.includes('\r\n')) return;
      socket.destroy();
      done(said.split('\r\n')[0]!);
    });
  });
}
const LARGE = { 'Content-Length': '900000' };

describe('what stands before a body decides', () => {
  it('on every address that is not for everybody: a stranger is turned away before a byte is read', async () => {
    const written = app.routes.filter(({ method }) => method !== 'get');
    expect(written.length).toBeGreaterThan(60);
    for (const { method, path } of written) {
      const row = ROWS[`${method} ${path}`]!;
      const address = path.replace('{id}', '11111111-1111-4111-8111-111111111111');
      const answer = await headOnly(method.toUpperCase(), address, LARGE);
      const wanted = row.from === 'everybody' ? /^HTTP\/1.1 (413|429)/ : /^HTTP\/1.1 401/;
      expect(`${method} ${path} ${answer}`).toMatch(new RegExp(wanted.source.replace('^', '')));
    }
  });

  it('a guest sends what is small, and is told before a byte is read that the rest is not theirs', async () => {
    const { cookie: Cookie } = move(app, 'guest');
    const path = '/api/v1/entries';
    expect(await headOnly('POST', path, { Cookie, ...LARGE })).toContain('413');
    expect(await headOnly('PUT', '/api/v1/household', { Cookie, ...LARGE })).toContain('403');
    expect(await headOnly('POST', '/api/v1/nothing', { Cookie, ...LARGE })).toContain('404');
    expect(await headOnly('DELETE', '/api/v1/bench', { Cookie, ...LARGE })).toContain('405');
    const { cookie } = move(app, 'keeper', 'Ada');
    const more = { Cookie: cookie, 'Content-Length': '1100000' };
    expect(await headOnly('POST', path, more)).toContain('413');
  });

  it('a token that was made for something else is turned away before a byte is read', async () => {
    const { token } = app.access.tokens.make({ name: 'script', scopes: ['entries:read'] });
    const Authorization = `Bearer ${token}`;
    for (const { method, path } of app.routes.filter((one) => one.method !== 'get')) {
      const row = ROWS[`${method} ${path}`]!;
      if (row.from === 'everybody' || row.scope === 'entries:read') continue;
      const address = path.replace('{id}', '11111111-1111-4111-8111-111111111111');
      const answer = await headOnly(method.toUpperCase(), address, { Authorization, ...LARGE });
      expect(`${method} ${path} ${answer}`).toContain('403');
    }
  });

  it('a body of which nothing more comes is let go; one that was sent whole is waited for', async () => {
    const slow = createServer((request, response) => {
      endsWhenStill(request, 150);
      request.resume();
      request.once('end', () => setTimeout(() => response.end('worked'), 400));
    });
    slow.listen(0, '127.0.0.1');
    await once(slow, 'listening');
    const at = (slow.address() as AddressInfo).port;
    const socket = connect(at, '127.0.0.1');
    const head = 'POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 100\r\n\r\n';
    socket.write(head);
    const trickle = setInterval(() => socket.write('x'), 60);
    const gone = once(socket, 'close');
    // As long as some of it comes it is read; then it is let go.
    setTimeout(() => clearInterval(trickle), 500);
    await gone;
    expect(socket.bytesWritten).toBeGreaterThan(head.length + 3);
    const whole = await fetch(`http://127.0.0.1:${at}/`, { method: 'POST', body: 'all of it' });
    expect(await whole.text()).toBe('worked');
    slow.closeAllConnections();
    slow.close();
  });

  it.each([
    // Two million bytes are thirty-one of them.
    { what: 'bytes', bytes: 64_000, asked: 60, taken: 31 },
    { what: 'requests', bytes: 100, asked: 90, taken: UNDER_WAY.unknown },
  ])(
    'strangers together have few $what on their way, and the house is answered meanwhile',
    async ({ bytes, asked, taken }) => {
      const sockets = Array.from({ length: asked }, () => {
        const socket = connect(port, '127.0.0.1');
        socket.on('error', () => undefined);
        socket.write(
          `POST /api/v1/sign-out HTTP/1.1\r\nHost: localhost:${port}\r\nX-Forwarded-For: 10.0.0.7\r\n` +
            `Content-Type: application/json\r\nContent-Length: ${bytes}\r\n\r\n{`,
        );
        return socket;
      });
      let refused = 0;
      for (const socket of sockets) {
        socket.once(
          'data',
          (piece) => (refused += String(piece).startsWith('HTTP/1.1 503') ? 1 : 0),
        );
      }
      await vi.waitFor(() => expect(refused).toBe(asked - taken), { timeout: 20_000 });
      const keeper = await fetch(`http://localhost:${port}/api/v1/bench`);
      expect(keeper.status).toBe(200);
      for (const path of ['health', 'ready']) {
        const headers = { 'X-Forwarded-For': '10.0.0.8' };
        const life = await fetch(`http://localhost:${port}/api/v1/${path}`, { headers });
        expect(life.status).toBe(200);
      }
      for (const socket of sockets) socket.destroy();
    },
  );
});

describe('what a body may hold', () => {
  it('a large one is gone through in a fraction of a second, whatever its shape', () => {
    // Six million bytes in the shapes that used to take five seconds.
    const shapes: unknown[] = [
      Array.from({ length: 3_000_000 }, () => 1),
      Array.from({ length: 1_000_000 }, () => []),
      Array.from({ length: 600_000 }, (_, i) => ({ a: i })),
    ];
    for (const shape of shapes) {
      const began = process.cpuUsage();
      expect(unsound({ more: shape })).toBeUndefined();
      expect(process.cpuUsage(began).user / 1000).toBeLessThan(1500);
    }
  });

  it('and is told by its place where it may not', () => {
    expect(unsound({ a: [{ b: 'x' }, { b: 'y\u0007' }] })?.field).toBe('a.1.b');
    expect(unsound({ a: { 'b\0': 1 } })?.field).toBe('a');
    expect(unsound(['x', ['\ud800']])?.field).toBe('1.0');
    let deep: unknown = 1;
    for (let i = 0; i < 60; i++) deep = [deep];
    expect(unsound({ top: deep })).toMatchObject({ field: 'top', message: /50 deep/ });
  });

  it('text is kept so wherever it comes in, and what lets somebody in stays as it is', async () => {
    const { cookie } = move(app, 'keeper', 'Kit');
    const name = 'A\u202eda\u200b';
    const { body: person } = await app.api
      .post('/api/v1/persons')
      .set('Cookie', cookie)
      .send({ name, thread: 'indigo', role: 'helper' })
      .expect(201);
    expect(JSON.stringify(person)).toContain('"Ada"');
    await app.api
      .put('/api/v1/mail/server')
      .set('Cookie', cookie)
      .send({ host: 'mail.test', port: 25, secure: false, from: 'a@mail.test', password: name })
      .expect(200);
    expect(app.store.mail.server?.password).toBe(name);
  });

  it('text is kept without what turns it around', async () => {
    const { api } = app;
    const { body } = await api
      .post('/api/v1/entries')
      .send({ kind: 'note', at: new Date().toISOString(), note: 'Pump\u200b fil\u202eter' })
      .expect(201);
    expect((body as { note: string }).note).toBe('Pump filter');
    await api
      .post('/api/v1/entries')
      .send({ kind: 'note', at: new Date().toISOString(), note: 'a\u001b[31mb' })
      .expect(422);
  });
});
