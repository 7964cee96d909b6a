import { computed, inject, Injectable, linkedSignal, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute } from '@angular/router';
import {
  dayOf,
  exampleIn,
  instrumentNamed,
  movedBetween,
  sayDay,
  type Amount,
  type EntryDraft,
  type Fields,
  type Household,
  type HouseholdDraft,
  type InstrumentName,
  type PhoneInstrument,
  type MachineView,
  type Moved,
  type TroubleStart,
} from '@needlecase/core';
import {
  catchError,
  combineLatest,
  filter,
  firstValueFrom,
  map,
  merge,
  of,
  race,
  switchMap,
  timer,
} from 'rxjs';
import { sameData } from '../../data/same-data';
import { ApiService, type ApiProblem } from '../../data/api.service';
import { BenchService } from '../../data/bench.service';
import { HouseholdService } from '../../data/household.service';
import { OutboxService } from '../../data/outbox.service';
import { newId } from '../../data/platform';
import { ToastsService } from '../../data/toasts.service';
import { attempt, type Attempt } from './attempt';
import { TAKEN } from './taken';
import { stamp } from '../../data/clock';

const LONGEST_WAIT_MS = 8000;
const LONGEST_READING_MS = 2000;

/**
 * What every instrument needs: the household's units, the machine that is measured, and saving a reading
 * so that one sees what it changed. An instrument's component provides its own.
 */
