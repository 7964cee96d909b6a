import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  check,
  checkSheet,
  sheetFits,
  type CodeSheet,
  type CodeSheetDraft,
  type FieldProblem,
} from '@needlecase/core';
import { firstValueFrom } from 'rxjs';
import type { ApiProblem } from '../data/api.service';
import { asFile, CodeSheetsService } from '../data/code-sheets.service';
import { HouseholdService } from '../data/household.service';
import { newId } from '../data/platform';
import { ToastsService } from '../data/toasts.service';
import { CodeCompareComponent } from './code-compare.component';
import { CodeTableComponent } from './code-table.component';
import { HouseNavComponent } from './house-nav.component';
import { KeeperDirective } from '../shared/keeper.directive';

const MOST_BYTES = 500_000;

/** Code sheets: what the makers' displays mean, typed in, imported, exported. */
@Component({
  selector: 'nc-codes',
  imports: [KeeperDirective, CodeCompareComponent, CodeTableComponent, HouseNavComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './codes.component.html',
  styleUrl: './codes.component.scss',
})
export class CodesComponent {
  readonly #service = inject(CodeSheetsService);
  readonly #toasts = inject(ToastsService);
  protected readonly sheets = toSignal(this.#service.all$);
  readonly #machines = toSignal(inject(HouseholdService).machines(), { initialValue: [] });

  protected readonly changing = signal<string | undefined>(undefined);
  protected readonly wrong = signal<readonly FieldProblem[]>([]);
  protected readonly fileName = signal('');
  /** Another edition that is looked at beside one that is here. */
  protected readonly beside = signal<
    { id: string; other: CodeSheetDraft; name: string } | undefined
  >(undefined);
  /** Machines that have a maker, but no sheet. */
  protected readonly without = computed(() =>
    this.#machines().filter(
      (machine) => machine.maker && !this.sheets()?.some((sheet) => sheetFits(sheet, machine)),
    ),
  );

  protected usedBy(sheet: CodeSheet): string {
    const names = this.#machines()
      .filter((machine) => sheetFits(sheet, machine))
      .map(({ name }) => name);
    return names.length
      ? `used by ${names.join(' and ')}`
      : 'used by no machine: no maker’s name fits';
  }

  protected export(sheet: CodeSheet): void {
    const address = URL.createObjectURL(new Blob([asFile(sheet)], { type: 'application/json' }));
    const link = document.createElement('a');
    link.href = address;
    link.download = `${sheet.maker}-${sheet.family}.codes.json`
      .toLowerCase()
      .replaceAll(/[^\p{L}\p{N}.]+/gu, '-');
    link.click();
    URL.revokeObjectURL(address);
  }

  protected async import(field: HTMLInputElement, against?: CodeSheet): Promise<void> {
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    this.fileName.set(file.name);
    if (file.size > MOST_BYTES) {
      this.wrong.set([
        { field: '', message: 'This file is larger than 500 kB: no code sheet is.' },
      ]);
      return;
    }
    const draft = parsed(await file.text());
    if (draft === undefined) {
      this.wrong.set([{ field: '', message: 'This is not JSON that can be read.' }]);
      return;
    }
    const problems = check('CodeSheetDraft', draft);
    this.wrong.set(problems.length ? problems : checkSheet(draft as CodeSheetDraft));
    if (this.wrong().length) return;
    const other = draft as CodeSheetDraft;
    // Which sheets there are may still be on its way.
    const sheets = await firstValueFrom(this.#service.all$);
    const own = against ?? sheets.find((one) => isEditionOf(one, other));
    // Another edition of one that is here is looked at beside it.
    if (own) return this.beside.set({ id: own.id, other, name: file.name });
    this.#add(other, `The sheet of ${other.maker} is in.`);
  }

  protected begin(maker = ''): void {
    const machine = this.#machines().find((one) => one.maker === maker);
    this.#add(
      {
        format: 'needlecase-code-sheet-1',
        maker: maker || 'Maker',
        family: `Own table ${(this.sheets()?.length ?? 0) + 1}`,
        kinds: [machine?.kind ?? 'front-load-washer'],
        rows: [],
      },
      'A new sheet is begun.',
      true,
    );
  }

  protected remove(sheet: CodeSheet): void {
    this.#service.remove(sheet).subscribe({
      next: () => {
        const { id: _id, version: _version, ...draft } = sheet;
        this.#toasts.show(`The sheet ${sheet.maker} ${sheet.family} is taken away.`, {
          action: { label: 'Undo', do: () => this.#add(draft, 'The sheet is back.') },
        });
      },
      error: (problem: ApiProblem) => this.#toasts.show(problem.title, { problem: true }),
    });
  }

  #add(draft: CodeSheetDraft, said: string, change = false): void {
    this.#service.add(draft, newId()).subscribe({
      next: ({ id }) => {
        this.wrong.set([]);
        this.#toasts.show(said);
        if (change) this.changing.set(id);
      },
      error: (problem: ApiProblem) =>
        this.wrong.set(
          problem.errors.length ? problem.errors : [{ field: '', message: problem.title }],
        ),
    });
  }
}

const isEditionOf = (one: CodeSheetDraft, other: CodeSheetDraft): boolean =>
  nameOf(one) === nameOf(other);
const nameOf = ({ maker, family }: CodeSheetDraft): string =>
  `${maker} ${family}`.trim().toLowerCase();

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
