import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
} from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap';
import {
  ENTRY_KINDS,
  GRADE_NAMES,
  GRADES,
  kindOfEntry,
  partsOf,
  sayEntry,
  tasksOf,
  toldAgain,
  type Entry,
  type EntryDraft,
  type EntryKind,
  type Grade,
  type Machine,
  type ProofResult,
} from '@needlecase/core';
import { startWith, switchMap } from 'rxjs';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { ApiProblem } from '../data/api.service';
import type { Aside } from '../data/device';
import { EntriesService } from '../data/entries.service';
import { newId } from '../data/platform';
import { FieldDirective, FormProblems, ProblemComponent } from '../forms/problems';
import { fromLocal, toLocal } from '../shared/local-time';
import { instantNow } from '../data/clock';

/** What can be entered by hand, in words. */
const NEW_KINDS = ENTRY_KINDS.flatMap((kind) => {
  const { byHand } = kindOfEntry(kind);
  return byHand === undefined ? [] : [{ kind, name: byHand }];
});

/** One entry: a new one, such as loads of a past day, or the correction of an old one. */
@Component({
  selector: 'nc-entry-dialog',
  imports: [ReactiveFormsModule, FieldDirective, ProblemComponent],
  providers: [FormProblems],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './entry-dialog.component.html',
  styles: `
    .modal-title {
      font-size: 1.35rem;
    }

    .modal-body {
      display: grid;
      gap: 0.9rem;
    }

    .money {
      display: grid;
      gap: 0 0.6rem;
      grid-template-columns: 1fr 6rem;
    }
    .money nc-problem {
      grid-column: 1 / -1;
    }

    :host-context([data-bs-theme='dark']) .btn-close {
      filter: invert(1);
    }
  `,
})
export class EntryDialogComponent {
  readonly #entries = inject(EntriesService);
  protected readonly modal = inject(NgbActiveModal);
  readonly #problems = inject(FormProblems);
  readonly #key = newId();

