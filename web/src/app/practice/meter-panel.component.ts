import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { meterOf, sayAmount, type PracticeCase, type PracticeState } from '@needlecase/core';
import { sayChange, sayRange } from '@needlecase/core/loads/drift/words';
import { BenchService } from '../data/bench.service';

const WIDE = 340;
const HIGH = 90;
const WATCHED_MS = 15_000;

/**
 * A meter's plug that has stood in the practice machine for two months: the watts of its last load, the minutes of each,
 * and what a real meter's figures would have told of them.
 */
@Component({
  selector: 'nc-practice-meter',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let m = meter();
    <section aria-labelledby="meter-title">
      <h2 id="meter-title">Two months with a meter’s plug</h2>
      <p class="soft small">
        Watts of the last load, {{ m.watts.length }} min, up to {{ most() }} W.
      </p>
      <svg
        [attr.viewBox]="'0 0 ' + wide + ' ' + high"
        role="img"
        [attr.aria-label]="'Watts of the last load'"
      >
        <path class="base" [attr.d]="'M0,' + high + 'H' + wide" />
        <path class="watts" [attr.d]="line()" />
      </svg>
      <p class="run">
        <button type="button" class="btn btn-plain" (click)="watch()">
          {{ at() === undefined ? 'Watch it run' : 'To its end' }}
        </button>
        @if (at() !== undefined) {
          <span role="timer" aria-live="off">
            minute {{ at()! + 1 }}: <b>{{ m.watts[at()!]!.toFixed() }} W</b>
          </span>
        }
      </p>
      <p class="soft small">Minutes of each load, the latest right.</p>
      <svg [attr.viewBox]="'0 0 ' + wide + ' ' + high" role="img" [attr.aria-label]="spoken()">
        @for (bar of bars(); track $index) {
          <path class="load" [attr.d]="bar" />
        }
        <path class="base" [attr.d]="'M0,' + high + 'H' + wide" />
      </svg>
      @for (signal of m.signals; track signal.figure) {
        <p>
          <b>The meter notices: {{ say(signal) }}.</b> {{ range(signal) }}
        </p>
      } @empty {
        <p>The meter notices nothing: its loads are as they were.</p>
      }
      @if (air(); as told) {
        <p>{{ told }}</p>
      }
    </section>
  `,
  styles: `
    @use 'mixins' as *;

    section {
      @include panel;
      margin-top: 0.8rem;
    }

    h2 {
      font-size: 1.15rem;
      margin: 0 0 0.2rem;
    }

    p {
      margin: 0.2rem 0;
    }

    svg {
      display: block;
      width: 100%;
    }

    path {
      fill: none;
    }

    .run {
      align-items: center;
      display: flex;
      font-variant-numeric: tabular-nums;
      gap: 0.8rem;
    }

    .base {
      stroke: var(--seam);
      stroke-width: 2;
    }

    .watts {
      stroke: var(--air);
      stroke-width: 2;
    }

    .load {
      stroke: var(--water);
      stroke-linecap: round;
      stroke-width: 4.4;
    }
  `,
})
export class MeterPanelComponent {
  readonly #loaded = toSignal(inject(BenchService).bench$);

  readonly game = input.required<PracticeCase>();
  readonly state = input.required<PracticeState>();

  protected readonly wide = WIDE;
  protected readonly high = HIGH;
  readonly #left = computed(() => this.state().left);
  protected readonly meter = computed(() => meterOf(this.game(), { left: this.#left() }));
  protected readonly most = computed(() => Math.round(Math.max(...this.meter().watts)));
  protected readonly line = computed(() => {
    const { watts } = this.meter();
    const most = Math.max(1, this.most());
    const points = watts.slice(0, (this.at() ?? watts.length) + 1).map((one, i) => {
      const x = (WIDE * i) / Math.max(1, watts.length - 1);
      return `${x.toFixed(1)},${(HIGH - (HIGH - 6) * (one / most)).toFixed(1)}`;
    });
    return `M${points.join('L')}`;
  });
  /** While the load is watched: the minute that it is at. */
  protected readonly at = signal<number | undefined>(undefined);
  #running: ReturnType<typeof setInterval> | undefined;

  constructor() {
    // What is put right, or taken back, changes what it will draw.
    effect(() => {
      this.meter();
      this.#end();
    });
    inject(DestroyRef).onDestroy(() => clearInterval(this.#running));
  }

  /** A load of hours goes by in a quarter of a minute; once more, and it is at its end. */
  protected watch(): void {
    if (this.at() !== undefined) return this.#end();
    const { length } = this.meter().watts;
    this.at.set(0);
    this.#running = setInterval(() => {
      const next = this.at()! + 1;
      if (next >= length) this.#end();
      else this.at.set(next);
    }, WATCHED_MS / length);
  }

  #end(): void {
    clearInterval(this.#running);
    this.at.set(undefined);
  }

  protected readonly bars = computed(() => {
    const { minutes } = this.meter();
    const most = Math.max(1, ...minutes);
    return minutes.map((one, i) => {
      const x = ((i + 0.5) * WIDE) / minutes.length;
      const top = HIGH - (HIGH - 8) * (one / most);
      return `M${x.toFixed(1)},${HIGH - 3}L${(x + 1.5).toFixed(1)},${top.toFixed(1)}`;
    });
  });
  protected readonly spoken = computed(() => {
    const { minutes } = this.meter();
    return `Minutes of ${minutes.length} loads, from ${minutes[0]} to ${minutes.at(-1)}`;
  });
  protected readonly air = computed(() => {
    const { air, duty = 1 } = this.meter();
    if (!air) return '';
    const us = this.#loaded()?.value?.household.units === 'us';
    const say = (flow: number) =>
      us ? sayAmount(flow * 2118.88, 'ft³/min', 2) : sayAmount(flow * 3600, 'm³/h', 2);
    const share = `While the load was wet its heater was on ${Math.round(100 * duty)} % of the time: `;
    return 'more' in air
      ? `${share}more air than ${say(air.more)}, and the watts tell no more.`
      : `${share}about ${say(air.flow)} of air (${say(air.low)} to ${say(air.high)}).`;
  });

  protected readonly say = sayChange;
  protected readonly range = sayRange;
}
