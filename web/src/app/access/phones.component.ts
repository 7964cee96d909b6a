import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ENTRY_KINDS, kindOfEntry, many, type EntryKind } from '@needlecase/core';
import type {
  Aside,
  Device,
  PairingCode,
  Person,
  PersonDraft,
} from '@needlecase/core/model/access';
import { catchError, merge, of, startWith, Subject, switchMap, type Observable } from 'rxjs';
import { AccessService } from '../data/access.service';
import { ApiProblem } from '../data/api.service';
import { ChangesService } from '../data/changes.service';
import { isSecure } from '../data/platform';
import { ToastsService } from '../data/toasts.service';
import { HouseNavComponent } from '../house/house-nav.component';
import { sayLength } from '../shared/minutes';
import { sayWhenLong } from '../shared/say-when';
import { SingleTaps } from '../shared/single-taps';
import { WhoComponent } from '../shared/who.component';
import { GivenComponent } from './given.component';
import { PersonFormComponent, ROLE_WORDS } from './person-form.component';
import { QrComponent } from './qr.component';

/** The thread of whoever was here first. */
const FIRST_THREAD = 'indigo';

const draftOf = ({ name, thread, role }: Person): PersonDraft => ({ name, thread, role });

/** The devices that are in, how another one gets in, and the people they belong to. */
@Component({
  selector: 'nc-phones',
  imports: [GivenComponent, HouseNavComponent, PersonFormComponent, QrComponent, WhoComponent],
  hostDirectives: [SingleTaps],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './phones.component.html',
  styleUrl: './phones.component.scss',
})
export class PhonesComponent {
  readonly #service = inject(AccessService);
  readonly #toasts = inject(ToastsService);
  readonly #again = new Subject<void>();
  readonly #changed = merge(this.#again, inject(ChangesService).of('household')).pipe(
    startWith(undefined),
  );
  protected readonly words = ROLE_WORDS;
  protected readonly secure = isSecure();

  readonly #me = toSignal(
    this.#changed.pipe(
      switchMap(() => this.#service.me().pipe(catchError((problem: ApiProblem) => of(problem)))),
    ),
  );
  protected readonly me = computed(() => {
    const me = this.#me();
    return me instanceof ApiProblem ? undefined : me;
  });
  readonly #devices = toSignal(
    this.#changed.pipe(
      switchMap(() =>
        this.#service.devices().pipe(catchError((problem: ApiProblem) => of(problem))),
      ),
    ),
  );
  protected readonly problem = computed(() => {
    const devices = this.#devices();
    return devices instanceof ApiProblem ? devices : undefined;
  });
  protected readonly persons = toSignal(
    this.#changed.pipe(switchMap(() => this.#service.persons$.pipe(catchError(() => of([]))))),
    { initialValue: [] },
  );
  /** One person alone sees nothing of persons. */
  protected readonly several = computed(() => this.persons().length > 1);
  protected readonly threads = computed(() =>
    this.persons().length ? this.persons().map(({ thread }) => thread) : [FIRST_THREAD],
  );
  readonly #all = computed(() => {
    const devices = this.#devices();
    return devices instanceof ApiProblem || !devices ? [] : devices;
  });
  protected readonly devices = computed(() => this.#all().filter(({ revokedAt }) => !revokedAt));
  protected readonly out = computed(() => this.#all().filter(({ revokedAt }) => revokedAt));

  readonly #shares = toSignal(
    this.#changed.pipe(switchMap(() => this.#service.shares().pipe(catchError(() => of([]))))),
    { initialValue: [] },
  );
  protected readonly aside = toSignal(
    this.#changed.pipe(switchMap(() => this.#service.setAside().pipe(catchError(() => of([]))))),
    { initialValue: [] },
  );
  protected readonly code = signal<PairingCode | undefined>(undefined);
  protected readonly failed = signal('');
  protected readonly adding = signal(false);
  protected readonly ownName = signal('');
  protected readonly changing = signal<string | undefined>(undefined);
  protected readonly phrasing = signal<string | undefined>(undefined);
  protected readonly phraseProblem = signal('');

  protected personOf({ personId }: Device): Person | undefined {
    return this.persons().find(({ id }) => id === personId);
  }

  /** What a person did in the last three months, and its part of what all did; nobody is scolded for little. */
  protected shareOf({ id }: Person): { said: string; part: number } | undefined {
    const shares = this.#shares();
    const all = shares.reduce((sum, { minutes }) => sum + minutes, 0);
    const { minutes = 0, tasks = 0 } = shares.find(({ personId }) => personId === id) ?? {};
    if (tasks === 0) return undefined;
    const said = `In three months ${many(tasks, 'task')}, ${sayLength(Math.round(minutes / 5) * 5)} of work by the usual`;
    return { said, part: all ? (100 * minutes) / all : 0 };
  }

  protected deviceOf({ deviceId }: Aside): string {
    return this.#all().find(({ id }) => id === deviceId)?.name ?? 'a device no longer listed';
  }

  /** What it says of itself; nobody has looked whether it is right. */
  protected saidOf({ what, body }: Aside): string {
    if (what === 'undo') return 'Something undone';
    if (what === 'case') return 'Trouble told';
    const { kind, note, at } = (body ?? {}) as Record<string, unknown>;
    const name = ENTRY_KINDS.includes(kind as EntryKind)
      ? kindOfEntry(kind as EntryKind).label
      : 'An entry';
    const more = typeof note === 'string' ? `: ${note.slice(0, 120)}` : '';
    return typeof at === 'string' && Date.parse(at)
      ? `${name}, ${this.when(at)}${more}`
      : name + more;
  }

  protected takeIn(one: Aside): void {
    this.#then(this.#service.takeIn(one), 'It is in the log.');
  }

  protected letGo(one: Aside): void {
    this.#then(this.#service.letGo(one), 'It is let go.');
  }

  protected when(at: string): string {
    return sayWhenLong(Date.parse(at));
  }

  protected bare(address: string): string {
    return address.replace(/#.*/, '');
  }

  protected makeCode(person?: Person): void {
    this.failed.set('');
    this.#service.newCode(person?.id).subscribe({
      next: (code) => this.code.set(code),
      error: (problem: ApiProblem) => this.failed.set(`${problem.title} ${problem.detail}`),
    });
  }

  protected forWhom({ personId }: PairingCode): Person | undefined {
    return this.several() ? this.persons().find(({ id }) => id === personId) : undefined;
  }

  protected takeOut(device: Device): void {
    this.#then(this.#service.takeOut(device), `${device.name} is shut out.`);
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
    else this.#again.next();
  }

  /** Whoever was alone until now had no need of a name. */
  #nameMyself(name: string): void {
    const again = () => this.#again.next();
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
          this.failed.set(problem.errors[0]?.message ?? `${problem.title} ${problem.detail}`);
          again();
        },
      });
  }

  protected setPhrase(person: Person, phrase: string): void {
    if (phrase.length < 15) {
      this.phraseProblem.set('Give 15 characters and more: four words do.');
      return;
    }
    this.phraseProblem.set('');
    this.#service.setPassphrase(person, phrase).subscribe({
      next: () => {
        this.phrasing.set(undefined);
        this.#toasts.show(`${person.name} can sign in with it from now on.`);
        this.#again.next();
      },
      error: (problem: ApiProblem) =>
        this.phraseProblem.set(problem.errors[0]?.message ?? `${problem.title} ${problem.detail}`),
    });
  }

  #then(asked: Observable<unknown>, said: string): void {
    this.failed.set('');
    asked.subscribe({
      next: () => {
        this.#toasts.show(said);
        this.#again.next();
      },
      error: (problem: ApiProblem) =>
        this.failed.set(problem.errors[0]?.message ?? `${problem.title} ${problem.detail}`),
    });
  }
}
