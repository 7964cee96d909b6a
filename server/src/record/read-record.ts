import { JSONParser } from '@streamparser/json';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { checkLine } from '@needlecase/core/formats/check-backup';
import { isFiled, type BackupManifest } from '@needlecase/core/formats/backup';
import {
  FILE_NAMES,
  RECORD_FORMAT,
  RECORD_KINDS,
  RECORD_VERSION,
  type RecordKind,
} from '@needlecase/core/formats/record';
import { FILE_WORDS, isItsFile } from '../backup/its-file.js';
import { BackupProblem } from '../backup/problem.js';
import type { Taker } from '../backup/read.js';

/** No household's record is larger, bytes. */
const MOST = 4_000_000_000;
const HEAD = ['format', 'version', 'program', 'made', '$schema'] as const;
const FOREIGN = 'This is no record of Needlecase.';

/** Whether a file begins as JSON does. */
export async function looksLikeRecord(path: string): Promise<boolean> {
  for await (const piece of createReadStream(path, { end: 15 })) {
    return /^\uFEFF?\s*\{/.test((piece as Buffer).toString('utf8'));
  }
  return false;
}

/**
 * Reads a record from end to end, a piece in memory at a time: that it is one, and that each thing in it is what it
 * should be. Kinds may come in any order.
 * @returns what a backup of the same would say of itself
 * @throws BackupProblem in words, with the place of what is wrong
 */
export async function readRecord(path: string, taker: Taker): Promise<BackupManifest> {
  if ((await stat(path)).size > MOST) {
    throw new BackupProblem('This record is larger than any that is written.');
  }
  const reading = new Reading(taker);
  const parser = new JSONParser({
    paths: [...HEAD.map((name) => `$.${name}`), '$.household', '$.*.*'],
    keepStack: false,
  });
  let failed: Error | undefined;
  parser.onValue = ({ value, key, stack }) => {
    // Of the household each field would come by itself: only the whole is taken.
    const kind = stack.length > 1 ? stack[1]!.key : undefined;
    try {
      if (kind === undefined) reading.head(String(key), value);
      else if (typeof key === 'number') reading.thing(String(kind), value);
    } catch (error) {
      failed ??= error instanceof Error ? error : new Error(String(error));
    }
  };
  parser.onError = (error) => {
    failed ??= new BackupProblem(`This record cannot be read: ${error.message}`);
  };
  for await (const piece of createReadStream(path)) {
    parser.write(piece as Buffer);
    if (failed) throw failed;
  }
  if (!parser.isEnded) throw new BackupProblem('This record is cut short: its end is missing.');
  return reading.told();
}

/** What was read of a record so far. */
class Reading {
  readonly #counts: Record<string, number> = {};
  readonly #head: Record<string, unknown> = {};
  #household: BackupManifest['household'] | undefined;

  constructor(private readonly taker: Taker) {}

  head(name: string, value: unknown): void {
    if (name === 'household') {
      this.#household = this.#right('household', value) as BackupManifest['household'];
      return;
    }
    if (name === 'format' && value !== RECORD_FORMAT) throw new BackupProblem(FOREIGN);
    if (name === 'version' && (typeof value !== 'number' || value > RECORD_VERSION)) {
      throw new BackupProblem(
        'This record was written by a newer Needlecase. Bring this one up to date first.',
      );
    }
    this.#head[name] = value;
  }

  thing(name: string, value: unknown): void {
    const kind = RECORD_KINDS.find((one) => one === name && one !== 'household');
    if (!kind) throw new BackupProblem(`This record is damaged: there is nothing called ${name}.`);
    if (!isFiled(kind)) return void this.#right(kind, value);
    const { [FILE_NAMES[kind]]: file, ...told } = (value ?? {}) as Record<string, unknown>;
    const at = this.#place(kind);
    if (file === undefined) return;
    const bytes = typeof file === 'string' ? Buffer.from(file, 'base64') : Buffer.alloc(0);
    if (!isItsFile(kind, bytes)) {
      throw new BackupProblem(`This record is damaged: ${at} is no ${FILE_WORDS[kind]}.`);
    }
    const { id } = this.#right(kind, told) as { id: string };
    this.taker.file(kind, id, bytes);
  }

  #place(kind: RecordKind): string {
    return kind === 'household' ? 'household' : `${kind}, ${(this.#counts[kind] ?? 0) + 1}`;
  }

  #right(kind: RecordKind, value: unknown): unknown {
    const number = this.#counts[kind] ?? 0;
    const [problem] = checkLine(kind, value);
    if (problem) {
      const field = problem.field || 'the whole';
      throw new BackupProblem(
        `This record is damaged: ${this.#place(kind)}: ${field}: ${problem.message}`,
      );
    }
    this.taker.line(kind, value, number);
    this.#counts[kind] = number + 1;
    return value;
  }

  told(): BackupManifest {
    const { format, version, program, made } = this.#head;
    if (format !== RECORD_FORMAT || version === undefined) throw new BackupProblem(FOREIGN);
    if (!this.#household) throw new BackupProblem('This record is damaged: it is of no household.');
    const { id, name, zone } = this.#household;
    return {
      ...{ format: 'needlecase-backup', version: 1, parts: [], counts: this.#counts },
      program: typeof program === 'string' ? program : '',
      made:
        typeof made === 'string' && !Number.isNaN(Date.parse(made))
          ? made
          : new Date(0).toISOString(),
      household: { id, name, zone },
    };
  }
}
