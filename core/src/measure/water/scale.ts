import { readFields, say, type Fields, type Given, type Working } from '../instrument.js';
import { MOLAR } from '../mix/moles.js';

export const SCALE_FIELDS = {
  hardness: { label: 'Hardness of the water', dimension: 'hardness', least: 0, most: 1500 },
  litres: { label: 'Hot water since the last descaling', dimension: 'volume', least: 0, most: 200 },
  litresADay: { label: 'Water a day', dimension: 'volume', least: 0, most: 5, optional: true },
} as const satisfies Fields;

export const WASH_TEMPERATURES = [40, 60, 90] as const;
export type WashTemperature = (typeof WASH_TEMPERATURES)[number];
/** Share of the hardness that falls out at a temperature. Judgement. */
export const FALLS_OUT: Record<WashTemperature, number> = { 40: 0.05, 60: 0.15, 90: 0.35 };
/** g of citric acid in a dose. */
export const CITRIC_DOSE = 100;

/** USGS classes of hardness, mg/L CaCO3. */
export const hardnessClass = (
  hardness: number,
): 'soft' | 'moderately hard' | 'hard' | 'very hard' =>
  hardness <= 60
    ? 'soft'
    : hardness <= 120
      ? 'moderately hard'
      : hardness <= 180
        ? 'hard'
        : 'very hard';

export interface Scale {
  /** g of CaCO3 that fell out. */
  scale: number;
  /** g of citric acid that dissolve it, and doses of 100 g. */
  acid: number;
  doses: number;
  class: ReturnType<typeof hardnessClass>;
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
  const aDose = (CITRIC_DOSE / MOLAR.citric) * 1.5 * MOLAR.carbonate;
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
        how: `${say(hardness, 'hardness', 'metric', 'mg/L')} as CaCO3, ${say(hardness, 'hardness', 'metric', '°dH')}: ${hardnessClass(hardness)} (USGS)`,
      },
      {
        what: 'Scale',
        how: `${say(litres, 'volume', 'metric', 'L')} × ${say(hardness, 'hardness', 'metric', 'mg/L')} × ${100 * share} % at ${temperature} °C (judgement): ${Math.round(scale)} g`,
      },
      {
        what: 'Acid',
        how: `2 citric acid for 3 carbonate: ${Math.round(acid)} g; a dose of ${CITRIC_DOSE} g dissolves ${Math.round(aDose)} g`,
      },
    ],
  };
}