  /** The entry to correct; none for a new one. Set by whoever opens the dialog. */
  readonly old = signal<Entry | undefined>(undefined);
  /** What the server refused, and why: it is corrected here and handed back, not sent. */
  readonly refused = signal<{ draft: EntryDraft & { id: string }; why?: Aside } | undefined>(
    undefined,
  );
  readonly machines = signal<readonly Machine[]>([]);
  readonly zone = signal('UTC');
  /** The household's money, where it is told. */
  readonly currency = signal<string | undefined>(undefined);
  /** What a new one is at first. */
  readonly begins = signal<Partial<Pick<EntryDraft, 'kind' | 'machineId' | 'part'>>>({});
  protected readonly failed = signal<ApiProblem | undefined>(undefined);
  readonly #shown = computed(() => this.old() ?? this.refused()?.draft);
  protected readonly form = computed(() =>
    formOf(this.#shown(), this.zone(), {
      ...{ kind: 'load' as const, machineId: this.machines()[0]?.id },
      ...this.begins(),
      ...{ currency: this.currency() },
    }),
  );

  readonly #value = toSignal(
    toObservable(this.form).pipe(
      switchMap((form) => form.valueChanges.pipe(startWith(form.value))),
    ),
  );
  protected readonly kind = computed(() => this.#value()?.kind ?? this.#shown()?.kind ?? 'load');
  protected readonly tasks = computed(() => {
    const machine = this.machines().find(({ id }) => id === this.#value()?.machineId);
    return machine ? tasksOf(machine) : [];
  });
  protected readonly parts = computed(() => {
    const machine = this.machines().find(({ id }) => id === this.#value()?.machineId);
    return machine ? partsOf(machine) : [];
  });
  protected readonly costs = computed(() => kindOfEntry(this.kind()).allows.includes('cost'));
  protected readonly noteAsked = computed(() => NOTE_ASKED[this.kind()] ?? 'Note');

  protected readonly say = sayEntry;
  protected readonly grades = GRADES;
  protected readonly gradeNames = GRADE_NAMES;
  protected readonly newKinds = NEW_KINDS;

  constructor() {
    effect(() => {
      const { field, message } = this.refused()?.why ?? {};
      if (field && message) this.#problems.set([{ field, message }]);
    });
  }

  protected save(): void {
    const old = this.old();
    const zone = old?.zone ?? this.zone();
    const local = this.form().getRawValue().at;
    const when = fromLocal(local, zone);
    if (!when) {
      this.#problems.set([{ field: 'at', message: 'Give a date and a time.' }]);
      return this.#problems.show();
    }
    // The minute that is shown is the minute that is kept, unless it was changed.
    const at = old && local === toLocal(old.at, zone) ? old.at : when;
    const refused = this.refused();
    if (refused) {
      const { draft } = refused;
      const given = local === toLocal(draft.at, zone) ? draft.at : when;
      const { machineId } = this.form().getRawValue();
      return this.modal.close({
        ...draft,
        ...this.#fields(),
        ...(machineId ? { machineId } : {}),
        at: given,
      });
    }
    const request = old
      ? this.#entries.correct(old, this.#correction(old, at), this.#key)
      : this.#entries.add(this.#draft(at), this.#key);
    request.subscribe({
      next: (entry) => this.modal.close(entry),
      error: (problem: ApiProblem) => {
        this.#problems.set(problem.errors);
        this.failed.set(problem.errors.length ? undefined : problem);
        this.#problems.show();
      },
    });
  }

  #correction(old: Entry, at: string): EntryDraft {
    const { grade: _grade, note: _note, cost: _cost, ...rest } = toldAgain(old);
    return { ...rest, ...this.#fields(), at };
  }

  #draft(at: string): EntryDraft {
    const { machineId, task, part } = this.form().getRawValue();
    const working = this.kind() === 'done' || this.kind() === 'opened';
    return {
      ...this.#fields(),
      at,
      source: 'log',
      ...(machineId ? { machineId } : {}),
      ...(working && task ? { task } : {}),
      ...(this.kind() === 'replaced' && part ? { part } : {}),
    };
  }

  /** What the fields for this kind of entry say. */
  #fields(): Pick<EntryDraft, 'kind'> & Partial<EntryDraft> {
    const { kind, count, grade, value, code, note, result, ...money } = this.form().getRawValue();
    const { cost, currency } = money;
    const working = kind === 'done' || kind === 'opened';
    return {
      kind,
      // Missing figures go out as they are, so that the server can say so beside the field.
      ...(kind === 'load' ? { count: count as number } : {}),
      ...(working && grade !== null ? { grade } : {}),
      ...(kind === 'reading' ? { value: value as number } : {}),
      ...(kind === 'code' ? { code } : {}),
      ...(kind === 'proof' ? { result } : {}),
      ...(this.costs() && cost !== null
        ? { cost: { amount: cost, currency: currency.trim().toUpperCase() } }
        : {}),
      ...(note.trim() || kind === 'note' ? { note: note.trim() } : {}),
    };
  }
}

/** What the note is, where it is more than a note. */
const NOTE_ASKED: Partial<Record<EntryKind, string>> = {
  replaced: 'Why',
  called: 'Who came, what was found and done',
};

function formOf(
  entry: (EntryDraft & { zone?: string }) | undefined,
  zone: string,
  begins: {
    kind: EntryKind;
    machineId: string | undefined;
    part?: string;
    currency: string | undefined;
  },
) {
  const at = entry ? toLocal(entry.at, entry.zone ?? zone) : toLocal(instantNow(), zone);
  return new FormGroup({
    at: new FormControl(at, { nonNullable: true }),
    machineId: new FormControl(entry ? (entry.machineId ?? '') : (begins.machineId ?? ''), {
      nonNullable: true,
    }),
    task: new FormControl(entry?.task ?? '', { nonNullable: true }),
    count: new FormControl<number | null>(entry ? (entry.count ?? null) : 1),
    kind: new FormControl<EntryKind>(entry?.kind ?? begins.kind, { nonNullable: true }),
    part: new FormControl(entry?.part ?? begins.part ?? '', { nonNullable: true }),
    cost: new FormControl<number | null>(entry?.cost?.amount ?? null),
    currency: new FormControl(entry?.cost?.currency ?? begins.currency ?? 'EUR', {
      nonNullable: true,
    }),
    grade: new FormControl<Grade | null>(entry?.grade ?? null),
    value: new FormControl<number | null>(entry?.value ?? null),
    code: new FormControl(entry?.code ?? '', { nonNullable: true }),
    result: new FormControl<ProofResult>(entry?.result ?? 'good', { nonNullable: true }),
    note: new FormControl(entry?.note ?? '', { nonNullable: true }),
  });
}
