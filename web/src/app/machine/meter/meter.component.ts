import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import {
  figure,
  inUnits,
  isWasher,
  many,
  plusDays,
  sayDay,
  type Entry,
  type LoadCycle,
  type MeterKept,
  type MeterView,
} from '@needlecase/core';
import { MOST_APART } from '@needlecase/core/loads/cycles/by-hand';
import { sayWas } from '@needlecase/core/loads/drift/words';
import { airFromDuty } from '@needlecase/core/loads/air/air-from-duty';
import {
  catchError,
  combineLatest,
  map,
  merge,
  of,
  startWith,
  Subject,
  switchMap,
  type Observable,
} from 'rxjs';
import type { ApiProblem } from '../../data/api.service';
import { BenchService } from '../../data/bench.service';
import { ChangesService } from '../../data/changes.service';
import { EntriesService } from '../../data/entries.service';
import { MeterService } from '../../data/meter.service';
import { RoleService } from '../../data/role.service';
import { ToastsService } from '../../data/toasts.service';
import { SignalComponent } from '../../bench/signal.component';
import { sayLength } from '../../shared/minutes';
import { LiveMetersComponent } from './live/live-meters.component';
import { MeterImportComponent } from './meter-import.component';
import { clockOf, PowerDayComponent } from './power-day.component';

const mayBeOne = (to: string, next: Entry | undefined): boolean =>
  next?.cycle !== undefined && Date.parse(next.at) - Date.parse(to) <= MOST_APART;

interface Answered {
  view?: MeterView;
  problem?: ApiProblem;
}

