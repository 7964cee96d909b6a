import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { dayOf, isWasher, sayDay, type Machine } from '@needlecase/core';
import type { ChartsView } from '@needlecase/core/views/charts';
import { catchError, combineLatest, map, of, startWith, switchMap, type Observable } from 'rxjs';
import { wordsOf, type ApiProblem } from '../../data/api.service';
import { ChangesService } from '../../data/changes.service';
import { ChartsService } from '../../data/charts.service';
import { SelectComponent } from '../../shared/select.component';
import { LENGTH_WORDS, LENGTHS, type Length, type Question } from './question';
import { RecordChartComponent, type Along, type Span } from './record-chart.component';

const DAY = 86_400_000;
const KINDS = {
  cleaned: 'cleaned',
  looked: 'looked at',
  replaced: 'a part replaced',
  case: 'trouble',
} as const;
interface Loaded {
  view?: ChartsView;
  wrong?: string;
}
const NOTHING: Loaded = {};
/** Room at the ends of a chart, a share of it. */
const EDGE = 0.02;
/** So many rows of the table are shown. */
const ROWS = 200;

/** A question and its chart: which machine, which figure, when; the same as a table. */
@Component({
  selector: 'nc-chart-panel',
  imports: [RecordChartComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './chart-panel.component.html',
  styleUrl: './chart-panel.component.scss',
})
export class ChartPanelComponent {
  readonly #charts = inject(ChartsService);

  readonly machines = input.required<readonly Machine[]>();
  readonly asked = input.required<Partial<Question>>();
  /** Of the house. */
  readonly zone = input.required<string>();
  readonly today = input.required<string>();
  /** Tells panels on one page apart. */
  readonly key = input('a');
  readonly ask = output<Question>();

  readonly #machine = computed(
    () => this.machines().find(({ id }) => id === this.asked().machine) ?? this.machines()[0],
  );
  readonly #loaded = toSignal(
    combineLatest([
      toObservable(computed(() => this.#machine()?.id)),
      inject(ChangesService).of('entries').pipe(startWith(undefined)),
    ]).pipe(
      switchMap(([id]): Observable<Loaded> =>
        id === undefined
          ? of({})
          : this.#charts.of(id).pipe(
              map((view): Loaded => ({ view })),
              catchError((problem: ApiProblem) => of<Loaded>({ wrong: wordsOf(problem) })),
            ),
      ),
    ),
    { initialValue: NOTHING },
  );
  protected readonly wrong = computed(() => this.#loaded().wrong ?? '');
  protected readonly view = computed(() => this.#loaded().view);
  protected readonly series = computed(() => {
    const all = this.view()?.series ?? [];
    return all.find(({ id }) => id === this.asked().figure) ?? all[0];
  });
  /** Where it is pulled to, until it is let go of: browsers take only so many changes of an address. */
  readonly #held = signal<number | undefined>(undefined);
  /** What is asked, whole. */
  protected readonly question = computed((): Question => ({
    machine: this.#machine()?.id ?? '',
    figure: this.series()?.id ?? '',
    length: this.asked().length ?? 'all',
    along: this.asked().along ?? 'time',
    ago: this.#held() ?? this.asked().ago ?? 0,
  }));

  protected readonly name = computed(() => this.#machine()?.name ?? '');
  protected readonly thread = computed(() =>
    isWasher(this.#machine()?.kind ?? 'front-load-washer') ? ('water' as const) : ('air' as const),
  );
  protected readonly machineIds = computed(() => this.machines().map(({ id }) => id));
  protected readonly sayMachine = (id: string): string =>
    this.machines().find((one) => one.id === id)?.name ?? '';
  protected readonly figures = computed(() => (this.view()?.series ?? []).map(({ id }) => id));
  protected readonly sayFigure = (id: string): string => {
    const one = this.view()?.series.find((series) => series.id === id);
    return one ? `${one.say}, ${one.unit}` : '';
  };
  protected readonly lengths = Object.keys(LENGTHS) as Length[];
  protected readonly sayLength = (length: Length): string => LENGTH_WORDS[length];
  protected readonly ways: readonly Along[] = ['time', 'loads'];
  protected readonly sayAlong = (along: Along): string => `along ${along}`;

  /** All there is, by what it goes along. */
  readonly #ends = computed((): Span => {
    const points = this.series()?.points ?? [];
    const marks = this.view()?.marks ?? [];
    const along = this.question().along;
    const places = [...points, ...marks].map((one) => (along === 'time' ? one.at : one.loads));
    if (!places.length) return [0, 1];
    const last = along === 'time' ? Date.now() : Math.max(...places);
    const first = Math.min(...points.map((one) => (along === 'time' ? one.at : one.loads)));
    return [Math.min(first, last - 1), last];
  });
  protected readonly span = computed((): Span => {
    const { length, ago, along } = this.question();
    const [first, last] = this.#ends();
    const days = LENGTHS[length];
    // With a little room at both ends, so that no figure lies on the edge.
    const room = EDGE * (last - first);
    if (days === undefined) return [first - room, last + room];
    // Along loads, as large a part of them as the days are of all days.
    const whole = Math.max(1, (Date.now() - Math.min(...this.#times())) / DAY);
    const a = along === 'time' ? DAY : (last - first) / whole;
    const to = last - ago * a;
    return [to - days * a, to];
  });
  readonly #times = computed(() => (this.series()?.points ?? []).map(({ at }) => at));
  protected readonly whole = computed(() => LENGTHS[this.question().length] === undefined);

  protected readonly trend = computed(() => {
    const series = this.series();
    const { trend, unit, low, high } = series ?? {};
    if (!trend || high === undefined || low === undefined) return '';
    if (Math.abs(trend.monthly) < 0.01 * Math.max(1e-9, high - low)) return 'It stays as it is.';
    const by = Math.abs(Number(trend.monthly.toPrecision(2)));
    const since = sayDay(dayOf(trend.from, this.zone()), this.today());
    return `${trend.monthly > 0 ? 'Rising' : 'Falling'} by about ${by} ${unit} in thirty days since ${since}.`;
  });
  protected readonly rows = computed(() => {
    const [from, to] = this.span();
    const along = this.question().along;
    const place = (one: { at: number; loads: number }) => (along === 'time' ? one.at : one.loads);
    const within = (one: { at: number; loads: number }) => place(one) >= from && place(one) <= to;
    const unit = this.series()?.unit ?? '';
    const figures = (this.series()?.points ?? []).filter(within).map((one) => ({
      ...one,
      said: `${Number(one.value.toPrecision(4))} ${unit}`,
    }));
    const { stations } = this.series() ?? {};
    const marks = (this.view()?.marks ?? [])
      .filter(({ station }) => !stations || station === undefined || stations.includes(station))
      .filter(within)
      .map(({ at, loads, kind, say }) => ({ at, loads, said: `${say} (${KINDS[kind]})` }));
    return [...figures, ...marks]
      .sort((a, b) => b.at - a.at)
      .slice(0, ROWS)
      .map(({ at, loads, said }) => ({
        said,
        loads,
        day: sayDay(dayOf(at, this.zone()), this.today()),
      }));
  });

  protected change(change: Partial<Question>): void {
    this.ask.emit({ ...this.question(), ...change });
  }

  /** @param by parts of what is shown, later where it is positive */
  protected turn(by: number): void {
    const ago = this.#turned(by);
    if (ago !== undefined) this.change({ ago });
  }

  protected pull(by: number): void {
    this.#held.set(this.#turned(by));
  }

  protected rest(): void {
    const ago = this.#held();
    if (ago === undefined) return;
    this.change({ ago });
    this.#held.set(undefined);
  }

  #turned(by: number): number | undefined {
    const days = LENGTHS[this.question().length];
    if (days === undefined) return undefined;
    // No further back than the first of it, which stays within what is shown.
    const back = (Date.now() - Math.min(Date.now(), ...this.#times())) / DAY;
    const most = Math.max(0, back - EDGE * days);
    return Math.min(most, Math.max(0, this.question().ago - by * days));
  }

  /** The table is drawn only where it is looked at. */
  protected readonly tabled = signal(false);
  protected toggled(event: Event): void {
    this.tabled.set((event.target as HTMLDetailsElement).open);
  }
}
