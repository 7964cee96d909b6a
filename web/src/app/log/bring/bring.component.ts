import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import { dayOf, many, sayDay, sayEntry, taskOf, type Machine } from '@needlecase/core';
import {
  aboutWork,
  AS_IT_IS,
  choiceOf,
  choicesFor,
  isWhole,
  NOTE,
  ofMachine,
} from '@needlecase/core/care/old-notes/choosing';
import type { DateOrder } from '@needlecase/core/care/old-notes/dates';
import {
  COLUMN_ROLES,
  MOST_LINES,
  type ColumnRole,
  type NoteChoices,
  type UnderstoodNotes,
} from '@needlecase/core/care/old-notes/read-notes';
import type { Subscription } from 'rxjs';
import { wordsOf, type ApiProblem } from '../../data/api.service';
import { BenchService } from '../../data/bench.service';
import { OldNotesService } from '../../data/old-notes.service';
import { newId } from '../../data/platform';
import { ToastsService } from '../../data/toasts.service';
import { SelectComponent } from '../../shared/select.component';
import { OldNotesReader } from '../../workers/old-notes.service';
import { rowOf, type Decided, type NoteRow } from './note-row';
import { LogHeadComponent } from '../log-head.component';

const ROLE_WORDS: Record<ColumnRole, string> = {
  date: 'when',
  machine: 'which machine',
  what: 'what was done',
  note: 'a note',
  by: 'who',
  none: 'left out',
};
/** So many lines are drawn at once. */
const ROWS = 40;