/** A machine's meter: the watts of a day with its loads, what they cost, and taking a log in. */
@Component({
  selector: 'nc-meter',
  imports: [
    LiveMetersComponent,
    MeterImportComponent,
    PowerDayComponent,
    RouterLink,
    SignalComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './meter.component.html',
  styleUrl: './meter.component.scss',
})
export class MeterComponent {
  readonly #service = inject(MeterService);
  readonly #entries = inject(EntriesService);
  readonly #toasts = inject(ToastsService);
  readonly #again = new Subject<void>();

  /** From the address. */
  readonly id = input.required<string>();

  readonly #bench = toSignal(inject(BenchService).bench$);
  protected readonly bench = computed(() => this.#bench()?.value);
  protected readonly machine = computed(() =>
    this.bench()?.machines.find(({ id }) => id === this.id()),
  );
  protected readonly signals = computed(
    () => this.bench()?.signals?.filter(({ machineId }) => machineId === this.id()) ?? [],
  );
  protected readonly zone = computed(() => this.bench()?.household.zone ?? 'UTC');
  /** The day that was asked for; the last one that was read where none was. */
  readonly #asked = signal<string | undefined>(undefined);
  readonly #loaded = toSignal(
    combineLatest([
      toObservable(this.id),
      toObservable(this.#asked),
      merge(this.#again, inject(ChangesService).of('entries')).pipe(startWith(undefined)),
    ]).pipe(
      switchMap(([id, day]) =>
        this.#service.view(id, day).pipe(
          map((view): Answered => ({ view })),
          catchError((problem: ApiProblem) => of<Answered>({ problem })),
        ),
      ),
    ),
  );
  /** What was read last stays while the next is read, and where it cannot be. */
  protected readonly view = linkedSignal<Answered | undefined, MeterView | undefined>({
    source: () => this.#loaded(),
    computation: (loaded, before) => loaded?.view ?? before?.value,
  });
  protected readonly problem = computed(() => this.#loaded()?.problem);

  protected readonly line = computed(() =>
    isWasher(this.machine()?.kind ?? 'front-load-washer') ? ('water' as const) : ('air' as const),
  );
  protected readonly dayName = computed(() => {
    const { day } = this.view() ?? {};
    return day ? sayDay(day, this.bench()?.today ?? day) : '';
  });
  protected readonly ends = computed(() => {
    const { day, first, last } = this.view() ?? {};
    return { first: !day || !first || day <= first, last: !day || !last || day >= last };
  });
  protected readonly chosen = linkedSignal<MeterView | undefined, string | undefined>({
    source: () => this.view(),
    computation: (view, before) => view?.loads.find(({ id }) => id === before?.value)?.id,
  });
  protected readonly busy = signal(false);
  protected readonly role = inject(RoleService);
  protected readonly rows = computed(() => {
    const clock = clockOf(this.zone());
    const { loads = [], names = {} } = this.view() ?? {};
    return loads.map((load, i) => {
      const { at, cycle } = load;
      const from = Date.parse(at);
      const minutes = cycle ? Math.round((Date.parse(cycle.to) - from) / 60_000) : undefined;
      return {
        load,
        name: names[load.id] ?? '',
        /** The one after it, where both may be one. */
        next: cycle && mayBeOne(cycle.to, loads[i + 1]) ? loads[i + 1] : undefined,
        when: cycle
          ? `${clock.format(from)} to ${clock.format(Date.parse(cycle.to))}`
          : clock.format(from),
        told: cycle
          ? `${sayLength(minutes!)}, ${this.energy(cycle.wattHours / 1000)}`
          : `${many(load.count ?? 1, 'load')} tapped, not met by the meter`,
        more: cycle
          ? [
              cycle.heating >= 1 ? `heating ${Math.round(cycle.heating)} min` : '',
              `motor alone ${Math.round(cycle.motor)} min`,
              cycle.idle >= 1 ? `resting ${Math.round(cycle.idle)} min` : '',
              cycle.unread >= 1 ? `not read ${Math.round(cycle.unread)} min` : '',
              `at most ${Math.round(cycle.peak)} W`,
              load.id === this.chosen() ? this.#air(cycle) : '',
            ]
              .filter(Boolean)
              .join(', ')
          : '',
      };
    });
  });
  /** What its figures told, the latest first. */
  protected readonly past = computed(() => {
    const today = this.bench()?.today;
    return (this.view()?.signals ?? []).toReversed().map((one) => ({
      key: one.figure + one.seen,
      said: sayWas(one),
      when: one.until
        ? `${sayDay(one.day, today)} to ${sayDay(one.until, today)}`
        : `Since ${sayDay(one.day, today)}`,
    }));
  });
  /** What its loads of late are like; the one that is being named. */
  protected readonly programmes = computed(() =>
    (this.view()?.programmes ?? []).map(({ name, minutes, wattHours, loads, last }) => ({
      ...{ name, last },
      said: `${many(loads, 'load')} of about ${sayLength(minutes)}, ${this.energy(wattHours / 1000)} each`,
    })),
  );
  protected readonly naming = signal<string | undefined>(undefined);
  protected readonly month = computed(() => {
    const month = this.view()?.month;
    if (!month?.loads) return undefined;
    return `${many(month.loads, 'load')}, ${this.energy(month.kWh)}`;
  });

  /** What the watts tell of a vented dryer's air; of a gas dryer they tell nothing. */
  #air({ duty, heater }: LoadCycle): string {
    const machine = this.machine();
    const vented = machine?.kind === 'vented-dryer' && machine.features.energy !== 'gas';
    if (!vented || duty === undefined || heater === undefined) return '';
    const air = airFromDuty({ duty, heater });
    const { units = 'metric' } = this.bench()?.household ?? {};
    const said = (flow: number) => inUnits(figure(flow, 'flow', { digits: 2 }), units);
    return 'more' in air
      ? `air more than ${said(air.more)}: how much more is not to be seen in the watts`
      : `air about ${said(air.flow)} (${said(air.low)} to ${said(air.high)})`;
  }

  /** "0.64 kWh, 0.19 EUR". */
  protected energy(kWh: number): string {
    const { energyPrice, currency } = this.bench()?.household ?? {};
    const cost =
      energyPrice === undefined
        ? ''
        : `, ${(kWh * energyPrice).toFixed(2)}${currency ? ` ${currency}` : ''}`;
    return `${kWh.toFixed(kWh < 10 ? 2 : 0)} kWh${cost}`;
  }

  protected turn(by: number): void {
    const { day } = this.view() ?? {};
    if (day) this.#asked.set(plusDays(day, by));
  }

  protected goTo(day: string): void {
    if (/^\d{4}-\d\d-\d\d$/.test(day)) this.#asked.set(day);
  }

  protected open(id: string): void {
    this.chosen.set(this.chosen() === id ? undefined : id);
  }

  /** It was no load. */
  protected strike({ id }: Entry): void {
    this.#entries.undo(id).subscribe({
      next: () => {
        this.#again.next();
        this.#toasts.show('Struck out: it was no load.', {
          action: {
            label: 'Undo',
            do: () =>
              this.#entries.restore(id, `restore-${id}`).subscribe({
                next: () => this.#again.next(),
                error: (problem: ApiProblem) => this.#complain(problem),
              }),
          },
        });
      },
      error: (problem: ApiProblem) => this.#complain(problem),
    });
  }

  /** It was one load with the next. */
  protected join({ id }: Entry, next: Entry): void {
    this.#byHand(
      this.#service.join(this.id(), [id, next.id]),
      'One load from here on; its pause is learned.',
    );
  }

  /** It was two loads. */
  protected part({ id }: Entry): void {
    this.#byHand(
      this.#service.part(this.id(), id),
      'Two loads from here on; the pause is learned.',
    );
  }

  protected callIt(id: string, name: string): void {
    if (!name.trim()) return;
    this.naming.set(undefined);
    this.call({ id }, name);
  }

  protected call({ id }: Pick<Entry, 'id'>, name: string): void {
    const said = name.trim()
      ? `Called ${name.trim()}, and others like it, too.`
      : 'It has no name any more.';
    this.#byHand(this.#service.name(this.id(), id, name), said);
  }

  #byHand(asked: Observable<readonly Entry[]>, said: string): void {
    if (this.busy()) return;
    this.busy.set(true);
    asked.subscribe({
      next: ([entry]) => {
        this.busy.set(false);
        this.chosen.set(entry?.id);
        this.#again.next();
        this.#toasts.show(said);
      },
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.#complain(problem);
      },
    });
  }

  protected kept(kept: MeterKept): void {
    this.#asked.set(undefined);
    this.#again.next();
    const { added, matched, known, ids } = kept;
    const said = [
      `${many(added + matched, 'load')} came in`,
      matched ? `${matched} of them had been tapped` : '',
      known ? `${known} were known` : '',
    ].filter(Boolean);
    this.#toasts.show(`${said.join(', ')}.`, {
      ...(ids.length ? { action: { label: 'Undo', do: () => this.#takeBack(ids) } } : {}),
    });
  }

  #takeBack(ids: readonly string[]): void {
    this.#service.undo(this.id(), ids).subscribe({
      next: ({ undone }) => {
        this.#again.next();
        this.#toasts.show(`${many(undone, 'load')} taken back.`);
      },
      error: (problem: ApiProblem) => this.#complain(problem),
    });
  }

  #complain(problem: ApiProblem): void {
    this.#toasts.show(`${problem.title} ${problem.errors[0]?.message ?? problem.detail}`, {
      problem: true,
    });
  }
}
