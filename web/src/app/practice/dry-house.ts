import { inject, Injectable, signal } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import {
  stationsOf,
  type BenchView,
  type Entry,
  type EntryDraft,
  type Machine,
  type MachineDraft,
  type MachineState,
  type MeasureId,
  type Visit,
  type VisitTask,
} from '@needlecase/core';
import { combineLatest, map, of, Subject, type Observable } from 'rxjs';
import { BenchService, type Loaded } from '../data/bench.service';
import { instantNow } from '../data/clock';
import { newId } from '../data/platform';
import type { Kept, Sent } from '../data/visit-sender.service';

/** What is walked through: the tasks, and the machine where it is none of the household's. */
@Injectable()
export class DryTasks {
  readonly tasks = signal<readonly VisitTask[]>([]);
  readonly machine = signal<Machine | undefined>(undefined);
  /** Of figures that are worked out: which. */
  readonly figure = signal<MeasureId | undefined>(undefined);
  /** Machines as the answers of this dry run have them. */
  readonly told = signal<readonly Machine[]>([]);
  /** Steps that were ticked so far, by key. */
  readonly ticked = signal<Visit['progress']['ticked']>({});
  /** The visit once its end was reached; whether it was left before. */
  readonly over = signal<Visit | undefined>(undefined);
  readonly left = signal(false);
}

const blankState = (machine: Machine): MachineState => ({
  machineId: machine.id,
  stations: stationsOf(machine).map(({ id, name, line }) => ({
    ...{ id, name, line },
    status: 'none',
    said: '',
  })),
  dues: [],
  chemicals: { events: [] },
  proofs: [],
  age: [],
});

/** Stands in for the household: its machines as they are, and what is told here stays here. */
@Injectable()
export class DryBench {
  readonly #dry = inject(DryTasks);

  readonly bench$: Observable<Loaded<BenchView>> = combineLatest([
    inject(BenchService, { skipSelf: true }).bench$,
    toObservable(this.#dry.machine),
    toObservable(this.#dry.told),
  ]).pipe(map(([loaded, own, told]) => withMachines(loaded, own, told)));

  refresh(): void {
    /* nothing was changed */
  }
}

function withMachines(
  { value, problem }: Loaded<BenchView>,
  own: Machine | undefined,
  told: readonly Machine[],
): Loaded<BenchView> {
  if (!value) return problem ? { problem } : {};
  const here = [...value.machines, ...(own ? [own] : [])];
  const machines = here.map((one) => told.find(({ id }) => id === one.id) ?? one);
  const states = machines.map(
    (one) =>
      value.states.find(({ machineId }) => machineId === one.id && one.id !== own?.id) ??
      blankState(one),
  );
  return { value: { ...value, machines, states } };
}

/** Stands in where answers about a machine are kept: they count for this dry run. */
@Injectable()
export class DryHousehold {
  readonly #dry = inject(DryTasks);

  saveMachine(id: string, draft: MachineDraft, version: number): Observable<Machine> {
    const machine = { ...draft, id, version };
    this.#dry.told.update((all) => [...all.filter((one) => one.id !== id), machine]);
    return of(machine);
  }
}

/** Stands in for the server: it gives the visit that is walked through. */
@Injectable()
export class DryApi {
  readonly #dry = inject(DryTasks);

  get(): Observable<Visit> {
    const now = instantNow();
    return of({
      ...{ id: 'dry', version: 1, state: 'active', tasks: [...this.#dry.tasks()] },
      progress: { ticked: {}, tasks: {}, readings: {}, timers: {}, fetched: [] },
      ...{ startedAt: now, changedAt: now },
    });
  }
}

/** Stands in for what sends visits: this one lives with the page. */
@Injectable()
export class DrySender {
  readonly #dry = inject(DryTasks);
  readonly ready = Promise.resolve();
  readonly sent$ = new Subject<Sent>();
  #kept: Kept | undefined;

  claim(): () => void {
    return () => undefined;
  }

  read(): Kept | undefined {
    return this.#kept;
  }

  isKept(): boolean {
    return true;
  }

  keep(kept: Kept): void {
    this.#kept = kept;
    this.#dry.ticked.set(kept.run.progress.ticked);
  }

  send(id: string): Promise<void> {
    if (!this.#kept) return Promise.resolve();
    this.#kept = { ...this.#kept, unsent: false };
    this.sent$.next({ id, what: 'stored', run: this.#kept.run });
    return Promise.resolve();
  }

  sendIfFree(id: string): void {
    void this.send(id);
  }

  forget(): void {
    this.#kept = undefined;
  }

  settled(): void {
    /* nobody else has it */
  }
}

/** Stands in for the record of cleaning products: nothing was used. */
@Injectable()
export class DryChemicals {
  add(_draft: EntryDraft): Entry['id'] {
    return newId();
  }

  remove(): void {
    /* nothing was noted */
  }
}
