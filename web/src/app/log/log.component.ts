import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap';
import {
  dayOf,
  ENTRY_KINDS,
  GRADE_NAMES,
  kindOfEntry,
  many,
  sayDay,
  sayEntry,
  stationById,
  stationsOf,
  SUPPLIES,
  type Entry,
  type EntryKind,
} from '@needlecase/core';
import type { Person } from '@needlecase/core/model/access';
import {
  catchError,
  combineLatest,
  debounceTime,
  map,
  of,
  startWith,
  type Subscription,
} from 'rxjs';
import { AccessService } from '../data/access.service';
import { ApiService, type ApiProblem } from '../data/api.service';
import { ChangesService } from '../data/changes.service';
import { EntriesService } from '../data/entries.service';
import { HouseholdService } from '../data/household.service';
import { newId } from '../data/platform';
import { ToastsService } from '../data/toasts.service';
import { PhotosComponent } from '../shared/photos.component';
import { SelectComponent } from '../shared/select.component';
import { WhoComponent } from '../shared/who.component';

const PAGE = 60;
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** What is one line of the log: an entry, or all that a visit left. */
interface Line {
  entries: Entry[];
  /** The visit, where its entries know it. */
  visit?: string;
  /** By what it was entered, and when the last of it was. */
  isVisit: boolean;
}

/** Entries of a visit that do not know it are so near in time, ms. */
const ONE_VISIT = 2 * 3_600_000;

/** Puts an entry, newest first, into the line of its visit or into one of its own. */
function addTo(lines: Line[], entry: Entry, whole: boolean): void {
  const last = lines.at(-1);
  const before = last?.entries.at(-1);
  const near =
    before !== undefined && Math.abs(Date.parse(before.at) - Date.parse(entry.at)) <= ONE_VISIT;
  const isVisit = whole && entry.source === 'run';
  const same =
    last?.isVisit === true &&
    isVisit &&
    near &&
    last.visit === entry.runId &&
    before?.author === entry.author;
  if (same) last.entries.push(entry);
  else lines.push({ entries: [entry], isVisit, ...(entry.runId ? { visit: entry.runId } : {}) });
}

