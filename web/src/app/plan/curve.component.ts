import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  output,
  type Signal,
} from '@angular/core';
import { scaleLinear } from 'd3-scale';
import { curveMonotoneX, line } from 'd3-shape';
import { sayHours } from './shown';

const WIDE = 404;
const HIGH = 240;
const LETTER = 7;
const PLOT = { left: 40, right: 390, top: 18, bottom: 204 } as const;

/** A point of the curve, or of what somebody else asks. Minutes. */
export interface HoursPoint {
  work: number;
  trouble: number;
  count: number;
}

/**
 * More hours, less trouble: the least trouble that so many hours of work can leave, the rhythms as dots beside it, and
 * a button to pull along.
 */
@Component({
  selector: 'nc-curve',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      [attr.viewBox]="'0 0 ' + wide + ' ' + high"
      role="slider"
      tabindex="0"
      aria-label="Hours a year, against hours that trouble is expected to cost"
      aria-orientation="horizontal"
      [attr.aria-busy]="!whole()"
      [attr.aria-valuemin]="0"
      [attr.aria-valuemax]="points().length - 1"
      [attr.aria-valuenow]="at()"
      [attr.aria-valuetext]="said()"
      (keydown)="onKey($event)"
      (pointerdown)="pull($event)"
      (pointermove)="$event.buttons === 1 && pull($event)"
    >
      @for (tick of up(); track tick) {
        <path class="grid" [attr.d]="'M' + plot.left + ' ' + y()(tick) + 'H' + plot.right" />
        <text class="axis" text-anchor="end" [attr.x]="plot.left - 7" [attr.y]="y()(tick) + 5">
          {{ tick }}
        </text>
      }
      @for (tick of across(); track tick) {
        <text class="axis" text-anchor="middle" [attr.x]="x()(tick)" [attr.y]="plot.bottom + 18">
          {{ tick }}
        </text>
      }
      <text class="axis" text-anchor="end" [attr.x]="plot.right" [attr.y]="plot.bottom + 33">
        hours of work a year
      </text>
      <text class="axis" [attr.x]="plot.left + 4" y="11">hours that trouble costs</text>
      <path class="thread" [attr.d]="path()" />
      <path class="ply" [attr.d]="path()" />
      @for (dot of dots(); track dot.name) {
        <path class="lead" [attr.d]="'M' + dot.x + ' ' + dot.y + 'V' + (dot.label + 5)" />
        <circle class="dot" r="6" [attr.cx]="dot.x" [attr.cy]="dot.y" />
        <text class="name" [attr.x]="dot.from" [attr.y]="dot.label" text-anchor="start">
          {{ dot.name }}
        </text>
      }
      @if (handle(); as one) {
        <circle class="halo" r="24" [attr.cx]="one.x" [attr.cy]="one.y" />
        <g [attr.transform]="'translate(' + one.x + ',' + one.y + ')'">
          <circle class="button" r="17" />
          <circle class="dish" r="12" />
          @for (hole of holes; track $index) {
            <circle class="hole" r="2" [attr.cx]="hole[0]" [attr.cy]="hole[1]" />
          }
        </g>
      }
    </svg>
  `,
  styleUrl: './curve.component.scss',
})
export class CurveComponent {
  /** Falling, from the fewest hours. */
  readonly points = input.required<readonly HoursPoint[]>();
  readonly others = input.required<readonly (HoursPoint & { name: string })[]>();
  /** Which of the points is looked at, as it is now: keys come faster than the page is drawn. */
  readonly atNow = input.required<Signal<number>>();
  protected readonly at = computed(() => this.atNow()());
  /** No more points come. */
  readonly whole = input(true);
  readonly choose = output<number>();

  protected readonly wide = WIDE;
  protected readonly high = HIGH;
  protected readonly plot = PLOT;
  protected readonly holes = [
    [-4, -4],
    [-4, 4],
    [4, -4],
    [4, 4],
  ] as const;

  readonly #all = computed(() => [...this.points(), ...this.others()]);
  protected readonly x = computed(() => {
    const hours = this.#all().map(({ work }) => work / 60);
    return scaleLinear([Math.min(...hours), Math.max(...hours)], [PLOT.left + 22, PLOT.right - 16]);
  });
  protected readonly y = computed(() => {
    const most = Math.max(...this.#all().map(({ trouble }) => trouble / 60), 0.5);
    return scaleLinear([0, most], [PLOT.bottom, PLOT.top + 6]);
  });
  protected readonly up = computed(() => this.y().ticks(4));
  protected readonly across = computed(() => this.x().ticks(6));
  protected readonly path = computed(
    () =>
      line<HoursPoint>(
        ({ work }) => this.x()(work / 60),
        ({ trouble }) => this.y()(trouble / 60),
      ).curve(curveMonotoneX)(this.points()) ?? '',
  );
  /** Their names stand over one another, so that none lies on another: the most hours lowest. */
  protected readonly dots = computed(() => {
    const dots = this.others().map((one) => ({
      name: one.name,
      x: this.x()(one.work / 60),
      y: this.y()(one.trouble / 60),
    }));
    const order = dots.toSorted((a, b) => b.x - a.x);
    return dots.map((dot) => {
      const label = dot.y - 16 - 19 * order.indexOf(dot);
      const width = dot.name.length * LETTER;
      const over = Math.max(0, dot.x + width - WIDE);
      return { ...dot, label, from: dot.x - 4 - over };
    });
  });
  protected readonly handle = computed(() => {
    const one = this.points()[this.at()];
    return one && { x: this.x()(one.work / 60), y: this.y()(one.trouble / 60) };
  });
  protected readonly said = computed(() => {
    const one = this.points()[this.at()];
    return one
      ? `${sayHours(one.work)} of work, trouble that costs about ${sayHours(one.trouble)}`
      : '';
  });

  protected pull({ currentTarget, clientX }: PointerEvent): void {
    const { left, width } = (currentTarget as SVGElement).getBoundingClientRect();
    const place = ((clientX - left) / width) * WIDE;
    const x = this.x();
    const nearest = this.points().reduce(
      (best, { work }, i) =>
        Math.abs(x(work / 60) - place) < Math.abs(x(this.points()[best]!.work / 60) - place)
          ? i
          : best,
      0,
    );
    if (nearest !== this.at()) this.choose.emit(nearest);
  }

  protected onKey(event: KeyboardEvent): void {
    const last = this.points().length - 1;
    const to = {
      ArrowRight: this.at() + 1,
      ArrowUp: this.at() + 1,
      ArrowLeft: this.at() - 1,
      ArrowDown: this.at() - 1,
      PageUp: this.at() + 3,
      PageDown: this.at() - 3,
      Home: 0,
      End: last,
    }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    this.choose.emit(Math.max(0, Math.min(last, to)));
  }
}
