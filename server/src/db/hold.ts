import Database from 'better-sqlite3';
import { noteAddress, notedAddress } from '../files/address-note.js';
import { FileProblem } from './data-file.js';

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
    const address = notedAddress(note);
    throw new FileProblem(
      `${file} is served already${address && `, at ${address}`}. Two servers on one file would lose what they do not know of.`,
    );
  }
  held.push(lock);
  return { at: (address) => noteAddress(note, address) };
}

/** Kept, so that the lock lives as long as the process. */
const held: Database.Database[] = [];
