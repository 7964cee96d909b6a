import { once } from 'node:events';
import { request as ask, type IncomingHttpHeaders, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { hostname } from 'node:os';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeApp, type App } from '../app.js';
import { openDatabase } from '../db/open.js';
import { setup } from '../testing/household.js';
import { ownNames } from './names.js';

/* OWASP ASVS 4.0.3, level 2: 4.2.2 (CSRF), 13.2.3, 14.4 (headers), 14.5.3 (Origin); and DNS rebinding. */

let app: App;
let server: Server;
let port: number;
beforeAll(async () => {
  app = makeApp(openDatabase(':memory:'), {
    reach: () => ({ port: 0, open: true, origin: 'https://laundry.example' }),
  });
  server = app.express.listen(0, '127.0.0.1');
  await once(server, 'listening');
  ({ port } = server.address() as AddressInfo);
  await send('POST', '/api/v1/setup', {}, setup);
});
afterAll(() => {
  server.close();
  app.store.close();
});

function send(
  method: string,
  path: string,
  headers: Record<string, string | string[]> = {},
  body?: object,
): Promise<{ status: number; headers: IncomingHttpHeaders; text: string }> {
  return new Promise((done, failed) => {
    const all = { Host: `127.0.0.1:${port}`, 'Content-Type': 'application/json', ...headers };
    ask({ host: '127.0.0.1', port, method, path, headers: all }, (answer) => {
      let text = '';
      answer.setEncoding('utf8').on('data', (more: string) => (text += more));
      answer.on('end', () => done({ status: answer.statusCode!, headers: answer.headers, text }));
    })
      .on('error', failed)
      .end(body && JSON.stringify(body));
  });
}

describe('a page that points its own name here', () => {
  it.each([
    'attacker.test',
    'attacker.test:4310',
    '127.0.0.1.attacker.test',
    'localhost.attacker.test',
    'needlecase.local.attacker.test',
    'xlocalhost',
    'localhost.',
    'localhost:80:80',
    'localhost@attacker.test',
    'attacker.test#localhost',
    'localhost/',
    'localhost,attacker.test',
    '127.1',
    '2130706433',
    '0x7f000001',
    '0',
    '[::]',
    '[::ffff:127.0.0.1]',
    '8.8.8.8',
    '192.0.2.77',
    'laundry.example.attacker.test',
    'evil-laundry.example',
  ])('gets nothing: Host %j', async (Host) => {
    for (const path of ['/', '/api/v1/household', '/api/v1/health', '/phone', '/icon.svg']) {
      const { status, text } = await send('GET', path, { Host });
      expect([400, 421], `${path}: ${text}`).toContain(status);
      expect(text).not.toContain('Test house');
    }
  });

  it.each(['127.0.0.1', 'LOCALHOST:1', '[::1]:4310', 'needlecase.local', 'laundry.example'])(
    'is not what is asked by a name of its own: %s',
    async (Host) => {
      expect((await send('GET', '/api/v1/health', { Host })).status).toBe(200);
    },
  );

  it('knows the computer by its name, in the zones of a house, and by its own addresses alone', () => {
    const isOwn = ownNames();
    const bare = hostname().toLowerCase().split('.')[0]!;
    for (const zone of ['', '.local', '.lan', '.home', '.home.arpa']) {
      expect(isOwn(`${bare}${zone}:4310`)).toBe(true);
    }
    expect(isOwn(`${bare}.example`)).toBe(false);
    expect(isOwn('10.255.255.254')).toBe(false);
    expect(isOwn(undefined)).toBe(false);
  });

  it('two Host headers are none', async () => {
    const socket = connect(port, '127.0.0.1');
    socket.end(
      'GET /api/v1/household HTTP/1.1\r\nHost: 127.0.0.1\r\nHost: attacker.test\r\nConnection: close\r\n\r\n',
    );
    let text = '';
    for await (const more of socket) text += String(more);
    expect(text).toMatch(/^HTTP\/1\.1 4\d\d/);
    expect(text).not.toContain('Test house');
  });
});

describe('another site’s page', () => {
  const note = { kind: 'note', at: '2026-01-01T00:00:00Z', note: 'forged' };
  const write = (headers: Record<string, string>) => send('POST', '/api/v1/entries', headers, note);
  it.each([
    ['another site', { Origin: 'https://attacker.test' }],
    ['no site that has a name', { Origin: 'null' }],
    ['another port of this host', { Origin: 'http://127.0.0.1:1' }],
    ['this host by another scheme', { Origin: 'https://HOST' }],
    ['a name that ends like this host', { Origin: 'http://attacker-HOST' }],
    ['a sibling of this host', { Origin: 'http://HOST', 'Sec-Fetch-Site': 'same-site' }],
    ['what the browser calls another site', { 'Sec-Fetch-Site': 'cross-site' }],
    ['an empty one', { Origin: '' }],
  ])('writes nothing: from %s', async (_from, headers) => {
    const here = `127.0.0.1:${port}`;
    const sent = Object.fromEntries(
      Object.entries(headers).map(([name, value]) => [name, value.replace('HOST', here)]),
    );
    expect((await write(sent)).status).toBe(403);
  });

  it.each([
    ['this page', { Origin: 'http://HOST', 'Sec-Fetch-Site': 'same-origin' }],
    ['the address that was laid down', { Origin: 'https://laundry.example' }],
    ['a script, which is no page', {}],
  ])('is not %s', async (_what, headers) => {
    const sent = Object.fromEntries(
      Object.entries(headers).map(([name, value]) => [
        name,
        value.replace('HOST', `127.0.0.1:${port}`),
      ]),
    );
    expect((await write(sent)).status).toBe(201);
  });

  it('reads nothing: no answer is shared with it', async () => {
    const { headers } = await send('GET', '/api/v1/household', { Origin: 'https://attacker.test' });
    expect(headers['access-control-allow-origin']).toBeUndefined();
    expect(headers['cross-origin-resource-policy']).toBe('same-origin');
    const asked = await send('OPTIONS', '/api/v1/entries', {
      Origin: 'https://attacker.test',
      'Access-Control-Request-Method': 'POST',
    });
    expect(asked.headers['access-control-allow-origin']).toBeUndefined();
  });

  it('holds no page of this in a frame, and none guesses what an answer is', async () => {
    for (const path of ['/phone', '/api/v1/household']) {
      const { headers } = await send('GET', path);
      expect(String(headers['content-security-policy']), path).toContain("frame-ancestors 'none'");
      expect(headers['x-frame-options']).toBe('SAMEORIGIN');
      expect(headers['x-content-type-options']).toBe('nosniff');
      expect(headers['referrer-policy']).toBe('no-referrer');
      expect(headers['strict-transport-security']).toBeUndefined();
      expect(headers['x-powered-by']).toBeUndefined();
    }
  });
});

it('no answer tells of paths or of the program’s insides', async () => {
  const asked = [
    send('GET', '/api/v1/none'),
    send('GET', '/%'),
    send('POST', '/api/v1/entries', {}, { kind: 5 }),
    send('GET', `/api/v1/cases/${'x'.repeat(20)}`),
  ];
  for (const { text } of await Promise.all(asked)) {
    expect(text).not.toMatch(/node_modules|\.ts\b|\bat .*:\d+:\d+|\/work|\/home/);
  }
});
