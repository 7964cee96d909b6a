import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { sayDay, type FieldProblem } from '@needlecase/core';
import type { MailRecipient, MailServerDraft, MailState } from '@needlecase/core/model/mail';
import type { Observable } from 'rxjs';
import { wordsOf, type ApiProblem } from '../data/api.service';
import { MailService } from '../data/mail.service';
import { RoleService } from '../data/role.service';
import { fieldsOf } from '../shared/form-of';
import { HouseNavComponent } from './house-nav.component';

const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

/** A letter each week with the visits ahead, through the household's own mail server. */
@Component({
  selector: 'nc-mail',
  imports: [HouseNavComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './mail.component.html',
  styleUrl: './mail.component.scss',
})
export class MailComponent {
  readonly #service = inject(MailService);
  protected readonly role = inject(RoleService);

  protected readonly state = signal<MailState | undefined>(undefined);
  protected readonly wrong = signal('');
  protected readonly said = signal('');
  protected readonly problems = signal<readonly FieldProblem[]>([]);
  protected readonly changing = signal(false);
  protected readonly busy = signal(false);
  protected readonly weekdays = WEEKDAYS;
  protected readonly sayDay = sayDay;

  constructor() {
    if (this.role.may('keeper')) {
      this.#ask(this.#service.state(), (state) => this.state.set(state));
    }
  }

  protected problemIn(field: string): string | undefined {
    return this.problems().find((one) => one.field === field)?.message;
  }

  protected say(event: Event): void {
    const of = fieldsOf(event);
    const draft: MailServerDraft = {
      host: of('host'),
      port: Number(of('port')),
      secure: of('secure') === 'on',
      from: of('from'),
      ...(of('user') ? { user: of('user') } : {}),
      ...(of('password') ? { password: of('password') } : {}),
    };
    this.#ask(this.#service.say(draft), (state) => {
      this.state.set(state);
      this.changing.set(false);
      this.said.set('Kept. Send a letter now to try it.');
    });
  }

  protected forget(): void {
    this.#ask(this.#service.forget(), (state) => this.state.set(state));
  }

  protected add(event: Event): void {
    const of = fieldsOf(event);
    const form = event.target as HTMLFormElement;
    const draft = { address: of('address'), weekday: Number(of('weekday')) };
    this.#ask(this.#service.add(draft), (recipient) => {
      form.reset();
      this.state.update(
        (state) => state && { ...state, recipients: [...state.recipients, recipient] },
      );
    });
  }

  protected remove(recipient: MailRecipient): void {
    this.#ask(this.#service.remove(recipient), (state) => this.state.set(state));
  }

  protected sendNow(recipient: MailRecipient): void {
    this.said.set('');
    this.#ask(this.#service.sendNow(recipient), ({ problem }) => {
      this.said.set(problem ? '' : `The letter to ${recipient.address} left.`);
      this.#ask(this.#service.state(), (state) => this.state.set(state));
    });
  }

  #ask<T>(answer: Observable<T>, then: (answer: T) => void): void {
    this.busy.set(true);
    this.wrong.set('');
    this.problems.set([]);
    answer.subscribe({
      next: (value) => {
        this.busy.set(false);
        then(value);
      },
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.problems.set(problem.errors);
        if (problem.errors.length === 0) this.wrong.set(wordsOf(problem));
      },
    });
  }
}
