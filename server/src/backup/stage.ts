import { rmSync } from 'node:fs';
import type { BackupManifest } from '@needlecase/core/formats/backup';
import { openDatabase } from '../db/open.js';
import { BACKUP_KINDS, isFiled, type BackupKind } from '@needlecase/core/formats/backup';
import { mapInstants } from '@needlecase/core/model/instants';
import { impossibleTime } from '@needlecase/core/units/clock';
import { putFile, putLine } from './parts.js';
import { FILE_WORDS } from './its-file.js';
import { BackupProblem } from './problem.js';
import { looksLikeRecord, readRecord } from '../record/read-record.js';
import { readBackup, type Taker } from './read.js';

/** Removes a staged file with what SQLite lays beside it. */
export function removeStaged(staged: string): void {
  for (const end of ['', '-wal', '-shm', '-journal']) rmSync(staged + end, { force: true });
}

/**
 * Makes a data file of its own out of a backup, or out of a record in JSON: by this it is checked whole, before anything of it is taken.
 * @throws BackupProblem in words; then nothing is left
 */
export async function stageBackup(
  zip: string,
  staged: string,
  now = Date.now(),
): Promise<BackupManifest> {
  removeStaged(staged);
  const db = openDatabase(staged);
  const client = db.$client;
  try {
    // It is gone if anything happens: what makes the household's own file sure only costs time here.
    client.pragma('journal_mode = MEMORY');
    client.pragma('synchronous = OFF');
    client.exec('BEGIN');
    const awaited = new Set<string>();
    const taker: Taker = {
      line(kind, line, number) {
        mustBeOfItsTime(kind, line, number, now);
        try {
          putLine(db, kind, line, number);
        } catch (error) {
          throw misfit(`${kind}, line ${number + 1}`, error);
        }
        if (isFiled(kind)) awaited.add(`${FILE_WORDS[kind]} ${(line as { id: string }).id}`);
      },
      file(kind, id, file) {
        const said = `${FILE_WORDS[kind]} ${id}`;
        if (!awaited.delete(said) || !putFile(db, kind, id, file)) {
          throw new BackupProblem(`This backup is damaged: nothing tells of ${said}.`);
        }
      },
    };
    const isRecord = await looksLikeRecord(zip);
    // Its kinds may come in any order.
    if (isRecord) client.pragma('defer_foreign_keys = ON');
    const manifest = await (isRecord ? readRecord : readBackup)(zip, taker);
    const [missing] = awaited;
    if (missing) throw new BackupProblem(`This backup is damaged: ${missing} is missing.`);
    if (manifest.counts['household'] !== 1) {
      throw new BackupProblem('This backup is damaged: it is not of one household.');
    }
    try {
      client.exec('COMMIT');
    } catch (error) {
      throw misfit('something', error);
    }
    client.close();
    return manifest;
  } catch (error) {
    client.close();
    removeStaged(staged);
    throw error;
  }
}

/** What happened is of a time that can be, as wherever else it comes in. @throws BackupProblem */
function mustBeOfItsTime(kind: BackupKind, line: unknown, number: number, now: number): void {
  if (!HAPPENED.includes(kind)) return;
  mapInstants(BACKUP_KINDS[kind], line, (text) => {
    const wrong = impossibleTime(Date.parse(text), now);
    if (wrong) {
      throw new BackupProblem(`This backup is damaged: ${kind}, line ${number + 1}: ${wrong}`);
    }
    return text;
  });
}
const HAPPENED: readonly BackupKind[] = ['entries', 'cases', 'runs'];

/** A line that is right by itself and does not fit the others. */
function misfit(where: string, error: unknown): unknown {
  const { code = '' } = error as { code?: string };
  return code.startsWith('SQLITE_CONSTRAINT')
    ? new BackupProblem(`This backup is damaged: ${where} does not fit the rest.`)
    : error;
}
