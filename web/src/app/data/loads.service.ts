import { computed, inject, Injectable, signal } from '@angular/core';
import type { Machine } from '@needlecase/core';
import { Subject } from 'rxjs';
import { EntriesService } from './entries.service';
import { OutboxService, type Outgoing } from './outbox.service';
import { ToastsService } from './toasts.service';

/** Counting loads with one tap, and taking a tap back. */
@Injectable({ providedIn: 'root' })
export class LoadsService {
  readonly #outbox = inject(OutboxService);
  readonly #entries = inject(EntriesService);
  readonly #toasts = inject(ToastsService);
  readonly #waiting = signal<Outgoing[]>([]);

  /** Taps the server has not answered yet. */
  readonly pending = computed(() => this.#waiting());
  /** Something reached the server, or was taken back. */
  readonly settled$ = new Subject<void>();

  constructor() {
    this.#outbox.sent$.subscribe(({ id }) => this.#settle(id));
    this.#outbox.refused$.subscribe(({ entry, problem }) => {
      this.#settle(entry.id);
      const why = problem.errors[0]?.message ?? problem.title;
      this.#toasts.show(`The load was not counted: ${why}`, { problem: true });
    });
  }

  async count(machine: Machine): Promise<void> {
    const entry: Outgoing = {
      id: crypto.randomUUID(),
      machineId: machine.id,
      kind: 'load',
      count: 1,
      at: new Date().toISOString(),
      source: 'bench',
    };
    this.#waiting.update((all) => [...all, entry]);
    try {
      await this.#outbox.add(entry);
    } catch {
      this.#settle(entry.id);
      this.#toasts.show(
        'This device has no room to keep the load. Free some space and tap again.',
        {
          problem: true,
        },
      );
      return;
    }
    this.#toasts.show(`1 load counted: ${machine.name}`, {
      action: { label: 'Undo', do: () => void this.undo(entry.id) },
    });
  }

  async undo(id: string): Promise<void> {
    if (await this.#outbox.takeBack(id)) return this.#settle(id);
    this.#entries.undo(id).subscribe({
      next: () => this.#settle(id),
      error: () =>
        this.#toasts.show('This load could not be undone now. Undo it in the log later.', {
          problem: true,
        }),
    });
  }

  #settle(id: string): void {
    this.#waiting.update((all) => all.filter((entry) => entry.id !== id));
    this.settled$.next();
  }
}
