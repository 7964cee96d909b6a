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
import { airFromDuty } from '@needlecase/core/loads/air/air-from-duty';
import { catchError, combineLatest, map, merge, of, startWith, Subject, switchMap } from 'rxjs';
import type { ApiProblem } from '../../data/api.service';
import { BenchService } from '../../data/bench.service';
import { ChangesService } from '../../data/changes.service';
import { EntriesService } from '../../data/entries.service';
import { MeterService } from '../../data/meter.service';
import { ToastsService } from '../../data/toasts.service';
import { SignalComponent } from '../../bench/signal.component';
import { sayLength } from '../../shared/minutes';
import { MeterImportComponent } from './meter-import.component';
import { clockOf, PowerDayComponent } from './power-day.component';

interface Answered {
  view?: MeterView;
  problem?: ApiProblem;
}

/** A machine's meter: the watts of a day with its loads, what they cost, and taking a log in. */
@Component({
  selector: 'nc-meter',
  imports: [MeterImportComponent, PowerDayComponent, RouterLink, SignalComponent],
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
  protected readonly rows = computed(() => {
    const clock = clockOf(this.zone());
    return (this.view()?.loads ?? []).map((load) => {
      const { at, cycle } = load;
      const from = Date.parse(at);
      const minutes = cycle ? Math.round((Date.parse(cycle.to) - from) / 60_000) : undefined;
      return {
        load,
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
