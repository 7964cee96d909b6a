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
