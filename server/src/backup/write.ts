import { createHash, type Hash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import {
  BACKUP_FORMAT,
  BACKUP_KIND_NAMES,
  BACKUP_KINDS,
  BACKUP_VERSION,
  FILED_KINDS,
  filePath,
  linesPath,
  type BackupManifest,
} from '@needlecase/core/formats/backup';
import { readDatabase } from '../db/open.js';
import { households } from '../db/tables.js';
import { jsonLines } from './lines.js';
import type { DocumentType } from '@needlecase/core/model/documents';
import { fileOf, linesOf } from './parts.js';
import { BackupProblem } from './problem.js';
import { PROGRAM } from '../program.js';
import { readBackup } from './read.js';

/** Told to whoever opens a backup by hand. */
const READ_ME = `This is a backup of a household's Needlecase.

manifest.json   what it is: when it was made, of which household, how much of each kind is in it, and the
                SHA-256 of every other file
data/           one file a kind, a thing a line, as JSON (https://jsonlines.org). Instants are UTC.
schemas/        what a line of each kind looks like (JSON Schema 2020-12); the API tells the same
photos/         the photos, by the ids that entries name in "photos"
documents/      manuals, receipts and other papers, by the ids in data/documents.jsonl

An entry that takes another's place names it in "revises"; of the kind "undone" it takes it back.

To put it back: House > Backup, or  npm run restore -- FILE
No passwords and no keys are in it. On a new computer each phone is paired anew.
`;

/** A part of a backup as it is written: measured on its way. */
class Written {
  bytes = 0;
  readonly #hash: Hash = createHash('sha256');

  constructor(readonly path: string) {}

  *measured(pieces: Iterable<Buffer>): Generator<Buffer> {
    for (const piece of pieces) {
      this.bytes += piece.length;
      this.#hash.update(piece);
      yield piece;
    }
  }

  get told(): BackupManifest['parts'][number] {
    return { path: this.path, bytes: this.bytes, sha256: this.#hash.copy().digest('hex') };
  }
}

/**
 * Makes a backup of a data file as it stands at one moment, also while it is served, and reads it again. Until
 * it is whole it goes by another name.
 * @param target where it is put
 * @param now instant, milliseconds
 * @throws BackupProblem where there is no household yet, or what was written cannot be read again;
 *   FileProblem where the data file cannot be used
 */
export async function writeBackup(
  file: string,
  target: string,
  now: number,
): Promise<BackupManifest> {
  const partial = `${target}.partial`;
  try {
    await write(file, partial, now);
    const manifest = await readBackup(partial);
    await rename(partial, target);
    return manifest;
  } catch (error) {
    await rm(partial, { force: true });
    throw error;
  }
}

async function write(file: string, target: string, now: number): Promise<void> {
  const db = readDatabase(file);
  try {
    // From the first read on, this is what is seen, whatever is written meanwhile.
    db.$client.exec('BEGIN');
    const household = db.select().from(households).get();
    if (!household)
      throw new BackupProblem('There is nothing to keep yet: no household is set up.');
    const zip = new ZipFile();
    const mtime = new Date(now);
    const parts: Written[] = [];
    const counts: Record<string, number> = {};
    /** Adds a file; its content is asked for when it is its turn. */
    const add = (path: string, content: () => Iterable<Buffer>, compress = true) => {
      const part = new Written(path);
      parts.push(part);
      zip.addReadStreamLazy(path, { mtime, compress }, (give) =>
        give(null, Readable.from(part.measured(content()), { objectMode: false })),
      );
    };
    add('README.txt', () => [Buffer.from(READ_ME)]);
    for (const kind of BACKUP_KIND_NAMES) {
      const schema = {
        $schema: 'https://json-schema.org/draft/2020-12/schema',
        ...BACKUP_KINDS[kind],
      };
      add(`schemas/${kind}.schema.json`, () => [Buffer.from(JSON.stringify(schema, undefined, 2))]);
    }
    for (const kind of BACKUP_KIND_NAMES) {
      add(linesPath(kind), () => jsonLines(linesOf(db, kind), (lines) => (counts[kind] = lines)));
    }
    for (const kind of FILED_KINDS) {
      for (const line of linesOf(db, kind) as Iterable<{ id: string; type?: DocumentType }>) {
        add(filePath(kind, line), () => [fileOf(db, kind, line.id)], false);
      }
    }
    const manifest = (): BackupManifest => ({
      format: BACKUP_FORMAT,
      version: BACKUP_VERSION,
      program: PROGRAM,
      made: mtime.toISOString(),
      household: { id: household.id, name: household.name, zone: household.zone },
      counts,
      parts: parts.map(({ told }) => told),
    });
    zip.addReadStreamLazy('manifest.json', { mtime }, (give) =>
      give(null, Readable.from([Buffer.from(JSON.stringify(manifest(), undefined, 2))])),
    );
    zip.end();
    const failed = new Promise<never>((_, fail) => zip.on('error', fail));
    await Promise.race([
      pipeline(zip.outputStream, createWriteStream(target, { mode: 0o600 })),
      failed,
    ]);
    const written = await open(target, 'r+');
    await written.sync();
    await written.close();
  } finally {
    db.$client.close();
  }
}
