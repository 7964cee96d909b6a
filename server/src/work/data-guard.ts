import { existsSync } from 'node:fs';
import { basename } from 'node:path';
import { ownersOnly, type Db } from '../db/open.js';
import { DataPlace } from '../db/place.js';
import type { Changes, Stop } from '../http/changes.js';
import { heldBack, type ProblemError } from '../http/problem.js';

const EACH_MS = 1000;
/** What could not be rescued is tried again after so long, ms. */
const AGAIN_MS = 30_000;

interface Log {
  error(what: unknown): void;
}

/**
 * Sees to it that nothing is thanked for that nobody would find again: while the data file, or what SQLite lays beside
 * it, is not where it was, nothing is stored, every screen is told, and what this process still has of it is written
 * into a new file beside it.
 */
export class DataGuard {
  readonly #place: DataPlace;
  /** Called when it stands otherwise with the file. */
  changed: () => void = () => undefined;
  #why: string | undefined;
  #rescue: string | undefined;
  #reads = true;
  #tried = -Infinity;
  readonly #looks: NodeJS.Timeout;

  /** @param file the data file that `db` has open */
  constructor(
    private readonly file: string,
    private readonly db: Db,
    private readonly changes: Changes,
    private readonly log: Log | undefined,
    private readonly now: () => number = () => Date.now(),
  ) {
    // Read from once, so that what lies beside it is there.
    db.$client.prepare('SELECT count(*) FROM sqlite_master').get();
    this.#place = new DataPlace(file);
    this.#looks = setInterval(() => this.problem(), EACH_MS);
    this.#looks.unref();
  }

  /** What is wrong, in a sentence; nothing while all is in its place. */
  get says(): string | undefined {
    return this.#why;
  }

  /** The same with what to do, as it is told to screens. */
  get told(): Stop | undefined {
    return this.#why === undefined ? undefined : { title: this.#why, detail: this.#what() };
  }

  /** Whether what was read in may be told: the file itself is where it was. */
  get reads(): boolean {
    return this.#reads;
  }

  /** Where what could be rescued lies. */
  get rescued(): string | undefined {
    return this.#rescue;
  }

  /** Looks now. @returns the answer for whoever wants to store something */
  problem(): ProblemError | undefined {
    const lost = this.#place.lost();
    this.#reads = !lost?.canComeBack;
    if (!lost) {
      // What was rescued is of then: the next time it is done anew.
      this.#rescue = undefined;
      if (this.#why !== undefined) this.#tell(undefined);
      return undefined;
    }
    if (this.#why !== lost.why) {
      this.log?.error(lost.why);
      this.#tell(lost.why);
      this.#tried = -Infinity;
    }
    // The screens are told first: what is rescued may take some seconds.
    if (this.#rescue === undefined && this.now() - this.#tried > AGAIN_MS) {
      this.#tried = this.now();
      setImmediate(() => this.#write());
    }
    return heldBack(lost.why, this.#what());
  }

  stop(): void {
    clearInterval(this.#looks);
  }

  #what(): string {
    if (this.#rescue !== undefined) {
      return `Nothing more is stored. Everything up to then is in ${basename(this.#rescue)}, beside the data file: stop the server, put that file in the place of the data file, and start the server again.`;
    }
    return 'Nothing was stored. Put the file back, or start the server again.';
  }

  #tell(why: string | undefined): void {
    this.#why = why;
    this.changes.stops(this.told);
    this.changed();
  }

  #write(): void {
    if (this.#why === undefined) return;
    const at = new Date(this.now()).toISOString().replace(/[:.]/g, '-');
    const target = `${this.file}.rescued-${at}`;
    if (existsSync(target)) return;
    try {
      // By the handle that was open all the time: through it all is seen that was thanked for.
      this.db.$client.prepare('VACUUM INTO ?').run(target);
      ownersOnly(target);
      this.#rescue = target;
      this.log?.error(`What this server had is rescued in ${target}`);
      this.#tell(this.#why);
    } catch (error) {
      this.log?.error(error);
    }
  }
}
