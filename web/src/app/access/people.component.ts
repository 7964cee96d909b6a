import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  output,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { many } from '@needlecase/core';
import type { PairingCode, Person, PersonDraft } from '@needlecase/core/model/access';
import { catchError, merge, of, startWith, Subject, switchMap, type Observable } from 'rxjs';
import { AccessService } from '../data/access.service';
import { wordsOf, type ApiProblem } from '../data/api.service';
import { ChangesService } from '../data/changes.service';
import { RoleService } from '../data/role.service';
import { ToastsService } from '../data/toasts.service';
import { sayLength } from '../shared/minutes';
import { SingleTaps } from '../shared/single-taps';
import { WhoComponent } from '../shared/who.component';
import { PersonFormComponent, ROLE_WORDS } from './person-form.component';
import { PhraseComponent } from './phrase.component';

/** The thread of whoever was here first. */
const FIRST_THREAD = 'indigo';

const draftOf = ({ name, thread, role }: Person): PersonDraft => ({ name, thread, role });

/** The people of the household: what each may do, and how the work was shared. */
@Component({
  selector: 'nc-people',
  imports: [PersonFormComponent, PhraseComponent, WhoComponent],
  hostDirectives: [SingleTaps],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './people.component.html',
  styleUrl: './phones.component.scss',
})
export class PeopleComponent {
  readonly #service = inject(AccessService);
  readonly #toasts = inject(ToastsService);
  readonly #again = new Subject<void>();
  readonly #changed = merge(this.#again, inject(ChangesService).of('household')).pipe(
    startWith(undefined),
  );
  protected readonly me = inject(RoleService).me;
  protected readonly words = ROLE_WORDS;
  /** A code was made, for one of them. */
  readonly coded = output<PairingCode>();
  /** Who is here is no longer the same. */
  readonly changed = output<void>();

  protected readonly persons = toSignal(
    this.#changed.pipe(switchMap(() => this.#service.persons$.pipe(catchError(() => of([]))))),
    { initialValue: [] },
  );
  /** One person alone sees nothing of persons. */
  protected readonly several = computed(() => this.persons().length > 1);
  protected readonly threads = computed(() =>
    this.persons().length ? this.persons().map(({ thread }) => thread) : [FIRST_THREAD],
  );
  readonly #shares = toSignal(
    this.#changed.pipe(switchMap(() => this.#service.shares().pipe(catchError(() => of([]))))),
    { initialValue: [] },
  );
  protected readonly failed = signal('');
  protected readonly adding = signal(false);
  protected readonly ownName = signal('');
  protected readonly changing = signal<string | undefined>(undefined);
  protected readonly phrasing = signal<string | undefined>(undefined);

  /** What a person did in the last three months, and its part of what all did; nobody is scolded for little. */
  protected shareOf({ id }: Person): { said: string; part: number } | undefined {
    const shares = this.#shares();
    const all = shares.reduce((sum, { minutes }) => sum + minutes, 0);
    const { minutes = 0, tasks = 0 } = shares.find(({ personId }) => personId === id) ?? {};
    if (tasks === 0) return undefined;
    const said = `In three months ${many(tasks, 'task')}, ${sayLength(Math.round(minutes / 5) * 5)} of work by the usual`;
    return { said, part: all ? (100 * minutes) / all : 0 };
  }

  protected makeCode({ id }: Person): void {
    this.failed.set('');
    this.#service.newCode(id).subscribe({
      next: (code) => this.coded.emit(code),
      error: (problem: ApiProblem) => this.failed.set(`${problem.title} ${problem.detail}`),
    });
  }

  protected remove(person: Person): void {
    this.#then(
      this.#service.removePerson(person),
      `${person.name} and their devices are taken out.`,
    );
  }

  protected added(person: Person): void {
    const own = this.several() ? '' : this.ownName().trim();
    this.adding.set(false);
    this.changing.set(undefined);
    this.#toasts.show(`${person.name} is stored.`);
    if (own) this.#nameMyself(own);
    else this.again();
  }

  /** Whoever was alone until now had no need of a name. */
  #nameMyself(name: string): void {
    const again = () => this.again();
    this.#service
      .me()
      .pipe(
        switchMap(({ person }) =>
          person ? this.#service.changePerson(person, draftOf({ ...person, name })) : of(undefined),
        ),
      )
      .subscribe({
        next: again,
        error: (problem: ApiProblem) => {
          this.failed.set(wordsOf(problem));
          again();
        },
      });
  }

  protected again(): void {
    this.#again.next();
    this.changed.emit();
  }

  #then(asked: Observable<unknown>, said: string): void {
    this.failed.set('');
    asked.subscribe({
      next: () => {
        this.#toasts.show(said);
        this.again();
      },
      error: (problem: ApiProblem) => this.failed.set(wordsOf(problem)),
    });
  }
}
