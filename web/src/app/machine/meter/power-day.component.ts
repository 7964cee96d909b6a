import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Entry, MeterView } from '@needlecase/core';
import { scaleLinear } from 'd3-scale';
import { area, curveStepAfter } from 'd3-shape';
import { ReadableDirective } from '../../charts/readable.directive';

const WIDTH = 720;
const PLOT = { left: 8, right: WIDTH - 8, top: 30, bottom: 236 } as const;
const MINUTE = 60_000;
/** The scale goes so far at least, W. */
const LEAST_TOP = 500;

/** A day of a meter: the watts of each minute, and a stitch under each load. */
@Component({
  selector: 'nc-power-day',
  imports: [ReadableDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      ncReadable
      #scale="ncReadable"
      [class]="line()"
      [attr.viewBox]="'0 0 ' + width + ' ' + (plot.bottom + 26 + 22 * scale.px())"
      role="img"
      [attr.aria-label]="said()"
    >
      @for (tick of ticks(); track tick) {
        <path class="grid" [attr.d]="'M' + plot.left + ' ' + y()(tick) + 'H' + plot.right" />
        <text [attr.x]="plot.left" [attr.y]="y()(tick) - 4">{{ tick }} W</text>
      }
      <path class="power" [attr.d]="path()" />
      <path class="ground" [attr.d]="'M' + plot.left + ' ' + plot.bottom + 'H' + plot.right" />
      @for (one of hours(scale.px()); track one.at) {
        <path class="tick" [attr.d]="'M' + one.x + ' ' + plot.bottom + 'v6'" />
        <text
          [attr.x]="one.x"
          [attr.y]="plot.bottom + 26 + 16 * scale.px()"
          [attr.text-anchor]="one.anchor"
        >
          {{ one.at }}
        </text>
      }
      @for (one of stitches(); track one.id) {
        <g class="load" [class.chosen]="one.id === chosen()" (click)="choose.emit(one.id)">
          <rect
            class="reach"
            [attr.x]="one.x - 4"
            [attr.y]="plot.top"
            [attr.width]="one.width + 8"
            height="240"
          />
          <path
            class="stitch"
            [attr.d]="'M' + one.x + ' ' + (plot.bottom + 16) + 'h' + one.width"
          />
        </g>
      }
    </svg>
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      display: block;
    }
    @include drawn-chart;
    .power {
      fill: color-mix(in srgb, var(--thread) 45%, var(--linen));
      stroke: var(--thread);
      stroke-width: 1.6;
    }
    .ground,
    .tick {
      stroke: var(--ink);
      stroke-width: 1.4;
    }
    .stitch {
      stroke: var(--ink);
      stroke-linecap: round;
      stroke-width: 8;
    }
    .chosen .stitch {
      stroke: var(--thread);
      stroke-width: 13;
    }
    .load {
      cursor: pointer;
    }
    .reach {
      fill: transparent;
    }
    .chosen .reach {
      fill: color-mix(in srgb, var(--thread) 14%, transparent);
    }
  `,
})
export class PowerDayComponent {
  readonly view = input.required<Pick<MeterView, 'from' | 'watts' | 'loads'>>();
  readonly line = input<'water' | 'air'>('water');
  /** IANA name of the zone whose day it is. */
  readonly zone = input('UTC');
  /** The load that is opened. */
  readonly chosen = input<string>();
  readonly choose = output<string>();

  protected readonly width = WIDTH;
  protected readonly plot = PLOT;

  protected readonly x = computed(() =>
    scaleLinear([0, this.view().watts.length], [PLOT.left, PLOT.right]),
  );
  protected readonly y = computed(() => {
    const most = this.view().watts.reduce<number>((top, watts) => Math.max(top, watts ?? 0), 0);
    return scaleLinear([0, Math.max(LEAST_TOP, 1.05 * most)], [PLOT.bottom, PLOT.top]);
  });
  protected readonly ticks = computed(() => this.y().ticks(3).slice(1));
  protected readonly path = computed(
    () =>
      area<number | null>()
        .defined((watts) => watts !== null)
        .x((_, i) => this.x()(i))
        .y0(PLOT.bottom)
        .y1((watts) => this.y()(watts ?? 0))
        .curve(curveStepAfter)([...this.view().watts]) ?? '',
  );
  readonly #clock = computed(() => clockOf(this.zone()));
  readonly #from = computed(() => Date.parse(this.view().from ?? ''));
  protected readonly stitches = computed(() =>
    this.view().loads.map((load) => {
      const [from, to] = [this.#minuteOf(Date.parse(load.at)), this.#minuteOf(endOf(load))];
      const x = this.x()(from);
      return { id: load.id, x, width: Math.max(2, this.x()(to) - x) };
    }),
  );
  protected readonly said = computed(() => {
    const { loads, watts } = this.view();
    const read = watts.filter((one) => one !== null).length;
    return `Watts of the day, ${Math.round(read / 60)} hours of it read, with ${loads.length} ${loads.length === 1 ? 'load' : 'loads'}`;
  });

  /** Every six hours on a phone, every three on a desk. */
  protected hours(px: number): { at: string; x: number; anchor: string }[] {
    const all = this.view().watts.length;
    const each = px > 1.3 ? 6 : 3;
    return Array.from({ length: Math.floor(all / 60 / each) + 1 }, (_, i) => {
      const minute = Math.min(all, i * each * 60);
      return {
        at: this.#clock().format(this.#from() + minute * MINUTE),
        x: this.x()(minute),
        anchor: i === 0 ? 'start' : minute > all - 30 ? 'end' : 'middle',
      };
    });
  }

  #minuteOf(at: number): number {
    return Math.max(0, Math.min(this.view().watts.length, (at - this.#from()) / MINUTE));
  }
}

/** The time of day in a zone: "18:05". */
export const clockOf = (timeZone: string): Intl.DateTimeFormat =>
  new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone });

const endOf = ({ at, cycle }: Entry): number => Date.parse(cycle?.to ?? at);
