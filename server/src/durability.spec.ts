import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { openDatabase } from './db/open.js';
import { ago, setup } from './testing/household.js';

const MAIN = fileURLToPath(new URL('../dist/main.js', import.meta.url));

let folder: string;
let file: string;
let server: ChildProcess | undefined;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  file = join(folder, 'house.sqlite');
});
afterEach(() => {
  server?.kill('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

/** Starts the built server as a process of its own. */
async function start(): Promise<string> {
  server = spawn(process.execPath, [MAIN], {
    env: { ...process.env, NEEDLECASE_DB: file, PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((found, failed) => {
    server!.once('exit', () => failed(new Error('The server did not start.')));
    server!.stdout!.on('data', (text: Buffer) => {
      const match = /http:\/\/\S+/.exec(String(text));
      if (match) found(match[0]);
    });
  });
}

const send = (address: string, path: string, body: object, key?: string) =>
  fetch(`${address}api/v1/${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', ...(key ? { 'Idempotency-Key': key } : {}) },
    body: JSON.stringify(body),
  });

describe('the server as a process', () => {
  it('is built', () => {
    expect(existsSync(MAIN), 'run "npm run build" first').toBe(true);
  });

  it('loses no acknowledged entry when it is killed while writing, and doubles none on retry', async () => {
    let address = await start();
    const { machines } = (await (await send(address, 'setup', setup)).json()) as {
      machines: { id: string }[];
    };
    const drafts = Array.from({ length: 400 }, () => ({
      id: randomUUID(),
      kind: 'load',
      machineId: machines[0]!.id,
      at: ago(0),
    }));
    const acknowledged = new Set<string>();
    let killed = false;
    const writeOne = async (draft: (typeof drafts)[number]) => {
      const answer = await send(address, 'entries', draft, draft.id).catch(() => undefined);
      if (answer?.status === 201) acknowledged.add(draft.id);
      if (acknowledged.size >= 120 && !killed) {
        killed = true;
        server!.kill('SIGKILL');
      }
    };
    for (let i = 0; i < drafts.length; i += 8) {
      await Promise.all(drafts.slice(i, i + 8).map(writeOne));
    }
    expect(killed).toBe(true);
    expect(acknowledged.size).toBeLessThan(drafts.length);

    address = await start();
    const stored = () => {
      const db = new Database(file, { readonly: true });
      const ids = db.prepare('SELECT id FROM entries').pluck().all() as string[];
      db.close();
      return ids;
    };
    const survived = new Set(stored());
    expect([...acknowledged].filter((id) => !survived.has(id))).toEqual([]);

    for (let i = 0; i < drafts.length; i += 8) {
      const answers = await Promise.all(
        drafts.slice(i, i + 8).map((draft) => send(address, 'entries', draft, draft.id)),
      );
      expect(answers.every(({ status }) => status === 201)).toBe(true);
    }
    expect(stored()).toHaveLength(drafts.length);
  });

  it('stops on SIGTERM though a screen is listening', async () => {
    const address = await start();
    const stream = await fetch(`${address}api/v1/changes`);
    const gone = new Promise((done) => server!.once('exit', done));
    server!.kill('SIGTERM');
    expect(await gone).toBe(0);
    await stream.body?.cancel().catch(() => undefined);
  });
});

describe('opening a file', () => {
  it('is in WAL mode with foreign keys, and makes no copy of a file that is up to date', () => {
    const db = openDatabase(file);
    expect(db.$client.pragma('journal_mode', { simple: true })).toBe('wal');
    expect(db.$client.pragma('foreign_keys', { simple: true })).toBe(1);
    db.$client.close();
    openDatabase(file).$client.close();
    expect(readdirSync(folder).filter((name) => name.includes('before'))).toEqual([]);
  });

  it('puts a copy aside before a migration changes a file', () => {
    const old = new Database(file);
    old.exec(`CREATE TABLE __drizzle_migrations (id INTEGER PRIMARY KEY, hash TEXT, created_at);
      CREATE TABLE keepsake (word TEXT); INSERT INTO keepsake VALUES ('mine')`);
    old.close();
    openDatabase(file).$client.close();
    const [copy] = readdirSync(folder).filter((name) => name.includes('before'));
    const kept = new Database(join(folder, copy!), { readonly: true });
    expect(kept.prepare('SELECT word FROM keepsake').pluck().get()).toBe('mine');
    kept.close();
  });
});
