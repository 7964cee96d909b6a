import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type {
  BackupFile,
  BackupLook,
  BackupState,
  Restored,
  RestoreDraft,
} from '@needlecase/core/formats/backup';
import { toldOf } from '../db/data-file.js';
import { invalid, notFound, ProblemError } from '../http/problem.js';
import type { Store } from '../store/store.js';
import type { Threads } from '../threads/threads.js';
import { backupName, isAhead, isDaily, madeAt, unwanted } from './kept.js';
import { removeStaged } from './stage.js';

/** Where the backups of a data file are, and who makes them. */
export interface Keeping {
  /** The data file. */
  file: string;
  /** Where backups are put. */
  folder: string;
  /** UTC milliseconds now. */
  now: () => number;
  /** What went wrong, for the log. */
  failed: (error: unknown) => void;
}

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** One that is older than this is too old: two were missed. */
const OLD_MS = 3 * DAY_MS;
/** A backup that was handed in waits so long to be put back. */
const LOOK_MS = HOUR_MS;
const FIRST_LOOK_MS = 60_000;
/** The end of the name of one that did not come back. */
const BAD = '.bad';

/** Makes, keeps, shows and puts back the backups of a household. */
export class BackupKeeper {
  #problem: string | undefined;
  #making: Promise<BackupFile> | undefined;
  #timers: NodeJS.Timeout[] = [];
  /** Backups that were handed in, when, and what came of those that were put back. */
  readonly #looks = new Map<string, { at: number; restored?: Promise<Restored> }>();

  constructor(
    private readonly store: Store,
    private readonly threads: Threads,
    private readonly keeping: Keeping | undefined,
    /** Is told when it stands otherwise with the backups. */
    private readonly changed: () => void = () => undefined,
  ) {}

  /** Looks every hour whether a new one is wanted. */
  start(): void {
    void this.#tidy();
    const look = () => void this.daily();
    this.#timers = [setTimeout(look, FIRST_LOOK_MS), setInterval(look, HOUR_MS)];
    for (const timer of this.#timers) timer.unref();
  }

  stop(): void {
    for (const timer of this.#timers) clearTimeout(timer);
  }

  async state(): Promise<BackupState> {
    const { folder, now } = this.#keeping();
    const files = await this.#files();
    const newest = this.#newest(files);
    return {
      folder,
      files,
      ahead: files.filter((file) => isAhead(file, now())).length,
      old: newest ? now() - Date.parse(newest.made) > OLD_MS : this.#problem !== undefined,
      ...(this.#problem === undefined ? {} : { problem: this.#problem }),
    };
  }

  /** The newest of every day; one that is dated in the future is not it, whatever it says. */
  #newest(files: readonly BackupFile[]): BackupFile | undefined {
    const now = this.#keeping().now();
    return files.find((file) => isDaily(file) && !isAhead(file, now));
  }

  /** What is wrong with the backups, for the owners. */
  async trouble(): Promise<{ title: string; detail: string } | undefined> {
    if (!this.keeping || !this.#isSetUp()) return undefined;
    const { old, problem } = await this.state();
    if (problem !== undefined) return { title: 'The last backup failed.', detail: problem };
    if (!old) return undefined;
    return {
      title: 'The last good backup is more than three days old.',
      detail: 'One is made every day while the server runs. Make one now, under House > Backup.',
    };
  }

  /** Backups that are dated in the future, for the owners. */
  async ahead(): Promise<{ title: string; detail: string } | undefined> {
    if (!this.keeping) return undefined;
    const { ahead, folder } = await this.state();
    if (ahead === 0) return undefined;
    return {
      title:
        ahead === 1
          ? 'A backup is dated in the future.'
          : `${ahead} backups are dated in the future.`,
      detail: `The clock was wrong when it was made. It does not count as the newest. Delete it from ${folder} when you no longer need it.`,
    };
  }

  /** Makes one where the last is of yesterday or before, and lets those go that are no longer wanted. */
  async daily(): Promise<void> {
    if (!this.#isSetUp()) return;
    try {
      const newest = this.#newest(await this.#files());
      // A little less than a day, so that it is not an hour later each day.
      const due = !newest || this.#keeping().now() - Date.parse(newest.made) > DAY_MS - HOUR_MS;
      if (due) await this.make();
    } catch (error) {
      this.keeping?.failed(error);
    }
  }

  /** Makes one in the folder; two at a time are one. */
  make(): Promise<BackupFile> {
    this.#making ??= this.#make('needlecase').finally(() => (this.#making = undefined));
    return this.#making;
  }

  async #make(what: 'needlecase' | 'before-restore'): Promise<BackupFile> {
    const { folder, now } = this.#keeping();
    this.store.mayRead();
    const at = now();
    const name = backupName(at, what);
    try {
      await mkdir(folder, { recursive: true });
      await this.threads.run('backup', { target: join(folder, name), now: at });
      // What is here before a backup is put back is not waited for: nobody may write meanwhile.
      if (what === 'needlecase') await this.#tryOut(folder, name);
      await this.#letGo();
      this.#problem = undefined;
      this.#told();
    } catch (error) {
      this.#problem = inWords(folder, error);
      this.#told();
      throw new ProblemError(507, 'No backup could be made.', { detail: this.#problem });
    }
    return this.#known(name);
  }

  #told(): void {
    this.store.tell({ topic: 'backups' });
    this.changed();
  }

  /**
   * Puts a backup that was made back in trial, into a file of its own that is let go: only one that could be is good.
   * The last that could not be stays under another name, and never counts; where the trial itself was in want of
   * something, such as room, nothing is said against the backup.
   */
  async #tryOut(folder: string, name: string): Promise<void> {
    const zip = join(folder, name);
    const staged = this.#staged(randomUUID());
    try {
      await this.threads.run('try-backup', { zip, staged });
    } catch (error) {
      removeStaged(staged);
      if (!(error instanceof ProblemError)) {
        throw new Error(`The backup could not be tried out: ${inWords(folder, error)}`, {
          cause: error,
        });
      }
      for (const one of await readdir(folder)) {
        if (one.endsWith(BAD)) await rm(join(folder, one), { force: true });
      }
      await rename(zip, zip + BAD);
      throw error;
    }
  }

  /** One to take along: it is gone from here once it was given out. */
  async toTakeAlong(): Promise<{ path: string; name: string }> {
    const { file, now } = this.#keeping();
    const at = now();
    const path = `${file}.upload-${randomUUID()}`;
    await this.threads.run('backup', { target: path, now: at });
    return { path, name: backupName(at, 'needlecase') };
  }

  /**
   * Looks at a backup that is handed in, and keeps it for an hour.
   * @throws 422 where it is no good one, in words
   */
  async receive(zip: Readable): Promise<BackupLook> {
    const upload = `${this.#keeping().file}.upload-${randomUUID()}`;
    try {
      await pipeline(zip, createWriteStream(upload, { mode: 0o600 }));
      return await this.#look(upload);
    } catch (error) {
      if (error instanceof ProblemError) throw error;
      throw new ProblemError(507, 'The backup could not be taken in.', {
        detail: inWords(dirname(upload), error),
      });
    } finally {
      await rm(upload, { force: true });
    }
  }

  /** Looks at one that lies in the folder. @throws 404 */
  async pick(name: string): Promise<BackupLook> {
    return this.#look(join(this.#keeping().folder, (await this.#known(name)).name));
  }

  async #look(zip: string): Promise<BackupLook> {
    this.#forgetOld();
    const { now } = this.#keeping();
    const id = randomUUID();
    const look = await this.threads.run('look-at-backup', {
      zip,
      staged: this.#staged(id),
      now: now(),
    });
    this.#looks.set(id, { at: now() });
    return { id, ...look };
  }

  /**
   * Puts a backup back that was looked at; what is here now is backed up first. The same again answers the same.
   * @throws 422 where it was not said which of two holds, or it is no longer there
   */
  restore({ id, ...draft }: RestoreDraft): Promise<Restored> {
    const look = this.#looks.get(id);
    if (!look) {
      throw invalid([
        { field: 'id', message: 'This backup was handed in too long ago. Choose the file again.' },
      ]);
    }
    look.restored ??= this.#restore(id, draft);
    look.restored.catch(() => delete look.restored);
    return look.restored;
  }

  #restore(id: string, draft: Omit<RestoreDraft, 'id'>): Promise<Restored> {
    return this.store.hold('A backup is being put back.', async () => {
      const before = this.#isSetUp() ? await this.#make('before-restore') : undefined;
      const done = await this.threads.run('put-back', {
        staged: this.#staged(id),
        now: this.#keeping().now(),
        ...draft,
      });
      this.store.changedWhole();
      return { ...done, ...(before ? { before: before.name } : {}) };
    });
  }

  #isSetUp(): boolean {
    return this.store.household.get() !== undefined;
  }