/** Notes from before: pasted or as a file, looked at line by line where it is doubtful, and only then kept. */
@Component({
  selector: 'nc-bring',
  imports: [LogHeadComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bring.component.html',
  styleUrl: './bring.component.scss',
})
export class BringComponent {
  readonly #reader = inject(OldNotesReader);
  readonly #service = inject(OldNotesService);
  readonly #toasts = inject(ToastsService);
  readonly #router = inject(Router);
  readonly #loaded = toSignal(inject(BenchService).bench$);
  readonly #bench = computed(() => this.#loaded()?.value);
  #reading: Subscription | undefined;

  protected readonly most = MOST_LINES;
  protected readonly source = signal<string | Blob | undefined>(undefined);
  protected readonly choices = signal<NoteChoices>({});
  protected readonly notes = signal<UnderstoodNotes | undefined>(undefined);
  protected readonly cut = signal(false);
  protected readonly wrong = signal('');
  protected readonly busy = signal(false);
  readonly #decided = signal<ReadonlyMap<number, Decided>>(new Map());
  readonly #key = signal(newId());
  protected readonly shown = signal(ROWS);

  protected readonly machines = computed(() => this.#bench()?.machines ?? []);
  /** Nothing is understood before it is known which machines there are. */
  protected readonly ready = computed(() => this.#bench() !== undefined);
  readonly #zone = computed(() => this.#bench()?.household.zone ?? 'UTC');
  protected readonly rows = computed(() =>
    (this.notes()?.lines ?? []).map((line) =>
      rowOf(line, this.#decided().get(line.line), this.machines()),
    ),
  );
  protected readonly rightAll = computed(() => this.doubtful().filter((row) => this.right(row)));
  protected readonly doubtful = computed(() =>
    this.rows().filter(({ doubt, out }) => doubt && !out),
  );
  protected readonly clear = computed(() => this.rows().filter(({ doubt, out }) => !doubt && !out));
  protected readonly left = computed(() => this.rows().filter(({ out }) => out));
  protected readonly sections = computed(() => [
    {
      id: 'look',
      title: `To be looked at: ${this.doubtful().length}`,
      rows: this.doubtful(),
    },
    { id: 'clear', title: `As understood: ${this.clear().length}`, rows: this.clear() },
    { id: 'left', title: `Left out: ${this.left().length}`, rows: this.left() },
  ]);

  protected readonly roles = COLUMN_ROLES;
  protected readonly sayRole = (role: ColumnRole): string => ROLE_WORDS[role];
  protected readonly orders: readonly (DateOrder | undefined)[] = [undefined, 'day', 'month'];
  protected readonly sayOrder = (order: DateOrder | undefined): string =>
    order === undefined ? 'Say which' : order === 'day' ? 'the day first' : 'the month first';
  protected readonly order = computed((): DateOrder | undefined => {
    const { order } = this.notes() ?? {};
    return order === 'asked' ? undefined : order;
  });
  protected readonly right = ({ draft }: NoteRow): boolean => draft !== undefined && isWhole(draft);
  protected readonly machineIds = computed(() => [
    undefined,
    ...this.machines().map(({ id }) => id as string | undefined),
  ]);
  protected readonly sayMachine = (id: string | undefined): string =>
    this.machines().find((one) => one.id === id)?.name ?? 'the household';
  protected readonly choicesOf = ({ draft }: NoteRow): string[] =>
    draft ? choicesFor(draft, this.#machine(draft.machineId)) : [];
  protected readonly taskIn = ({ draft }: NoteRow): string => (draft ? choiceOf(draft) : NOTE);
  protected readonly sayTaskOf = ({ draft }: NoteRow): ((task: string) => string) => {
    const machine = this.#machine(draft?.machineId);
    return (choice) => {
      if (choice === AS_IT_IS && draft) return sayEntry(draft, machine);
      return choice === NOTE || !machine ? 'a note' : taskOf(machine, choice).name;
    };
  };
  protected dayOf({ draft }: NoteRow): string {
    return draft ? sayDay(dayOf(Date.parse(draft.at), this.#zone()), this.#bench()?.today) : '';
  }
  #machine(id: string | undefined): Machine | undefined {
    return this.machines().find((one) => one.id === id);
  }

  protected choose(event: Event): void {
    const field = event.target as HTMLInputElement;
    const [file] = field.files ?? [];
    field.value = '';
    if (file) this.#take(file);
  }

  protected paste(text: string): void {
    if (!text.trim()) return this.wrong.set('Paste some lines, or choose a file.');
    this.#take(text);
  }

  #take(source: string | Blob): void {
    this.source.set(source);
    this.choices.set({});
    this.#read();
  }

  protected role(i: number, role: ColumnRole): void {
    const columns = [...(this.notes()?.columns ?? [])].map((one, k) =>
      k === i ? role : one === role && (role === 'date' || role === 'machine') ? 'none' : one,
    );
    this.choices.update((all) => ({ ...all, columns }));
    this.#read();
  }

  protected head(header: boolean): void {
    this.choices.update((all) => ({ ...all, header }));
    this.#read();
  }

  protected orderIs(order: DateOrder | undefined): void {
    if (!order) return;
    this.choices.update((all) => ({ ...all, order }));
    this.#read();
  }

  #read(): void {
    const text = this.source();
    if (text === undefined) return;
    this.#reading?.unsubscribe();
    this.wrong.set('');
    this.busy.set(true);
    this.#decided.set(new Map());
    this.shown.set(ROWS);
    const machines = this.machines();
    const asked = { text, machines, zone: this.#zone(), now: Date.now(), choices: this.choices() };
    this.#reading = this.#reader.ask(asked).subscribe({
      next: ({ notes, cut }) => {
        this.busy.set(false);
        this.#key.set(newId());
        this.cut.set(cut ?? false);
        if (!notes?.lines.length) {
          this.notes.set(undefined);
          return this.wrong.set('There is no line in it.');
        }
        this.notes.set(notes);
      },
      error: (problem: Error) => {
        this.busy.set(false);
        this.notes.set(undefined);
        this.wrong.set(`It could not be read: ${problem.message}`);
      },
    });
  }

  #decide(row: NoteRow, decided: Decided): void {
    this.#key.set(newId());
    this.#decided.update((all) => new Map(all).set(row.line.line, decided));
  }
  protected so(row: NoteRow): void {
    this.#decide(row, { draft: row.draft! });
  }
  /** As it was before it was left out. */
  protected backIn({ line }: NoteRow): void {
    this.#key.set(newId());
    const all = new Map(this.#decided());
    all.delete(line.line);
    this.#decided.set(all);
  }
  protected out(row: NoteRow): void {
    this.#decide(row, { draft: row.draft!, out: true });
  }
  protected machineIs(row: NoteRow, id: string | undefined): void {
    this.#decide(row, { draft: ofMachine(row.draft!, this.#machine(id)) });
  }
  protected taskIs(row: NoteRow, task: string): void {
    this.#decide(row, { draft: aboutWork(row.draft!, task) });
  }
  protected allSo(): void {
    this.#key.set(newId());
    const all = new Map(this.#decided());
    // What wants a machine is not right without one.
    for (const { line, draft } of this.doubtful())
      if (isWhole(draft!)) all.set(line.line, { draft: draft! });
    this.#decided.set(all);
  }

  protected keep(): void {
    if (this.busy()) return;
    const notes = this.clear().map(({ line, draft }) => ({ written: line.written, entry: draft! }));
    this.busy.set(true);
    this.wrong.set('');
    this.#service.keep({ notes }, this.#key()).subscribe({
      next: ({ added, known, ids }) => {
        this.busy.set(false);
        const said = known ? `${known} ${known === 1 ? 'was' : 'were'} there before` : '';
        this.#toasts.show(
          [`${many(added, 'note')} came in`, said].filter(Boolean).join(', ') + '.',
          {
            ...(ids.length ? { action: { label: 'Undo', do: () => this.#takeBack(ids) } } : {}),
          },
        );
        void this.#router.navigate(['/log']);
      },
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.wrong.set(this.#worded(problem, notes.length));
      },
    });
  }

  /** A problem of a line, with the line’s own words. */
  #worded(problem: ApiProblem, count: number): string {
    const [first] = problem.errors;
    const [, place] = /^notes\.(\d+)\./.exec(first?.field ?? '') ?? [];
    const row = place === undefined ? undefined : this.clear()[Number(place)];
    if (!first || !row) return wordsOf(problem);
    return `None of the ${count} was kept. Line ${row.line.line}: ${first.message}`;
  }

  #takeBack(ids: readonly string[]): void {
    this.#service.undo(ids).subscribe({
      next: ({ undone }) => this.#toasts.show(`${many(undone, 'note')} taken back.`),
      error: (problem: ApiProblem) => this.#toasts.show(wordsOf(problem), { problem: true }),
    });
  }

  protected again(): void {
    this.notes.set(undefined);
    this.source.set(undefined);
  }
}