/** Everything that happened, newest first. */
@Component({
  selector: 'nc-log',
  imports: [NgTemplateOutlet, PhotosComponent, RouterLink, SelectComponent, WhoComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './log.component.html',
  styleUrl: './log.component.scss',
})
export class LogComponent {
  readonly #entries = inject(EntriesService);
  readonly #api = inject(ApiService);
  readonly #router = inject(Router);
  readonly #modal = inject(NgbModal);
  readonly #toasts = inject(ToastsService);

  /** From the address. */
  readonly machine = input<string>();
  readonly station = input<string>();
  readonly kind = input<string>();
  readonly undone = input<string>();
  readonly words = input<string>();

  readonly #household = inject(HouseholdService);
  protected readonly machines = toSignal(this.#household.machines(), { initialValue: [] });
  readonly #persons = toSignal(inject(AccessService).persons$.pipe(catchError(() => of([]))), {
    initialValue: [],
  });
  readonly #zone = toSignal(this.#household.household().pipe(map(({ zone }) => zone)), {
    initialValue: 'UTC',
  });
  protected readonly stations = computed(() => {
    const machine = this.machines().find(({ id }) => id === this.machine());
    return machine ? stationsOf(machine) : [];
  });
  protected readonly machineIds = computed(() => [
    undefined,
    ...this.machines().map(({ id }) => id),
  ]);
  protected readonly sayMachine = (id: string | undefined): string =>
    this.machines().find((one) => one.id === id)?.name ?? 'All machines';
  protected readonly stationIds = computed(() => [
    undefined,
    ...this.stations().map(({ id }) => id),
  ]);
  protected readonly sayStation = (id: string | undefined): string =>
    id === undefined ? 'All stations' : stationById(id).name;
  protected readonly kinds = [undefined, ...ENTRY_KINDS.filter((kind) => kind !== 'undone')];
  protected readonly sayKind = (kind: string | undefined): string =>
    ENTRY_KINDS.includes(kind as EntryKind) ? kindOfEntry(kind as EntryKind).label : 'Everything';

  /** Who did it, where that is anything to tell: one person alone sees nothing of it. */
  protected by({ author }: Entry): { person?: Person; said?: string } {
    const persons = this.#persons();
    const person = persons.find(({ id }) => id === author);
    if (person) return persons.length > 1 ? { person } : {};
    if (author === 'household') return {};
    return { said: UUID.test(author) ? 'somebody no longer here' : author };
  }

  readonly #shown = signal<Entry[]>([]);
  protected readonly next = signal<string | undefined>(undefined);
  protected readonly problem = signal<ApiProblem | undefined>(undefined);
  protected readonly read = signal(false);

  readonly #filter = computed(() => ({
    ...(this.machine() ? { machine: this.machine()! } : {}),
    ...(this.station() ? { station: this.station()! } : {}),
    ...(this.kind() ? { kind: this.kind()! } : {}),
    ...(this.words()?.trim() ? { words: this.words()!.trim().slice(0, 100) } : {}),
    ...(this.undone() ? { all: true } : {}),
  }));
  protected readonly filtered = computed(() => Object.keys(this.#filter()).length > 0);

  /** Entries by the day they happened on, in the zone they were entered in. */
  protected readonly days = computed(() => {
    const today = dayOf(Date.now(), this.#shown()[0]?.zone ?? 'UTC');
    // Whoever looks for one kind or one station sees each entry.
    const whole = !this.kind() && !this.station() && !this.words();
    const days: { day: string; said: string; lines: Line[] }[] = [];
    for (const entry of this.#shown()) {
      if (entry.kind === 'undone') continue;
      const day = dayOf(Date.parse(entry.at), entry.zone);
      if (days.at(-1)?.day !== day) days.push({ day, said: sayDay(day, today), lines: [] });
      addTo(days.at(-1)!.lines, entry, whole);
    }
    return days;
  });

  /** A visit in one line: its work, and how many figures and proofs it left. */
  protected sayVisit({ entries }: Line): string {
    const work = entries.filter(({ kind }) => kind === 'done' || kind === 'opened');
    const machines = [...new Set(entries.map((entry) => this.nameOf(entry)))];
    const rest = entries.length - work.length;
    const more = rest ? ` and ${many(rest, 'note')}` : '';
    return `Visit, ${machines.join(' and ')}: ${many(work.length, 'task')}${more}`;
  }

  /** Takes back everything that a visit left; it is paused where it was. */
  protected undoVisit({ visit }: Line): void {
    if (!visit) return;
    this.#api.send('POST', `runs/${visit}/undo`, undefined, { key: newId() }).subscribe({
      next: () => {
        this.#readFrom(undefined);
        this.#toasts.show('The visit is undone. It is paused where it was.', {
          action: {
            label: 'Go on with it',
            do: () => void this.#router.navigate(['/visit', visit]),
          },
        });
      },
      error: (problem: ApiProblem) => this.#complain(problem),
    });
  }

  protected say(entry: Entry): string {
    const machine = this.machines().find(({ id }) => id === entry.machineId);
    return `${sayEntry(entry, machine)}${entry.supply ? `, ${this.#supplyName(entry.supply)}` : ''}`;
  }

  #supplyName(item: string): string {
    return SUPPLIES.find(({ id }) => id === item)?.name.toLowerCase() ?? 'a supply of your own';
  }

  constructor() {
    combineLatest([
      toObservable(this.#filter),
      inject(ChangesService).of('entries').pipe(startWith(undefined), debounceTime(60)),
    ])
      .pipe(takeUntilDestroyed())
      .subscribe(() => this.#readFrom(undefined));
  }

  protected more(): void {
    this.#readFrom(this.next());
  }

  #reading: Subscription | undefined;

  #readFrom(before: string | undefined): void {
    const limit = before ? PAGE : Math.min(200, Math.max(PAGE, this.#shown().length));
    // An answer to what was asked before would take the place of a newer one.
    this.#reading?.unsubscribe();
    this.#reading = this.#entries
      .list({ ...this.#filter(), ...(before ? { before } : {}), limit })
      .subscribe({
        next: (page) => {
          this.#shown.update((all) => (before ? [...all, ...page.entries] : page.entries));
          this.next.set(page.next);
          this.problem.set(undefined);
          this.read.set(true);
        },
        error: (problem: ApiProblem) => this.problem.set(problem),
      });
  }

  protected filter(change: Record<string, string | null>): void {
    void this.#router.navigate([], { queryParams: change, queryParamsHandling: 'merge' });
  }

  protected nameOf(entry: Entry): string {
    return this.machines().find(({ id }) => id === entry.machineId)?.name ?? 'Household';
  }

  protected time(entry: Entry): string {
    return new Intl.DateTimeFormat('en-GB', {
      hour: '2-digit',
      minute: '2-digit',
      timeZone: entry.zone,
    }).format(new Date(entry.at));
  }

  protected details(entry: Entry): string {
    return [
      entry.grade === undefined ? '' : GRADE_NAMES[entry.grade],
      ...(entry.found ?? []).map(({ what, count }) => `${count} ${what}`),
      entry.trays ? `${entry.trays} trays of water` : '',
      entry.kind !== 'done' && entry.kind !== 'opened' && entry.station
        ? stationById(entry.station).name.toLowerCase()
        : '',
    ]
      .filter(Boolean)
      .join(', ');
  }

  /** Opens the dialog for a new entry, or for the correction of an old one. */
  protected async enter(old?: Entry): Promise<void> {
    const { EntryDialogComponent } = await import('./entry-dialog.component');
    const dialog = this.#modal.open(EntryDialogComponent, { ariaLabelledBy: 'entry-title' });
    const shown = dialog.componentInstance as InstanceType<typeof EntryDialogComponent>;
    shown.old.set(old);
    shown.machines.set(this.machines());
    shown.zone.set(this.#zone());
    dialog.result.then(
      () => this.#readFrom(undefined),
      () => undefined,
    );
  }

  protected undo(entry: Entry): void {
    this.#entries.undo(entry.id).subscribe({
      next: () => {
        this.#readFrom(undefined);
        this.#toasts.show(`Undone: ${this.say(entry)}`, {
          action: { label: 'Bring it back', do: () => this.restore(entry) },
        });
      },
      error: (problem: ApiProblem) => this.#complain(problem),
    });
  }

  protected restore(entry: Entry): void {
    this.#entries.restore(entry.id, newId()).subscribe({
      next: () => this.#readFrom(undefined),
      error: (problem: ApiProblem) => this.#complain(problem),
    });
  }

  /** What became of an entry that is no longer in force. */
  protected fate(entry: Entry): 'undone' | 'corrected' | undefined {
    if (!entry.revisedBy) return undefined;
    const later = this.#shown().find(({ id }) => id === entry.revisedBy);
    return later?.kind === 'undone' ? (later.revisedBy ? 'corrected' : 'undone') : 'corrected';
  }

  #complain(problem: ApiProblem): void {
    this.#toasts.show(`${problem.title} ${problem.detail}`, { problem: true });
    this.#readFrom(undefined);
  }
}