  #keeping(): Keeping {
    if (!this.keeping) {
      throw new ProblemError(409, 'This household is only in memory: there is nothing to keep.');
    }
    return this.keeping;
  }

  #staged(id: string): string {
    return `${this.#keeping().file}.staged-${id}`;
  }

  async #files(): Promise<BackupFile[]> {
    const { folder } = this.#keeping();
    const names = await readdir(folder).catch(() => []);
    const files = await Promise.all(
      names.map(async (name) => {
        const made = madeAt(name);
        const found = made && (await stat(join(folder, name)).catch(() => undefined));
        return found ? [{ name, made: made, bytes: found.size }] : [];
      }),
    );
    return files.flat().toSorted((a, b) => b.made.localeCompare(a.made));
  }

  async #known(name: string): Promise<BackupFile> {
    const found = (await this.#files()).find((file) => file.name === name);
    if (!found) throw notFound('backup');
    return found;
  }

  async #letGo(): Promise<void> {
    const { folder } = this.#keeping();
    const zone = this.store.household.get()?.zone ?? 'UTC';
    for (const { name } of unwanted(await this.#files(), zone, this.#keeping().now())) {
      await rm(join(folder, name), { force: true });
    }
  }

  #forgetOld(): void {
    const { now } = this.#keeping();
    for (const [id, { at }] of this.#looks) {
      if (now() - at < LOOK_MS) continue;
      this.#looks.delete(id);
      removeStaged(this.#staged(id));
    }
  }

  /** What an earlier server left lying is of no use to anybody. */
  async #tidy(): Promise<void> {
    if (!this.keeping) return;
    const { file, folder } = this.keeping;
    const own = ['staged', 'upload'].map((what) => `${basename(file)}.${what}-`);
    const left: [string, (name: string) => boolean][] = [
      [dirname(file), (name) => own.some((start) => name.startsWith(start))],
      [folder, (name) => name.endsWith('.zip.partial')],
    ];
    for (const [where, isLeft] of left) {
      const names = await readdir(where).catch(() => []);
      for (const name of names.filter(isLeft)) await rm(join(where, name), { force: true });
    }
  }
}

/** Why something could not be written, for the person. */
function inWords(path: string, error: unknown): string {
  if (error instanceof ProblemError) return error.title;
  const told = toldOf(path, error);
  return told instanceof Error ? told.message : String(told);
}
