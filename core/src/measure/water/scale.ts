import { readFields, type Fields, type Given, type Working } from '../input/fields.js';
import { figure } from '../../units/wording.js';
import { MOLAR, scaleDissolved } from '../../chemistry/moles.js';

export const SCALE_FIELDS = {
  hardness: { label: 'Hardness of the water', dimension: 'hardness', least: 0, most: 1500 },
  litres: {
    label: 'Heated water since the last descaling',
    dimension: 'volume',
    least: 0,
    most: 200,
  },
  litresADay: {
    label: 'Heated water a day',
    dimension: 'volume',
    least: 0,
    most: 5,
    optional: true,
  },
} as const satisfies Fields;

export const WASH_TEMPERATURES = [40, 60, 90] as const;
export type WashTemperature = (typeof WASH_TEMPERATURES)[number];
/** Share of the hardness that falls out at a temperature. Judgement. */
export const FALLS_OUT: Record<WashTemperature, number> = { 40: 0.05, 60: 0.15, 90: 0.35 };
/** g of citric acid in a dose. */
export const CITRIC_DOSE = 100;
/**
 * Litres that a load heats: scale comes only of heated water, and the rinses are cold. A front loader heats
 * some 12 to 20. Common practice.
 */
export const HEATED_LITRES = 16;

/** From here on water is hard, and from here very hard, mg/L CaCO3 (USGS). */
export const HARD_FROM = 120;
export const VERY_HARD_FROM = 180;

/**
 * USGS classes of hardness, mg/L CaCO3: up to where each goes, and what stands for it where a test strip
 * tells the class alone. The highest has no middle; 280 is judgement, within the hard band of labels.
 */
export const HARDNESS_CLASSES = [
  { name: 'soft', to: 60, middle: 30 },
  { name: 'moderately hard', to: HARD_FROM, middle: 90 },
  { name: 'hard', to: VERY_HARD_FROM, middle: 150 },
  { name: 'very hard', to: Infinity, middle: 280 },
] as const;
export type HardnessClass = (typeof HARDNESS_CLASSES)[number]['name'];

/** @param hardness mg/L CaCO3 */
export const hardnessClass = (hardness: number): HardnessClass =>
  HARDNESS_CLASSES.find(({ to }) => hardness <= to)!.name;

export interface Scale {
  /** g of CaCO3 that fell out. */
  scale: number;
  /** g of citric acid that dissolve it, and doses of 100 g. */
  acid: number;
  doses: number;
  class: HardnessClass;
  worthIt: boolean;
  /** Days until one dose is worth it, where the water a day is known. */
  daysLeft?: number;
  working: Working[];
}

/** Scale since the last descaling, and what dissolves it. @throws MeasureProblem */
export function scaleGrown(
  given: Given<typeof SCALE_FIELDS>,
  temperature: WashTemperature = 60,
): Scale {
  const { hardness, litres, litresADay } = readFields(given, SCALE_FIELDS);
  const share = FALLS_OUT[temperature];
  const perLitre = (hardness / 1000) * share;
  const scale = perLitre * litres * 1000;
  // Two of citric acid take three of carbonate.
  const acidFor = (grams: number) => (grams / MOLAR.carbonate) * (2 / 3) * MOLAR.citric;
  const acid = acidFor(scale);
  const aDose = scaleDissolved('citric', CITRIC_DOSE);
  const worthIt = scale >= aDose;
  const daily = litresADay === undefined ? 0 : perLitre * litresADay * 1000;
  return {
    scale,
    acid,
    doses: Math.ceil(acid / CITRIC_DOSE - 1e-9),
    class: hardnessClass(hardness),
    worthIt,
    ...(daily > 0 ? { daysLeft: Math.max(0, (aDose - scale) / daily) } : {}),
    working: [
      {
        what: 'Hardness',
        how: `${figure(hardness, 'hardness', { us: 'mg/L', metric: 'mg/L' })} as CaCO3, ${figure(hardness, 'hardness')}: ${hardnessClass(hardness)} (USGS)`,
      },
      {
        what: 'Scale',
        how: `${figure(litres, 'volume')} × ${figure(hardness, 'hardness')} × ${100 * share} % at ${figure(temperature, 'temperature')} (judgement): ${Math.round(scale)} g`,
      },
      {
        what: 'Acid',
        how: `2 citric acid for 3 carbonate: ${Math.round(acid)} g; a dose of ${CITRIC_DOSE} g dissolves ${Math.round(aDose)} g`,
      },
    ],
  };
}
