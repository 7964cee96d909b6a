import type { ElementRef } from '@angular/core';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  Injector,
  linkedSignal,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type { BackupLook, BackupSummary, Restored, RestoreDraft } from '@needlecase/core';
import type { Observable } from 'rxjs';
import type { ApiProblem } from '../data/api.service';
import { BackupsService } from '../data/backups.service';
import { sayWhenLong } from '../shared/say-when';

type Side = 'ours' | 'theirs';

/** A backup is handed in, looked at beside what is here, and put back or merged. */
@Component({
  selector: 'nc-put-back',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './put-back.component.html',
  styleUrl: './put-back.component.scss',
})
export class PutBackComponent {
  readonly #service = inject(BackupsService);
  readonly #router = inject(Router);

  readonly done = output<Restored>();
  readonly #injector = inject(Injector);
  private readonly heading = viewChild<ElementRef<HTMLElement>>('title');

  /** On a server that holds nothing yet this is a view of its own. */
  protected readonly first = inject(Router).url.startsWith('/start');
  protected readonly busy = signal('');
  protected readonly problem = signal<ApiProblem | undefined>(undefined);
  protected readonly look = signal<BackupLook | undefined>(undefined);
  protected readonly restored = signal<Restored | undefined>(undefined);
  protected readonly rows = computed(() => {
    const look = this.look();
    return look ? rowsOf(look) : [];
  });
  /** Of things that differ: which holds; what was proposed is chosen. */
  protected readonly choices = linkedSignal<Record<string, Side>>(() =>
    Object.fromEntries(
      (this.look()?.differences ?? []).flatMap(({ id, proposed }) =>
        proposed ? [[id, proposed] as const] : [],
      ),
    ),
  );
  protected readonly open = computed(
    () => this.look()?.differences.filter(({ id }) => !(id in this.choices())).length ?? 0,
  );
  protected readonly news = computed(() => sayAdded(this.look()?.added ?? {}));

  protected choose(id: string, side: Side): void {
    this.choices.update((choices) => ({ ...choices, [id]: side }));
  }

  protected handIn(field: HTMLInputElement): void {
    const file = field.files?.[0];
    field.value = '';
    if (file) this.#lookBy(this.#service.lookAt(file));
  }

  /** Looks at one that lies in the folder. */
  pick(name: string): void {
    this.#lookBy(this.#service.pick(name));
  }

  #lookBy(asked: Observable<BackupLook>): void {
    this.#begin('The backup is read from end to end.');
    this.look.set(undefined);
    this.restored.set(undefined);
    asked.subscribe({
      next: (look) => {
        this.busy.set('');
        this.look.set(look);
        afterNextRender(() => this.heading()?.nativeElement.focus(), { injector: this.#injector });
      },
      error: (problem: ApiProblem) => this.#fail(problem),
    });
  }

  protected restore(how: RestoreDraft['how']): void {
    const look = this.look();
    if (!look) return;
    this.#begin('It is put back. Leave this page open.');
    this.#service.restore({ id: look.id, how, choices: this.choices() }).subscribe({
      next: (restored) => {
        this.busy.set('');
        this.look.set(undefined);
        this.restored.set(restored);
        this.done.emit(restored);
      },
      error: (problem: ApiProblem) => this.#fail(problem),
    });
  }

  /** Everything is another household's now: the page begins anew. */
  protected begin(): void {
    void this.#router.navigateByUrl('/').then(() => location.reload());
  }

  protected leave(): void {
    this.look.set(undefined);
  }

  #begin(what: string): void {
    this.busy.set(what);
    this.problem.set(undefined);
  }

  #fail(problem: ApiProblem): void {
    this.busy.set('');
    this.problem.set(problem);
  }
}

const COUNTED = ['machines', 'entries', 'visits', 'cases', 'photos'] as const;

/** What the backup holds beside what is here, line by line. */
function rowsOf({ backup, here }: BackupLook): { name: string; there: string; here: string }[] {
  const cell = (one: BackupSummary | undefined, tell: (one: BackupSummary) => string) =>
    one ? tell(one) : 'nothing yet';
  return [
    { name: 'Household', there: backup.household, here: cell(here, ({ household }) => household) },
    {
      name: 'As it was',
      there: sayWhenLong(Date.parse(backup.made)),
      here: cell(here, () => 'now'),
    },
    ...COUNTED.map((kind) => ({
      name: kind === 'entries' ? 'Entries in the log' : kind[0]!.toUpperCase() + kind.slice(1),
      there: backup[kind].toLocaleString('en'),
      here: cell(here, (one) => one[kind].toLocaleString('en')),
    })),
  ];
}

const KIND_WORDS: Record<string, readonly [string, string]> = {
  machines: ['machine', 'machines'],
  entries: ['entry', 'entries'],
  runs: ['visit', 'visits'],
  cases: ['case', 'cases'],
  photos: ['photo', 'photos'],
  supplies: ['supply', 'supplies'],
  'code-sheets': ['code sheet', 'code sheets'],
  'vent-runs': ['vent run', 'vent runs'],
};

/** `12 entries, 1 photo`; nothing where nothing is new. */
export const sayAdded = (added: Readonly<Record<string, number>>): string =>
  Object.entries(added)
    .map(([kind, n]) => `${n} ${KIND_WORDS[kind]?.[n === 1 ? 0 : 1] ?? kind}`)
    .join(', ');
