import { createServer, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fetchCalendar } from '../calendar/fetch.js';
import { callOutside, mayCall, mustBeCallable, NotCalled } from './outgoing.js';

/* Special-purpose addresses: IANA's registries (RFC 6890), from memory, a first and a last of each range. */
const HOME = [
  ...['127.0.0.1', '127.255.255.254', '10.0.0.1', '10.255.255.255', '172.16.0.1', '172.31.255.255'],
  ...['192.168.0.1', '192.168.255.255', '100.64.0.1', '100.127.255.255'],
  ...['::1', 'fc00::1', 'fdff::1', '::ffff:127.0.0.1', '::ffff:192.168.1.1', '64:ff9b::7f00:1'],
];
const NOBODYS = [
  ...['0.0.0.0', '169.254.169.254', '224.0.0.1', '239.255.255.255', '240.0.0.1', '255.255.255.255'],
  ...['::', 'fe80::1', 'ff02::1', '::ffff:169.254.169.254', 'nonsense', '', '1.2.3', '127.1 '],
];
const WORLD = ['9.9.9.9', '172.15.255.255', '172.32.0.1', '100.63.255.255', '2606:4700::1111'];

describe('the gate for what is called', () => {
  it('lets nothing into the house or to this computer that only leads out', () => {
    for (const one of WORLD) expect([one, mayCall(one, 'world')]).toEqual([one, true]);
    for (const one of [...HOME, ...NOBODYS]) {
      expect([one, mayCall(one, 'world')]).toEqual([one, false]);
    }
    for (const one of [...HOME, ...WORLD]) expect([one, mayCall(one, 'home')]).toEqual([one, true]);
    for (const one of NOBODYS) expect([one, mayCall(one, 'home')]).toEqual([one, false]);
  });

  it('looks at what a name stands for, not at the name', async () => {
    await expect(mustBeCallable('localhost', 'world')).rejects.toBeInstanceOf(NotCalled);
    await expect(mustBeCallable('[::1]', 'world')).rejects.toBeInstanceOf(NotCalled);
    // Other ways to write 127.0.0.1, which a resolver may take.
    for (const odd of ['0x7f000001', '2130706433', '017700000001', '127.1']) {
      const { hostname } = new URL(`http://${odd}/`);
      await expect(mustBeCallable(hostname, 'world')).rejects.toBeInstanceOf(NotCalled);
    }
    await expect(mustBeCallable('localhost', 'home')).resolves.toBeUndefined();
  });
});

describe('what is called', () => {
  let server: Server;
  let origin: string;
  let answer: (path: string, response: ServerResponse) => void;
  beforeAll(async () => {
    server = createServer((request, response) => answer(request.url ?? '', response));
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', () => done()));
    origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterAll(() => {
    server.closeAllConnections();
    server.close();
  });
  const calling = { patience: 3000, most: 1000, accept: 'text/calendar' };

  it('is read where it may be, through some hops, and not further than a person would go', async () => {
    answer = (path, response) =>
      path === '/2' ? response.end('there') : response.writeHead(302, { location: '/2' }).end();
    expect(String(await callOutside(`${origin}/1`, { ...calling, may: 'home' }))).toBe('there');
    answer = (path, response) => response.writeHead(302, { location: `${path}x` }).end();
    await expect(callOutside(`${origin}/`, { ...calling, may: 'home' })).rejects.toThrow(NotCalled);
  });

  it('is asked for nothing where it may not be: no connection is made', async () => {
    let asked = 0;
    answer = (_path, response) => {
      asked++;
      response.end('secret');
    };
    const port = new URL(origin).port;
    for (const host of ['127.0.0.1', 'localhost', '[::ffff:127.0.0.1]', '2130706433']) {
      const going = callOutside(`http://${host}:${port}/`, { ...calling, may: 'world' });
      await expect(going).rejects.toThrow(NotCalled);
    }
    expect(asked).toBe(0);
  });

  it('tells no more of one failure than of another', async () => {
    answer = (path, response) => {
      if (path === '/long') response.end('X'.repeat(3_000_000));
      else if (path === '/page') response.end('<html>sign in</html>');
      else if (path === '/off') response.destroy();
      else response.writeHead(Number(path.slice(1))).end();
    };
    const wrong = [
      ...['401', '404', '500', 'long', 'page', 'off'].map((path) => `${origin}/${path}`),
      ...['http://127.0.0.1:1/', 'http://nobody.invalid/', 'ftp://house.test/x.ics', 'nonsense'],
    ];
    const said = await Promise.all(
      wrong.flatMap((address) =>
        (['home', 'world'] as const).map((may) =>
          fetchCalendar(address, may).catch(({ message }: Error) => message),
        ),
      ),
    );
    expect(new Set(said)).toHaveLength(1);
    expect(said[0]).toMatch(/^No calendar could be read there/);
  });
});
