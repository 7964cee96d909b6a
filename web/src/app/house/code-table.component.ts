import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap';
import {
  CODE_CLASSES,
  CODE_STRENGTHS,
  codeClassById,
  KIND_NAMES,
  MACHINE_KINDS,
  sayLamps,
  stationById,
  stationsOf,
  type CodeRow,
  type CodeSheet,
  type FieldProblem,
  type MachineKind,
} from '@needlecase/core';
import type { ApiProblem } from '../data/api.service';
import { CodeSheetsService } from '../data/code-sheets.service';
import { ToastsService } from '../data/toasts.service';
import { FLASHING } from '../shared/flashing';
import { SelectComponent } from '../shared/select.component';

type Draft = Pick<CodeSheet, 'maker' | 'family' | 'kinds' | 'lamps' | 'rows'>;

/** A sheet as a table, to read and to change, a row a code. */
@Component({
  selector: 'nc-code-table',
  imports: [NgbDropdownModule, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './code-table.component.html',
  styleUrl: './code-table.component.scss',
})
export class CodeTableComponent {
  readonly #service = inject(CodeSheetsService);
  readonly #toasts = inject(ToastsService);

  readonly sheet = input.required<CodeSheet>();
  readonly changing = input(false);
  readonly left = output();

  protected readonly draft = linkedSignal<Draft>(() => structuredClone(this.sheet()));
  protected readonly problems = signal<readonly FieldProblem[]>([]);
  protected readonly conflict = signal<CodeSheet | undefined>(undefined);
  protected readonly busy = signal(false);

  protected readonly flashing = FLASHING;
  protected readonly sayFlashes = (n: number): string => (n === 0 ? 'on' : `${n} ×`);
  protected readonly classes = CODE_CLASSES;
  protected readonly strengths = CODE_STRENGTHS;
  protected readonly allKinds = MACHINE_KINDS.map((id) => ({ id, name: KIND_NAMES[id] }));
  protected readonly places = computed(() => {
    const all = this.draft().kinds.flatMap((kind) => stationsOf({ kind, features: {} }));
    return [...new Map(all.map(({ id, name }) => [id, { id, name }])).values()];
  });
  protected readonly byLamps = computed(() => (this.draft().lamps ?? []).length > 0);

  protected nameOf(row: CodeRow): string {
    return row.code ?? (row.pattern ? sayLamps(row.pattern) : '');
  }

  protected about(row: CodeRow): string {
    return codeClassById(row.class).say.split(':')[0]!;
  }

  protected where({ stations = [] }: CodeRow): string {
    return stations.map((id) => stationById(id).name).join(', ');
  }

  protected wrong(field: string): string {
    return (
      this.problems().find((one) => one.field === field || one.field.startsWith(`${field}.`))
        ?.message ?? ''
    );
  }

  protected set(change: Partial<Draft>): void {
    this.draft.update((draft) => ({ ...draft, ...change }));
  }

  protected turnKind(kind: MachineKind): void {
    const { kinds } = this.draft();
    const next = kinds.includes(kind) ? kinds.filter((one) => one !== kind) : [...kinds, kind];
    this.set({ kinds: next });
  }

  protected setLamps(words: string): void {
    const lamps = [
      ...new Set(
        words
          .split(',')
          .map((word) => word.trim())
          .filter(Boolean),
      ),
    ];
    this.draft.update(({ lamps: _lamps, ...draft }) => ({
      ...draft,
      ...(lamps.length ? { lamps } : {}),
    }));
  }

  /** Changes one row; what is emptied is left out. */
  protected setRow(at: number, change: { [K in keyof CodeRow]?: CodeRow[K] | undefined }): void {
    const rows = this.draft().rows.map((row, i) => {
      if (i !== at) return row;
      const merged = Object.entries({ ...row, ...change }).filter(
        ([, value]) => value !== undefined && value !== '',
      );
      return { says: '', ...Object.fromEntries(merged) } as CodeRow;
    });
    this.set({ rows });
  }

  protected turnStation(at: number, station: string): void {
    const { stations = [] } = this.draft().rows[at]!;
    const next = stations.includes(station)
      ? stations.filter((one) => one !== station)
      : [...stations, station];
    this.setRow(at, { stations: next.length ? next : undefined });
  }

  protected turnLamp(at: number, lamp: string): void {
    const { pattern = { lamps: [], flashes: 0 } } = this.draft().rows[at]!;
    const lamps = pattern.lamps.includes(lamp)
      ? pattern.lamps.filter((one) => one !== lamp)
      : [...pattern.lamps, lamp];
    this.setRow(at, { pattern: lamps.length ? { ...pattern, lamps } : undefined });
  }

  protected setFlashes(at: number, flashes: number): void {
    const { pattern } = this.draft().rows[at]!;
    if (pattern) this.setRow(at, { pattern: { ...pattern, flashes } });
  }

  protected addRow(): void {
    this.set({ rows: [...this.draft().rows, { says: '', class: 'drain' }] });
  }

  protected dropRow(at: number): void {
    this.problems.set([]);
    this.set({ rows: this.draft().rows.filter((_, i) => i !== at) });
  }

  protected save(over?: number): void {
    if (this.busy()) return;
    this.busy.set(true);
    const { maker, family, kinds, lamps, rows } = this.draft();
    const { id, format, version } = this.sheet();
    const base = { id, version: over ?? version, format } as CodeSheet;
    this.#service
      .change(base, { maker, family, kinds, rows, ...(lamps ? { lamps } : {}) })
      .subscribe({
        next: () => {
          this.busy.set(false);
          this.problems.set([]);
          this.conflict.set(undefined);
          this.#toasts.show('The sheet is kept.');
          this.left.emit();
        },
        error: (problem: ApiProblem) => {
          this.busy.set(false);
          this.problems.set(problem.errors);
          if (problem.status === 409) this.conflict.set(problem.current as CodeSheet);
          else if (!problem.errors.length) this.#toasts.show(problem.title, { problem: true });
        },
      });
  }

  protected takeTheirs(): void {
    const theirs = this.conflict();
    if (theirs) this.draft.set(structuredClone(theirs));
    this.conflict.set(undefined);
    this.left.emit();
  }

  protected leave(): void {
    this.draft.set(structuredClone(this.sheet()));
    this.problems.set([]);
    this.left.emit();
  }
}
