import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import {
  check,
  dayOf,
  loosens,
  sayInterval,
  scaled,
  SCHOOL_TEXTS,
  SCHOOLS,
  type Interval,
  type Machine,
  type SchoolId,
  type Task,
  type TaskRule,
} from '@needlecase/core';
import { catchError, throwError, type Observable } from 'rxjs';
import type { ApiProblem } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { HouseholdService } from '../data/household.service';
import { ToastsService } from '../data/toasts.service';
import { withoutVersion } from '../forms/onto';
import { FieldDirective, FormProblems, ProblemComponent } from '../forms/problems';

type Choice = SchoolId | 'house' | 'own' | 'off';

/** Choosing the interval of one task: a school, the manual's figure, or switched off. */
@Component({
  selector: 'nc-rule-editor',
  imports: [ReactiveFormsModule, FieldDirective, ProblemComponent],
  providers: [FormProblems],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (!open()) {
      <button type="button" class="btn btn-link" (click)="open.set(true)">
        Change this interval
      </button>
    } @else {
      <form [formGroup]="form()" (submit)="$event.preventDefault(); save()" novalidate>
        <label class="form-label" [for]="'rule-' + task().id">Interval</label>
        <select class="form-select" [id]="'rule-' + task().id" formControlName="choice">
          <option value="house">As the machine or the household</option>
          @if (!task().cap?.everyLoad) {
            @for (one of schools(); track one.id) {
              <option [value]="one.id">{{ one.name }}: {{ one.interval }}</option>
            }
            <option value="own">My manual says…</option>
          }
          <option value="off">Switched off</option>
        </select>
        @if (form().value.choice === 'own') {
          <div class="own">
            <label class="visually-hidden" for="rule-every">Every</label>
            <input
              id="rule-every"
              class="form-control"
              type="number"
              inputmode="numeric"
              min="1"
              max="5000"
              formControlName="every"
              ncField="own.every"
            />
            <label class="visually-hidden" for="rule-unit">Unit</label>
            <select id="rule-unit" class="form-select" formControlName="unit">
              <option value="loads">loads</option>
              <option value="days">days</option>
              <option value="months">months</option>
            </select>
          </div>
          <nc-problem field="own.every" />
          <label class="form-label" for="rule-source">Where it says so</label>
          <input
            id="rule-source"
            class="form-control"
            formControlName="source"
            placeholder="Manual, page 12"
            autocomplete="off"
            ncField="own.source"
          />
          <nc-problem field="own.source" />
        }
        <label class="form-label" for="rule-changed">Did something that fouls it change?</label>
        <input
          id="rule-changed"
          class="form-control"
          formControlName="changed"
          placeholder="Duct shortened, pets gone, softener left off"
          autocomplete="off"
          ncField="changed.what"
        />
        <p class="small soft">
          Once you note it, dates are no longer held to an age at which it failed before.
        </p>
        <nc-problem field="changed.what" />
        @if (asking()) {
          <p class="field-problem" role="alert">
            This task keeps people safe: {{ task().reason }} If you want it all the same, store it
            once more. It stays marked.
          </p>
        }
        @if (failed(); as wrong) {
          <p class="field-problem" role="alert">{{ wrong.title }} {{ wrong.detail }}</p>
        }
        <div class="row">
          <button type="submit" class="btn btn-thread">
            {{ asking() ? 'Store it all the same' : 'Store' }}
          </button>
          <button type="button" class="btn btn-plain" (click)="leave()">Leave it</button>
        </div>
      </form>
    }
  `,
  styles: `
    .own {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 0.5rem;
      margin: 0.5rem 0;
    }

    .row {
      display: flex;
      gap: 0.5rem;
      margin: 0.7rem 0;
    }

    .btn-link {
      padding-inline: 0;
    }
  `,
})
export class RuleEditorComponent {
  readonly #households = inject(HouseholdService);
  readonly #bench = inject(BenchService);
  readonly #problems = inject(FormProblems);
  readonly #toasts = inject(ToastsService);

  readonly machine = input.required<Machine>();
  readonly task = input.required<Task>();

  readonly #loaded = toSignal(this.#bench.bench$);
  readonly #zone = computed(() => this.#loaded()?.value?.household.zone ?? 'UTC');
  protected readonly open = signal(false);
  protected readonly asking = signal(false);
  protected readonly failed = signal<ApiProblem | undefined>(undefined);
  protected readonly schools = computed(() =>
    SCHOOLS.map((id) => ({
      id,
      name: SCHOOL_TEXTS[id].name,
      interval: this.#said(this.task().intervals[id]),
    })),
  );
  protected readonly form = linkedSignal(() => formOf(this.machine().rules?.[this.task().id]));

  /** As people say it; a sign, or the figures. */
  #said(interval: Interval): string {
    if (interval.sign) return sayInterval(interval);
    return interval.said ?? sayInterval(scaled(this.task(), interval, [], 1));
  }

  protected save(): void {
    const rule = this.#rule();
    const wrong = this.#wrong(rule);
    this.#problems.set(wrong);
    if (wrong.length) return this.#problems.show();
    if (rule && loosens(this.task(), rule) && !this.asking()) return this.asking.set(true);
    const before = this.machine().rules?.[this.task().id];
    const after = rule && { ...rule, ...(this.asking() ? { acknowledged: true as const } : {}) };
    this.#put(this.machine(), after).subscribe({
      next: (stored) => {
        this.leave();
        this.#toasts.show(`${this.task().name}: the interval is stored.`, {
          action: { label: 'Undo', do: () => this.#putBack(stored, before) },
        });
      },
      error: (problem: ApiProblem) => {
        this.failed.set(problem);
        this.#bench.refresh();
      },
    });
  }

  /** Stores the rule of this task alone; none is the house's. */
  #put(machine: Machine, rule: TaskRule | undefined): Observable<Machine> {
    const { rules, ...draft } = withoutVersion(machine);
    const { [this.task().id]: _old, ...others } = rules ?? {};
    const all = rule ? { ...others, [this.task().id]: rule } : others;
    return this.#households.saveMachine(machine.id, { ...draft, rules: all }, machine.version);
  }

  /** What was, onto the machine as it is by then: others may have changed it meanwhile. */
  #putBack(machine: Machine, before: TaskRule | undefined): void {
    this.#put(machine, before)
      .pipe(
        catchError((problem: ApiProblem) =>
          problem.status === 409 && problem.current
            ? this.#put(problem.current as Machine, before)
            : throwError(() => problem),
        ),
      )
      .subscribe({
        next: () => {
          this.#toasts.show(`${this.task().name}: the interval is as it was.`);
          this.#bench.refresh();
        },
        error: (problem: ApiProblem) =>
          this.#toasts.show(`${problem.title} ${problem.detail}`, { problem: true }),
      });
  }

  protected leave(): void {
    this.open.set(false);
    this.asking.set(false);
    this.failed.set(undefined);
    this.#bench.refresh();
  }

  #rule(): TaskRule | undefined {
    const { choice, every, unit, source, changed } = this.form().getRawValue();
    const before = this.machine().rules?.[this.task().id]?.changed;
    const what = changed.trim();
    const on = before?.what === what ? before.on : dayOf(Date.now(), this.#zone());
    const noted = what ? { changed: { on, what } } : {};
    if (choice === 'house') return what ? noted : undefined;
    if (choice === 'off') return { off: true, ...noted };
    if (choice !== 'own') return { school: choice, ...noted };
    return {
      own: { every: every as number, unit, ...(source.trim() ? { source } : {}) },
      ...noted,
    };
  }

  /** Problems of the rule, with fields named from the rule on. */
  #wrong(rule: TaskRule | undefined) {
    if (!rule) return [];
    const draft = { ...withoutVersion(this.machine()), rules: { it: rule } };
    return check('MachineDraft', draft).map(({ field, message }) => ({
      field: field.replace('rules.it.', ''),
      message,
    }));
  }
}

function formOf(rule: TaskRule | undefined) {
  const choice: Choice = rule?.off ? 'off' : rule?.own ? 'own' : (rule?.school ?? 'house');
  return new FormGroup({
    choice: new FormControl<Choice>(choice, { nonNullable: true }),
    every: new FormControl<number | null>(rule?.own?.every ?? null),
    unit: new FormControl<'loads' | 'days' | 'months'>(rule?.own?.unit ?? 'months', {
      nonNullable: true,
    }),
    source: new FormControl(rule?.own?.source ?? '', { nonNullable: true }),
    changed: new FormControl(rule?.changed?.what ?? '', { nonNullable: true }),
  });
}
