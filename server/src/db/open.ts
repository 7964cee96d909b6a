import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { chmodSync, existsSync, mkdirSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { checkDataFile, FileProblem, mustBeWritable, toldOf } from './data-file.js';
import { holdDataFile, type Held } from './hold.js';
import { mendInstants } from './mend.js';
import * as tables from './tables.js';

export type Db = BetterSQLite3Database<typeof tables> & { $client: Database.Database };

/** The migrations lie beside the sources and, in a build, beside the bundle. */
const MIGRATIONS = ['../../migrations', '../migrations', 'migrations']
  .map((path) => join(dirname(fileURLToPath(import.meta.url)), path))
  .find((path) => existsSync(join(path, 'meta/_journal.json')))!;

/**
 * Opens a data file, making it where there is none, and brings it up to date. Before a migration
 * changes an existing file, a copy is put beside it.
 * @param file path, or `:memory:`
 * @throws FileProblem where it cannot be used; then nothing was written
 */
export function openDatabase(file: string): Db {
  return file === ':memory:' ? opened(file) : begun(file, () => opened(file));
}

/** As `openDatabase`, for this process alone. @throws FileProblem also where another one serves it */
export function serveDatabase(
  file: string,
  migrated: (how: Migrated) => void = () => undefined,
): { db: Db; held: Held } {
  return begun(file, () => {
    mkdirSync(dirname(file), { recursive: true });
    mustBeWritable(file);
    const held = holdDataFile(file);
    return { db: opened(file, migrated, SERVING), held };
  });
}

/**
 * Opens a data file only to read it, also while it is served.
 * @throws FileProblem where it cannot be used, or an older program made it
 */
export function readDatabase(file: string): Db {
  return begun(file, () => {
    const client = new Database(file, { readonly: true, fileMustExist: true });
    if (pending(client) > 0) {
      client.close();
      throw new FileProblem(
        `${file} was made by an older Needlecase. Start this one with it once, then try again.`,
      );
    }
    return drizzle(client, { schema: tables });
  });
}

function begun<T>(file: string, open: () => T): T {
  try {
    checkDataFile(file, Math.max(...migrations().map(({ folderMillis }) => folderMillis)));
    return open();
  } catch (error) {
    throw toldOf(file, error);
  }
}

const migrations = () => readMigrationFiles({ migrationsFolder: MIGRATIONS });

/** What was done to bring a file up to date. */
export interface Migrated {
  migrations: number;
  /** Where the file as it was before lies. */
  copy?: string;
}

/** So long another program is waited for while nobody is answered, ms; who opens a file by himself has time. */
const SERVING = { timeout: 100 };
const ALONE = { timeout: 5000 };

function opened(
  file: string,
  migrated: (how: Migrated) => void = () => undefined,
  patience = ALONE,
): Db {
  const isNew = file === ':memory:' || !existsSync(file);
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true });
  const client = new Database(file, patience);
  if (file !== ':memory:') ownersOnly(file);
  client.pragma('journal_mode = WAL');
  client.pragma('synchronous = FULL');
  client.pragma('foreign_keys = ON');
  const behind = pending(client);
  const copy = `${file}.before-${new Date().toISOString().replace(/[:.]/g, '-')}`;
  const copied = !isNew && behind > 0;
  const db = drizzle(client, { schema: tables });
  try {
    if (copied) {
      client.prepare('VACUUM INTO ?').run(copy);
      ownersOnly(copy);
    }
    if (behind > 0) migrate(db, { migrationsFolder: MIGRATIONS });
    if (!isNew && behind > 0) migrated({ migrations: behind, ...(copied ? { copy } : {}) });
  } catch (error) {
    // Nothing was changed: each start that fails would leave another copy.
    client.close();
    if (copied) rmSync(copy, { force: true });
    throw error;
  }
  if (copied) mendInstants(client);
  return db;
}

/** Nobody else on this computer reads it, whatever made it; what SQLite lays beside it is as it is. */
export const ownersOnly = (file: string): void => chmodSync(file, 0o600);

/** How many migrations a file has not had yet. */
function pending(client: Database.Database): number {
  const known = migrations();
  const hasTable = client
    .prepare(`SELECT 1 FROM sqlite_master WHERE name = '__drizzle_migrations'`)
    .get();
  if (!hasTable) return known.length;
  const last = client.prepare('SELECT max(created_at) AS at FROM __drizzle_migrations').get() as {
    at: number | null;
  };
  return known.filter(({ folderMillis }) => folderMillis > Number(last.at ?? 0)).length;
}
