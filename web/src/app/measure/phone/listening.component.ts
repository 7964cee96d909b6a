import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
} from '@angular/core';
import { PumpListener } from '@needlecase/core/measure/phone/slurp';
import type { Subscription } from 'rxjs';
import { keepAwake } from '../../shared/wake-lock';
import type { StopwatchComponent } from '../parts/stopwatch.component';
import { RecordingComponent } from './recording.component';
import { SensorProblemComponent } from './sensor-problem.component';
import { sayProblem, sounds } from './sensors';

/** A stopwatch’s ear: it hears the pump go from flowing to slurping, and the person says whether that was the end. */
@Component({
  selector: 'nc-listening',
  imports: [RecordingComponent, SensorProblemComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-sensor-problem [says]="problem()" byHand="The thumb stays: tap when it is empty." />
    @if (slurped(); as seconds) {
      <div class="heard" role="alertdialog" aria-label="The pump began to slurp">
        <p>
          It began to slurp at <b>{{ seconds.toFixed(1) }} s</b>. Was that the end?
        </p>
        <button type="button" class="btn btn-thread" (click)="take(seconds)">Yes, take it</button>
        <button type="button" class="btn btn-plain" (click)="goOn()">No, listen on</button>
      </div>
    } @else if (hears()) {
      <nc-recording>
        The microphone is on.
        {{ watch().running() ? 'Listening for the slurp.' : 'Start the watch with the pump.' }}
      </nc-recording>
      <button type="button" class="btn btn-plain" (click)="stop()">Switch it off</button>
    } @else {
      <p class="soft small">
        It asks for the microphone. Lay the phone by the pump. Nothing is kept of the sound, and
        nothing leaves the phone.
      </p>
      <button type="button" class="btn btn-plain" (click)="begin()">
        Switch the microphone on
      </button>
    }
  `,
  styles: `
    :host {
      display: block;
      margin-block: 0.6rem;
    }
    .heard {
      border: 3px solid var(--water);
      border-radius: 1rem;
      padding: 0.6rem 0.9rem;
    }
    .heard .btn {
      margin-inline-end: 0.5rem;
      min-height: 52px;
    }
  `,
})
export class ListeningComponent {
  readonly watch = input.required<StopwatchComponent>();

  protected readonly problem = signal<string | undefined>(undefined);
  protected readonly hears = signal(false);
  /** Seconds of the watch at which it began to slurp, while the person is asked. */
  protected readonly slurped = signal<number | undefined>(undefined);

  #listening: Subscription | undefined;
  #listener: PumpListener | undefined;
  /** Seconds of the watch at which the listener began. */
  #from = 0;
  #began = 0;

  constructor() {
    keepAwake(() => this.hears());
    effect(() => {
      if (this.watch().running()) {
        this.#began = performance.now();
        this.#anew();
      } else this.#listener = undefined;
    });
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  protected begin(): void {
    this.stop();
    this.problem.set(undefined);
    this.hears.set(true);
    this.#listening = sounds().subscribe({
      next: ({ samples, rate }) => {
        if (!this.watch().running() || this.slurped() !== undefined) return;
        if (!this.#listener) {
          this.#listener = new PumpListener(rate);
          this.#from = (performance.now() - this.#began) / 1000;
        }
        const { slurps } = this.#listener.hear(samples);
        if (slurps !== undefined) this.slurped.set(this.#from + slurps);
      },
      error: (problem: unknown) => {
        this.stop();
        this.problem.set(sayProblem(problem));
      },
      complete: () => this.stop(),
    });
  }

  protected take(seconds: number): void {
    this.watch().end(seconds);
    this.stop();
  }

  /** It was something else: what follows is listened to anew. */
  protected goOn(): void {
    this.#anew();
  }

  protected stop(): void {
    this.#listening?.unsubscribe();
    this.#listener = undefined;
    this.hears.set(false);
    this.slurped.set(undefined);
  }

  #anew(): void {
    this.#listener = undefined;
    this.slurped.set(undefined);
  }
}
