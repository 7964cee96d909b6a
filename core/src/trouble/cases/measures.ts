import type { MachineKind } from '../../model/vocabulary.js';
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
  kinds: readonly MachineKind[];
  /** Symptoms that it measures. */
  of: readonly string[];
  /** It holds only where the figure is so many times the one before. */
  times?: number;
  /** It is not told in times but in so much more or less of its unit: a level. */
  apart?: number;
  /** It is counted with a timer. */
  timed?: true;
}

export const CASE_MEASURES: readonly CaseMeasure[] = QUANTITY_IDS.flatMap((quantity) => {
  const { unit, better, proof } = quantityOf(quantity)!;
  return proof ? [{ quantity, unit, lessIsBetter: better === 'less', ...proof }] : [];
});

/** The measures that fit what was told of a kind of machine. @param findings ids of symptoms seen */
export const measuresFor = (findings: readonly string[], kind: MachineKind): CaseMeasure[] =>
  CASE_MEASURES.filter(
    ({ of, kinds }) => kinds.includes(kind) && of.some((symptom) => findings.includes(symptom)),
  );

/** How a quantity proves a case, where it does. */
export const measureOf = (quantity: string): CaseMeasure | undefined =>
  CASE_MEASURES.find((one) => one.quantity === quantity);

/** Better by less than this may be chance. Judgement. */
const CHANCE = 0.1;
export type Verdict = 'better' | 'same' | 'worse';

/** What came of a measure. @param before and after in the measure's unit, above 0 */
export function verdictOf(
  {
    lessIsBetter,
    times = 1 + CHANCE,
    apart,
  }: Pick<CaseMeasure, 'lessIsBetter' | 'times' | 'apart'>,
  before: number,
  after: number,
): Verdict {
  if (apart !== undefined) {
    const gained = lessIsBetter ? before - after : after - before;
    return gained >= apart ? 'better' : gained <= -apart ? 'worse' : 'same';
  }
  const gain = lessIsBetter ? before / after - 1 : after / before - 1;
  if (gain + 1 >= times - 1e-9) return 'better';
  return gain < -CHANCE ? 'worse' : 'same';
}
