import { computed, inject, Injectable, signal, type OnDestroy } from '@angular/core';
import type { Entry, Visit, VisitProgress } from '@needlecase/core';
import { firstValueFrom, Subscription } from 'rxjs';
import { ApiProblem, ApiService } from '../data/api.service';
import { ChangesService } from '../data/changes.service';
import { VisitSender, sameVisit, type Kept, type Sent } from '../data/visit-sender.service';

/** `only here`: the device does not take it, and it is gone with the page. */
export type Saving = 'saved' | 'saving' | 'kept here' | 'only here';

/** The visit on screen: what is changed here goes to the device at once and, by the sender, to the server. */
@Injectable()
export class VisitKeeper implements OnDestroy {
  readonly #api = inject(ApiService);
  readonly #sender = inject(VisitSender);
  readonly #changes = inject(ChangesService);
  readonly #subscriptions = new Subscription();

  readonly run = signal<Visit | undefined>(undefined);
  readonly problem = signal<ApiProblem | undefined>(undefined);
  readonly saving = signal<Saving>('saved');
  /** Why what waits does not leave, where that is more than no connection. */
  readonly stuck = signal('');
  /** The other screen's version, while the person has to choose. */
  readonly other = signal<Visit | undefined>(undefined);
  /** Finished here, and recorded when there is a connection. */
  readonly later = signal(false);
  /** What a finished visit left in the log. */
  readonly entries = signal<Entry[] | undefined>(undefined);
  readonly progress = computed(() => this.run()?.progress);

