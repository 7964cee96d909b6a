/** What a trouble can be measured by, before the work and after it. Common practice. */
export interface CaseMeasure {
  quantity: string;
  label: string;
  unit: string;
  /** How it is taken, in a sentence. */
  how: string;
  /** A smaller figure is the better one. */
  lessIsBetter: boolean;
  /** Symptoms that it measures. */
  of: readonly string[];
}

export const CASE_MEASURES: readonly CaseMeasure[] = [
  {
    quantity: 'drain-time',
    label: 'Seconds until the drum is empty',
    unit: 's',
    how: 'Start the drain programme with the usual water in, and count until the pump runs dry.',
    lessIsBetter: true,
    of: ['wont-drain', 'drains-slowly', 'getting-worse', 'wont-spin', 'gurgle', 'code-drain'],
  },
  {
    quantity: 'fill-litres',
    label: 'Litres from the fill hose in ten seconds',
    unit: 'L',
    how: 'Shut the tap, take the hose off, hold it in a bucket, and open the tap for ten seconds.',
    lessIsBetter: false,
    of: ['slow-fill', 'no-fill', 'code-fill'],
  },
  {
    quantity: 'drying-minutes',
    label: 'Minutes that a usual load takes',
    unit: 'min',
    how: 'The same kind and size of load each time, on the same programme.',
    lessIsBetter: true,
    of: ['long-drying', 'slow-drift', 'hot-laundry', 'auto-damp', 'heat-stops-early', 'overheats'],
  },
  {
    quantity: 'bag-fill-time',
    label: 'Seconds until the bag at the hood is full',
    unit: 's',
    how: 'Hold a bin bag over the hood while the dryer runs without heat, and count until it is taut.',
    lessIsBetter: true,
    of: ['weak-air', 'long-drying', 'hot-damp-behind'],
  },
];

/** The measures that fit what was told. @param findings ids of symptoms seen */
export const measuresFor = (findings: readonly string[]): CaseMeasure[] =>
  CASE_MEASURES.filter(({ of }) => of.some((symptom) => findings.includes(symptom)));

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
