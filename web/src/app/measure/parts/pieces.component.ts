import {
  CdkDrag,
  CdkDragHandle,
  CdkDropList,
  moveItemInArray,
  type CdkDragDrop,
} from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import {
  convert,
  DIRECTIONS,
  ELBOW_ANGLES,
  ELBOW_RADII,
  fieldUnit,
  HOOD_STATES,
  NARROW_WIDTH,
  PIECE_LENGTH,
  type Amount,
  type FieldProblem,
  type UnitSystem,
  type VentPiece,
  type VentRunInput,
} from '@needlecase/core';
import { numberOf } from '../../forms/number-of';
import { SelectComponent } from '../../shared/select.component';

export type Given = VentRunInput['pieces'][number];
/** A piece with a key of its own, so that its fields keep the focus while it is changed and moved. */
export interface Row {
  key: number;
  piece: Given;
}

/** As fine as anybody measures: whole millimetres, tenths of a foot. */
const DIGITS: Readonly<Record<string, number>> = { mm: 0, cm: 1, m: 2, ft: 1, in: 2 };

let key = 0;
export const rowOf = (piece: Given): Row => ({ key: key++, piece });

const M = (value: number): Amount => ({ value, unit: 'm' });
const NEW: Record<Given['is'], Given> = {
  screen: { is: 'screen', blocked: { value: 20, unit: '%' } },
  hose: { is: 'hose', length: M(1.5), stretched: true },
  straight: { is: 'straight', length: M(1), direction: 'level' },
  elbow: { is: 'elbow', angle: 90, radius: '4-in' },
  narrow: { is: 'narrow', diameter: { value: 80, unit: 'mm' } },
  hood: { is: 'hood', state: 'free', screened: false },
};
export const PIECE_NAMES: Record<Given['is'], string> = {
  screen: 'Lint screen',
  hose: 'Hose',
  straight: 'Straight duct',
  elbow: 'Elbow',
  narrow: 'Narrow place',
  hood: 'Hood',
};

/** A radius as it is sold where people measure in millimetres. */
const METRIC_RADIUS: Record<string, string> = {
  '4-in': '100 mm',
  '6-in': '150 mm',
  '8-in': '200 mm',
  '10-in': '250 mm',
};
/** A bend in a person’s words: `90°, mitred`, `90°, 150 mm radius`. */
export const sayBendOf = (
  { angle, radius }: Pick<Elbow, 'angle' | 'radius'>,
  units: UnitSystem,
): string =>
  radius === 'mitered'
    ? `${angle}°, ${units === 'us' ? 'mitered' : 'mitred'}`
    : `${angle}°, ${units === 'us' ? radius : METRIC_RADIUS[radius]} radius`;

/** Every bend, by a name of its own. */
const BENDS = [...ELBOW_ANGLES]
  .reverse()
  .flatMap((angle) => ELBOW_RADII.map((radius) => ({ name: `${angle}/${radius}`, angle, radius })));
const bendNamed = (name: string) => BENDS.find((one) => one.name === name)!;
type Elbow = Extract<Given, { is: 'elbow' }>;

/** The pieces of a vent run in the order of the air: added, dragged to their place, changed, taken away. */
@Component({
  selector: 'nc-pieces',
  imports: [CdkDrag, CdkDragHandle, CdkDropList, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './pieces.component.html',
  styleUrls: ['../instruments/instruments.scss', './pieces.component.scss'],
})
export class PiecesComponent {
  readonly rows = model.required<readonly Row[]>();
  readonly problems = input<readonly FieldProblem[]>([]);
  readonly units = input<UnitSystem>('metric');

  protected readonly directions = DIRECTIONS;
  protected readonly hangings = ['stretched', 'in folds'] as const;
  protected readonly bends = BENDS.map(({ name }) => name);
  protected readonly sayBend = computed(
    () =>
      (name: string): string =>
        sayBendOf(bendNamed(name), this.units()),
  );
  /** The row that was chosen on the drawing. */
  readonly chosen = input<number>();
  protected readonly bendOf = ({ angle, radius }: Elbow): string => `${angle}/${radius}`;
  protected readonly hoodStates = HOOD_STATES;
  protected readonly names = PIECE_NAMES;
  protected readonly kinds = Object.keys(NEW) as Given['is'][];

  protected unit(which: 'length' | 'narrow'): string {
    return fieldUnit(which === 'length' ? PIECE_LENGTH : NARROW_WIDTH, this.units());
  }

  /** The figure of a piece in the unit that is shown. */
  protected shown(amount: Amount | undefined, which: 'length' | 'narrow'): string {
    if (!amount) return '';
    if (!Number.isFinite(amount.value)) return '';
    const unit = this.unit(which);
    const digits = DIGITS[unit] ?? 2;
    return String(Number(convert(amount.value, 'length', amount.unit, unit).toFixed(digits)));
  }

  protected wrong(at: number): string {
    return this.problems().find(({ field }) => field.startsWith(`pieces.${at}.`))?.message ?? '';
  }

  protected add(is: Given['is']): void {
    const row = rowOf(NEW[is]);
    // What is added goes before the hood, which is last; the screen is the first.
    this.rows.update((rows) => {
      const last = rows.at(-1);
      if (is === 'screen') return [row, ...rows];
      return last?.piece.is === 'hood' && is !== 'hood'
        ? [...rows.slice(0, -1), row, last]
        : [...rows, row];
    });
  }

  protected drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    this.rows.update((rows) => {
      const next = [...rows];
      moveItemInArray(next, previousIndex, currentIndex);
      return next;
    });
  }

  protected move(at: number, by: -1 | 1): void {
    this.rows.update((rows) => {
      const next = [...rows];
      moveItemInArray(next, at, at + by);
      return next;
    });
  }

  protected remove(at: number): void {
    this.rows.update((rows) => rows.filter((_, i) => i !== at));
  }

  protected change(
    at: number,
    piece: Partial<VentPiece> | { length: Amount } | { diameter: Amount } | { blocked: Amount },
  ): void {
    this.rows.update((rows) =>
      rows.map((row, i) =>
        i === at ? { ...row, piece: { ...row.piece, ...piece } as Given } : row,
      ),
    );
  }

  protected measure(at: number, text: string, which: 'length' | 'narrow'): void {
    const amount = { value: numberOf(text), unit: this.unit(which) };
    this.change(at, which === 'length' ? { length: amount } : { diameter: amount });
  }

  protected block(at: number, text: string): void {
    this.change(at, { blocked: { value: numberOf(text), unit: '%' } });
  }

  protected turn(at: number, name: string): void {
    const { angle, radius } = bendNamed(name);
    this.change(at, { angle, radius });
  }
}
