import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  inject,
  output,
  signal,
} from '@angular/core';

/** A stopwatch for one thumb: a tap starts it, a tap anywhere on it stops it. */
@Component({
  selector: 'nc-stopwatch',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      type="button"
      [class.runs]="running()"
      [attr.aria-label]="running() ? 'Stop the watch' : 'Start the watch'"
      (pointerdown)="tap($event)"
      (keydown.enter)="tap($event)"
      (keydown.space)="tap($event)"
    >
      <b role="timer">{{ shown() }}</b>
      <span>{{
        running()
          ? 'tap when it is empty'
          : shown() === '0.0 s'
            ? 'tap to start'
            : 'tap to start anew'
      }}</span>
    </button>
  `,
  styles: `
    button {
      background: var(--face);
      border: 4px solid var(--water);
      border-radius: 1.4rem;
      color: var(--ink);
      min-height: 108px;
      touch-action: manipulation;
      width: 100%;
    }
    .runs {
      background: var(--water);
      color: var(--linen);
    }
    b {
      display: block;
      font-family: var(--serif);
      font-size: 2.4rem;
      font-weight: 500;
      line-height: 1.1;
    }
  `,
})
export class StopwatchComponent {
  /** Seconds, when it was stopped. */
  readonly stopped = output<number>();
  /** It runs from now on. */
  readonly began = output<void>();
  readonly running = signal(false);
  protected readonly shown = signal('0.0 s');
  #from = 0;
  #ticking: ReturnType<typeof setInterval> | undefined;

  constructor() {
    inject(DestroyRef).onDestroy(() => clearInterval(this.#ticking));
  }

  protected tap(event: Event): void {
    event.preventDefault();
    if (this.running()) return this.end((performance.now() - this.#from) / 1000);
    this.#from = performance.now();
    this.running.set(true);
    this.#ticking = setInterval(() => this.#show((performance.now() - this.#from) / 1000), 100);
    this.began.emit();
  }

  /** Ends it at a time that was noticed otherwise, seconds. */
  end(seconds: number): void {
    clearInterval(this.#ticking);
    this.running.set(false);
    this.#show(seconds);
    this.stopped.emit(Number(seconds.toFixed(1)));
  }

  #show(seconds: number): void {
    this.shown.set(`${seconds.toFixed(1)} s`);
  }
}
