import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import {
  GRADE_NAMES,
  GRADES,
  type Grade,
  type Outcome,
  type VisitStep,
  pictured,
  SUPPLIES,
  type TaskRecord,
  type Use,
  type Used,
} from '@needlecase/core';
import type { ApiProblem } from '../data/api.service';
import { SelectComponent } from '../shared/select.component';

export interface TaskEnd {
  key: string;
  name: string;
  machine: string;
  outcome: Outcome;
  record: TaskRecord;
  /** False where there is nothing to grade. */
  graded: boolean;
  /** What the task uses up. */
  uses: readonly Use[];
  /** What it used: as said, as told at its steps, or as usual. */
  used: readonly Used[];
}

const OUTCOME_NAMES: Record<Outcome, string> = {
  cleaned: 'Done',
  looked: 'Looked at, left alone',
  skipped: 'Not done',
};

/** After the last step: what came of each task, and what was left open. */
@Component({
  selector: 'nc-ending',
  imports: [SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1 tabindex="-1" data-step-title>Is this right?</h1>
    @if (leftOpen().length) {
      <div class="open" role="alert">
        <h2>Not ticked yet</h2>
        <p>Look at these before you leave the machine. A tap takes you to the step.</p>
        <ul>
          @for (step of leftOpen(); track step.key) {
            <li>
              <button type="button" class="btn btn-link" (click)="back.emit(step.key)">
                {{ step.step.do }}
              </button>
            </li>
          }
        </ul>
      </div>
    }
    @for (end of ends(); track end.key) {
      <section>
        <h2>
          {{ end.name }} <small class="soft">{{ end.machine }}</small>
        </h2>
        <div class="choices">
          <label>
            <span class="form-label">What came of it</span>
            <select
              nc-select
              [options]="outcomes"
              [chosen]="end.outcome"
              [say]="sayOutcome"
              (chosenChange)="outcome.emit({ key: end.key, outcome: $event })"
            ></select>
          </label>
          @if (end.graded) {
            <label>
              <span class="form-label">How it looked when opened</span>
              <select
                nc-select
                [options]="end.record.grade === undefined ? [undefined, ...grades] : grades"
                [chosen]="end.record.grade"
                [say]="sayGrade"
                (chosenChange)="grade(end.key, $event)"
              ></select>
            </label>
          }
        </div>
        @if (end.outcome === 'cleaned' && end.uses.length) {
          <fieldset class="used">
            <legend>Used up</legend>
            @for (use of end.uses; track use.supply) {
              <label>
                <input
                  type="checkbox"
                  class="form-check-input"
                  [checked]="isUsed(end, use)"
                  (change)="turn(end, use)"
                />
                {{ nameOf(use.supply) }}, {{ amountOf(use) }}
              </label>
            }
          </fieldset>
        }
        @if (end.graded && end.outcome !== 'skipped' && end.record.grade === undefined) {
          <p class="soft small">Without it the date moves, but the interval learns nothing.</p>
        }
      </section>
    }
    @if (problem(); as wrong) {
      <p class="field-problem" role="alert">{{ wrong.title }} {{ wrong.detail }}</p>
    }
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      display: block;
      padding: 1rem 0;
    }

    h1 {
      font-size: 1.9rem;
    }

    h1:focus {
      outline: none;
    }

    h2 {
      font-size: 1.25rem;
    }

    h2 small {
      font: 1rem var(--sans);
    }

    section {
      @include seam;
      padding: 0.8rem 0;
    }

    .choices {
      display: flex;
      flex-wrap: wrap;
      gap: 0.75rem 1.5rem;
    }

    .choices label {
      flex: 1 1 14rem;
      max-width: 24rem;
    }

    .form-select {
      @include touch;
    }

    .used {
      display: flex;
      flex-wrap: wrap;
      gap: 0 1.5rem;
      margin-top: 0.5rem;
    }

    .used legend {
      font: 600 1rem var(--sans);
      margin: 0;
    }

    .used label {
      display: flex;
      align-items: center;
      gap: 0.6rem;
      @include touch;
    }

    .used input {
      width: 1.4rem;
      height: 1.4rem;
      margin: 0;
    }

    .open {
      border: 2px solid var(--due);
      border-radius: 0.9rem;
      padding: 0.7rem 1rem;
      margin-bottom: 1rem;
    }

    .open ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }

    .open .btn {
      text-align: left;
      padding-inline: 0;
    }
  `,
})
export class EndingComponent {
  readonly ends = input.required<readonly TaskEnd[]>();
  readonly leftOpen = input.required<readonly VisitStep[]>();
  readonly problem = input<ApiProblem>();
  readonly outcome = output<{ key: string; outcome: Outcome }>();
  readonly graded = output<{ key: string; grade: Grade }>();
  readonly used = output<{ key: string; used: Used[] }>();
  readonly back = output<string>();

  protected readonly outcomes: Outcome[] = ['cleaned', 'looked', 'skipped'];
  protected readonly sayOutcome = (outcome: Outcome): string => OUTCOME_NAMES[outcome];
  protected readonly grades = GRADES;
  protected readonly sayGrade = (grade: Grade | undefined): string =>
    grade === undefined ? 'not noted' : GRADE_NAMES[grade];

  protected nameOf(supply: string): string {
    return SUPPLIES.find(({ id }) => id === supply)?.name ?? supply;
  }

  /** So that it can be pictured. */
  protected amountOf({ supply, amount }: Use): string {
    return pictured(supply, amount, SUPPLIES.find(({ id }) => id === supply)?.unit ?? 'pieces');
  }

  protected isUsed(end: TaskEnd, { supply }: Use): boolean {
    return end.used.some((one) => one.supply === supply);
  }

  protected turn(end: TaskEnd, use: Use): void {
    const { supply, amount } = use;
    const others = end.used.filter((one) => one.supply !== supply);
    this.used.emit({
      key: end.key,
      used: this.isUsed(end, use) ? others : [...others, { supply, amount }],
    });
  }

  protected grade(key: string, grade: Grade | undefined): void {
    if (grade !== undefined) this.graded.emit({ key, grade });
  }
}
