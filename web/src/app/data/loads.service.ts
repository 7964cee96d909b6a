import { computed, inject, Injectable, signal } from '@angular/core';
import {
  many,
  type EntryDraft,
  type HabitRow,
  type Machine,
  type Programme,
} from '@needlecase/core';
import { Subject } from 'rxjs';
import { OutboxService, type Outgoing } from './outbox.service';
import { newId } from './platform';
import { ToastsService } from './toasts.service';
import { stamp } from './clock';

/** Loads counted, where it is not one of the usual kind just now. */
export interface Counting {
  count?: number;
  programme?: Programme;
  /** UTC instant, RFC 3339. */
  at?: string;
}

/** Counting loads and noting habits with one tap, and taking a tap back. */
@Injectable({ providedIn: 'root' })
export class LoadsService {
  readonly #outbox = inject(OutboxService);
  readonly #toasts = inject(ToastsService);
  readonly #waiting = signal<Outgoing[]>([]);

  /** Loads the server has not answered for yet, by machine. */
  readonly pending = computed(() => {
    const loads = new Map<string, number>();
    for (const { kind, machineId = '', count = 1 } of this.#waiting()) {
      if (kind === 'load') loads.set(machineId, (loads.get(machineId) ?? 0) + count);
    }
    return loads;
  });
  /** Something reached the server, or was taken back. */
  readonly settled$ = new Subject<void>();

  constructor() {
    this.#outbox.sent$.subscribe(({ id }) => this.#settle(id));
    this.#outbox.refused$.subscribe(({ entry, problem }) => {
      this.#settle(entry.id);
      const why = problem.errors[0]?.message ?? problem.title;
      const what = entry.kind === 'load' ? 'The load was not counted' : 'It was not noted';
      this.#toasts.show(`${what}: ${why} It is kept here; look at the top.`, { problem: true });
    });
  }

  /** Counts loads: one now, or more, of a programme, of another day. */
  async count(machine: Machine, { count = 1, programme, at }: Counting = {}): Promise<void> {
    await this.#enter(
      {
        machineId: machine.id,
        kind: 'load',
        count,
        ...(at === undefined ? stamp() : { at }),
        source: 'bench',
        ...(programme ? { programme } : {}),
      },
      `${many(count, 'load')} counted: ${machine.name}`,
    );
  }

  /** Notes that something was done with a load today. */
  async keep({ machineId, habit, task, name }: HabitRow): Promise<void> {
    await this.#enter(
      {
        machineId,
        ...stamp(),
        source: 'bench',
        ...(task ? { kind: 'done', task } : { kind: 'habit', habit }),
      },
      `Noted: ${name.toLowerCase()}`,
    );
  }

  async #enter(draft: EntryDraft, said: string): Promise<void> {
    const entry: Outgoing = { ...draft, id: newId() };
    this.#waiting.update((all) => [...all, entry]);
    const kept = await this.#outbox.add(entry);
    const alone = 'This device has no room: leave the page open until it is sent.';
    this.#toasts.show(kept ? said : `${said}. ${alone}`, {
      action: { label: 'Undo', do: () => void this.undo(entry.id) },
    });
  }

  async undo(id: string): Promise<void> {
    try {
      await this.#outbox.undo(id);
      this.#settle(id);
    } catch {
      this.#toasts.show('This could not be undone now. Undo it in the log later.', {
        problem: true,
      });
    }
  }

  #settle(id: string): void {
    this.#waiting.update((all) => all.filter((entry) => entry.id !== id));
    this.settled$.next();
  }
}
