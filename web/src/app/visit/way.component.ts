import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { WAY_NAMES, type Machine, type WayId } from '@needlecase/core';
import type { ApiProblem } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { HouseholdService } from '../data/household.service';
import { withoutVersion } from '../forms/onto';

/** What this machine's own manual says at a step: shown, or kept once it was found. */
@Component({
  selector: 'nc-way',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (own(); as words) {
      <p class="own"><strong>This machine’s way:</strong> {{ words }}</p>
    }
    <details>
      <summary>
        {{ own() ? 'Change it' : name() + ': found it? Keep it for this machine' }}
      </summary>
      <form (submit)="$event.preventDefault(); keep()">
        <label class="visually-hidden" for="way">{{ name() }}</label>
        <input
          #field
          id="way"
          class="form-control"
          maxlength="500"
          autocomplete="off"
          [value]="typed()"
          (input)="typed.set(field.value)"
        />
        <button type="submit" class="btn btn-plain">Keep it</button>
      </form>
      @if (wrong(); as problem) {
        <p class="field-problem" role="alert">{{ problem }}</p>
      }
    </details>
  `,
  styles: `
    @use 'mixins' as *;

    .own {
      border-left: 3px solid var(--water);
      padding-left: 0.7rem;
    }
    summary {
      @include touch;
      font-weight: 600;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
    }
    input {
      flex: 1 1 12rem;
    }
    .btn {
      @include touch;
    }
  `,
})
export class WayComponent {
  readonly #households = inject(HouseholdService);
  readonly #bench = inject(BenchService);

  readonly machine = input.required<Machine>();
  readonly way = input.required<WayId>();

  protected readonly name = computed(() => WAY_NAMES[this.way()]);
  protected readonly own = computed(() => this.machine().ways?.[this.way()]);
  /** What is typed stays until it is kept. */
  protected readonly typed = linkedSignal(() => this.own() ?? '');
  protected readonly wrong = signal('');

  protected keep(): void {
    const words = this.typed().trim();
    if (!words || words === this.own()) return;
    const machine = this.machine();
    const ways = { ...machine.ways, [this.way()]: words };
    this.#households
      .saveMachine(machine.id, { ...withoutVersion(machine), ways }, machine.version)
      .subscribe({
        next: () => {
          this.wrong.set('');
          this.#bench.refresh();
        },
        error: ({ title, detail }: ApiProblem) => {
          this.wrong.set(`${title} ${detail} What you typed is still here.`);
          this.#bench.refresh();
        },
      });
  }
}
