import {
  MeasureProblem,
  readFields,
  type Fields,
  type Given,
  type Working,
} from '../input/fields.js';
import { figure, type Shown } from '../../units/wording.js';
import { MOLAR, MOLAR_VOLUME, SODA_DENSITY } from '../../chemistry/moles.js';

const SPOONED: Shown = { metric: 'ml', us: 'fl oz' };

export const VINEGAR_SODA_FIELDS = {
  vinegar: { label: 'Vinegar', dimension: 'volume', least: 0, most: 0.01, metric: 'ml', us: 'cup' },
  /** g/ml of acetic acid: 5 % vinegar is 0.05. */
  strength: { label: 'Its strength', dimension: 'ratio', least: 0.01, most: 0.3 },
  soda: {
    label: 'Baking soda',
    dimension: 'volume',
    least: 0,
    most: 0.01,
    metric: 'ml',
    us: 'cup',
  },
} as const satisfies Fields;

export interface VinegarSoda {
  /** mol of each before. */
  moles: { acid: number; soda: number };
  /** What is left, and what came of it: g; gas in L at 25 °C. */
  left: { acid: number; soda: number };
  made: { acetate: number; water: number; gas: number; gasLitres: number };
  /** g of scale that what is left of the acid dissolves, and that the vinegar alone would have. */
  dissolves: number;
  alone: number;
  say: string;
  working: Working[];
}

/**
 * What vinegar and baking soda do to each other: CH3COOH + NaHCO3 -> CH3COONa + H2O + CO2, until one of
 * them is spent. @throws MeasureProblem
 */
export function vinegarAndSoda(given: Given<typeof VINEGAR_SODA_FIELDS>): VinegarSoda {
  const { vinegar, strength, soda } = readFields(given, VINEGAR_SODA_FIELDS);
  if (vinegar === 0 && soda === 0) {
    throw new MeasureProblem([
      { field: 'vinegar', message: 'Give some vinegar, or some baking soda.' },
    ]);
  }
  const acidGrams = vinegar * 1e6 * strength;
  const sodaGrams = soda * 1e6 * SODA_DENSITY;
  const moles = { acid: acidGrams / MOLAR.acetic, soda: sodaGrams / MOLAR.bicarbonate };
  const react = Math.min(moles.acid, moles.soda);
  const left = {
    acid: (moles.acid - react) * MOLAR.acetic,
    soda: (moles.soda - react) * MOLAR.bicarbonate,
  };
  const scaleOf = (acid: number) => (acid / 2) * MOLAR.carbonate;
  const made = {
    acetate: react * MOLAR.sodiumAcetate,
    water: react * MOLAR.water,
    gas: react * MOLAR.carbonDioxide,
    gasLitres: react * MOLAR_VOLUME,
  };
  const dissolves = scaleOf(moles.acid - react);
  const alone = scaleOf(moles.acid);
  return {
    moles,
    left,
    made,
    dissolves,
    alone,
    say:
      react === 0
        ? 'Alone, nothing reacts.'
        : left.acid > 0
          ? `They spend each other: the baking soda is gone, and of the vinegar’s power over scale ${Math.round((100 * dissolves) / alone)} % is left.`
          : 'They spend each other: the acid is gone, and what is left has no power over scale. Use one after the other, with a rinse between.',
    working: [
      {
        what: 'Acid',
        how: `${figure(vinegar, 'volume', SPOONED)} at ${Math.round(1000 * strength)} g/L: ${acidGrams.toFixed(1)} g, ${moles.acid.toFixed(3)} mol`,
      },
      {
        what: 'Soda',
        how: `${figure(soda, 'volume', SPOONED)} at ${SODA_DENSITY} g/ml: ${sodaGrams.toFixed(0)} g, ${moles.soda.toFixed(2)} mol`,
      },
      {
        what: 'They react one to one',
        how: `${react.toFixed(3)} mol: ${figure(made.gasLitres / 1000, 'volume')} of carbon dioxide, ${made.acetate.toFixed(1)} g of sodium acetate`,
      },
      { what: 'Scale', how: 'two of acetic acid dissolve one of calcium carbonate' },
    ],
  };
}
