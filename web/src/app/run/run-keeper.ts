import { computed, inject, Injectable, signal, type OnDestroy } from '@angular/core';
import type { Entry, Run, RunProgress } from '@needlecase/core';
import { firstValueFrom, Subscription } from 'rxjs';
import { ApiProblem, ApiService } from '../data/api.service';
import { ChangesService } from '../data/changes.service';

/** What is on the device and not with the server yet. */
interface Kept {
  run: Run;
  /** Version the changes were made on. */
  base: number;
}

export type Saving = 'saved' | 'saving' | 'kept here';

const RETRY_MS = 3000;

/**
 * Keeps one run: each change goes to the device at once and to the server as soon as it can be
 * reached, so that neither a reload nor a dead connection loses a step.
 *
 * ```
 *   change -> device -> server, one at a time, always the newest
 *                       409 from another screen: both are kept until the person chooses
 * ```
 */
@Injectable()
export class RunKeeper implements OnDestroy {
  readonly #api = inject(ApiService);
  readonly #subscriptions = new Subscription();
  readonly #changes = inject(ChangesService);
  #unsent = false;
  #sending = false;
  #retry: ReturnType<typeof setTimeout> | undefined;

  readonly run = signal<Run | undefined>(undefined);
  readonly problem = signal<ApiProblem | undefined>(undefined);
  readonly saving = signal<Saving>('saved');
  /** The other screen's version, while the person has to choose. */
  readonly other = signal<Run | undefined>(undefined);
  readonly progress = computed(() => this.run()?.progress);

