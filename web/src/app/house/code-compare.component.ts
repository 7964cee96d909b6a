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
import {
  codeClassById,
  many,
  stationById,
  type CodeRow,
  type CodeSheet,
  type CodeSheetDraft,
} from '@needlecase/core';
import {
  compareEditions,
  withTaken,
  type EditionDifference,
} from '@needlecase/core/trouble/codes/editions';
import type { ApiProblem } from '../data/api.service';
import { CodeSheetsService } from '../data/code-sheets.service';
import { ToastsService } from '../data/toasts.service';

const WORDS = { new: 'only in the file', gone: 'only in yours', other: 'differs' } as const;

/** Our sheet of codes beside another edition of it: what differs, row by row, and what of it is taken over. */
@Component({
  selector: 'nc-code-compare',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>{{ sheet().maker }} {{ sheet().family }}: yours beside {{ name() }}</h3>
    @if (rows().length) {
      <p>{{ said() }} Mark what you take over; the rest of yours stays as it is.</p>
      <div class="wide" tabindex="0" role="region" aria-label="What differs, a table to scroll">
        <table>
          <thead>
            <tr>
              <th scope="col">Take over</th>
              <th scope="col">Shows</th>
              <th scope="col">How</th>
              <th scope="col">Yours</th>
              <th scope="col">In the file</th>
            </tr>
          </thead>
          <tbody>
            @for (row of rows(); track row.difference) {
              <tr>
                <td>
                  <label class="taken">
                    <input
                      #box
                      type="checkbox"
                      [checked]="taken().has(row.difference)"
                      (change)="mark(row.difference, box.checked)"
                    />
                    <span class="visually-hidden">Take over {{ row.difference.shows }}</span>
                  </label>
                </td>
                <th scope="row">{{ row.difference.shows }}</th>
                <td class="soft">{{ row.is }}</td>
                <td>{{ row.ours }}</td>
                <td>{{ row.theirs }}</td>
              </tr>
            }
          </tbody>
        </table>
      </div>
      @if (wrong(); as words) {
        <p class="field-problem" role="alert">{{ words }}</p>
      }
      <button type="button" class="btn btn-thread" [disabled]="!taken().size" (click)="take()">
        Take {{ many(taken().size, 'row') }} over
      </button>
    } @else {
      <p>They say the same, code by code.</p>
    }
    <button type="button" class="btn btn-plain" (click)="left.emit()">
      {{ rows().length ? 'Leave mine as it is' : 'Close' }}
    </button>
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      @include panel;
    }
    .wide {
      margin-bottom: 0.6rem;
      overflow-x: auto;
    }
    table {
      border-collapse: collapse;
      min-width: 40rem;
    }
    th,
    td {
      @include seam(bottom, 1px);
      padding: 0.3rem 1rem 0.3rem 0;
      text-align: start;
      vertical-align: top;
    }
    th[scope='row'] {
      white-space: nowrap;
    }
    .taken {
      align-content: center;
      display: block;
      min-height: 44px;
      min-width: 44px;

      input {
        height: 1.5rem;
        accent-color: var(--water);
        width: 1.5rem;
      }
    }
    .btn {
      @include touch;
      margin-right: 0.5rem;
    }
  `,
})
export class CodeCompareComponent {
  readonly #service = inject(CodeSheetsService);
  readonly #toasts = inject(ToastsService);

  readonly sheet = input.required<CodeSheet>();
  readonly other = input.required<CodeSheetDraft>();
  /** What the other one is called. */
  readonly name = input.required<string>();
  readonly left = output<void>();

  readonly #differences = computed(() => compareEditions(this.sheet(), this.other()));
  /** What is new or differs is taken over, until somebody says otherwise; nothing of ours goes by itself. */
  protected readonly taken = linkedSignal(
    () => new Set(this.#differences().filter(({ is }) => is !== 'gone')),
  );
  protected readonly wrong = signal('');
  protected readonly many = many;
  protected readonly rows = computed(() =>
    this.#differences().map((difference) => {
      const { is, ours, theirs, fields } = difference;
      const told = (row: CodeRow | undefined) =>
        row ? sayRow(row, is === 'other' ? fields : ALL) : '';
      return { difference, is: WORDS[is], ours: told(ours), theirs: told(theirs) };
    }),
  );
  protected readonly said = computed(() => {
    const count = (is: EditionDifference['is']) =>
      this.#differences().filter((one) => one.is === is).length;
    return `${many(count('new'), 'code')} only in the file, ${many(count('gone'), 'code')} only in yours, ${count('other')} ${count('other') === 1 ? 'differs' : 'differ'}.`;
  });

  protected mark(difference: EditionDifference, on: boolean): void {
    const taken = new Set(this.taken());
    if (on) taken.add(difference);
    else taken.delete(difference);
    this.taken.set(taken);
  }

  protected take(): void {
    const before = this.sheet();
    const { rows, lamps } = withTaken(before, this.other(), [...this.taken()]);
    this.#service.change(before, { rows, ...(lamps ? { lamps } : {}) }).subscribe({
      next: (stored) => {
        this.#toasts.show(`${stored.maker} ${stored.family}: taken over.`, {
          action: { label: 'Undo', do: () => this.#putBack(stored, before) },
        });
        this.left.emit();
      },
      error: ({ errors: [first], title, detail }: ApiProblem) =>
        this.wrong.set(first?.message ?? `${title} ${detail}`),
    });
  }

  #putBack(stored: CodeSheet, { rows, lamps }: CodeSheet): void {
    this.#service.change(stored, { rows, lamps: lamps ?? [] }).subscribe({
      next: () => this.#toasts.show('The sheet is as it was.'),
      error: ({ title, detail }: ApiProblem) =>
        this.#toasts.show(`${title} ${detail}`, { problem: true }),
    });
  }
}

const ALL: readonly (keyof CodeRow)[] = ['says', 'class', 'stations', 'clears', 'strength'];

/** The fields of a row that are told, in words. */
function sayRow(row: CodeRow, fields: readonly (keyof CodeRow)[]): string {
  const whole = fields === ALL;
  const told: Partial<Record<keyof CodeRow, string | undefined>> = {
    says: row.says,
    class: `about ${codeClassById(row.class).say.split(':')[0]!}`,
    stations: row.stations?.map((id) => stationById(id).name.toLowerCase()).join(', '),
    clears: row.clears && `cleared by: ${row.clears}`,
    strength: row.strength,
  };
  return fields
    .flatMap((field) => told[field] ?? (whole ? [] : `no ${FIELD_WORDS[field] ?? field}`))
    .join('; ');
}
const FIELD_WORDS: Partial<Record<keyof CodeRow, string>> = {
  stations: 'place named',
  clears: 'word of what clears it',
  strength: 'strength named',
};
