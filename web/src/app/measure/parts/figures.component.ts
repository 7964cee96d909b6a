import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import {
  convert,
  fieldUnit,
  unitsOf,
  type Amount,
  type Field,
  type FieldProblem,
  type Fields,
  type UnitSystem,
} from '@needlecase/core';
import { numberOf } from '../../forms/number-of';
import { SelectComponent } from '../../shared/select.component';
import { HerePipe } from '../../shared/here.pipe';

interface Typed {
  text: string;
  unit: string;
}

let number = 0;

/** The figures that an instrument takes in, each with its unit, and what is wrong beside it. */
@Component({
  selector: 'nc-figures',
  imports: [HerePipe, NgTemplateOutlet, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './figures.component.html',
  styleUrl: './figures.component.scss',
})
export class FiguresComponent {
  readonly fields = input.required<Fields>();
  readonly units = input<UnitSystem>('metric');
  /** What stands there at first, in the dimensions' own units or as amounts. */
  readonly first = input<Readonly<Record<string, Amount>>>({});
  readonly problems = input<readonly FieldProblem[]>([]);
  /** Over what is folded. */
  readonly more = input('More figures');
  readonly given = output<Record<string, Amount>>();

  protected readonly key = `figures-${number++}`;
  readonly #typed = linkedSignal<Readonly<Record<string, Amount>>, Record<string, Typed>>({
    source: () => this.first(),
    computation: (first, before) => {
      const typed: Record<string, Typed> = {};
      for (const [name, field] of Object.entries(this.fields())) {
        const unit = fieldUnit(field, this.units());
        const amount = first[name];
        const was = before?.value[name];
        // What is no number stays as it was typed: its message says why.
        if (amount && !Number.isFinite(amount.value) && was) typed[name] = was;
        else typed[name] = { text: amount ? textOf(amount, field, unit) : '', unit };
      }
      return typed;
    },
  });
  /** Fields that somebody was at: only their problems are told. */
  readonly #touched = linkedSignal({ source: this.fields, computation: () => new Set<string>() });

  readonly #rows = computed(() =>
    Object.entries(this.fields()).map(([name, field]) => ({
      name,
      label: field.label,
      optional: field.optional,
      seldom: field.seldom,
      units: unitsOf(field.dimension),
      ...this.#typed()[name]!,
      wrong: this.#touched().has(name)
        ? this.problems().find((one) => one.field === name)?.message
        : undefined,
    })),
  );
  protected readonly asked = computed(() => this.#rows().filter(({ seldom }) => !seldom));
  /** What most leave as it stands: folded, until something in it is wrong. */
  protected readonly seldom = computed(() => this.#rows().filter(({ seldom }) => seldom));
  protected readonly unfolded = signal(false);
  protected readonly seldomIsWrong = computed(() => this.seldom().some(({ wrong }) => wrong));

  protected type(name: string, text: string): void {
    this.#change(name, { ...this.#typed()[name]!, text });
  }

  protected readonly sayUnit = (unit: string): string => (unit === '1' ? '×1' : unit);

  protected turn(name: string, unit: string): void {
    const { text, unit: was } = this.#typed()[name]!;
    const field: Field = this.fields()[name]!;
    const value = numberOf(text);
    const next = Number.isFinite(value)
      ? String(Number(convert(value, field.dimension, was, unit).toPrecision(6)))
      : text;
    this.#change(name, { text: next, unit });
  }

  protected leave(name: string): void {
    this.#touched.update((names) => new Set([...names, name]));
  }

  #change(name: string, to: Typed): void {
    this.#typed.update((typed) => ({ ...typed, [name]: to }));
    this.given.emit(
      Object.fromEntries(
        Object.entries(this.#typed())
          .filter(([, { text }]) => text.trim() !== '')
          .map(([key, { text, unit }]) => [key, { value: numberOf(text), unit }]),
      ),
    );
    if (to.text.trim() !== '') this.leave(name);
  }
}

const textOf = ({ value, unit }: Amount, { dimension }: Field, shown: string): string =>
  String(Number(convert(value, dimension, unit, shown).toPrecision(4)));
