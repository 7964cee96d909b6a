import {
  ChangeDetectionStrategy,
  Component,
  computed,
  Directive,
  inject,
  Injectable,
  input,
  signal,
} from '@angular/core';
import type { FieldProblem } from '@needlecase/core';

/** What is wrong with one form, by field. A form component provides its own. */
@Injectable()
export class FormProblems {
  readonly #all = signal<FieldProblem[]>([]);
  readonly any = computed(() => this.#all().length > 0);

  set(problems: FieldProblem[]): void {
    this.#all.set(problems);
  }

  of(field: string): FieldProblem | undefined {
    return this.#all().find((problem) => problem.field === field);
  }

  /** Problems of fields that the form does not show. */
  others(fields: readonly string[]): FieldProblem[] {
    return this.#all().filter(({ field }) => !fields.includes(field));
  }

  /** Puts the cursor where the first problem is, once it is drawn. */
  show(): void {
    setTimeout(() => {
      const field = document.querySelector<HTMLElement>('[aria-invalid="true"]');
      field?.focus({ preventScroll: true });
      // Its label is seen with it, also under what is fixed at the top or the foot.
      (field?.closest('div') ?? field)?.scrollIntoView({ block: 'center' });
    });
  }
}

const idOf = (field: string) => `problem-${field.replaceAll('.', '-')}`;

/** Marks a field as wrong and ties it to its message. */
@Directive({
  selector: '[ncField]',
  host: {
    '[attr.aria-invalid]': 'wrong() ? true : null',
    '[attr.aria-describedby]': 'wrong() ? id() : null',
    '[class.is-invalid]': 'wrong()',
  },
})
export class FieldDirective {
  readonly #problems = inject(FormProblems);
  readonly ncField = input.required<string>();
  protected readonly id = computed(() => idOf(this.ncField()));
  protected readonly wrong = computed(() => this.#problems.of(this.ncField()) !== undefined);
}

/** The message beside a field. */
@Component({
  selector: 'nc-problem',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (problem(); as one) {
      <div class="field-problem" [id]="id()">{{ one.message }}</div>
    }
  `,
  host: { 'aria-live': 'polite' },
})
export class ProblemComponent {
  readonly #problems = inject(FormProblems);
  readonly field = input.required<string>();
  protected readonly id = computed(() => idOf(this.field()));
  protected readonly problem = computed(() => this.#problems.of(this.field()));
}
