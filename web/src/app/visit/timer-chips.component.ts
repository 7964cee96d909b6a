import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { interval, map, startWith } from 'rxjs';
import type { Running } from './visit-timers';
import { sayClock, secondsLeft } from './timer.component';
import { timeNow } from '../data/clock';

/** Timers of other steps, with the way to each. */
@Component({
  selector: 'nc-timer-chips',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (one of timers(); track one.key) {
      @let left = leftOf(one);
      <button type="button" class="chip" [class.over]="left === 0" (click)="went.emit(one.key)">
        {{ one.label }}
        <b class="figure-number">{{ left === 0 ? 'done' : clock(left) }}</b>
      </button>
    }
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
    }
    .chip {
      border: 2px dashed var(--water);
      border-radius: 1.6rem;
      background: var(--face);
      color: var(--ink);
      @include touch;
      padding: 0.2rem 0.9rem;
    }
    .over {
      border-style: solid;
      font-weight: 650;
    }
    b {
      font-feature-settings: 'tnum';
    }
  `,
})
export class TimerChipsComponent {
  readonly timers = input.required<readonly Running[]>();
  readonly went = output<string>();
  protected readonly clock = sayClock;
  readonly #now = toSignal(
    interval(500).pipe(
      startWith(0),
      map(() => timeNow()),
    ),
    { initialValue: timeNow() },
  );

  protected leftOf({ timer }: Running): number {
    return secondsLeft(timer, this.#now());
  }
}
