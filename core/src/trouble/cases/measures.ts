import { quantityOf, QUANTITY_IDS, type QuantityId } from '../../model/quantities.js';

/** What a trouble can be measured by, before the work and after it. */
export interface CaseMeasure {
  quantity: QuantityId;
  label: string;
  unit: string;
  /** How it is taken, in a sentence. */
  how: string;
  /** A smaller figure is the better one. */
  lessIsBetter: boolean;
  /** Symptoms that it measures. */
  of: readonly string[];
}

export const CASE_MEASURES: readonly CaseMeasure[] = QUANTITY_IDS.flatMap((quantity) => {
  const { unit, better, proof } = quantityOf(quantity)!;
  return proof ? [{ quantity, unit, lessIsBetter: better === 'less', ...proof }] : [];
});

/** The measures that fit what was told. @param findings ids of symptoms seen */
export const measuresFor = (findings: readonly string[]): CaseMeasure[] =>
  CASE_MEASURES.filter(({ of }) => of.some((symptom) => findings.includes(symptom)));

/** How a quantity proves a case, where it does. */
export const measureOf = (quantity: string): CaseMeasure | undefined =>
  CASE_MEASURES.find((one) => one.quantity === quantity);

/** Better by less than this may be chance. Judgement. */
const CHANCE = 0.1;
export type Verdict = 'better' | 'same' | 'worse';

/** What came of a measure. @param before and after in the measure's unit, above 0 */
export function verdictOf(
  { lessIsBetter }: Pick<CaseMeasure, 'lessIsBetter'>,
  before: number,
  after: number,
): Verdict {
  const gain = lessIsBetter ? before / after - 1 : after / before - 1;
  if (gain > CHANCE) return 'better';
  return gain < -CHANCE ? 'worse' : 'same';
}
