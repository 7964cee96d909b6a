import Database from 'better-sqlite3';
import { randomUUID } from 'node:crypto';
import { copyFileSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { ago, setup } from './testing/household.js';
import { lookedAt, lookedAtMeanwhile } from './testing/second-program.js';
import { send, ServerProcess } from './testing/server-process.js';

/*
 * Another program opens and closes the file that is served: whatever state the server is in, what it thanked for is
 * there afterwards. (POSIX: a process that closes any handle of a file lets go of all its locks on it.)
 */

let folder: string;
let file: string;
let server: ServerProcess;
let machineId: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  file = join(folder, 'house.sqlite');
  server = new ServerProcess(file);
});
afterEach(async () => {
  await server.end('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

async function begun(): Promise<string> {
  const address = await server.start();
  const { machines } = (await (await send(address, 'setup', setup)).json()) as {
    machines: { id: string }[];
  };
  machineId = machines[0]!.id;
  return address;
}

/** Writes so many loads. @returns those that were thanked for */
async function counted(address: string, times: number): Promise<string[]> {
  const ids = Array.from({ length: times }, () => randomUUID());
  const answers = await Promise.all(
    ids.map((id) => send(address, 'entries', { id, kind: 'load', machineId, at: ago(0) }, id)),
  );
  return ids.filter((_, i) => answers[i]!.status === 201);
}

const stored = (path = file): Set<string> => {
  const db = new Database(path, { readonly: true });
  expect(db.pragma('integrity_check', { simple: true })).toBe('ok');
  const ids = db.prepare('SELECT id FROM entries').pluck().all() as string[];
  db.close();
  return new Set(ids);
};
const missing = (ids: readonly string[], path = file): string[] => {
  const there = stored(path);
  return ids.filter((id) => !there.has(id));
};

/** Locks of the system on the served file, by this server. */
const locks = (): number => {
  const lines = readFileSync('/proc/locks', 'utf8').split('\n');
  return lines.filter((line) => line.includes(` ${server.pid} `)).length;
};

/** Work that threads do, each of which reads the file through a handle of its own. */
const THREADS = ['prints/wall.pdf', 'prints/year.pdf', 'backup.zip', 'record.json', 'schools'];
const read = async (address: string, path: string): Promise<number> => {
  const answer = await fetch(`${address}api/v1/${path}`);
  await answer.arrayBuffer();
  return answer.status;
};

/** The file and what lies beside it, as a copying program takes them. */
function copied(): string {
  server.signal('SIGSTOP');
  const copy = join(folder, 'copy.sqlite');
  copyFileSync(file, copy);
  if (existsSync(`${file}-wal`)) copyFileSync(`${file}-wal`, `${copy}-wal`);
  server.signal('SIGCONT');
  return copy;
}

describe('a second program at the served file', () => {
  it.each(['SIGTERM', 'SIGKILL'] as const)('takes nothing away, by %s', async (signal) => {
    const address = await begun();
    const ids: string[] = [];
    const write = async () => ids.push(...(await counted(address, 10)));
    lookedAt(file);
    await write();
    const before = locks();
    expect(before).toBeGreaterThan(0);
    const paths = signal === 'SIGTERM' ? THREADS.slice(0, 1) : THREADS;
    for (const path of paths) {
      const going = read(address, path);
      await lookedAtMeanwhile(file);
      await write();
      expect(await going).toBe(200);
      expect(locks()).toBeGreaterThanOrEqual(before);
      lookedAt(file);
      await write();
    }
    expect(ids).toHaveLength(10 + 20 * paths.length);
    expect(missing(ids, copied())).toEqual([]);
    await server.end(signal);
    expect(missing(ids)).toEqual([]);
  });

  it('takes nothing away while a backup is made and put back', async () => {
    const address = await begun();
    const ids = await counted(address, 10);
    const looks = async (going: Promise<unknown>) => {
      let over = false;
      const ended = going.finally(() => (over = true));
      while (!over) await lookedAtMeanwhile(file);
      return ended;
    };
    const made = (await looks(send(address, 'backups', {}).then((one) => one.json()))) as {
      name: string;
    };
    ids.push(...(await counted(address, 10)));
    const look = (await (await send(address, 'backups/pick', { name: made.name })).json()) as {
      id: string;
    };
    const restored = await looks(send(address, 'restore', { id: look.id, how: 'merge' }));
    expect((restored as Response).status).toBe(200);
    lookedAt(file);
    ids.push(...(await counted(address, 10)));
    await server.end('SIGKILL');
    expect(missing(ids)).toEqual([]);
  });

  it('takes nothing away while the file is brought up to date', async () => {
    const old = new Database(file);
    old.exec(`CREATE TABLE __drizzle_migrations (id INTEGER PRIMARY KEY, hash TEXT, created_at);
      CREATE TABLE keepsake (word TEXT); INSERT INTO keepsake VALUES ('mine')`);
    old.close();
    let over = false;
    const starting = begun().finally(() => (over = true));
    while (!over) await lookedAtMeanwhile(file);
    const address = await starting;
    lookedAt(file);
    const ids = await counted(address, 10);
    expect(ids).toHaveLength(10);
    await server.end('SIGKILL');
    expect(missing(ids)).toEqual([]);
  });
});

describe('a -wal or -shm that is taken away by force', () => {
  it.each(['-wal', '-shm'])(
    '%s: nothing more is stored, screens are told, and it is rescued',
    async (end) => {
      const address = await begun();
      const ids = await counted(address, 10);
      const stream = await fetch(`${address}api/v1/changes`);
      const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader();
      rmSync(file + end);
      const refused = await send(address, 'entries', { kind: 'load', machineId, at: ago(0) });
      expect(refused.status).toBe(503);
      expect((await refused.json()) as object).toMatchObject({
        title: `Another program took house.sqlite${end} away while the server runs.`,
      });
      let told = '';
      while (!told.includes('.rescued-')) told += (await reader.read()).value ?? '';
      expect(told).toContain('event: stopped');
      const [rescued] = readdirSync(folder).filter((name) => name.includes('.rescued-'));
      expect(missing(ids, join(folder, rescued!))).toEqual([]);
      const again = await send(address, 'entries', { kind: 'load', machineId, at: ago(0) });
      expect(((await again.json()) as { detail: string }).detail).toContain(rescued);
      await server.end('SIGTERM');
      // It is a data file: a server on it has everything.
      file = join(folder, rescued!);
      server = new ServerProcess(file);
      expect(await counted(await server.start(), 3)).toHaveLength(3);
    },
  );
});
