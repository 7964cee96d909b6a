import { many } from '../../units/many.js';

/** How far a chance may be off, by what it rests on. */
export interface Sureness {
  /** 0 to 1. */
  low: number;
  high: number;
  /** What it rests on, in a sentence. */
  say: string;
}

/**
 * By how much the odds of a judgement may be off, either way: with a record of the station, and without.
 * Judgement; strengths such as "often" stand for a range about that wide.
 */
const OFF = { record: 1.6, none: 3 } as const;

/**
 * How sure a chance is that rests on judged strengths and priors.
 * @param chance 0 to 1
 * @param answers how many were given
 * @param record whether the household's own records speak of it
 */
export function sureness(chance: number, answers: number, record: boolean): Sureness {
  const off = record ? OFF.record : OFF.none;
  const odds =
    Math.min(0.999, Math.max(0.001, chance)) / (1 - Math.min(0.999, Math.max(0.001, chance)));
  const back = (one: number) => one / (1 + one);
  const from = `From ${many(answers, 'answer')}`;
  return {
    low: back(odds / off),
    high: back(odds * off),
    say: record
      ? `${from} and your own records of it.`
      : `${from}, common practice and no record of your own yet: one more look tells more than this figure.`,
  };
}

/**
 * About how many more looks it takes until one cause stands out.
 * @param chances of the causes that are still possible, 0 to 1
 * @param gain bits that the next look is expected to tell
 */
export function looksLeft(chances: readonly number[], gain: number): number {
  const sum = chances.reduce((a, b) => a + b, 0);
  if (sum <= 0 || gain <= 0) return 1;
  const bits = chances.reduce((all, chance) => {
    const p = chance / sum;
    return p > 0 ? all - p * Math.log2(p) : all;
  }, 0);
  return Math.max(1, Math.min(9, Math.round(bits / Math.max(gain, LEAST_GAIN))));
}
/** A look that tells less counts for so much, bits: others come after it that tell more. */
const LEAST_GAIN = 0.4;
