import { rmSync } from 'node:fs';
import type { BackupManifest } from '@needlecase/core/formats/backup';
import { openDatabase } from '../db/open.js';
import { putLine, putPicture } from './parts.js';
import { BackupProblem } from './problem.js';
import { readBackup } from './read.js';

/** Removes a staged file with what SQLite lays beside it. */
export function removeStaged(staged: string): void {
  for (const end of ['', '-wal', '-shm', '-journal']) rmSync(staged + end, { force: true });
}

/**
 * Makes a data file of its own out of a backup: by this it is checked whole, before anything of it is taken.
 * @throws BackupProblem in words; then nothing is left
 */
export async function stageBackup(zip: string, staged: string): Promise<BackupManifest> {
  removeStaged(staged);
  const db = openDatabase(staged);
  const client = db.$client;
  try {
    // It is gone if anything happens: what makes the household's own file sure only costs time here.
    client.pragma('journal_mode = MEMORY');
    client.pragma('synchronous = OFF');
    client.exec('BEGIN');
    const pictures = new Set<string>();
    const manifest = await readBackup(zip, {
      line(kind, line, number) {
        try {
          putLine(db, kind, line, number);
        } catch (error) {
          throw misfit(`${kind}, line ${number + 1}`, error);
        }
        if (kind === 'photos') pictures.add((line as { id: string }).id);
      },
      picture(id, picture) {
        if (!pictures.delete(id) || !putPicture(db, id, picture)) {
          throw new BackupProblem(`This backup is damaged: nothing tells of photo ${id}.`);
        }
      },
    });
    const [missing] = pictures;
    if (missing) throw new BackupProblem(`This backup is damaged: photo ${missing} is missing.`);
    if (manifest.counts['household'] !== 1) {
      throw new BackupProblem('This backup is damaged: it is not of one household.');
    }
    client.exec('COMMIT');
    client.close();
    return manifest;
  } catch (error) {
    client.close();
    removeStaged(staged);
    throw error;
  }
}

/** A line that is right by itself and does not fit the others. */
function misfit(where: string, error: unknown): unknown {
  const { code = '' } = error as { code?: string };
  return code.startsWith('SQLITE_CONSTRAINT')
    ? new BackupProblem(`This backup is damaged: ${where} does not fit the rest.`)
    : error;
}
