import type { Detergent } from '../../model/schemas.js';
import {
  MeasureProblem,
  readFields,
  type Fields,
  type Given,
  type Working,
} from '../instrument.js';
import { hardnessClass } from '../water/scale.js';

export const DOSE_FIELDS = {
  load: { label: 'Dry wash', dimension: 'mass', least: 0.3, most: 15 },
  hardness: { label: 'Hardness of the water', dimension: 'hardness', least: 0, most: 1500 },
} as const satisfies Fields;

export const SOILS = ['light', 'normal', 'heavy'] as const;
export type Soil = (typeof SOILS)[number];
export const DOSE_UNITS = ['ml', 'g'] as const;
export type DoseUnit = (typeof DOSE_UNITS)[number];

/** kg that a label's dose is for in the EU: Regulation (EC) 648/2004, annex VII. */
export const LABEL_LOAD = 4.5;

export interface DoseQuestion {
  detergent: Omit<Detergent, 'name'>;
  soil: Soil;
  /** What is poured today. */
  poured?: { value: number; unit: DoseUnit };
  loadsPerWeek: number;
}

/** By soil, over the label's normal. Common practice. */
const BY_SOIL: Record<Soil, number> = { light: 0.75, normal: 1, heavy: 1.4 };
/** High-efficiency rule of practice: two level tablespoons for a usual load, ml. */
export const TWO_SPOONS = 30;
/** How far a dose follows the load: half of it is for the water, half for the wash. Judgement. */
const FOR_THE_WASH = 0.5;
const WEEKS = 52.18;

export interface Dose {
  /** In the detergent's unit. */
  needed: number;
  band: 'soft' | 'medium' | 'hard';
  /** In the same unit, if it was told. */
  poured?: number;
  over?: number;
  /** A year. */
  year?: { over: number; money?: number };
  rule: string;
  working: Working[];
}

/** EU label bands: soft to 1.5 mmol/L, medium to 2.5, hard above; a mmol/L is 100 mg/L CaCO3. */
export const doseBand = (hardness: number): Dose['band'] =>
  hardness <= 150 ? 'soft' : hardness <= 250 ? 'medium' : 'hard';

/** What this load needs, and what is poured over it. @throws MeasureProblem */
export function dose(given: Given<typeof DOSE_FIELDS>, question: DoseQuestion): Dose {
  const { load, hardness } = readFields(given, DOSE_FIELDS);
  const { detergent, soil, poured, loadsPerWeek } = question;
  const problems = wrongIn(question);
  if (problems.length) throw new MeasureProblem(problems);
  const band = doseBand(hardness);
  const share = 1 - FOR_THE_WASH + FOR_THE_WASH * (load / detergent.labelLoad);
  const needed = detergent[band] * BY_SOIL[soil] * share;
  const density = detergent.density ?? 1;
  const told =
    poured === undefined
      ? undefined
      : poured.unit === detergent.unit
        ? poured.value
        : poured.unit === 'ml'
          ? poured.value * density
          : poured.value / density;
  const over = told === undefined ? undefined : told - needed;
  const { pack, price } = detergent;
  const yearly = over === undefined ? undefined : Math.max(0, over) * loadsPerWeek * WEEKS;
  const n = (value: number) => `${Math.round(value)} ${detergent.unit}`;
  return {
    needed,
    band,
    ...(told === undefined ? {} : { poured: told, over: over! }),
    ...(yearly === undefined
      ? {}
      : {
          year: {
            over: yearly,
            ...(pack && price !== undefined ? { money: (yearly / pack) * price } : {}),
          },
        }),
    rule: `In a high-efficiency machine two level tablespoons (${TWO_SPOONS} ml) do for a usual load (rule of practice).`,
    working: [
      {
        what: 'Water',
        how: `${Math.round(hardness)} mg/L CaCO3, ${hardnessClass(hardness)}: the label’s ${band} band, ${n(detergent[band])} for ${detergent.labelLoad} kg`,
      },
      { what: 'Soil', how: `${soil}: × ${BY_SOIL[soil]} (common practice)` },
      {
        what: 'Load',
        how: `${load.toFixed(1)} kg: half of a dose is for the water, half for the wash (judgement), × ${share.toFixed(2)}`,
      },
    ],
  };
}

function wrongIn({ detergent, poured, loadsPerWeek }: DoseQuestion) {
  const problems = [];
  for (const band of ['soft', 'medium', 'hard'] as const) {
    if (!(detergent[band] > 0 && detergent[band] <= 500)) {
      problems.push({ field: `detergent.${band}`, message: 'Give a number above 0, up to 500.' });
    }
  }
  if (!(detergent.labelLoad >= 1 && detergent.labelLoad <= 12)) {
    problems.push({ field: 'detergent.labelLoad', message: 'Give a number from 1 to 12 kg.' });
  }
  if (poured && !(poured.value >= 0 && poured.value <= 1000)) {
    problems.push({ field: 'poured', message: 'Give a number from 0 to 1000.' });
  }
  if (poured && poured.unit !== detergent.unit && detergent.density === undefined) {
    problems.push({
      field: 'detergent.density',
      message: 'What you pour is in the other unit: give the density, g a ml.',
    });
  }
  if (detergent.density !== undefined && !(detergent.density >= 0.2 && detergent.density <= 2)) {
    problems.push({ field: 'detergent.density', message: 'Give a number from 0.2 to 2 g/ml.' });
  }
  if (!(loadsPerWeek >= 0 && loadsPerWeek <= 70)) {
    problems.push({ field: 'loadsPerWeek', message: 'Give a number from 0 to 70.' });
  }
  return problems;
}
