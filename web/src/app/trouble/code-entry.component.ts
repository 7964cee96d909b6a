import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  CODE_CLASS_LIST,
  readCode,
  readLamps,
  REMINDER_SAID,
  sayLamps,
  seenOf,
  sheetFits,
  type CodeClass,
  type CodeMatch,
  type CodeSeen,
  type CodeSheet,
  type Machine,
} from '@needlecase/core';
import { FLASHING } from '../shared/flashing';
import { SelectComponent } from '../shared/select.component';

/** What the display says: a code, or lamps; looked up on the sheets, or picked by what it is about. */
@Component({
  selector: 'nc-code-entry',
  imports: [RouterLink, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './code-entry.component.html',
  styleUrl: './code-entry.component.scss',
})
export class CodeEntryComponent {
  readonly machine = input.required<Machine>();
  readonly sheets = input.required<readonly CodeSheet[]>();
  /** Typed elsewhere already. */
  readonly first = input('');
  readonly seen = output<CodeSeen>();
  /** A code of no sheet that was given a class: it can be added to one. */
  readonly add = output<{ sheet: CodeSheet; code: string; class: CodeClass }>();

  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');

  constructor() {
    // Opened to be typed in.
    afterNextRender(() => this.field().nativeElement.focus());
  }

  protected readonly classes = CODE_CLASS_LIST;
  protected readonly reminderSaid = REMINDER_SAID;
  protected readonly typed = linkedSignal(() => this.first());
  protected readonly lit = signal<readonly string[]>([]);
  protected readonly flashing = FLASHING;
  protected readonly sayFlashes = (n: number): string =>
    n === 0 ? 'not: they stay on' : `${n} ${n === 1 ? 'time' : 'times'}`;
  protected readonly flashes = signal(0);
  protected readonly asked = signal(false);
  protected readonly reminded = signal(false);

  protected readonly fitting = computed(() =>
    this.sheets().filter((sheet) => sheetFits(sheet, this.machine())),
  );
  protected readonly lamps = computed(() => [
    ...new Set(this.fitting().flatMap(({ lamps = [] }) => lamps)),
  ]);
  protected readonly reading = computed(() =>
    this.typed().trim() ? readCode(this.typed(), this.sheets(), this.machine()) : undefined,
  );
  /** Rows that what was entered may mean. */
  protected readonly matches = computed<CodeMatch[]>(() => {
    const reading = this.reading();
    if (reading?.is === 'found') return [reading.match, ...reading.others];
    if (reading?.is === 'several') return reading.matches;
    if (this.lit().length === 0) return [];
    return readLamps(
      { lamps: [...this.lit()], flashes: this.flashes() },
      this.sheets(),
      this.machine(),
    );
  });
  protected readonly said = computed(() => {
    const reading = this.reading();
    if (reading) return reading.say;
    if (this.lit().length === 0) return '';
    const words = sayLamps({ lamps: [...this.lit()], flashes: this.flashes() });
    return this.matches().length ? `${words}.` : `${words}: no sheet of this machine has that.`;
  });
  /** Whether what it is about has to be picked. */
  protected readonly picking = computed(() => {
    const is = this.reading()?.is;
    if (is === 'unreadable') return false;
    if (is) return is === 'unknown' || is === 'elsewhere';
    return this.lit().length > 0 && this.matches().length === 0;
  });

  protected nameOf({ row }: CodeMatch): string {
    return row.code ?? sayLamps(row.pattern!);
  }

  protected turn(lamp: string): void {
    this.typed.set('');
    this.lit.update((lit) =>
      lit.includes(lamp) ? lit.filter((one) => one !== lamp) : [...lit, lamp],
    );
  }

  protected type(words: string): void {
    this.reminded.set(false);
    this.lit.set([]);
    this.typed.set(words);
  }

  protected take(match: CodeMatch): void {
    this.#told(seenOf(match.row));
  }

  protected pick(about: CodeClass): void {
    const typed = this.typed().trim();
    const code = typed || sayLamps({ lamps: [...this.lit()], flashes: this.flashes() });
    this.#told({ class: about, listed: false, code });
    const [sheet] = this.fitting();
    if (sheet && typed && typed.length <= 12) this.add.emit({ sheet, code: typed, class: about });
  }

  #told(code: CodeSeen): void {
    this.reminded.set(code.class === 'reminder');
    if (code.class === 'reminder') return;
    this.typed.set('');
    this.lit.set([]);
    this.seen.emit(code);
  }
}