  /** Reads a run, with what this device still holds of it. */
  async open(id: string): Promise<void> {
    const kept = readKept(id);
    try {
      const stored = await firstValueFrom(this.#api.get<Run>(`runs/${id}`));
      this.#take(stored, kept);
    } catch (problem) {
      if (kept && problem instanceof ApiProblem && problem.unreachable) this.#take(kept.run, kept);
      else this.problem.set(problem as ApiProblem);
    }
    this.#subscriptions.add(
      this.#changes.of('runs').subscribe((change) => {
        if (change.id === id && !this.#unsent && !this.#sending) void this.#reread(id);
      }),
    );
    const online = () => void this.#send();
    window.addEventListener('online', online);
    this.#subscriptions.add(() => window.removeEventListener('online', online));
  }

  ngOnDestroy(): void {
    this.#subscriptions.unsubscribe();
    clearTimeout(this.#retry);
    if (this.#unsent) void this.#send();
  }

  /** Changes the progress; on the device when this returns, with the server soon after. */
  change(edit: (progress: RunProgress) => RunProgress, state?: 'active' | 'paused'): void {
    const run = this.run();
    if (!run) return;
    this.#keep({ ...run, progress: edit(run.progress), ...(state ? { state } : {}) });
    void this.#send();
  }

  /** Sets the state and waits until the server has it, and all before it. */
  async settle(state: 'active' | 'paused' | 'abandoned'): Promise<boolean> {
    const run = this.run();
    if (!run) return false;
    this.#keep({ ...run, state });
    await this.#send();
    return !this.#unsent;
  }

  /** Finishes the run on the server; the entries it made. */
  async finish(): Promise<Entry[]> {
    await this.#sent();
    const id = this.run()!.id;
    const done = await firstValueFrom(
      this.#api.send<{ run: Run; entries: Entry[] }>('POST', `runs/${id}/finish`, undefined, {
        key: `finish-${id}-${this.run()!.version}`,
      }),
    );
    this.run.set(done.run);
    forget(id);
    return done.entries;
  }

  /** Takes a finished run back, so that it can go on. */
  async undo(): Promise<void> {
    const { id, version } = this.run()!;
    const run = await firstValueFrom(
      this.#api.send<Run>('POST', `runs/${id}/undo`, undefined, { key: `undo-${id}-${version}` }),
    );
    this.run.set(run);
  }

  /** After a conflict: what this screen has, or what the other one stored. */
  choose(which: 'mine' | 'theirs'): void {
    const theirs = this.other();
    const mine = this.run();
    this.other.set(undefined);
    if (!theirs || !mine) return;
    this.#unsent = false;
    if (which === 'theirs') {
      forget(theirs.id);
      this.run.set(theirs);
      this.saving.set('saved');
    } else {
      this.#keep({ ...mine, version: theirs.version });
      void this.#send();
    }
  }

  /** @throws ApiProblem when the changes could not be sent */
  async #sent(): Promise<void> {
    await this.#send();
    if (this.#unsent) {
      throw new ApiProblem(
        0,
        'The server cannot be reached.',
        'Everything you entered is kept on this device. Finish when the connection is back.',
      );
    }
  }

  #take(stored: Run, kept: Kept | undefined): void {
    if (!kept || stored.state === 'finished' || same(kept.run, stored)) {
      forget(stored.id);
      this.run.set(stored);
    } else if (kept.base === stored.version) {
      this.#keep({ ...kept.run, version: stored.version });
      void this.#send();
    } else {
      this.run.set(kept.run);
      this.#unsent = true;
      this.other.set(stored);
    }
  }

  async #reread(id: string): Promise<void> {
    const stored = await firstValueFrom(this.#api.get<Run>(`runs/${id}`)).catch(() => undefined);
    if (stored && !this.#unsent && stored.version > (this.run()?.version ?? 0))
      this.run.set(stored);
  }

  #keep(run: Run): void {
    this.#unsent = true;
    this.run.set(run);
    keep({ run, base: run.version });
    this.saving.set('saving');
  }

  async #send(): Promise<void> {
    if (this.#sending) return this.#current;
    this.#current = this.#sendAll();
    return this.#current;
  }

  #current: Promise<void> = Promise.resolve();

  async #sendAll(): Promise<void> {
    this.#sending = true;
    clearTimeout(this.#retry);
    try {
      while (this.#unsent && !this.other()) {
        const run = this.run()!;
        this.#unsent = false;
        await this.#sendOne(run);
      }
      this.saving.set('saved');
    } catch {
      this.#unsent = true;
      this.saving.set('kept here');
      this.#retry = setTimeout(() => void this.#send(), RETRY_MS);
    } finally {
      this.#sending = false;
    }
  }

  /** @throws ApiProblem when it has to be tried again */
  async #sendOne({ id, version, progress, state }: Run): Promise<void> {
    try {
      const stored = await firstValueFrom(
        this.#api.send<Run>('PATCH', `runs/${id}`, { progress, state }, { version }),
      );
      this.#stored(stored);
    } catch (problem) {
      const current =
        problem instanceof ApiProblem ? (problem.current as Run | undefined) : undefined;
      if (!current) throw problem;
      // A retry whose first try did arrive is no conflict.
      if (same(current, { progress, state })) this.#stored(current);
      else {
        this.#unsent = true;
        this.other.set(current);
      }
    }
  }

  #stored({ id, version }: Run): void {
    this.run.update((run) => run && { ...run, version });
    if (this.#unsent) keep({ run: this.run()!, base: version });
    else forget(id);
  }
}

const same = (a: Pick<Run, 'progress' | 'state'>, b: Pick<Run, 'progress' | 'state'>): boolean =>
  a.state === b.state && canonical(a.progress) === canonical(b.progress);

/** JSON with its keys in order, so that equal progress reads equal. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_key, inner: unknown) =>
    inner && typeof inner === 'object' && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => a.localeCompare(b)))
      : inner,
  );
}

const keyOf = (id: string) => `needlecase.run.${id}`;

/** A device without room still has the server. */
function keep(kept: Kept): void {
  try {
    localStorage.setItem(keyOf(kept.run.id), JSON.stringify(kept));
  } catch {
    localStorage.removeItem(keyOf(kept.run.id));
  }
}

function forget(id: string): void {
  localStorage.removeItem(keyOf(id));
}

function readKept(id: string): Kept | undefined {
  try {
    return (JSON.parse(localStorage.getItem(keyOf(id)) ?? 'null') as Kept | null) ?? undefined;
  } catch {
    return undefined;
  }
}
