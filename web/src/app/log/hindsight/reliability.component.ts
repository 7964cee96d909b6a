import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { HindsightView } from '@needlecase/core/views/hindsight';
import { scaleLinear, scaleSqrt } from 'd3-scale';
import { line as lineThrough } from 'd3-shape';
import { ReadableDirective } from '../../charts/readable.directive';

type Points = NonNullable<HindsightView['after']>['curve'];

/** A line's points, with its name. */
export interface Curve {
  line: 'water' | 'air';
  name: string;
  points: Points;
}

const SIZE = 420;
const PLOT = { left: 46, right: SIZE - 22, top: 14, bottom: SIZE - 46 } as const;
const KNOTS = [3, 11] as const;
const FIFTHS = [0, 0.2, 0.4, 0.6, 0.8, 1];

/** What was said against what was seen: a thread for each line, along the seam where both are the same. */
@Component({
  selector: 'nc-reliability',
  imports: [ReadableDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      ncReadable
      [attr.viewBox]="'0 0 ' + size + ' ' + size"
      role="img"
      [attr.aria-label]="told()"
    >
      @for (tick of fifths; track tick) {
        <path class="grid" [attr.d]="'M' + x(tick) + ' ' + plot.top + 'V' + plot.bottom" />
        <path class="grid" [attr.d]="'M' + plot.left + ' ' + y(tick) + 'H' + plot.right" />
        <text [attr.x]="x(tick)" [attr.y]="plot.bottom + 20" text-anchor="middle">
          {{ 100 * tick }}
        </text>
        <text [attr.x]="plot.left - 8" [attr.y]="y(tick) + 5" text-anchor="end">
          {{ 100 * tick }}
        </text>
      }
      <path
        class="seam"
        [attr.d]="'M' + plot.left + ' ' + plot.bottom + 'L' + plot.right + ' ' + plot.top"
      />
      @for (one of drawn(); track one.name) {
        <g [class]="one.line">
          <path class="thread" [attr.d]="one.path" />
          @for (knot of one.knots; track $index) {
            <circle class="knot" [attr.cx]="knot.x" [attr.cy]="knot.y" [attr.r]="knot.r">
              <title>{{ knot.told }}</title>
            </circle>
          }
        </g>
      }
      <text [attr.x]="plot.right" [attr.y]="size - 6" text-anchor="end">said, in 100</text>
      <text [attr.x]="plot.left + 6" [attr.y]="plot.top + 12">seen, in 100</text>
    </svg>
    <p class="key">
      @for (one of curves(); track one.name) {
        <span [class]="one.line"><i aria-hidden="true"></i>{{ one.name }}</span>
      }
    </p>
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      display: block;
      max-width: 26rem;
    }
    @include drawn-chart;
    .seam {
      fill: none;
      stroke: var(--ink);
      stroke-dasharray: 7 6;
      stroke-linecap: round;
      stroke-width: 2;
    }
    .thread {
      fill: none;
      stroke: var(--thread);
      stroke-linecap: round;
      stroke-linejoin: round;
      stroke-width: 4;
    }
    .knot {
      fill: var(--linen);
      stroke: var(--thread);
      stroke-width: 3;
    }
    .key {
      display: flex;
      gap: 1.4rem;
      margin: 0.2rem 0 0.4rem;
    }
    .key i {
      background: var(--thread);
      border-radius: 3px;
      display: inline-block;
      height: 5px;
      margin-right: 0.5rem;
      vertical-align: middle;
      width: 1.8rem;
    }
  `,
})
export class ReliabilityComponent {
  readonly curves = input.required<readonly Curve[]>();

  protected readonly size = SIZE;
  protected readonly plot = PLOT;
  protected readonly fifths = FIFTHS;
  protected readonly x = scaleLinear([0, 1], [PLOT.left, PLOT.right]);
  protected readonly y = scaleLinear([0, 1], [PLOT.bottom, PLOT.top]);

  protected readonly drawn = computed(() => {
    const most = Math.max(1, ...this.curves().flatMap(({ points }) => points.map((p) => p.count)));
    const radius = scaleSqrt([0, most], KNOTS);
    return this.curves().map(({ line, name, points }) => ({
      line,
      name,
      path:
        lineThrough<Points[number]>()
          .x(({ said }) => this.x(said))
          .y(({ seen }) => this.y(seen))([...points]) ?? '',
      knots: points.map(({ said, seen, count }) => ({
        ...{ x: this.x(said), y: this.y(seen), r: radius(count) },
        told: `Said ${Math.round(100 * said)} in 100, seen ${Math.round(100 * seen)}, ${count} times`,
      })),
    }));
  });
  protected readonly told = computed(() =>
    this.curves()
      .map(({ name, points }) => {
        const each = points.map(
          ({ said, seen }) => `${Math.round(100 * said)} said ${Math.round(100 * seen)} seen`,
        );
        return `${name}: ${each.join(', ')} in 100`;
      })
      .join('; '),
  );
}
