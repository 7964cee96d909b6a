import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import type { Entry, Visit } from '@needlecase/core';
import { firstValueFrom, Subject } from 'rxjs';
import { ApiProblem, ApiService } from './api.service';
import type { KeptVisit as Kept, Told } from './device';
import { sameData } from './same-data';
import { hasLocks, locked, lockedIfFree } from './platform';
import { VisitShelf } from './visit-shelf';
import { notAhead } from './clock';
import { houseHere } from './tongue';

export type { KeptVisit as Kept } from './device';

/** What came of sending. */
export type Sent =
  | { id: string; what: 'stored'; run: Visit }
  | { id: string; what: 'finished'; run: Visit; entries: Entry[] }
  /** Another screen went on with it: the person has to choose. */
  | { id: string; what: 'conflict'; run: Visit }
  | { id: string; what: 'refused'; problem: ApiProblem }
  /** It waits; where that is more than no connection, with the reason. */
  | { id: string; what: 'waits'; why: string };

const RETRY_MS = 3000;
/** Of what was never answered, so much is remembered. */
const MOST_TRIES = 5;
const PREFIX = 'run.';

/**
 * Visits on this device: each change is written down at once and sent as soon as the server can be
 * reached, one at a time and always the newest; a visit finished without a connection is recorded when
 * there is one, whether its page is open or not.
 *
 * Two tabs share the device's storage: each goes by its own memory, the one that has a visit open sends
 * it, and what a tab only read never takes the place of what another has not sent.
 *
 * ```
 *   keep -> device -> PATCH (If-Match) -> finish -> forgotten
 *                     409: kept, and asked
 * ```
 */
@Injectable({ providedIn: 'root' })
export class VisitSender {
  readonly #api = inject(ApiService);
  readonly #under = new Map<string, Promise<void>>();
  readonly #conflicts = new Set<string>();
  /** What this tab holds of visits. */
  readonly #here = new Map<string, Kept>();
  /** Visits open in this tab, and in no other. */
  readonly #claims = new Set<string>();
  readonly #shelf = new VisitShelf();
  #retry: ReturnType<typeof setTimeout> | undefined;
  #gone = false;

  readonly sent$ = new Subject<Sent>();
  /** Visits that the server does not have as they are here. */
  readonly waiting = signal<Visit[]>([]);
  /** How many of them this device did not take: they are gone with the page. */
  readonly unkept = signal(0);
  /** What the device held when the page was opened is known. */
  readonly ready: Promise<void>;

  constructor() {
    const online = () => this.sendAll();
    if (typeof window !== 'undefined') window.addEventListener('online', online);
    inject(DestroyRef).onDestroy(() => {
      window.removeEventListener('online', online);
      clearTimeout(this.#retry);
      this.#shelf.close();
      this.#gone = true;
    });
    this.#shelf.changed = () => this.#count();
    this.ready = this.#shelf.read();
    void this.ready.then(() => this.sendAll());
  }

  read(id: string): Kept | undefined {
    return this.#here.get(id) ?? this.#shelf.get(id);
  }

  /** Whether the device has of a visit what this page has. */
  isKept(id: string): boolean {
    return this.#shelf.has(id);
  }

  /** A device without room still has the server. */
  keep(kept: Kept): void {
    const { id } = kept.run;
    const house = kept.house ?? houseHere();
    if (house) kept = { ...kept, house };
    const before = this.#here.get(id);
    const others =
      !before?.unsent && !kept.unsent && this.#shelf.get(id)?.unsent && !this.#claims.has(id);
    this.#hold(kept, !others);
  }

  #hold(kept: Kept, onDevice: boolean): void {
    this.#here.set(kept.run.id, kept);
    if (onDevice) this.#shelf.put(kept);
    this.#count();
  }

  /** Marks a visit as open in this tab. @returns what lets it go */
  claim(id: string): () => void {
    let letGo = (): void => undefined;
    if (!hasLocks()) return letGo;
    const until = new Promise<void>((done) => (letGo = done));
    void locked(PREFIX + id, async () => {
      this.#claims.add(id);
      await until;
      this.#claims.delete(id);
    });
    return () => letGo();
  }

