import Database from 'better-sqlite3';
import { createWriteStream, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { getTableName } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import * as yauzl from 'yauzl';
import { ZipFile } from 'yazl';
import { BACKUP_KIND_NAMES } from '@needlecase/core/formats/backup';
import { openDatabase } from '../db/open.js';
import { digestOf } from '../access/secrets.js';
import { everyAnswer, fullHouse, serve, type Served } from '../testing/full-house.js';
import { ago } from '../testing/household.js';
import { PARTS, STAYS_OUT } from './parts.js';
import { BackupProblem } from './problem.js';
import { readBackup } from './read.js';
import { lookAtBackup, putBack } from './restore.js';
import { writeBackup } from './write.js';

let folder: string;
let house: Served;
let zip: string;
let count = 0;
const fresh = () => join(folder, `${++count}.sqlite`);

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  house = await fullHouse(fresh());
  zip = join(folder, 'house.zip');
  await writeBackup(house.file, zip, Date.now());
});
afterAll(() => {
  house.store.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Everything in a file's tables, but for numbers that are about the file. */
function rowsOf(file: string): Record<string, unknown[]> {
  const client = new Database(file, { readonly: true });
  const tables = BACKUP_KIND_NAMES.flatMap((kind) => PARTS[kind].tables).map(getTableName);
  const rows = Object.fromEntries(
    tables.map((table) => {
      const order = table === 'case_events' ? 'case_id, number' : 'rowid';
      const all = client.prepare(`SELECT * FROM ${table} ORDER BY ${order}`).all() as object[];
      return [table, all.map((row) => (table === 'case_events' ? { ...row, number: 0 } : row))];
    }),
  );
  client.close();
  return rows;
}

async function putInto(file: string, backup = zip, draft = { how: 'replace' as const }) {
  openDatabase(file).$client.close();
  const staged = `${file}.staged`;
  const look = await lookAtBackup(file, backup, staged, Date.now());
  return { look, restored: putBack(file, staged, draft, Date.now()) };
}

describe('a backup', () => {
  it('tells of every table, or it is written down why not', () => {
    const client = openDatabase(':memory:').$client;
    const tables = client.prepare(`SELECT name FROM sqlite_master WHERE type = 'table'`).pluck();
    const told = BACKUP_KIND_NAMES.flatMap((kind) => PARTS[kind].tables).map(getTableName);
    expect([...told, ...Object.keys(STAYS_OUT)].toSorted()).toEqual(
      (tables.all() as string[]).toSorted(),
    );
  });

  it('has something of every kind here, so that what follows means something', async () => {
    const { counts } = await readBackup(zip);
    expect(Object.entries(counts).filter(([, lines]) => lines === 0)).toEqual([]);
  });

  it('put into an empty file makes every row of every table again', async () => {
    const file = fresh();
    await putInto(file);
    expect(rowsOf(file)).toEqual(rowsOf(house.file));
  });

  it('put into an empty file answers every question byte for byte as before', async () => {
    vi.useFakeTimers({ toFake: ['Date'], now: Date.now() });
    try {
      const before = await everyAnswer(house);
      const file = fresh();
      await putInto(file);
      const again = serve(file);
      expect(await everyAnswer(again)).toEqual(before);
      expect(before.size).toBeGreaterThan(30);
      again.store.close();
    } finally {
      vi.useRealTimers();
    }
  });

  it('can be read without the program: lines of JSON, schemas beside them, pictures as files', async () => {
    const files = await unpacked(zip);
    const names = [...files.keys()];
    expect(names).toContain('README.txt');
    expect(names.filter((name) => name.startsWith('photos/'))).toHaveLength(2);
    for (const kind of BACKUP_KIND_NAMES) {
      expect(JSON.parse(String(files.get(`schemas/${kind}.schema.json`)))).toHaveProperty('title');
      const lines = String(files.get(`data/${kind}.jsonl`))
        .trimEnd()
        .split('\n');
      for (const line of lines) expect(typeof JSON.parse(line)).toBe('object');
    }
  });

  it('holds nothing that lets anybody in, nor a digest of it', async () => {
    const other = await fullHouse(fresh());
    const { store, access } = other;
    const secrets = store.write(() => {
      const [person] = store.persons.list();
      const { device, secret } = access.devices.pair(person!.id, 'A phone', true);
      const { code } = access.devices.newCode(person!.id);
      const { token } = access.tokens.make({ name: 'A script', scopes: ['entries:read'] });
      const target = store.machines.list()[0]!.id;
      const link = access.links.make({ shows: 'machine', target, forWhom: 'The landlord' });
      store.persons.setPassphrase(person!.id, 'scrypt$1$2$3$salt$kept');
      return [secret, device.digest, code, token!, link.secret, digestOf(link.secret), '$kept'];
    });
    const path = join(folder, 'secrets.zip');
    await writeBackup(other.file, path, Date.now());
    const all = [...(await unpacked(path)).values()].map(String).join('\n');
    expect(all).toContain('"name":"Keeper"');
    for (const secret of secrets) expect(all).not.toContain(secret);
    store.close();
  });

  it('is of one moment, though much is written meanwhile', async () => {
    const file = fresh();
    await putInto(file);
    const { store, api } = serve(file);
    const [machine] = store.machines.list();
    const target = join(folder, 'busy.zip');
    let writing = true;
    const making = writeBackup(file, target, Date.now()).finally(() => (writing = false));
    const before = store.entries.count();
    for (let i = 0; writing; i++) {
      const id = machine!.id;
      // An entry and what takes its place: never the one without the other.
      const draft = { kind: 'load', machineId: id, at: ago(0), count: 1 };
      const { body } = await api.post('/api/v1/entries').send(draft).expect(201);
      await api.post(`/api/v1/entries/${body.id}/revision`).send(draft).expect(201);
      if (i > 3000) throw new Error('The backup does not end.');
    }
    const { counts } = await making;
    expect(store.entries.count()).toBeGreaterThan(before);
    expect(counts['entries']).toBeLessThan(store.entries.count());
    const copy = fresh();
    await putInto(copy, target);
    store.close();
  });

  it('is not made where there is nothing to keep, and leaves nothing behind', async () => {
    const file = fresh();
    openDatabase(file).$client.close();
    const target = join(folder, 'nothing.zip');
    await expect(writeBackup(file, target, Date.now())).rejects.toThrow(/no household is set up/);
    expect(() => readFileSync(`${target}.partial`)).toThrow();
  });
});

describe('a backup of an earlier program', () => {
  it('that knew of no papers is put back all the same', async () => {
    const files = await unpacked(zip);
    const said = JSON.parse(String(files.get('manifest.json'))) as {
      counts: Record<string, number>;
      parts: { path: string }[];
    };
    const theirs = ({ path }: { path: string }) => /documents/.test(path);
    for (const path of [...files.keys()].filter((one) => theirs({ path: one }))) files.delete(path);
    delete said.counts['documents'];
    said.parts = said.parts.filter((part) => !theirs(part));
    files.set('manifest.json', Buffer.from(JSON.stringify(said)));
    const path = join(folder, 'earlier.zip');
    await packed(files, path);
    const file = fresh();
    await putInto(file, path);
    const { documents: _papers, ...rest } = rowsOf(house.file);
    const { documents, ...put } = rowsOf(file);
    expect(documents).toEqual([]);
    expect(put).toEqual(rest);
  });
});

describe('what is no good backup is told for what it is, and nothing is changed', () => {
  let file: string;
  beforeEach(() => (file = fresh()));
  const reason = async (backup: string): Promise<string> => {
    const before = openDatabase(file);
    before.$client.close();
    const look = lookAtBackup(file, backup, `${file}.staged`, Date.now());
    const error = await look.then(
      () => new Error('It was taken.'),
      (problem: Error) => problem,
    );
    expect(error).toBeInstanceOf(BackupProblem);
    expect(() => readFileSync(`${file}.staged`)).toThrow();
    return error.message;
  };
  const changed = async (change: (files: Map<string, Buffer>) => void): Promise<string> => {
    const files = await unpacked(zip);
    change(files);
    const path = join(folder, `changed-${++count}.zip`);
    await packed(files, path);
    return reason(path);
  };
  const manifest = (change: (manifest: Record<string, unknown>) => void) =>
    changed((files) => {
      const said = JSON.parse(String(files.get('manifest.json'))) as Record<string, unknown>;
      change(said);
      files.set('manifest.json', Buffer.from(JSON.stringify(said)));
    });

  it('a file that is no zip, an empty one, and half of one', async () => {
    const path = join(folder, 'bad.zip');
    for (const content of [
      Buffer.from('hello'),
      Buffer.alloc(0),
      readFileSync(zip).subarray(0, 9999),
    ]) {
      writeFileSync(path, content);
      expect(await reason(path)).toMatch(/no backup of Needlecase/);
    }
  });
  it('a zip of something else', async () => {
    const files = new Map([['letter.txt', Buffer.from('Dear all')]]);
    const path = join(folder, 'foreign.zip');
    await packed(files, path);
    expect(await reason(path)).toBe('This is no backup of Needlecase.');
    expect(await manifest((said) => (said['format'] = 'songs'))).toBe(
      'This is no backup of Needlecase.',
    );
  });
  it('a newer one, an older one', async () => {
    expect(await manifest((said) => (said['version'] = 2))).toMatch(/newer Needlecase/);
    expect(await manifest((said) => (said['version'] = 0))).toMatch(/older than any/);
  });
  it('a changed line, a missing part, a part more, a picture that is none', async () => {
    const changedLine = (files: Map<string, Buffer>) => {
      const at = 'data/machines.jsonl';
      files.set(at, Buffer.from(String(files.get(at)).replace('"version":1', '"version":2')));
    };
    expect(await changed(changedLine)).toMatch(/damaged: data\/machines.jsonl is not as it was/);
    expect(await changed((files) => files.delete('data/entries.jsonl'))).toMatch(/is missing/);
    expect(await changed((files) => files.set('photos/x.jpg', Buffer.from('x')))).toMatch(
      /not named/,
    );
    const [photo] = [...(await unpacked(zip)).keys()].filter((name) => name.startsWith('photos/'));
    expect(await changed((files) => files.set(photo!, Buffer.from('x')))).toMatch(/damaged/);
  });
  it('one that unpacks to far more than it is', async () => {
    expect(
      await changed((files) => files.set('data/entries.jsonl', Buffer.alloc(80_000_000, ' '))),
    ).toMatch(/unpacks to more/);
  });

  it('any byte of it changed, or cut off anywhere: found, or of no matter', async () => {
    const whole = readFileSync(zip);
    const before = rowsOf(house.file);
    const path = join(folder, 'damaged.zip');
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 0, max: whole.length - 1 }),
        fc.integer({ min: 1, max: 255 }),
        fc.boolean(),
        async (at, by, cut) => {
          const bytes = cut ? Buffer.from(whole.subarray(0, at)) : Buffer.from(whole);
          if (!cut) bytes[at] = bytes[at]! ^ by;
          writeFileSync(path, bytes);
          const copy = fresh();
          const put = await putInto(copy, path).catch((error: unknown) => error);
          if (put instanceof Error) expect(put).toBeInstanceOf(BackupProblem);
          else expect(rowsOf(copy)).toEqual(before);
          rmSync(copy);
        },
      ),
      { numRuns: 25, seed: 1626, endOnFailure: true },
    );
  });
});

/** Every file in a zip. */
async function unpacked(path: string): Promise<Map<string, Buffer>> {
  const files = new Map<string, Buffer>();
  const from = await yauzl.openPromise(path);
  for await (const entry of from.eachEntry()) {
    const pieces: Buffer[] = [];
    for await (const piece of await from.openReadStreamPromise(entry)) {
      pieces.push(piece as Buffer);
    }
    files.set(entry.fileName, Buffer.concat(pieces));
  }
  return files;
}

async function packed(files: ReadonlyMap<string, Buffer>, path: string): Promise<void> {
  const to = new ZipFile();
  for (const [name, content] of files) to.addBuffer(content, name);
  to.end();
  await pipeline(to.outputStream, createWriteStream(path));
}

afterEach(() => vi.useRealTimers());
