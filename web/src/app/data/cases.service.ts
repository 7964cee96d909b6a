import { computed, inject, Injectable, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { CaseNews, CaseRecord, Happening } from '@needlecase/core';
import { catchError, debounceTime, of, scan, startWith, switchMap, tap } from 'rxjs';
import { ApiService } from './api.service';
import { ChangesService } from './changes.service';
import { OutboxService } from './outbox.service';
import { newId } from './platform';
import { ToastsService } from './toasts.service';
import { instantNow } from './clock';

/**
 * Cases of trouble: those of the server, with what was told here and has not arrived yet. What is told
 * is on the device at once and sent through the outbox, so that it works without a connection.
 */
@Injectable({ providedIn: 'root' })
export class CasesService {
  readonly #outbox = inject(OutboxService);
  readonly #toasts = inject(ToastsService);
  readonly #api = inject(ApiService);

  readonly #asked = signal(false);
  /** They were read, or cannot be now. */
  readonly asked = this.#asked.asReadonly();
  /** Undefined until they were read, or cannot be and never were. */
  readonly #stored = toSignal(
    inject(ChangesService)
      .of('cases')
      .pipe(
        debounceTime(60),
        startWith(undefined),
        switchMap(() =>
          this.#api.get<CaseRecord[]>('cases').pipe(
            catchError(() => of(undefined)),
            tap(() => this.#asked.set(true)),
          ),
        ),
        scan((before, now) => now ?? before),
      ),
  );
  readonly #told = signal<readonly CaseNews[]>([]);

  readonly loaded = computed(() => this.#stored() !== undefined);
  /** Every case, the one that changed last first. */
  readonly all = computed(() => merged(this.#stored() ?? [], this.#told()));

  constructor() {
    void this.#outbox.list().then((waiting) => {
      const news = waiting.flatMap((one) => ('news' in one ? one.news : []));
      this.#told.update((told) => [...news, ...told]);
    });
    this.#outbox.refusedNews$.subscribe(({ news, problem }) => {
      this.#told.update((told) => told.filter((one) => one.events[0]!.id !== news.events[0]!.id));
      const [first] = problem.errors;
      this.#toasts.show(`Not kept: ${first?.message ?? problem.title}`, { problem: true });
    });
  }

  /** Adds to a case what happened; opens it where it is new. */
  tell(id: string, machineId: string, ...happenings: Happening[]): void {
    const at = instantNow();
    const events = happenings.map((one) => ({ ...one, id: newId(), at }));
    const news = { id, machineId, events };
    this.#told.update((told) => [...told, news]);
    void this.#outbox.add({ news });
  }
}

function merged(stored: readonly CaseRecord[], told: readonly CaseNews[]): CaseRecord[] {
  const all = new Map(stored.map((record) => [record.id, record]));
  for (const { id, machineId, events } of told) {
    const known = all.get(id)?.events ?? [];
    const ids = new Set(known.map((event) => event.id));
    const more = events.filter((event) => !ids.has(event.id));
    if (more.length) all.set(id, { id, machineId, events: [...known, ...more] });
  }
  return [...all.values()].sort((a, b) => lastAt(b).localeCompare(lastAt(a)));
}

const lastAt = ({ events }: CaseRecord): string => events.at(-1)?.at ?? '';
