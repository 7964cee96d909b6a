import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { caseState, caseTitle } from '@needlecase/core';
import type { Link, LinkDraft, Token } from '@needlecase/core/model/access';
import { catchError, of, startWith, Subject, switchMap, type Observable } from 'rxjs';
import { AccessService } from '../data/access.service';
import { wordsOf, type ApiProblem } from '../data/api.service';
import { CasesService } from '../data/cases.service';
import { HouseholdService } from '../data/household.service';
import { SelectComponent } from '../shared/select.component';
import { sayWhenLong } from '../shared/say-when';
import { QrComponent } from './qr.component';

/** What can be shown by a link. */
interface Showable extends Pick<LinkDraft, 'shows' | 'target'> {
  said: string;
  /** The same as a file, for who is not in the house's network. */
  file: string;
}

/** What was given to others: links that show one thing, tokens for scripts; and who came and went. */
@Component({
  selector: 'nc-given',
  imports: [QrComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './given.component.html',
  styleUrl: './phones.component.scss',
})
export class GivenComponent {
  readonly #service = inject(AccessService);
  readonly #again = new Subject<void>();
  readonly #machines = toSignal(
    inject(HouseholdService)
      .machines()
      .pipe(catchError(() => of([]))),
    {
      initialValue: [],
    },
  );
  readonly #cases = inject(CasesService).all;

  protected readonly links = this.#read(() => this.#service.links());
  protected readonly tokens = this.#read(() => this.#service.tokens());
  protected readonly events = this.#read(() => this.#service.events());
  protected readonly standing = computed(() =>
    this.links().filter(({ revokedAt, until }) => !revokedAt && Date.parse(until) > Date.now()),
  );
  protected readonly valid = computed(() => this.tokens().filter(({ revokedAt }) => !revokedAt));

  protected readonly showable = computed((): Showable[] => {
    const nameOf = (id: string) => this.#machines().find((one) => one.id === id)?.name ?? '';
    return [
      ...this.#machines().map(({ id, name }) => ({
        shows: 'machine' as const,
        target: id,
        said: `${name}: its record`,
        file: `/api/v1/machines/${id}/record.pdf`,
      })),
      ...this.#cases().map((one) => ({
        shows: 'case' as const,
        target: one.id,
        said: `${nameOf(one.machineId)}: ${caseTitle(caseState(one))}`,
        file: `/api/v1/cases/${one.id}/summary.pdf`,
      })),
    ];
  });
  protected readonly targets = computed(() => this.showable().map(({ target }) => target));
  readonly #chosen = signal<string | undefined>(undefined);
  protected readonly target = computed(() => this.#chosen() ?? this.targets()[0]);
  protected readonly chosen = computed(() =>
    this.showable().find(({ target }) => target === this.target()),
  );
  protected readonly say = (target: string | undefined): string =>
    this.showable().find((one) => one.target === target)?.said ?? '';
  protected readonly made = signal<Link | undefined>(undefined);
  protected readonly token = signal<Token | undefined>(undefined);
  protected readonly problems = signal<Readonly<Record<string, string>>>({});

  #read<T>(ask: () => Observable<T[]>) {
    return toSignal(
      this.#again.pipe(
        startWith(undefined),
        switchMap(() => ask().pipe(catchError(() => of([] as T[])))),
      ),
      { initialValue: [] as T[] },
    );
  }

  protected when(at: string): string {
    return sayWhenLong(Date.parse(at));
  }

  protected choose(target: string | undefined): void {
    this.#chosen.set(target);
  }

  protected saidOf({ target }: Link): string {
    return this.say(target) || 'what is no longer there';
  }

  protected makeLink(forWhom: string, notes: boolean): void {
    const chosen = this.chosen();
    if (!chosen) return;
    if (!forWhom.trim()) return this.problems.set({ forWhom: 'Say who it is for.' });
    const { shows, target } = chosen;
    this.#do(this.#service.makeLink({ shows, target, forWhom, notes }), 'forWhom', (link) =>
      this.made.set(link),
    );
  }

  protected takeLinkBack(link: Link): void {
    if (this.made()?.id === link.id) this.made.set(undefined);
    this.#do(this.#service.takeLinkBack(link), 'forWhom');
  }

  protected makeToken(name: string): void {
    if (!name.trim()) return this.problems.set({ name: 'Say what it is for.' });
    this.#do(this.#service.makeToken({ name, scopes: ['entries:read'] }), 'name', (token) =>
      this.token.set(token),
    );
  }

  protected takeTokenBack(token: Token): void {
    if (this.token()?.id === token.id) this.token.set(undefined);
    this.#do(this.#service.takeTokenBack(token), 'name');
  }

  #do<T>(asked: Observable<T>, field: string, then: (done: T) => void = () => undefined): void {
    this.problems.set({});
    asked.subscribe({
      next: (done) => {
        then(done);
        this.#again.next();
      },
      error: (problem: ApiProblem) =>
        this.problems.set({
          [field]: wordsOf(problem),
        }),
    });
  }
}