  /** Reads a visit, with what this device still holds of it. */
  async open(id: string): Promise<void> {
    this.#subscriptions.add(this.#sender.claim(id));
    this.#subscriptions.add(
      this.#sender.sent$.subscribe((sent) => {
        if (sent.id === id) this.#take(sent);
      }),
    );
    await this.#sender.ready;
    try {
      this.#reconcile(await firstValueFrom(this.#api.get<Visit>(`runs/${id}`)));
    } catch (problem) {
      const kept = this.#sender.read(id);
      if (!(problem instanceof ApiProblem)) throw problem;
      // What is not with the server yet is shown whatever it answers.
      if (kept && (kept.unsent || problem.status !== 404)) this.#show(kept);
      else this.problem.set(problem);
    }
    this.#subscriptions.add(
      this.#changes.of('runs').subscribe((change) => {
        const mine = change.id === id || change.topic === 'gap';
        if (mine && !this.#sender.read(id)?.unsent) void this.#reread(id);
      }),
    );
  }

  /** Whether the device has what this page has; else it is gone with the page. */
  isKept(id: string): boolean {
    return this.#sender.isKept(id);
  }

  ngOnDestroy(): void {
    this.#subscriptions.unsubscribe();
  }

  /** Changes the progress; on the device when this returns, with the server soon after. */
  change(edit: (progress: VisitProgress) => VisitProgress, state?: 'active' | 'paused'): void {
    const visit = this.run();
    if (!visit) return;
    this.#keep({ ...visit, progress: edit(visit.progress), ...(state ? { state } : {}) });
    void this.#sender.send(visit.id);
  }

  /** Sets the state and waits until the server has it, and all before it; false when it has not. */
  async settle(state: 'active' | 'paused' | 'abandoned'): Promise<boolean> {
    const visit = this.run();
    if (!visit) return false;
    this.#keep({ ...visit, state });
    await this.#sender.send(visit.id);
    if (this.#sender.read(visit.id)?.unsent) return false;
    if (state === 'abandoned') this.#sender.forget(visit.id);
    return true;
  }

  /** Finishes the visit: recorded by the server now, or when it can be reached. */
  async finish(): Promise<void> {
    const visit = this.run()!;
    this.problem.set(undefined);
    const kept = this.#sender.read(visit.id);
    this.#sender.keep({
      run: visit,
      base: visit.version,
      unsent: false,
      edits: 0,
      ...kept,
      finishing: true,
    });
    await this.#sender.send(visit.id);
    if (this.entries() || this.other() || this.problem()) return;
    this.later.set(true);
  }

  /** A visit that waits to be recorded goes on instead. */
  goOn(): void {
    const kept = this.#sender.read(this.run()!.id);
    if (kept) this.#sender.keep({ ...kept, finishing: false });
    this.later.set(false);
  }

  /** Takes a finished visit back, so that it can go on. */
  async undo(): Promise<void> {
    const { id, version } = this.run()!;
    const visit = await firstValueFrom(
      this.#api.send<Visit>('POST', `runs/${id}/undo`, undefined, { key: `undo-${id}-${version}` }),
    );
    this.entries.set(undefined);
    this.#stored(visit);
  }

  /** After a conflict: what this screen has, or what the other one stored. */
  choose(which: 'mine' | 'theirs'): void {
    const theirs = this.other();
    const mine = this.run();
    this.other.set(undefined);
    if (!theirs || !mine) return;
    this.#sender.settled(mine.id);
    if (which === 'theirs') this.#stored(theirs);
    else {
      this.run.set({ ...mine, version: theirs.version });
      this.#keep(this.run()!);
      void this.#sender.send(mine.id);
    }
  }

  /** What the server has, against what this device holds. */
  #reconcile(stored: Visit): void {
    const kept = this.#sender.read(stored.id);
    if (!kept || stored.state === 'finished') return this.#stored(stored);
    // Without a connection the answer may be an old one that the browser kept.
    if (stored.version < kept.base) return this.#show(kept);
    if (!kept.unsent || sameVisit(kept.run, stored)) {
      if (!kept.finishing) return this.#stored(stored);
      return this.#show(kept);
    }
    if (kept.base === stored.version) return this.#show(kept);
    this.run.set(kept.run);
    this.other.set(stored);
  }

  #show(kept: Kept): void {
    this.run.set(kept.run);
    this.later.set(kept.finishing === true);
    if (kept.unsent || kept.finishing) {
      this.saving.set('saving');
      this.#sender.sendIfFree(kept.run.id);
    }
  }

  #stored(visit: Visit): void {
    this.run.set(visit);
    this.later.set(false);
    this.saving.set('saved');
    if (visit.state === 'active' || visit.state === 'paused') {
      this.#sender.keep({ run: visit, base: visit.version, unsent: false, edits: 0 });
    } else {
      this.#sender.forget(visit.id);
    }
  }

  async #reread(id: string): Promise<void> {
    const stored = await firstValueFrom(this.#api.get<Visit>(`runs/${id}`)).catch(() => undefined);
    const kept = this.#sender.read(id);
    if (stored && !kept?.unsent && !kept?.finishing && stored.version > (this.run()?.version ?? 0))
      this.#stored(stored);
  }

  #keep(visit: Visit): void {
    const kept = this.#sender.read(visit.id);
    this.run.set(visit);
    this.#sender.keep({
      ...kept,
      run: visit,
      base: visit.version,
      unsent: true,
      edits: (kept?.edits ?? 0) + 1,
    });
    this.saving.set('saving');
  }

  #take(sent: Sent): void {
    switch (sent.what) {
      case 'stored':
        this.run.update((visit) => visit && { ...visit, version: sent.run.version });
        this.saving.set(this.#sender.read(sent.id)?.unsent ? 'saving' : 'saved');
        break;
      case 'finished':
        this.run.set(sent.run);
        this.entries.set(sent.entries);
        this.later.set(false);
        this.saving.set('saved');
        break;
      case 'conflict':
        this.other.set(sent.run);
        this.saving.set(this.isKept(sent.id) ? 'kept here' : 'only here');
        break;
      case 'refused':
        this.problem.set(sent.problem);
        this.saving.set(this.isKept(sent.id) ? 'kept here' : 'only here');
        break;
      case 'waits':
        this.stuck.set(sent.why);
        this.saving.set(this.isKept(sent.id) ? 'kept here' : 'only here');
        break;
    }
  }
}
