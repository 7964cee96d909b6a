import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import {
  ROLES,
  THREADS,
  type Person,
  type PersonDraft,
  type Role,
} from '@needlecase/core/model/access';
import { AccessService } from '../data/access.service';
import type { ApiProblem } from '../data/api.service';
import { FieldDirective, FormProblems, ProblemComponent } from '../forms/problems';
import { WhoComponent } from '../shared/who.component';

/** What the roles mean, in words. */
export const ROLE_WORDS: Readonly<Record<Role, { name: string; may: string }>> = {
  keeper: { name: 'Keeper', may: 'everything' },
  helper: { name: 'Helper', may: 'all work and the log, no settings, no people' },
  guest: { name: 'Guest', may: 'looks on, counts loads, reports trouble' },
};

/** A person to add, or the change of one. */
@Component({
  selector: 'nc-person-form',
  imports: [ReactiveFormsModule, FieldDirective, ProblemComponent, WhoComponent],
  providers: [FormProblems],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form [formGroup]="form()" (submit)="$event.preventDefault(); save()" novalidate>
      <div>
        <label class="form-label" for="w-name">Name</label>
        <input id="w-name" class="form-control" formControlName="name" ncField="name" />
        <nc-problem field="name" />
      </div>
      <fieldset>
        <legend class="form-label">Thread</legend>
        <div class="threads">
          @for (thread of threads; track thread) {
            <label>
              <input
                type="radio"
                class="form-check-input"
                formControlName="thread"
                [value]="thread"
              />
              <nc-who [person]="{ name: form().value.name || '?', thread }" [named]="false" />
              {{ thread }}
            </label>
          }
        </div>
      </fieldset>
      <fieldset>
        <legend class="form-label">What may they do?</legend>
        @for (role of roles; track role) {
          <label class="role">
            <input
              type="radio"
              class="form-check-input"
              formControlName="role"
              [value]="role"
              ncField="role"
            />
            <span
              ><strong>{{ words[role].name }}</strong
              >: {{ words[role].may }}</span
            >
          </label>
        }
        <nc-problem field="role" />
      </fieldset>
      @if (failed()) {
        <p class="field-problem" role="alert">{{ failed() }}</p>
      }
      <div class="row">
        <button type="submit" class="btn btn-thread" [disabled]="busy()">
          {{ person() ? 'Store' : 'Add' }}
        </button>
        <button type="button" class="btn btn-plain" (click)="left.emit()">Leave it</button>
      </div>
    </form>
  `,
  styles: `
    @use 'mixins' as *;

    form {
      display: grid;
      gap: 0.9rem;
      max-width: 34rem;
    }

    legend {
      font-size: 1rem;
    }

    .threads {
      display: flex;
      flex-wrap: wrap;
      gap: 0.3rem 1rem;
    }

    label:has(input[type='radio']) {
      @include touch;
      display: inline-flex;
      align-items: center;
      gap: 0.4rem;
    }

    .role {
      display: flex !important;
    }

    .row {
      display: flex;
      gap: 0.6rem;
    }

    .btn {
      @include touch;
    }
  `,
})
export class PersonFormComponent {
  readonly #service = inject(AccessService);
  readonly #problems = inject(FormProblems);
  /** The person to change; none for a new one. */
  readonly person = input<Person>();
  readonly taken = input<readonly string[]>([]);
  readonly stored = output<Person>();
  readonly left = output<void>();

  protected readonly roles = [...ROLES].reverse();
  protected readonly threads = THREADS;
  protected readonly words = ROLE_WORDS;
  protected readonly busy = signal(false);
  protected readonly failed = signal('');
  readonly #free = computed(() => THREADS.find((one) => !this.taken().includes(one)) ?? 'rust');
  protected readonly form = linkedSignal(() => {
    const { name = '', thread = this.#free(), role = 'helper' } = this.person() ?? {};
    const control = <T>(value: T) => new FormControl<T>(value, { nonNullable: true });
    return new FormGroup({ name: control(name), thread: control(thread), role: control(role) });
  });

  protected save(): void {
    const draft: PersonDraft = this.form().getRawValue();
    if (!draft.name.trim()) {
      this.#problems.set([{ field: 'name', message: 'A name is needed.' }]);
      return this.#problems.show();
    }
    const person = this.person();
    this.busy.set(true);
    this.failed.set('');
    const asked = person
      ? this.#service.changePerson(person, draft)
      : this.#service.addPerson(draft);
    asked.subscribe({
      next: (stored) => this.stored.emit(stored),
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.#problems.set(problem.errors);
        if (problem.errors.length) this.#problems.show();
        else this.failed.set(`${problem.title} ${problem.detail}`);
      },
    });
  }
}
