import { createHash } from 'node:crypto';
import { buffer } from 'node:stream/consumers';
import { crc32 } from 'node:zlib';
import * as yauzl from 'yauzl';
import {
  BACKUP_FORMAT,
  BACKUP_KIND_NAMES,
  BACKUP_VERSION,
  fileAt,
  linesPath,
  type BackupKind,
  type BackupManifest,
  type FiledKind,
} from '@needlecase/core/formats/backup';
import { checkLine, checkManifest } from '@needlecase/core/formats/check-backup';
import { FILE_WORDS, isItsFile } from './its-file.js';
import { textLines } from './lines.js';
import { BackupProblem } from './problem.js';

/** What takes in what a backup holds. */
export interface Taker {
  line(kind: BackupKind, line: unknown, number: number): void;
  file(kind: FiledKind, id: string, file: Buffer): void;
}

const DAMAGED = 'This backup is damaged';
const FOREIGN = 'This is no backup of Needlecase.';
/** JSON lines are packed to a tenth or so; what unpacks to more than this many times its size is a trick. */
const MOST_TIMES = 200;
const MOST_MANIFEST = 50_000_000;
/** Nothing that is filed is larger, bytes; nor has any household so many files. */
const MOST_FILE = 25_000_000;
const MOST_FILES = 300_000;

/**
 * Reads a backup from end to end: that it is one, that it is whole, and that each line is what it should be.
 * @param taker is given everything, in the order of `BACKUP_KINDS`, each file after all lines
 * @throws BackupProblem, in words
 */
export async function readBackup(path: string, taker?: Taker): Promise<BackupManifest> {
  const zip = await opened(path);
  try {
    const { files, manifest } = await inside(zip);
    for (const kind of BACKUP_KIND_NAMES) {
      const part = linesPath(kind);
      // A kind that came after it was made.
      if (!(kind in manifest.counts) && !files.has(part)) continue;
      let number = 0;
      const pieces = checkedPieces(zip, files.get(part)!, manifest, part);
      for await (const text of textLines(pieces)) {
        taker?.line(kind, rightLine(kind, text, number), number);
        if (!taker) rightLine(kind, text, number);
        number++;
      }
      if (number !== (manifest.counts[kind] ?? 0)) {
        throw new BackupProblem(`${DAMAGED}: not all of ${part} is there.`);
      }
    }
    for (const [part, entry] of files) {
      if (part.startsWith('data/') || part === MANIFEST) continue;
      if (entry.uncompressedSize > MOST_FILE) {
        throw new BackupProblem(`${DAMAGED}: ${part} is larger than ${MOST_FILE / 1e6} MB.`);
      }
      const content = await all(checkedPieces(zip, entry, manifest, part));
      const of = fileAt(part);
      if (!of) continue;
      if (!isItsFile(of.kind, content)) {
        throw new BackupProblem(`${DAMAGED}: ${part} is no ${FILE_WORDS[of.kind]}.`);
      }
      taker?.file(of.kind, of.id, content);
    }
    return manifest;
  } catch (error) {
    throw told(error);
  } finally {
    zip.close();
  }
}

const MANIFEST = 'manifest.json';

async function opened(path: string): Promise<yauzl.ZipFile> {
  try {
    return await yauzl.openPromise(path, { autoClose: false });
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === 'ENOENT') throw new BackupProblem(`There is no file ${path}.`);
    if (code !== undefined) throw error;
    throw new BackupProblem(`${FOREIGN} Or it is cut short: the end of a .zip is missing.`);
  }
}

