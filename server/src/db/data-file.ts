import Database from 'better-sqlite3';
import { accessSync, constants, existsSync, statSync } from 'node:fs';
import { dirname } from 'node:path';

/*
 * The data file is opened by SQLite alone. A process that closes any handle of a file lets go of all locks that it
 * has on it (POSIX, fcntl), SQLite's among them: another program that then opened and closed the file would take the
 * live -wal away, and everything written from there on would be lost.
 */

/** A data file that cannot be used, in one sentence that can be shown. */
export class FileProblem extends Error {}

/**
 * Looks at a data file before anything is written to it.
 * @param newest of the program's migrations, milliseconds
 * @throws FileProblem where it is none, is damaged, or is of a newer program
 */
export function checkDataFile(file: string, newest: number): void {
  if (!existsSync(file)) return;
  if (isFile(file).size === 0) return;
  const client = new Database(file, { readonly: true, fileMustExist: true });
  try {
    const tables = client
      .prepare(`SELECT name FROM sqlite_master WHERE type = 'table'`)
      .pluck()
      .all() as string[];
    if (tables.length > 0 && !tables.includes('__drizzle_migrations')) {
      throw new FileProblem(
        `${file} belongs to another program. Set NEEDLECASE_DB to another file.`,
      );
    }
    const last = tables.length
      ? client.prepare('SELECT max(created_at) FROM __drizzle_migrations').pluck().get()
      : 0;
    if (Number(last ?? 0) > newest) {
      throw new FileProblem(
        `${file} was written by a newer Needlecase. Start that one, or set NEEDLECASE_DB to another file.`,
      );
    }
  } finally {
    client.close();
  }
}

/**
 * Sees to it that a data file and its folder can be written: SQLite lays files beside it.
 * @param may as `accessSync` of Node: throws where something may not be done
 * @throws FileProblem where not
 */
export function mustBeWritable(file: string, may = accessSync): void {
  const told = (path: string, what: string) => {
    try {
      may(path, constants.W_OK);
    } catch {
      throw new FileProblem(`${path} cannot be written${what}. Look who may write there.`);
    }
  };
  if (existsSync(file)) told(file, '');
  told(dirname(file), ', the folder of the data file');
}

function isFile(file: string): { size: number } {
  const found = statSync(file);
  if (!found.isFile()) {
    throw new FileProblem(`${file} is a folder, no data file. Set NEEDLECASE_DB to a file.`);
  }
  return found;
}

/** What SQLite and the system say, and what is told of it. */
const SAID: readonly [RegExp, string][] = [
  [/^SQLITE_NOTADB/, 'is no data file of Needlecase. Set NEEDLECASE_DB to another one.'],
  [/^SQLITE_CORRUPT/, 'is damaged or cut short. Put a backup in its place.'],
  [/^SQLITE_READONLY|^EACCES|^EPERM|^EROFS/, 'cannot be written. Look who may write there.'],
  [/^SQLITE_CANTOPEN|^ENOTDIR|^EEXIST/, 'cannot be opened. Check that the path leads to a folder.'],
  [/^SQLITE_BUSY/, 'is held by another program.'],
  [/^SQLITE_FULL|^ENOSPC/, 'finds no room: the disk is full.'],
];

/** An error on opening a file as a sentence; itself where it is something else. */
export function toldOf(file: string, error: unknown): unknown {
  const { code = '' } = error as { code?: string };
  const said = SAID.find(([what]) => what.test(code))?.[1];
  return said === undefined ? error : new FileProblem(`${file} ${said}`);
}
