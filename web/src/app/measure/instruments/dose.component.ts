import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  linkedSignal,
  signal,
} from '@angular/core';
import {
  convert,
  DOSE_FIELDS,
  DOSE_UNITS,
  dose,
  LABEL_LOAD,
  sayAmount,
  SOILS,
  type Amount,
  type Detergent,
  type DoseUnit,
  type Soil,
} from '@needlecase/core';
import { sameData } from '../../data/same-data';
import { numberOf } from '../../forms/number-of';
import { ReadableDirective } from '../../charts/readable.directive';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { LabelComponent } from '../parts/label.component';
import { Measuring } from '../parts/measuring';
import { Told } from '../parts/told';
import { StripClassesComponent } from '../parts/strip-classes.component';
import { SelectComponent } from '../../shared/select.component';

/** What many liquids' labels say, until a label is read. */
const USUAL: Detergent = {
  name: '',
  unit: 'ml',
  soft: 55,
  medium: 75,
  hard: 95,
  labelLoad: LABEL_LOAD,
};
/** What a lot of it is told in. */
const LOTS: Record<DoseUnit, { from: number; unit: string; dimension: 'volume' | 'mass' }> = {
  ml: { from: 1000, unit: 'L', dimension: 'volume' },
  'fl oz': { from: 128, unit: 'gal', dimension: 'volume' },
  g: { from: 1000, unit: 'kg', dimension: 'mass' },
  oz: { from: 16, unit: 'lb', dimension: 'mass' },
};

/** What this load needs, and what is poured over it. */
@Component({
  selector: 'nc-dose',
  imports: [
    ReadableDirective,
    FiguresComponent,
    InstrumentComponent,
    LabelComponent,
    StripClassesComponent,
    SelectComponent,
  ],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './dose.component.html',
  styleUrl: './instruments.scss',
})
export default class DoseComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields = DOSE_FIELDS;
  protected readonly soils = SOILS;
  protected readonly units = DOSE_UNITS;
  readonly #hardness = computed(() => this.measuring.bench()?.household.hardness);
  readonly #told = new Told(() => {
    const hardness = this.#hardness();
    return {
      ...this.measuring.example({ load: { value: 4, unit: 'kg' } }, DOSE_FIELDS),
      ...(hardness === undefined ? {} : { hardness: { value: hardness, unit: 'mg/L' } }),
    };
  });
  protected readonly first = this.#told.first;
  protected readonly given = this.#told.given;
  protected readonly soil = signal<Soil>('normal');
  protected readonly poured = signal('');

  /** The detergents in the house. */
  protected readonly kept = computed(() => this.measuring.bench()?.household.detergents ?? [], {
    equal: sameData,
  });
  /** Which of them; none where another one's label is read. */
  protected readonly at = linkedSignal<readonly Detergent[], number | undefined>({
    source: this.kept,
    computation: (kept, before) => {
      const first = kept.length ? 0 : undefined;
      if (before?.value !== undefined) return before.value < kept.length ? before.value : first;
      return before?.source.length ? undefined : first;
    },
  });
  protected readonly detergent = linkedSignal<Detergent>(
    () => this.kept()[this.at() ?? -1] ?? USUAL,
  );
  readonly #unit = computed(() => this.detergent().unit);
  protected readonly pouredUnit = linkedSignal<DoseUnit>(() => this.#unit());
  protected readonly nameProblem = signal('');
  protected readonly result = computed(() => {
    const { name: _name, ...detergent } = this.detergent();
    const poured = this.poured().trim();
    return this.measuring.attempt(() =>
      dose(this.given(), {
        detergent,
        soil: this.soil(),
        loadsPerWeek: this.measuring.machine()?.loadsPerWeek ?? 4,
        ...(poured ? { poured: { value: numberOf(poured), unit: this.pouredUnit() } } : {}),
      }),
    );
  });
  protected readonly labelIsWrong = computed(() =>
    this.result().problems.some(({ field }) => field.startsWith('detergent.')),
  );
  protected readonly currency = computed(() => this.measuring.bench()?.household.currency ?? '');
  protected readonly cups = computed(() => {
    const r = this.result().value;
    if (!r) return [{ name: 'needed', x: 60, level: 0 }];
    const most = Math.max(r.needed, r.poured ?? 0, 0.01) * 1.1;
    const cup = (name: string, x: number, amount: number) => ({
      name,
      x,
      level: (150 * amount) / most,
    });
    return [
      cup('needed', 60, r.needed),
      ...(r.poured === undefined ? [] : [cup('poured', 260, r.poured)]),
    ];
  });

  protected wrong(field: string): string {
    return this.result().problems.find((one) => one.field === field)?.message ?? '';
  }

  protected amount(value: number): string {
    return sayAmount(value, this.detergent().unit, 2);
  }

  /** Litres, kilograms, gallons or pounds where it is a lot. */
  protected big(value: number): string {
    const { from, unit, dimension } = LOTS[this.detergent().unit];
    return value < from
      ? this.amount(value)
      : sayAmount(convert(value, dimension, this.detergent().unit, unit), unit, 2);
  }

  protected strip(hardness: Amount): void {
    this.#told.tell({ hardness });
  }

  protected keep(): void {
    const { name } = this.detergent();
    const at = this.at();
    const taken = this.kept().some((one, i) => one.name === name && i !== at);
    this.nameProblem.set(
      name === '' ? 'Give it a name.' : taken ? `There is a “${name}” already.` : '',
    );
    if (this.nameProblem()) return;
    const detergents =
      at === undefined
        ? [...this.kept(), this.detergent()]
        : this.kept().map((one, i) => (i === at ? this.detergent() : one));
    this.measuring.keepForHouse({ detergents }, `“${name}” is kept for the house.`, () =>
      this.at.set(at ?? detergents.length - 1),
    );
  }

  protected takeAway(): void {
    const before = this.kept();
    const gone = before[this.at() ?? -1];
    if (!gone) return;
    this.measuring.keepForHouse(
      { detergents: before.filter((one) => one !== gone) },
      `“${gone.name}” is taken away.`,
      undefined,
      () => ({ detergents: [...this.kept(), gone] }),
    );
  }
}
