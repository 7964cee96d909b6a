import type { Detergent } from '../../model/schemas.js';
import { ACTIVES, type Active, type DoseUnit } from '../../model/vocabulary.js';
import { convert, sayAmount } from '../../units/quantity.js';
import { figure } from '../../units/wording.js';
import {
  MeasureProblem,
  readFields,
  type Fields,
  type Given,
  type Working,
} from '../input/fields.js';
import { ACTIVE_NAMES, type Forbidden } from '../../chemistry/forbidden.js';
import { ruleOf } from '../../chemistry/guard.js';
import { hardnessClass } from '../water/scale.js';

export const DOSE_FIELDS = {
  load: { label: 'Dry wash', dimension: 'mass', least: 0.3, most: 15 },
  hardness: { label: 'Hardness of the water', dimension: 'hardness', least: 0, most: 1500 },
} as const satisfies Fields;

export const SOILS = ['light', 'normal', 'heavy'] as const;
export type Soil = (typeof SOILS)[number];

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
const TWO_SPOONS = 30;
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
  /** What must never meet what acts in it. */
  apart: Apart[];
  rule: string;
  working: Working[];
}

/** EU label bands: soft to 1.5 mmol/L, medium to 2.5, hard above; a mmol/L is 100 mg/L CaCO3. */
const doseBand = (hardness: number): Dose['band'] =>
  hardness <= 150 ? 'soft' : hardness <= 250 ? 'medium' : 'hard';

/** Something that acts in a detergent, what it must not meet, and what they would make. */
export interface Apart {
  has: string;
  never: string;
  rule: Forbidden;
}

/** What nobody knows is taken for the worst it could be. */
function apartFrom(actives: readonly Active[]): Apart[] {
  const known = ACTIVES.filter((one) => one !== 'unknown');
  return actives.flatMap((has) =>
    known.flatMap((never) => {
      const rule = ruleOf(has, never);
      return rule ? [{ has: ACTIVE_NAMES[has], never: ACTIVE_NAMES[never], rule }] : [];
    }),
  );
}

const kindOf = (unit: DoseUnit): 'volume' | 'mass' =>
  unit === 'ml' || unit === 'fl oz' ? 'volume' : 'mass';

/** An amount in another unit, weighed or measured. @param density g/ml */
function inUnit(amount: { value: number; unit: DoseUnit }, unit: DoseUnit, density = 1): number {
  const [from, to] = [kindOf(amount.unit), kindOf(unit)];
  if (from === to) return convert(amount.value, from, amount.unit, unit);
  return from === 'volume'
    ? convert(convert(amount.value, 'volume', amount.unit, 'ml') * density, 'mass', 'g', unit)
    : convert(convert(amount.value, 'mass', amount.unit, 'g') / density, 'volume', 'ml', unit);
}

/** What this load needs, and what is poured over it. @throws MeasureProblem */
export function dose(given: Given<typeof DOSE_FIELDS>, question: DoseQuestion): Dose {
  const { load, hardness } = readFields(given, DOSE_FIELDS);
  const { detergent, soil, poured, loadsPerWeek } = question;
  const problems = wrongIn(question);
  if (problems.length) throw new MeasureProblem(problems);
  const band = doseBand(hardness);
  const share = 1 - FOR_THE_WASH + FOR_THE_WASH * (load / detergent.labelLoad);
  const needed = detergent[band] * BY_SOIL[soil] * share;
  const told = poured && inUnit(poured, detergent.unit, detergent.density);
  const over = told === undefined ? undefined : told - needed;
  const { pack, price } = detergent;
  const yearly = over === undefined ? undefined : Math.max(0, over) * loadsPerWeek * WEEKS;
  const n = (value: number) => sayAmount(value, detergent.unit, 2);
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
    apart: apartFrom(detergent.actives ?? []),
    rule: `Follow the label’s ${n(needed)}: it knows this detergent’s strength. Two level tablespoons (${TWO_SPOONS} ml, 1 fl oz) are a rule of practice for high-efficiency machines: go down towards them only while the laundry comes out clean, and as soon as foam is left at the glass.`,
    working: [
      {
        what: 'Water',
        how: `${figure(hardness, 'hardness')}, ${hardnessClass(hardness)}: the label’s ${band} band, ${n(detergent[band])} for ${figure(detergent.labelLoad, 'mass')}`,
      },
      { what: 'Soil', how: `${soil}: × ${BY_SOIL[soil]} (common practice)` },
      {
        what: 'Load',
        how: `${figure(load, 'mass')}: half of a dose is for the water, half for the laundry (judgement), × ${share.toFixed(2)}`,
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
  if (poured && kindOf(poured.unit) !== kindOf(detergent.unit) && detergent.density === undefined) {
    problems.push({
      field: 'detergent.density',
      message: 'One is weighed, the other measured by the cup: give the density, g a ml.',
    });
  }
  if (detergent.density !== undefined && !(detergent.density >= 0.2 && detergent.density <= 2)) {
    problems.push({ field: 'detergent.density', message: 'Give a number from 0.2 to 2 g/ml.' });
  }
  const { pack, price } = detergent;
  if (pack !== undefined && !(pack > 0 && pack <= 100_000)) {
    problems.push({ field: 'detergent.pack', message: 'Give a number above 0, up to 100000.' });
  }
  if (price !== undefined && !(price >= 0 && price <= 100_000)) {
    problems.push({ field: 'detergent.price', message: 'Give a number from 0 to 100000.' });
  }
  if (!(loadsPerWeek >= 0 && loadsPerWeek <= 70)) {
    problems.push({ field: 'loadsPerWeek', message: 'Give a number from 0 to 70.' });
  }
  return problems;
}