/** The files of a backup by their paths, and what it says of itself. */
async function inside(
  zip: yauzl.ZipFile,
): Promise<{ files: Map<string, yauzl.Entry>; manifest: BackupManifest }> {
  const files = new Map<string, yauzl.Entry>();
  let unpacked = 0;
  for await (const entry of zip.eachEntry()) {
    if (files.size >= MOST_FILES) {
      throw new BackupProblem(`This file holds more than ${MOST_FILES} others.`);
    }
    files.set(entry.fileName, entry);
    unpacked += entry.uncompressedSize;
  }
  const said = files.get(MANIFEST);
  if (!said) throw new BackupProblem(FOREIGN);
  if (unpacked > MOST_TIMES * zip.fileSize || said.uncompressedSize > MOST_MANIFEST) {
    throw new BackupProblem('This file unpacks to more than any backup does.');
  }
  const bytes = await buffer(await zip.openReadStreamPromise(said));
  if (crc32(bytes) !== said.crc32) {
    throw new BackupProblem(`${DAMAGED}: its list of parts is not as written.`);
  }
  return { files, manifest: understood(bytes, files) };
}

/** What a backup says of itself, if this program can read it and everything that it names is there. */
function understood(bytes: Buffer, files: ReadonlyMap<string, unknown>): BackupManifest {
  let manifest: BackupManifest;
  try {
    manifest = JSON.parse(bytes.toString('utf8')) as BackupManifest;
  } catch {
    throw new BackupProblem(FOREIGN);
  }
  if (manifest?.format !== BACKUP_FORMAT) throw new BackupProblem(FOREIGN);
  if (manifest.version > BACKUP_VERSION) {
    throw new BackupProblem(
      `This backup was made by a newer Needlecase (${manifest.program}). Bring this one up to date first.`,
    );
  }
  if (manifest.version < BACKUP_VERSION) {
    throw new BackupProblem('This backup is older than any that this Needlecase can read.');
  }
  if (checkManifest(manifest).length)
    throw new BackupProblem(`${DAMAGED}: its list of parts cannot be read.`);
  const named = new Set([MANIFEST, ...manifest.parts.map(({ path }) => path)]);
  const missing = [
    ...named,
    ...BACKUP_KIND_NAMES.filter((kind) => kind in manifest.counts).map(linesPath),
  ].find((path) => !files.has(path));
  if (missing !== undefined) throw new BackupProblem(`${DAMAGED}: ${missing} is missing.`);
  const more = [...files.keys()].find((path) => !named.has(path));
  if (more !== undefined) {
    throw new BackupProblem(`${DAMAGED} or was changed: ${more} is in it and is not named.`);
  }
  return manifest;
}

/** A file's content on its way, measured: it must be as it was written. */
async function* checkedPieces(
  zip: yauzl.ZipFile,
  entry: yauzl.Entry,
  { parts }: BackupManifest,
  path: string,
): AsyncGenerator<Buffer> {
  const part = parts.find((one) => one.path === path);
  if (!part) throw new BackupProblem(`${DAMAGED}: ${path} is not named.`);
  const hash = createHash('sha256');
  let bytes = 0;
  for await (const piece of (await zip.openReadStreamPromise(entry)) as AsyncIterable<Buffer>) {
    bytes += piece.length;
    hash.update(piece);
    yield piece;
  }
  if (bytes !== part.bytes || hash.digest('hex') !== part.sha256) {
    throw new BackupProblem(`${DAMAGED}: ${path} is not as it was written.`);
  }
}

async function all(pieces: AsyncIterable<Buffer>): Promise<Buffer> {
  const found: Buffer[] = [];
  for await (const piece of pieces) found.push(piece);
  return Buffer.concat(found);
}

function rightLine(kind: BackupKind, text: string, number: number): unknown {
  const at = `${linesPath(kind)}, line ${number + 1}`;
  let line: unknown;
  try {
    line = JSON.parse(text);
  } catch {
    throw new BackupProblem(`${DAMAGED}: ${at} cannot be read.`);
  }
  const [problem] = checkLine(kind, line);
  if (problem) {
    throw new BackupProblem(
      `${DAMAGED}: ${at}: ${problem.field || 'the whole'}: ${problem.message}`,
    );
  }
  return line;
}

/** What the unpacking says, in words; itself where it is about the disk. */
function told(error: unknown): unknown {
  if (error instanceof BackupProblem) return error;
  const { code, message } = error as NodeJS.ErrnoException;
  return code !== undefined && /^E[A-Z]+$/.test(code)
    ? error
    : new BackupProblem(`${DAMAGED}: it cannot be unpacked (${message}).`);
}
