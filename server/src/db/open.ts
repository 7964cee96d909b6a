import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { existsSync, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
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
 */
export function openDatabase(file: string): Db {
  const isNew = file === ':memory:' || !existsSync(file);
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true });
  const client = new Database(file);
  client.pragma('journal_mode = WAL');
  client.pragma('synchronous = FULL');
  client.pragma('foreign_keys = ON');
  const behind = pending(client);
  if (!isNew && behind > 0) {
    const stamp = new Date().toISOString().replace(/[:.]/g, '-');
    client.prepare('VACUUM INTO ?').run(`${file}.before-${stamp}`);
  }
  const db = drizzle(client, { schema: tables });
  if (behind > 0) migrate(db, { migrationsFolder: MIGRATIONS });
  if (!isNew && behind > 0) mendInstants(client);
  return db;
}

/** How many migrations a file has not had yet. */
function pending(client: Database.Database): number {
  const known = readMigrationFiles({ migrationsFolder: MIGRATIONS });
  const hasTable = client
    .prepare(`SELECT 1 FROM sqlite_master WHERE name = '__drizzle_migrations'`)
    .get();
  if (!hasTable) return known.length;
  const last = client.prepare('SELECT max(created_at) AS at FROM __drizzle_migrations').get() as {
    at: number | null;
  };
  return known.filter(({ folderMillis }) => folderMillis > Number(last.at ?? 0)).length;
}
