import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { ChartMark, ChartSeries } from '@needlecase/core/views/charts';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { ReadableDirective } from '../../charts/readable.directive';

/** Along what a chart goes. */
export type Along = 'time' | 'loads';
export type Span = readonly [number, number];

const WIDTH = 640;
const PLOT = { left: 44, right: WIDTH - 12, top: 16, bottom: 240 } as const;
/** From more points than this only their line is drawn. */
const MOST_DOTS = 160;
const MONTH = 30 * 86_400_000;

/** One figure along time or loads: its points, what is usual and when clean, and what happened as marks at the hem. */
@Component({
  selector: 'nc-record-chart',
  imports: [ReadableDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './record-chart.component.html',
  styleUrl: './record-chart.component.scss',
})
export class RecordChartComponent {
  readonly series = input.required<ChartSeries>();
  readonly marks = input.required<readonly ChartMark[]>();
  /** What is shown of it: from one instant (or count of loads) to another. */
  readonly span = input.required<Span>();
  readonly along = input<Along>('time');
  readonly thread = input<'water' | 'air'>('water');
  readonly name = input('');
  /** It is dragged: by so much of what is shown, 1 the whole of it. */
  readonly pulled = output<number>();
  /** It is let go of. */
  readonly rested = output<void>();

  protected readonly width = WIDTH;
  protected readonly plot = PLOT;
  protected readonly x = computed(() => scaleLinear([...this.span()], [PLOT.left, PLOT.right]));
  protected readonly seen = computed(() => {
    const [from, to] = this.span();
    return this.series().points.filter(
      (point) => this.#place(point) >= from && this.#place(point) <= to,
    );
  });
  protected readonly y = computed(() => {
    const { clean, points } = this.series();
    const shown = this.seen().length ? this.seen() : points;
    const values = [...shown.map(({ value }) => value), ...(clean === undefined ? [] : [clean])];
    const [low, high] = [Math.min(...values), Math.max(...values)];
    const room = 0.12 * (high - low || Math.abs(high) || 1);
    return scaleLinear(
      [Math.min(low - room, low >= 0 ? Math.max(0, low - room) : low), high + room],
      [PLOT.bottom, PLOT.top],
    ).nice(4);
  });
  protected readonly ticks = computed(() => this.y().ticks(4));
  /** A point before and one after what is shown, so that the thread goes on to the edge. */
  protected readonly path = computed(() => {
    const [from, to] = this.span();
    const { points } = this.series();
    const first = points.findLastIndex((point) => this.#place(point) < from);
    const last = points.findIndex((point) => this.#place(point) > to);
    const shown = points.slice(Math.max(0, first), last < 0 ? undefined : last + 1);
    return (
      line<(typeof shown)[number]>()
        .x((point) => this.x()(this.#place(point)))
        .y(({ value }) => this.y()(value))(shown) ?? ''
    );
  });
  protected readonly dots = computed(() =>
    this.seen().length > MOST_DOTS
      ? []
      : this.seen().map((point) => ({ x: this.x()(this.#place(point)), y: this.y()(point.value) })),
  );
  protected readonly trend = computed(() => {
    const { trend } = this.series();
    if (!trend || this.along() !== 'time') return '';
    const [from, to] = this.span();
    const at = (instant: number) => trend.start + (trend.monthly * (instant - trend.from)) / MONTH;
    const begin = Math.max(from, trend.from);
    if (begin >= to) return '';
    return `M${this.x()(begin)} ${this.y()(at(begin))}L${this.x()(to)} ${this.y()(at(to))}`;
  });
  protected readonly hem = computed(() => {
    const [from, to] = this.span();
    const { stations } = this.series();
    return this.marks()
      .filter(({ station }) => !stations || station === undefined || stations.includes(station))
      .filter((mark) => this.#place(mark) >= from && this.#place(mark) <= to)
      .map((mark) => ({ ...mark, x: this.x()(this.#place(mark)) }));
  });
  protected readonly foot = (px: number): { x: number; say: string; anchor: string }[] => {
    const [from, to] = this.span();
    const count = px > 1.3 ? 3 : 5;
    return Array.from({ length: count }, (_, i) => {
      const place = from + ((to - from) * i) / (count - 1);
      return {
        x: this.x()(place),
        say: this.along() === 'time' ? dateOf(place, to - from) : String(Math.round(place)),
        anchor: i === 0 ? 'start' : i === count - 1 ? 'end' : 'middle',
      };
    });
  };
  protected readonly said = computed(() => {
    const { say, unit, low, high, clean } = this.series();
    const round = (value: number) => Number(value.toPrecision(3));
    return [
      `${this.name()}: ${say}, ${unit}. ${this.seen().length} figures shown`,
      `eight in ten from ${round(low)} to ${round(high)}`,
      clean === undefined ? '' : `when clean ${round(clean)}`,
      `${this.hem().length} marks of what happened`,
    ]
      .filter(Boolean)
      .join(', ');
  });

  readonly #place = ({ at, loads }: { at: number; loads: number }): number =>
    this.along() === 'time' ? at : loads;

  #from: number | undefined;
  protected down(event: PointerEvent): void {
    this.#from = event.clientX;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
  }
  protected move(event: PointerEvent): void {
    if (this.#from === undefined) return;
    const { width } = (event.currentTarget as Element).getBoundingClientRect();
    const by = (this.#from - event.clientX) / (width * ((PLOT.right - PLOT.left) / WIDTH));
    if (!by) return;
    this.#from = event.clientX;
    this.pulled.emit(by);
  }
  protected up(): void {
    if (this.#from === undefined) return;
    this.#from = undefined;
    this.rested.emit();
  }
}

const MONTHS = new Intl.DateTimeFormat('en-GB', {
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
});
const DAYS = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' });
const HALF_A_YEAR = 183 * 86_400_000;
/** @param length of what is shown, ms: within half a year the day is told */
const dateOf = (at: number, length: number): string =>
  (length < HALF_A_YEAR ? DAYS : MONTHS).format(at);
