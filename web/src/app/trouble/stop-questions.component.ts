import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { StopRule } from '@needlecase/core';

/** The stop questions that belong to what was told: none of them, or one, in one tap. */
@Component({
  selector: 'nc-stop-questions',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-labelledby="stops-title">
      <h2 id="stops-title" tabindex="-1">First: is it one of these?</h2>
      @for (rule of rules(); track rule.id) {
        <button type="button" class="choice alarm" (click)="holds.emit(rule.id)">
          {{ rule.say }}
        </button>
      }
      <p class="none">
        <button type="button" class="btn btn-thread" (click)="none.emit()">None of these</button>
      </p>
    </section>
  `,
  styles: `
    @use 'mixins' as *;

    section {
      display: grid;
      gap: 0.5rem;
      max-width: 44rem;
    }
    h2 {
      font-size: 1.35rem;
      margin: 0.2rem 0;
    }
    .choice {
      @include choice;
      border-color: var(--due);
      text-align: start;
    }
    .none {
      background: var(--linen);
      bottom: 0;
      margin: 0;
      padding: 0.3rem 0;
      position: sticky;
    }
    .btn {
      min-height: 56px;
      width: 100%;
    }
    @media (max-width: 719px) {
      .none {
        bottom: 3.4rem;
      }
    }
  `,
})
export class StopQuestionsComponent {
  readonly rules = input.required<readonly StopRule[]>();
  readonly holds = output<string>();
  readonly none = output();
}
