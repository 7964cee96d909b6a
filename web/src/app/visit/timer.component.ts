import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { Step, Timer } from '@needlecase/core';
import { interval, map, startWith } from 'rxjs';
import { timeNow } from '../data/clock';

/** A timer that runs from a stored instant, so that a reload does not stop it. */
@Component({
  selector: 'nc-timer',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (timer()) {
      <p class="clock" [class.over]="left() === 0">
        <span class="figure-number" role="timer">{{ clock() }}</span>
        <span>{{ left() === 0 ? wish().label + ' is done' : wish().label }}</span>
      </p>
      @if (left() > 0) {
        <span class="soft meanwhile">Go on with the next steps meanwhile; it tells you.</span>
      }
      <span class="visually-hidden" role="status">{{ left() === 0 ? 'The time is up.' : '' }}</span>
      <button type="button" class="btn btn-plain" (click)="stopped.emit()">
        {{ left() === 0 ? 'Set it again' : 'Stop the timer' }}
      </button>
    } @else {
      <button type="button" class="btn btn-plain" (click)="begun.emit(wish().minutes * 60)">
        Start a timer: {{ wish().minutes }} min
      </button>
      @if (wish().optional) {
        <span class="soft">Only if you need it.</span>
      }
    }
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      display: flex;
      align-items: center;
      flex-wrap: wrap;
      gap: 0.75rem;
    }

    .clock {
      display: flex;
      align-items: baseline;
      gap: 0.6rem;
      margin: 0;
    }

    .figure-number {
      font-size: 2.6rem;
      line-height: 1;
      font-feature-settings: 'tnum';
    }

    .over {
      color: var(--water);
      font-weight: 650;
    }

    .btn {
      @include touch;
    }
  `,
})
export class TimerComponent {
  readonly wish = input.required<NonNullable<Step['timer']>>();
  readonly timer = input<Timer>();
  readonly begun = output<number>();
  readonly stopped = output<void>();

  readonly #now = toSignal(
    interval(250).pipe(
      startWith(0),
      map(() => timeNow()),
    ),
    { initialValue: timeNow() },
  );
  protected readonly left = computed(() => {
    const timer = this.timer();
    if (!timer) return 0;
    return secondsLeft(timer, this.#now());
  });
  protected readonly clock = computed(() => sayClock(this.left()));
}

/** Seconds as minutes and seconds: "12:05". */
export const sayClock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;

/** Whole seconds a timer has still to run. */
export function secondsLeft({ startedAt, seconds }: Timer, now: number): number {
  const end = Date.parse(startedAt) + seconds * 1000;
  return Math.max(0, Math.ceil((end - now) / 1000));
}
