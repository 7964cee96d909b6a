import Database from 'better-sqlite3';
import {
  accessSync,
  closeSync,
  constants,
  existsSync,
  openSync,
  readFileSync,
  readSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { dirname } from 'node:path';

/** A data file that cannot be used, in one sentence that can be shown. */
export class FileProblem extends Error {}

const MAGIC = 'SQLite format 3\0';

/**
 * Looks at a data file before anything is written to it.
 * @param newest of the program's migrations, milliseconds
 * @throws FileProblem where it is none, is damaged, or is of a newer program
 */
export function checkDataFile(file: string, newest: number): void {
  if (!existsSync(file)) return;
  const { size } = isFile(file);
  if (size === 0) return;
  const head = Buffer.alloc(100);
  const handle = openSync(file, 'r');
  readSync(handle, head, 0, head.length, 0);
  closeSync(handle);
  if (head.toString('latin1', 0, MAGIC.length) !== MAGIC) {
    throw new FileProblem(
      `${file} is no data file of Needlecase. Set NEEDLECASE_DB to another one.`,
    );
  }
  // The header's layout: https://www.sqlite.org/fileformat2.html, 1.3. A page size of 1 means 65,536.
  const pageSize = head.readUInt16BE(16) === 1 ? 65_536 : head.readUInt16BE(16);
  if (size < head.readUInt32BE(28) * pageSize) {
    throw new FileProblem(
      `${file} is cut short: a part of it is missing. Put a backup in its place.`,
    );
  }
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
  [/^SQLITE_CORRUPT/, 'is damaged. Put a backup in its place.'],
  [/^SQLITE_READONLY|^EACCES|^EPERM|^EROFS/, 'cannot be written. Look who may write there.'],
  [/^SQLITE_CANTOPEN|^ENOTDIR|^EEXIST/, 'cannot be opened. Look whether its folder is one.'],
  [/^SQLITE_BUSY/, 'is held by another program.'],
  [/^SQLITE_FULL|^ENOSPC/, 'finds no room: the disk is full.'],
];

/** An error on opening a file as a sentence; itself where it is something else. */
export function toldOf(file: string, error: unknown): unknown {
  const { code = '' } = error as { code?: string };
  const said = SAID.find(([what]) => what.test(code))?.[1];
  return said === undefined ? error : new FileProblem(`${file} ${said}`);
}

/**
 * Watches whether the file under a name is still the one that was opened.
 * @returns false where it was moved away, deleted or replaced
 */
export function watchPlace(file: string): () => boolean {
  const { ino, dev } = statSync(file);
  return () => {
    const now = statSync(file, { throwIfNoEntry: false });
    return now !== undefined && now.ino === ino && now.dev === dev;
  };
}

/** A data file that this process has. */
export interface Held {
  /** Writes down where it is served, for whoever wants it too. */
  at(address: string): void;
}

/**
 * Holds a data file for this process. The system lets it go when the process ends, however it ends.
 * @throws FileProblem where another process has it
 */
export function holdDataFile(file: string): Held {
  const note = `${file}.lock-address`;
  const lock = new Database(`${file}.lock`, { timeout: 0 });
  try {
    lock.pragma('locking_mode = EXCLUSIVE');
    lock.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    lock.close();
    if (!/^SQLITE_BUSY/.test((error as { code?: string }).code ?? '')) throw error;
    const address = existsSync(note) ? readFileSync(note, 'utf8').trim() : '';
    throw new FileProblem(
      `${file} is served already${address && `, at ${address}`}. Two servers on one file would lose what they do not know of.`,
    );
  }
  held.push(lock);
  return { at: (address) => writeFileSync(note, `${address}\n`) };
}

/** Kept, so that the lock lives as long as the process. */
const held: Database.Database[] = [];
