import { copyFileSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { openDatabase } from './db/open.js';
import { writeBackup } from './backup/write.js';
import { fullHouse } from './testing/full-house.js';
import { ago, setup } from './testing/household.js';
import { photo } from './testing/pictures.js';
import { MAIN, send, ServerProcess } from './testing/server-process.js';

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

let folder: string;
let file: string;
let server: ServerProcess;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  file = join(folder, 'house.sqlite');
  server = new ServerProcess(file);
});
afterEach(async () => {
  await server.end('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

const start = (): Promise<string> => server.start();

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
        server.signal('SIGKILL');
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

  it('keeps every acknowledged step of visits and cases and every photo when it is killed, round after round', async () => {
    let address = await start();
    const { machines } = (await (await send(address, 'setup', setup)).json()) as {
      machines: { id: string }[];
    };
    const machineId = machines[0]!.id;
    const run = (await (
      await send(address, 'runs', { tasks: [{ machineId, task: 'gasket-folds' }] })
    ).json()) as { id: string; version: number; progress: object };
    const caseId = randomUUID();
    const happened: string[] = [];
    const photos = new Map<string, number>();
    let { version } = run;
    let step = 0;
    for (let round = 0; round < 4; round++) {
      let alive = true;
      const until = async (work: () => Promise<void>) => {
        while (alive) await work().catch(() => (alive = false));
      };
      const writers = [
        until(async () => {
          const fetched = [`step ${step + 1}`];
          const answer = await fetch(`${address}api/v1/runs/${run.id}`, {
            method: 'PATCH',
            headers: { 'Content-Type': 'application/json', 'If-Match': `"${version}"` },
            body: JSON.stringify({ progress: { ...run.progress, fetched } }),
          });
          if (!answer.ok) throw new Error(await answer.text());
          version++;
          step++;
        }),
        until(async () => {
          const id = randomUUID();
          const event = { id, at: ago(0), kind: 'answer', finding: 'gurgle', answer: 'no' };
          const answer = await send(address, 'cases', { id: caseId, machineId, events: [event] });
          if (answer.ok) happened.push(id);
        }),
        until(async () => {
          const id = randomUUID();
          const body = new Uint8Array(photo(20_000));
          const answer = await fetch(`${address}api/v1/photos/${id}`, {
            method: 'PUT',
            headers: { 'Content-Type': 'image/jpeg' },
            body,
          });
          if (answer.ok) photos.set(id, body.length);
        }),
      ];
      // In the middle of it: each has had some acknowledged, and goes on.
      const [steps, pictures] = [step, photos.size];
      while (step < steps + 2 + round || photos.size < pictures + 2) {
        await new Promise((done) => setTimeout(done, 5));
      }
      server.signal('SIGKILL');
      await Promise.all(writers);
      address = await start();
      const now = (await (await fetch(`${address}api/v1/runs/${run.id}`)).json()) as {
        version: number;
        progress: { fetched: string[] };
      };
      // What was not acknowledged may be there, too: one step at most.
      expect(now.version - version).toBeGreaterThanOrEqual(0);
      expect(now.version - version).toBeLessThanOrEqual(1);
      expect(now.progress.fetched).toEqual([`step ${step + now.version - version}`]);
      step += now.version - version;
      version = now.version;
      const told = (await (await fetch(`${address}api/v1/cases/${caseId}`)).json()) as {
        events: { id: string }[];
      };
      const ids = new Set(told.events.map(({ id }) => id));
      expect(happened.filter((id) => !ids.has(id))).toEqual([]);
      expect(ids.size).toBe(told.events.length);
      for (const [id, bytes] of photos) {
        const picture = await fetch(`${address}api/v1/photos/${id}`);
        expect((await picture.arrayBuffer()).byteLength).toBe(bytes);
      }
    }
    expect(step).toBeGreaterThan(4);
    expect(photos.size).toBeGreaterThan(4);
  });

  it('has the old or the new, whole, when it is killed while a backup is put back', async () => {
    const old = await fullHouse(file);
    old.store.close();
    const other = await fullHouse(join(folder, 'other.sqlite'));
    other.store.close();
    const zip = join(folder, 'other.zip');
    await writeBackup(other.file, zip, Date.now());
    const contents = (path: string) => {
      const db = new Database(path, { readonly: true });
      const rows = ['households', 'machines', 'entries', 'photos', 'runs', 'case_events'].map(
        (table) => db.prepare(`SELECT count(*), max(id) FROM ${table}`).raw().get(),
      );
      const sound = db.pragma('integrity_check', { simple: true });
      db.close();
      return JSON.stringify([rows, sound]);
    };
    const wanted = [contents(file), contents(other.file)];
    expect(wanted[0]).not.toBe(wanted[1]);
    const seen = new Set<string>();
    for (const wait of [150, 350, 500, 700]) {
      const address = await start();
      const look = await fetch(`${address}api/v1/backups/look`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/zip' },
        body: new Uint8Array(readFileSync(zip)),
      });
      const { id } = (await look.json()) as { id: string };
      const going = send(address, 'restore', { id, how: 'replace' }).catch(() => undefined);
      await new Promise((done) => setTimeout(done, wait));
      server.signal('SIGKILL');
      await going;
      await start();
      server.signal('SIGKILL');
      const now = contents(file);
      expect(wanted).toContain(now);
      seen.add(now);
      if (now === wanted[1]) break;
    }
    expect(seen.size).toBeGreaterThan(0);
  });

  it('a copy of file and WAL taken at any moment has every entry that was acknowledged', async () => {
    const address = await start();
    const { machines } = (await (await send(address, 'setup', setup)).json()) as {
      machines: { id: string }[];
    };
    const acknowledged = new Set<string>();
    let writing = true;
    const writers = Array.from({ length: 6 }, async () => {
      while (writing) {
        const id = randomUUID();
        const draft = { id, kind: 'load', machineId: machines[0]!.id, at: ago(0) };
        if ((await send(address, 'entries', draft, id)).status === 201) acknowledged.add(id);
      }
    });
    for (let round = 0; round < 12; round++) {
      // Under way on a slow machine as well: a copy of nothing new shows nothing.
      for (const before = acknowledged.size; acknowledged.size < before + 5;) await pause(5);
      await pause((round * 37) % 50);
      server.signal('SIGSTOP');
      const known = [...acknowledged];
      const copy = join(folder, `copy-${round}.sqlite`);
      copyFileSync(file, copy);
      if (existsSync(`${file}-wal`)) copyFileSync(`${file}-wal`, `${copy}-wal`);
      server.signal('SIGCONT');
      const db = openDatabase(copy).$client;
      const ids = new Set(db.prepare('SELECT id FROM entries').pluck().all() as string[]);
      expect(db.pragma('integrity_check', { simple: true })).toBe('ok');
      db.close();
      expect(known.filter((id) => !ids.has(id))).toEqual([]);
    }
    writing = false;
    await Promise.all(writers);
    expect(acknowledged.size).toBeGreaterThanOrEqual(60);
  });

  it('stops on SIGTERM though a screen is listening', async () => {
    const address = await start();
    const stream = await fetch(`${address}api/v1/changes`);
    await server.end('SIGTERM');
    expect(server.code).toBe(0);
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
