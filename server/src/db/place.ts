import { statSync } from 'node:fs';
import { basename } from 'node:path';

/** What SQLite lays beside a data file while it is open. */
const BESIDE = ['-wal', '-shm'] as const;

type Kept = { ino: number; dev: number };

const found = (path: string): Kept | undefined => {
  const now = statSync(path, { throwIfNoEntry: false });
  return now && { ino: now.ino, dev: now.dev };
};

const isSame = (a: Kept | undefined, b: Kept | undefined): boolean =>
  a !== undefined && b !== undefined && a.ino === b.ino && a.dev === b.dev;

/** What of a data file is no longer where it was. */
export interface Lost {
  /** Whether it can come back: the file itself was moved away, say. */
  canComeBack: boolean;
  /** In a sentence. */
  why: string;
}

/**
 * Watches whether a data file, and what SQLite lays beside it, are still those that were opened. They are told by
 * their place on the disk alone: none of them is opened for it.
 */
export class DataPlace {
  readonly #file: Kept;
  readonly #beside: ReadonlyMap<string, Kept>;
  #lostForGood: Lost | undefined;

  /** @param file a data file in WAL mode that is open, and was read from since */
  constructor(readonly file: string) {
    this.#file = found(file)!;
    this.#beside = new Map(
      BESIDE.flatMap((end) => {
        const kept = found(file + end);
        return kept ? [[end, kept] as const] : [];
      }),
    );
  }

  /** What is lost now; what SQLite had open beside the file and lost does not come back. */
  lost(): Lost | undefined {
    if (this.#lostForGood) return this.#lostForGood;
    if (!isSame(found(this.file), this.#file)) {
      return {
        canComeBack: true,
        why: 'The data file was moved away or replaced while the server runs.',
      };
    }
    for (const [end, kept] of this.#beside) {
      if (isSame(found(this.file + end), kept)) continue;
      return (this.#lostForGood = {
        canComeBack: false,
        why: `Another program took ${basename(this.file)}${end} away while the server runs.`,
      });
    }
    return undefined;
  }
}