@Injectable()
export class Measuring {
  readonly #api = inject(ApiService);
  readonly #outbox = inject(OutboxService);
  readonly #toasts = inject(ToastsService);
  readonly #households = inject(HouseholdService);
  readonly #route = inject(ActivatedRoute);
  /** Which instrument it is; the address says so. */
  readonly instrument = instrumentNamed(
    this.#route.snapshot.data['instrument'] as InstrumentName | PhoneInstrument,
  );
  readonly #asked = toSignal(
    this.#route.queryParamMap.pipe(map((query) => query.get('machine') ?? undefined)),
  );
  readonly #loaded = toSignal(inject(BenchService).bench$);

  readonly bench = computed(() => this.#loaded()?.value);
  /** Figures that were taken elsewhere: they are worked out here, and not kept. */
  readonly #taken = inject(TAKEN, { optional: true });
  readonly dry = this.#taken !== null;
  /**
   * Whether the house is known, or has been waited for long enough: before that nothing is to be typed,
   * since what the house says takes the place of what stands there at first.
   */
  readonly ready = toSignal(
    merge(inject(BenchService).bench$, timer(LONGEST_READING_MS)).pipe(map(() => true)),
    { initialValue: false },
  );
  /** Units and kind of house. */
  readonly house = computed<Pick<Household, 'region' | 'units'>>(
    () => this.bench()?.household ?? { units: 'metric' },
  );
  readonly units = computed(() => this.house().units);
  readonly machines = computed(
    () => this.bench()?.machines.filter(({ kind }) => this.instrument.kinds.includes(kind)) ?? [],
  );
  /** The machine that is measured: the one asked for, until another is chosen here. */
  readonly machineId = linkedSignal<
    { asked: string | undefined; ids: readonly string[] },
    string | undefined
  >({
    source: computed(() => ({ asked: this.#asked(), ids: this.machines().map(({ id }) => id) }), {
      equal: sameData,
    }),
    computation: ({ asked, ids }, before) => {
      const chosen = before && before.source.asked === asked ? before.value : asked;
      return ids.find((id) => id === chosen) ?? ids.find((id) => id === asked) ?? ids[0];
    },
  });
  readonly machine = computed(() => this.machines().find(({ id }) => id === this.machineId()));

  readonly #figures = toSignal(
    combineLatest([toObservable(this.machineId), inject(BenchService).bench$]).pipe(
      switchMap(([id]) =>
        id
          ? this.#api
              .get<TroubleStart>(`machines/${id}/trouble`)
              .pipe(catchError(() => of(undefined)))
          : of(undefined),
      ),
    ),
  );
  /** The latest figures of each quantity read at the machine, the newest first. */
  readonly figures = computed(() => this.#figures()?.figures ?? {});

  /** What was kept last: the same again is the same reading, tapped twice. */
  #kept = '';
  readonly saving = signal(false);
  readonly saved = signal(false);
  readonly moved = signal<readonly Moved[]>([]);

  /** What stands in an instrument's fields at first, in the household's units. */
  example(amounts: Readonly<Record<string, Amount>>, fields: Fields): Record<string, Amount> {
    return { ...exampleIn(amounts, fields, this.units()), ...this.#taken?.() };
  }

  /** The day of an instant, UTC milliseconds, where the household is. */
  sayDay(instant: number): string {
    const zone = this.bench()?.household.zone ?? 'UTC';
    return sayDay(dayOf(instant, zone), this.bench()?.today ?? dayOf(Date.now(), zone));
  }

  /** An instrument's work, its sentences in the household's units. */
  attempt<T>(work: () => T): Attempt<T> {
    return attempt(work, this.units());
  }

  /** Saves readings or looks of the machine, and tells which due dates they moved, and why. */
  async save(...drafts: Omit<EntryDraft, 'machineId' | 'at' | 'source' | 'id'>[]): Promise<void> {
    const machine = this.machine();
    const same = JSON.stringify([machine?.id, drafts]);
    if (!machine || this.saving() || (this.saved() && this.#kept === same)) return;
    this.#kept = same;
    this.saving.set(true);
    this.saved.set(false);
    this.moved.set([]);
    const before = await this.#line(machine.id);
    const when = stamp();
    const entries = drafts.map((draft) => ({
      ...draft,
      id: newId(),
      machineId: machine.id,
      ...when,
      source: 'measure' as const,
    }));
    const last = entries.at(-1)!.id;
    const refused = this.#outbox.refused$.pipe(filter(({ entry }) => entry.id === last));
    const arrived = race(
      this.#outbox.sent$.pipe(
        filter(({ id }) => id === last),
        map(() => true),
      ),
      refused.pipe(map(() => false)),
      timer(LONGEST_WAIT_MS).pipe(map(() => false)),
    );
    const done = firstValueFrom(arrived);
    let kept = true;
    for (const entry of entries) kept = await this.#outbox.add(entry);
    const sent = await done;
    this.saving.set(false);
    this.saved.set(true);
    const where = kept ? 'Kept on this device' : 'Only on this page, as this device has no room';
    this.#toasts.show(sent ? 'Kept.' : `${where}; it is sent later.`, {
      action: {
        label: 'Undo',
        do: () => {
          for (const { id } of entries) void this.#outbox.undo(id);
          this.saved.set(false);
          this.moved.set([]);
        },
      },
    });
    if (!sent || !before) return;
    const after = await this.#line(machine.id);
    if (after) this.moved.set(movedBetween(before, after));
  }

  /**
   * Keeps something for the whole house, such as the hardness of its water.
   * @param then once it is kept
   * @param undo what brings back what was; it is asked when somebody wants it back
   */
  keepForHouse(
    change: Partial<HouseholdDraft>,
    said: string,
    then?: () => void,
    undo?: () => Partial<HouseholdDraft>,
  ): void {
    const household = this.bench()?.household;
    if (!household) return;
    const action = undo && {
      label: 'Undo',
      do: () => this.keepForHouse(undo(), 'It is as it was.'),
    };
    this.#households.change(household, change).subscribe({
      next: () => {
        then?.();
        this.#toasts.show(said, action ? { action } : {});
      },
      error: (problem: ApiProblem) =>
        this.#toasts.show(problem.errors[0]?.message ?? problem.title, { problem: true }),
    });
  }

  async #line(machineId: string): Promise<MachineView | undefined> {
    try {
      return await firstValueFrom(this.#api.get<MachineView>(`machines/${machineId}/line`));
    } catch {
      return undefined;
    }
  }
}
