import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import type { Person } from '@needlecase/core/model/access';
import { AccessService } from '../data/access.service';
import { wordsOf, type ApiProblem } from '../data/api.service';
import { ToastsService } from '../data/toasts.service';

/** At least so many characters, and no rule of signs (NIST SP 800-63B, 3.1.1.2). */
const SHORTEST = 15;

/** A pass phrase of a person's, for a computer that several share. */
@Component({
  selector: 'nc-phrase',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form class="phrase" (submit)="$event.preventDefault(); store(phrase.value)">
      <label class="form-label" [for]="'phrase-' + person().id">
        Pass phrase for a computer that several share, 15 characters and more
      </label>
      <input
        #phrase
        [id]="'phrase-' + person().id"
        class="form-control"
        type="password"
        autocomplete="new-password"
        [attr.aria-invalid]="problem() ? true : null"
        [attr.aria-describedby]="'phrase-problem-' + person().id"
      />
      <p [id]="'phrase-problem-' + person().id" class="field-problem" aria-live="polite">
        {{ problem() }}
      </p>
      <button type="submit" class="btn btn-thread">Store it</button>
    </form>
  `,
  styleUrl: './phones.component.scss',
  host: { class: 'phrase' },
})
export class PhraseComponent {
  readonly #service = inject(AccessService);
  readonly #toasts = inject(ToastsService);

  readonly person = input.required<Person>();
  readonly stored = output<void>();
  protected readonly problem = signal('');

  protected store(phrase: string): void {
    if (phrase.length < SHORTEST) {
      this.problem.set('Give 15 characters and more: four words do.');
      return;
    }
    this.problem.set('');
    this.#service.setPassphrase(this.person(), phrase).subscribe({
      next: ({ name }) => {
        this.#toasts.show(`${name} can sign in with it from now on.`);
        this.stored.emit();
      },
      error: (problem: ApiProblem) => this.problem.set(wordsOf(problem)),
    });
  }
}
