import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { check, type Machine, type OwnTask, type Station } from '@needlecase/core';
import type { ApiProblem } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { HouseholdService } from '../data/household.service';
import { newId } from '../data/platform';
import { ToastsService } from '../data/toasts.service';
import { withoutVersion } from '../forms/onto';
import { FieldDirective, FormProblems, ProblemComponent } from '../forms/problems';

/** Adding a task of one's own at a station, with steps of one's own; changing or removing it. */
@Component({
  selector: 'nc-own-task',
  imports: [ReactiveFormsModule, FieldDirective, ProblemComponent],
  providers: [FormProblems],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (form(); as open) {
      <form [formGroup]="open" (submit)="$event.preventDefault(); save()" novalidate>
        <label class="form-label" for="own-name">What is done</label>
        <input
          id="own-name"
          class="form-control"
          formControlName="name"
          placeholder="Empty the clay trap"
          autocomplete="off"
          ncField="name"
        />
        <nc-problem field="name" />
        <div class="row3">
          <span>
            <label class="form-label" for="own-every">Every</label>
            <input
              id="own-every"
              class="form-control"
              type="number"
              inputmode="numeric"
              min="1"
              max="5000"
              formControlName="every"
              ncField="every"
            />
          </span>
          <span>
            <label class="form-label" for="own-unit">Unit</label>
            <select id="own-unit" class="form-select" formControlName="unit">
              <option value="loads">loads</option>
              <option value="days">days</option>
              <option value="months">months</option>
            </select>
          </span>
          <span>
            <label class="form-label" for="own-minutes">Minutes</label>
            <input
              id="own-minutes"
              class="form-control"
              type="number"
              inputmode="numeric"
              min="1"
              max="600"
              formControlName="minutes"
              ncField="minutes"
            />
          </span>
        </div>
        <nc-problem field="every" />
        <nc-problem field="minutes" />
        <label class="check">
          <input type="checkbox" class="form-check-input" formControlName="unplugged" />
          The plug is pulled for it
        </label>
        <label class="form-label" for="own-steps">Steps, one a line</label>
        <textarea
          id="own-steps"
          class="form-control"
          rows="4"
          formControlName="steps"
          ncField="steps"
        ></textarea>
        <nc-problem field="steps" />
        <label class="form-label" for="own-reason">
          Why <span class="soft">(if you like)</span>
        </label>
        <input
          id="own-reason"
          class="form-control"
          formControlName="reason"
          autocomplete="off"
          ncField="reason"
        />
        <nc-problem field="reason" />
        @if (failed(); as wrong) {
          <p class="field-problem" role="alert">{{ wrong.title }} {{ wrong.detail }}</p>
        }
        <div class="row">
          <button type="submit" class="btn btn-thread">Store</button>
          <button type="button" class="btn btn-plain" (click)="form.set(undefined)">
            Leave it
          </button>
          @if (own()) {
            <button type="button" class="btn btn-plain" (click)="remove()">Remove this task</button>
          }
        </div>
      </form>
    } @else {
      <button type="button" class="btn btn-link" (click)="open()">
        {{ own() ? 'Change this task' : 'Add a task of your own here' }}
      </button>
    }
  `,
  styles: `
    form {
      display: grid;
      gap: 0.35rem;
      padding: 0.5rem 0;
    }

    .row3 {
      display: grid;
      grid-template-columns: 1fr 1.2fr 1fr;
      gap: 0.6rem;
    }

    .check {
      display: flex;
      align-items: center;
      gap: 0.6rem;
      min-height: 2.6rem;
    }

    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
      margin-top: 0.5rem;
    }

    .btn-link {
      padding-inline: 0;
    }
  `,
})
export class OwnTaskComponent {
  readonly #households = inject(HouseholdService);
  readonly #bench = inject(BenchService);
  readonly #toasts = inject(ToastsService);
  readonly #problems = inject(FormProblems);

  readonly machine = input.required<Machine>();
  readonly station = input.required<Station>();
  /** The task to change; none to add one. */
  readonly own = input<OwnTask>();

  protected readonly form = signal<ReturnType<typeof formOf> | undefined>(undefined);
  protected readonly failed = signal<ApiProblem | undefined>(undefined);
  #id = '';

  protected open(): void {
    this.#id = this.own()?.id ?? `own-${newId()}`;
    this.form.set(formOf(this.own()));
  }

  protected save(): void {
    const task = this.#read();
    const draft = { ...withoutVersion(this.machine()), ownTasks: [task] };
    const wrong = check('MachineDraft', draft).map(({ field, message }) => {
      const name = field.replace('ownTasks.0.', '');
      return name.startsWith('steps')
        ? { field: 'steps', message: 'Write at least one step; each has at most 400 characters.' }
        : { field: name, message };
    });
    this.#problems.set(wrong);
    if (wrong.length) return this.#problems.show();
    const others = (this.machine().ownTasks ?? []).filter(({ id }) => id !== task.id);
    this.#store([...others, task], 'The task is stored.');
  }

  protected remove(): void {
    const before = this.machine().ownTasks ?? [];
    const without = before.filter(({ id }) => id !== this.own()!.id);
    this.#store(without, 'The task is removed. What was done stays in the log.');
  }

  #store(ownTasks: OwnTask[], said: string): void {
    const { ownTasks: _old, ...draft } = withoutVersion(this.machine());
    this.#households
      .saveMachine(
        this.machine().id,
        { ...draft, ...(ownTasks.length ? { ownTasks } : {}) },
        this.machine().version,
      )
      .subscribe({
        next: () => {
          this.form.set(undefined);
          this.failed.set(undefined);
          this.#toasts.show(said);
          this.#bench.refresh();
        },
        error: (problem: ApiProblem) => {
          this.failed.set(problem);
          this.#bench.refresh();
        },
      });
  }

  #read(): OwnTask {
    const { name, every, unit, minutes, unplugged, steps, reason } = this.form()!.getRawValue();
    return {
      id: this.#id,
      name: name.trim(),
      station: this.own()?.station ?? this.station().id,
      // Missing figures go out as they are, so that the check can say so beside the field.
      every: every as number,
      unit,
      minutes: minutes as number,
      unplugged,
      steps: steps
        .split('\n')
        .map((line) => line.trim())
        .filter(Boolean),
      ...(reason.trim() ? { reason: reason.trim() } : {}),
    };
  }
}

function formOf(own?: OwnTask) {
  return new FormGroup({
    name: new FormControl(own?.name ?? '', { nonNullable: true }),
    every: new FormControl<number | null>(own?.every ?? null),
    unit: new FormControl<OwnTask['unit']>(own?.unit ?? 'months', { nonNullable: true }),
    minutes: new FormControl<number | null>(own?.minutes ?? 10),
    unplugged: new FormControl(own?.unplugged ?? false, { nonNullable: true }),
    steps: new FormControl(own?.steps.join('\n') ?? '', { nonNullable: true }),
    reason: new FormControl(own?.reason ?? '', { nonNullable: true }),
  });
}
