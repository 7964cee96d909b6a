import Database from 'better-sqlite3';
import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import {
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { mustBeWritable } from './db/data-file.js';
import { openDatabase } from './db/open.js';

const MAIN = fileURLToPath(new URL('../dist/main.js', import.meta.url));
const WEB_ROOT = fileURLToPath(new URL('../../web/dist/browser', import.meta.url));

let folder: string;
let file: string;
const running: ChildProcess[] = [];
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  file = join(folder, 'house.sqlite');
});
afterEach(() => {
  for (const one of running.splice(0)) one.kill('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

interface Ended {
  code: number | null;
  said: string;
}

/** Starts the built server. @returns where it is, or how it ended */
function start(env: NodeJS.ProcessEnv = {}): Promise<{ address?: string } & Partial<Ended>> {
  const server = spawn(process.execPath, [MAIN], {
    env: { ...process.env, NEEDLECASE_DB: file, PORT: '0', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  running.push(server);
  let said = '';
  server.stderr.on('data', (text: Buffer) => (said += String(text)));
  return new Promise((done) => {
    server.once('close', (code) => done({ code, said }));
    server.stdout.on('data', (text: Buffer) => {
      const match = /http:\/\/\S+/.exec(String(text));
      if (match) done({ address: match[0] });
    });
  });
}

/** A good data file, at rest. */
function good(): void {
  openDatabase(file).$client.close();
}

const newer = (): void => {
  good();
  const client = new Database(file);
  client.prepare(`UPDATE __drizzle_migrations SET created_at = created_at + 1e13`).run();
  client.close();
};
const foreign = (): void => {
  const client = new Database(file);
  client.exec('CREATE TABLE songs (name TEXT)');
  client.close();
};
const broken = (): void => {
  good();
  // The migrations' table can be read; what a migration would change is not there.
  const client = new Database(file);
  client.exec('PRAGMA foreign_keys = OFF; DROP TABLE entries');
  client.prepare('DELETE FROM __drizzle_migrations WHERE created_at > 0').run();
  client.close();
};

const BAD: Record<string, [() => void, RegExp]> = {
  'random bytes': [() => writeFileSync(file, randomBytes(40_000)), /is no data file of Needlecase/],
  'a text': [() => writeFileSync(file, 'Dear all'), /is no data file of Needlecase/],
  'a folder': [() => mkdirSync(file), /is a folder/],
  "another program's file": [foreign, /belongs to another program/],
  'a file of a newer program': [newer, /newer Needlecase/],
  'a file cut short': [
    () => {
      good();
      truncateSync(file, statSync(file).size - 5000);
    },
    /cut short/,
  ],
};

describe('a start with what cannot be used', () => {
  it.each(Object.entries(BAD))(
    '%s: one sentence, and nothing written',
    async (_what, [make, said]) => {
      make();
      const isFolder = statSync(file).isDirectory();
      const before = isFolder ? '' : readFileSync(file);
      for (let i = 0; i < 2; i++) {
        const ended = await start();
        expect(ended.code).toBe(1);
        expect(ended.said).toMatch(said);
        expect(ended.said!.trim().split('\n')).toHaveLength(1);
      }
      if (!isFolder) expect(readFileSync(file).equals(before as Buffer)).toBe(true);
      const more = readdirSync(folder).filter((name) => !/^house\.sqlite(-wal|-shm)?$/.test(name));
      expect(more).toEqual([]);
    },
  );

  it.each(['abc', '-1', '70000', '4310.5'])('PORT %s', async (port) => {
    const ended = await start({ PORT: port });
    expect(ended).toMatchObject({ code: 1 });
    expect(ended.said).toMatch(/^PORT is a whole number/);
    expect(readdirSync(folder)).toEqual([]);
  });

  it('leaves no copy for each start whose migration fails', async () => {
    broken();
    for (let i = 0; i < 3; i++) expect((await start()).code).toBe(1);
    expect(readdirSync(folder).filter((name) => name.includes('.before-'))).toEqual([]);
  });
});

describe('one server for a file', () => {
  it('the second one says where the first one is, and a dead one is no hindrance', async () => {
    const { address } = await start();
    const second = await start();
    expect(second.code).toBe(1);
    expect(second.said).toContain(`served already, at ${address}`);
    const [first] = running;
    const gone = new Promise((done) => first!.once('exit', done));
    first!.kill('SIGKILL');
    await gone;
    expect((await start()).address).toBeDefined();
  });

  it('another file beside it can be served', async () => {
    await start();
    const other = join(folder, 'other.sqlite');
    good();
    copyFileSync(file, other);
    expect((await start({ NEEDLECASE_DB: other })).address).toBeDefined();
  });
});

it('ends within 5 s of SIGTERM, whatever clients do', async () => {
  const { address } = await start();
  const { port } = new URL(address!);
  // One that sends half a request and then nothing, and one that listens on.
  const half = connect(Number(port), '127.0.0.1');
  half.on('error', () => undefined);
  half.write('POST /api/v1/entries HTTP/1.1\r\nHost: x\r\nContent-Length: 100\r\n\r\n{');
  const stream = await fetch(`${address}api/v1/changes`);
  expect(stream.status).toBe(200);
  const [server] = running;
  const began = Date.now();
  const code = new Promise((done) => server!.once('exit', done));
  server!.kill('SIGTERM');
  expect(await code).toBe(0);
  expect(Date.now() - began).toBeLessThan(5000);
  half.destroy();
});

describe('a data file that may not be written', () => {
  it('or whose folder may not, is told in one sentence', () => {
    good();
    const but = (wrong: string) => (path: unknown) => {
      if (path === wrong) throw Object.assign(new Error('EACCES'), { code: 'EACCES' });
    };
    expect(() => mustBeWritable(file, but(file))).toThrow(`${file} cannot be written. Look who`);
    expect(() => mustBeWritable(file, but(folder))).toThrow(/the folder of the data file/);
    expect(() => mustBeWritable(file)).not.toThrow();
  });
});

describe('open to the house’s network', () => {
  const open = { HOST: '0.0.0.0', NEEDLECASE_NAME: 'off', NEEDLECASE_TLS_PORT: '0' };
  const named = { ...open, NEEDLECASE_ORIGIN: 'https://house.test:4311' };

  it('tells its addresses and a code, speaks https, and lets nobody in who is not paired', async () => {
    const { said, address } = await told(named);
    expect(said).toContain('In the house it is at https://house.test:4311/');
    const code = /within a day: (\S{9})/.exec(said)![1]!;
    expect(statSync(join(folder, 'house-keys')).mode & 0o777).toBe(0o700);
    expect(statSync(join(folder, 'house-keys/authority.key')).mode & 0o777).toBe(0o600);
    expect(statSync(file).mode & 0o777).toBe(0o600);
    const ask = (path: string, init: RequestInit = {}) =>
      fetch(`${address}api/v1/${path}`, {
        ...init,
        // As a proxy on this computer would hand it on.
        headers: { 'X-Forwarded-For': '192.168.1.7', 'Content-Type': 'application/json' },
      });
    expect((await ask('health')).status).toBe(200);
    expect((await ask('bench')).status).toBe(401);
    const pair = { method: 'POST', body: JSON.stringify({ code, device: 'A phone' }) };
    expect((await ask('pair', pair)).status).toBe(200);
    expect((await ask('pair', pair)).status).toBe(422);
  });

  it('shows no code any more when a device is in, unless it is asked for one', async () => {
    const { said, address, server } = await told(named);
    const code = /within a day: (\S{9})/.exec(said)![1]!;
    await fetch(`${address}api/v1/pair`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ code, device: 'A phone' }),
    });
    server.kill('SIGTERM');
    await new Promise((done) => server.once('close', done));
    const again = await told(named);
    expect(again.said).not.toContain('within a day');
    again.server.kill('SIGTERM');
    await new Promise((done) => again.server.once('close', done));
    expect((await told(named, ['--code'])).said).toContain('within a day');
  });

  it.each([
    ['half of a certificate', { NEEDLECASE_CERT: '/nowhere.crt' }, /go together/],
    [
      'a certificate that is not there',
      { NEEDLECASE_CERT: '/nowhere.crt', NEEDLECASE_KEY: '/nowhere.key' },
      /nowhere\.crt/,
    ],
    ['no address', { NEEDLECASE_ORIGIN: 'laundry' }, /NEEDLECASE_ORIGIN/],
    [
      'an address with a path',
      { NEEDLECASE_ORIGIN: 'https://laundry.example/x' },
      /NEEDLECASE_ORIGIN/,
    ],
    ['a number of proxies that is none', { NEEDLECASE_PROXY: 'one' }, /NEEDLECASE_PROXY/],
    ['no port', { NEEDLECASE_TLS_PORT: '70000' }, /NEEDLECASE_TLS_PORT/],
    ['keys where pages are served from', { NEEDLECASE_KEYS: WEB_ROOT }, /served to everybody/],
    [
      'backups where pages are served from',
      { NEEDLECASE_BACKUPS: join(WEB_ROOT, 'x') },
      /served to everybody/,
    ],
  ])('is not begun with %s: one sentence', async (_what, env, words) => {
    const { code, said } = await start({ ...open, ...env });
    expect(code).toBe(1);
    expect(said).toMatch(words);
    expect(said!.trim().split('\n')).toHaveLength(1);
  });
});

/** Starts it open to the network, and waits until it has told how it is reached. */
function told(
  env: NodeJS.ProcessEnv,
  args: string[] = [],
): Promise<{ said: string; address: string; server: ChildProcess }> {
  const server = spawn(process.execPath, [MAIN, ...args], {
    env: { ...process.env, NEEDLECASE_DB: file, PORT: '0', ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  running.push(server);
  let said = '';
  return new Promise((done) => {
    server.stdout.on('data', (text: Buffer) => {
      said += String(text);
      const port = /localhost:(\d+)/.exec(said)?.[1];
      if (port && said.includes('In the house')) {
        done({ said, address: `http://127.0.0.1:${port}/`, server });
      }
    });
  });
}