  /** Sends a visit unless another tab has it open; that one may be about to shut, so it looks again. */
  sendIfFree(id: string): void {
    if (this.#claims.has(id)) return void this.send(id);
    void lockedIfFree(PREFIX + id, () => this.send(id)).then((sent) => {
      if (!sent) this.#later();
    });
  }

  forget(id: string): void {
    this.#here.delete(id);
    this.#shelf.remove(id);
    this.#conflicts.delete(id);
    this.#count();
  }

  /** The person chose: what is kept here may be sent over the other screen’s. */
  settled(id: string): void {
    this.#conflicts.delete(id);
  }

  #later(): void {
    clearTimeout(this.#retry);
    if (!this.#gone) this.#retry = setTimeout(() => this.sendAll(), RETRY_MS);
  }

  /** Sends everything that waits. */
  sendAll(): void {
    // Another tab may have sent some of it.
    void this.#shelf.read().then(() => this.#sendAll());
  }

  #sendAll(): void {
    if (this.#gone) return;
    for (const [id, { unsent, finishing }] of this.#here) {
      if (unsent || finishing) void this.send(id);
    }
    // What a tab left behind that is shut by now.
    for (const { id } of this.waiting()) if (!this.#here.has(id)) this.sendIfFree(id);
  }

  /** Sends a visit until nothing of it is unsent, or it cannot go on. One at a time. */
  send(id: string): Promise<void> {
    const under = this.#under.get(id);
    if (under) return under;
    const sending = this.#send(id).finally(() => {
      this.#under.delete(id);
      this.#count();
    });
    this.#under.set(id, sending);
    return sending;
  }

  async #send(id: string): Promise<void> {
    try {
      while (!this.#conflicts.has(id)) {
        const kept = this.read(id);
        if (!kept || !(await this.#step(kept))) return;
      }
    } catch (problem) {
      if (!(problem instanceof ApiProblem)) throw problem;
      // Where it is said to be kept here, it is.
      await this.#shelf.written();
      // The clock was off and is known by now: it leaves again with the right times.
      if (problem.status === 422 && this.#retimed(id)) return this.#send(id);
      if (waits(problem)) {
        this.sent$.next({ id, what: 'waits', why: problem.hindrance });
        this.#later();
      } else {
        this.#conflicts.add(id);
        this.sent$.next({ id, what: 'refused', problem });
      }
    }
  }

  /** Takes out of the progress what is later than now. @returns whether anything was */
  #retimed(id: string): boolean {
    const kept = this.read(id);
    const progress = kept && notAhead(kept.run.progress);
    if (!kept || progress === kept.run.progress) return false;
    this.#hold({ ...kept, run: { ...kept.run, progress: progress! }, unsent: true }, true);
    return true;
  }

  /** @returns whether there may be more to send */
  async #step(kept: Kept): Promise<boolean> {
    const { id } = kept.run;
    if (kept.unsent) {
      const stored = await this.#patch(kept);
      if (!stored) return false;
      // Read anew: it stands on the device whoever left it there.
      const { tried: _tried, ...now } = this.read(id) ?? kept;
      this.#hold(
        {
          ...now,
          run: { ...now.run, version: stored.version },
          base: stored.version,
          unsent: now.edits !== kept.edits,
        },
        true,
      );
      this.sent$.next({ id, what: 'stored', run: stored });
      return true;
    }
    if (!kept.finishing) return false;
    const done = await firstValueFrom(
      this.#api.send<{ run: Visit; entries: Entry[] }>('POST', `runs/${id}/finish`, undefined, {
        key: `finish-${id}-${kept.base}`,
        ...forHouse(kept),
      }),
    );
    this.forget(id);
    this.sent$.next({ id, what: 'finished', ...done });
    return false;
  }

  /** @returns the run as stored, or nothing when another screen went on */
  async #patch(kept: Kept): Promise<Visit | undefined> {
    const { run: visit, base, tried = [] } = kept;
    const { id, progress, state } = visit;
    const unanswered = tried.filter((one) => !sameVisit(one, visit));
    this.#tries(kept, [...unanswered, { progress, state }].slice(-MOST_TRIES));
    try {
      return await firstValueFrom(
        this.#api.send<Visit>(
          'PATCH',
          `runs/${id}`,
          { progress, state },
          { version: base, ...forHouse(kept) },
        ),
      );
    } catch (problem) {
      const current =
        problem instanceof ApiProblem ? (problem.current as Visit | undefined) : undefined;
      // Answered, and not stored.
      if (problem instanceof ApiProblem && !waits(problem)) this.#tries(kept, unanswered);
      if (!current) throw problem;
      // A retry whose first try did arrive is no conflict, nor is what was added since.
      if (sameVisit(current, visit)) return current;
      if (unanswered.some((one) => sameVisit(current, one))) {
        // What was tried stays known: this try may be lost, and what is there be met again.
        return this.#patch({ ...kept, base: current.version, tried: unanswered });
      }
      this.#conflicts.add(id);
      await this.#shelf.written();
      this.sent$.next({ id, what: 'conflict', run: current });
      return undefined;
    }
  }

  #tries(kept: Kept, tried: readonly Told[]): void {
    this.#hold({ ...(this.read(kept.run.id) ?? kept), tried }, true);
  }

  #count(): void {
    this.waiting.set(
      this.#shelf
        .all()
        .filter(({ unsent, finishing }) => unsent || finishing)
        .map(({ run: visit }) => visit),
    );
    this.unkept.set(this.#shelf.loose);
  }
}

const forHouse = ({ house }: Partial<Kept>) => (house ? { house } : {});

/** Whether it is to be tried again: the server has not read it, or is not the one it is for. */
const waits = ({ status }: ApiProblem): boolean => status !== 409 && status !== 422;

/** Whether two versions of a visit say the same. */
export const sameVisit = (
  a: Pick<Visit, 'progress' | 'state'>,
  b: Pick<Visit, 'progress' | 'state'>,
): boolean => a.state === b.state && sameData(a.progress, b.progress);
