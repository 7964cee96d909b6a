import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import type { ProofQuestion, ProofResult } from '@needlecase/core';
import { OutboxService } from '../data/outbox.service';
import { newId } from '../data/platform';
import { ToastsService } from '../data/toasts.service';
import { sayWhen } from '../shared/say-when';
import { stamp } from '../data/clock';

/** Work that is to be proved after the next load, and work that did not hold. */
@Component({
  selector: 'nc-proofs',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (one of open(); track keyOf(one)) {
      <section class="proof" [class.bad]="one.state === 'bad'">
        <h2>
          {{ one.state === 'ask' ? 'Did it hold?' : 'It did not hold' }}
          <small class="soft">{{ one.name }}, {{ nameOf()(one.machineId) }}</small>
        </h2>
        <p>
          {{ one.do }}
          @if (one.look) {
            <span class="soft">{{ one.look }}</span>
          }
          @if (one.state === 'bad') {
            <span>
              Said on {{ when(one.since) }}. Do the task once more, or look for another cause and
              leave the machine off while it leaks or smells.</span
            >
          }
        </p>
        <div class="row">
          <button type="button" class="btn btn-thread" (click)="answer(one, 'good')">
            {{ one.state === 'ask' ? 'It is right' : 'It is right now' }}
          </button>
          @if (one.state === 'ask') {
            <button type="button" class="btn btn-plain" (click)="answer(one, 'bad')">
              It is not right
            </button>
            <button type="button" class="btn btn-plain" (click)="answer(one, 'planned')">
              Ask again later
            </button>
          } @else {
            <button type="button" class="btn btn-plain" (click)="again.emit(one)">
              Do it again now
            </button>
            <a
              class="btn btn-plain"
              routerLink="/trouble"
              [queryParams]="{ machine: one.machineId, station: one.station }"
              >Look for another cause</a
            >
          }
        </div>
      </section>
    }
  `,
  styles: `
    @use 'mixins' as *;

    .proof {
      border: 2px dashed var(--water);
      border-radius: 0.9rem;
      background: var(--face);
      padding: 0.7rem 0.9rem;
      margin-bottom: 0.8rem;
    }
    .bad {
      border: 2px solid var(--due);
    }
    h2 {
      font-size: 1.15rem;
      margin-bottom: 0.3rem;
    }
    small {
      font-family: var(--sans);
      font-size: 0.9rem;
    }
    p {
      margin-bottom: 0.6rem;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
    }
    .btn {
      @include touch;
    }
  `,
})
export class ProofsComponent {
  readonly #outbox = inject(OutboxService);
  readonly #toasts = inject(ToastsService);

  readonly questions = input.required<readonly ProofQuestion[]>();
  readonly nameOf = input.required<(machineId: string) => string>();
  readonly again = output<ProofQuestion>();

  /** Answered here, while the server was not asked again. */
  readonly #answered = signal<ReadonlySet<string>>(new Set());
  protected readonly open = computed(() =>
    this.questions().filter((one) => !this.#answered().has(this.keyOf(one))),
  );
  protected readonly when = sayWhen;

  protected keyOf({ machineId, task, step, since }: ProofQuestion): string {
    return `${machineId}/${task}/${step}/${since}`;
  }

  protected answer(one: ProofQuestion, result: ProofResult): void {
    const { machineId, task, station, step } = one;
    const id = newId();
    this.#answered.update((all) => new Set([...all, this.keyOf(one)]));
    this.#outbox
      .add({
        id,
        machineId,
        kind: 'proof',
        task,
        station,
        step,
        result,
        ...stamp(),
        source: 'bench',
      })
      .catch(() =>
        this.#toasts.show('This device has no room to keep it. Free some space and answer again.', {
          problem: true,
        }),
      );
    this.#toasts.show('Noted.', {
      action: {
        label: 'Undo',
        do: () => {
          void this.#outbox.undo(id);
          this.#answered.update(
            (all) => new Set([...all].filter((key) => key !== this.keyOf(one))),
          );
        },
      },
    });
  }
}
