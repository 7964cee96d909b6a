import type { Grade } from '../model/vocabulary.js';
import { normalCdf, normalQuantile } from './normal.js';

/*
 * What is believed about how fast a station fouls.
 *
 * Fouling grows with use, F = r n, with n in loads or days since the last clean and r unknown. F = 1
 * is where the station causes trouble; it is due before that, when F may have passed 0.9. The belief
 * is a grid in ln r. Judgement from common practice: sigma of ln r 0.6, spread of a grade 0.35.
 *
 *   ln r ~ normal(mu, 0.6)                    mu so placed that P(r N > 0.9) = risk at interval N
 *   grade g at n: ln(r n) + 0.35 z in the bracket of g        (interval-censored lognormal)
 */

/** Fouling at which a station causes trouble. */
export const LIMIT = 1;
/** Fouling that may be passed only with the accepted risk. */
export const DUE_LEVEL = 0.9;
export const DEFAULT_RISK = 0.1;

const RATE_SIGMA = 0.6;
const GRADE_SPREAD = 0.35;
/** Upper edges of the grades 0 to 3; grade 4 has none. */
export const GRADE_EDGES = [0.1, 0.3, 0.6, 0.9] as const;

const STEP = 0.025;
const HALF = 132;
const POINTS = 2 * HALF + 1;
/** Log weights further than this below the highest are nothing. */
const NOTHING = 40;

/** Fouling expected at some use: the middle of the belief and the bounds that leave out 10 % each. */
export interface Fouling {
  low: number;
  median: number;
  high: number;
}

/** Log likelihood of each grade over ln F, tabulated once from -20 to 20 in the grid's step. */
const TABLE_START = -20;
const TABLE = ([0, 1, 2, 3, 4] as const).map((grade) => {
  const values = new Float64Array(Math.round((-2 * TABLE_START) / STEP) + 1);
  for (let i = 0; i < values.length; i++) {
    values[i] = Math.log(Math.max(gradeLikelihood(grade, TABLE_START + i * STEP), 1e-280));
  }
  return values;
});

/** Probability of seeing a grade where ln F is given. */
function gradeLikelihood(grade: Grade, lnFouling: number): number {
  const upTo = (edge: number) => normalCdf((Math.log(edge) - lnFouling) / GRADE_SPREAD);
  const above = grade === 0 ? 0 : upTo(GRADE_EDGES[grade - 1]!);
  return grade === 4 ? 1 - above : upTo(GRADE_EDGES[grade]) - above;
}

/** A belief about the rate r of one station, moved by what was seen. */
export class Belief {
  readonly #centre: number;
  readonly #logWeights = new Float64Array(POINTS);
  #highest = 0;

  /**
   * @param interval the interval in force, in loads or days, above 0: with no evidence the due point
   * @param risk accepted chance that the station passes 0.9 before it is cleaned, 0.02 to 0.3
   */
  constructor(
    readonly interval: number,
    readonly risk = DEFAULT_RISK,
  ) {
    if (!(interval > 0)) throw new RangeError('An interval is above 0.');
    this.#centre = Math.log(DUE_LEVEL / interval) - RATE_SIGMA * normalQuantile(1 - risk);
    for (let i = 0; i < POINTS; i++) {
      const z = ((i - HALF) * STEP) / RATE_SIGMA;
      this.#logWeights[i] = -0.5 * z * z;
    }
  }

  /**
   * Takes in a grade seen after some use. Grades seen straight after a clean (under half a load or
   * day) say nothing about the rate and are passed over.
   * @param n loads or days since the last clean
   * @returns whether it told anything
   */
  observe(grade: Grade, n: number): boolean {
    if (!(n >= 0.5)) return false;
    const table = TABLE[grade]!;
    const lowest = (this.#centre - HALF * STEP + Math.log(n) - TABLE_START) / STEP;
    const start = Math.min(Math.max(lowest, 0), table.length - POINTS - 1);
    const whole = Math.floor(start);
    const part = start - whole;
    const weights = this.#logWeights;
    let highest = -Infinity;
    for (let i = 0; i < POINTS; i++) {
      const k = whole + i;
      const weight = weights[i]! + table[k]! * (1 - part) + table[k + 1]! * part;
      weights[i] = weight;
      if (weight > highest) highest = weight;
    }
    this.#highest = highest;
    return true;
  }

  /** Writes the weights into `SCRATCH`, the highest 1, and gives their sum. */
  #weigh(): number {
    const logs = this.#logWeights;
    const highest = this.#highest;
    let sum = 0;
    for (let i = 0; i < POINTS; i++) {
      const below = logs[i]! - highest;
      const weight = below < -NOTHING ? 0 : Math.exp(below);
      SCRATCH[i] = weight;
      sum += weight;
    }
    return sum;
  }

  /** Quantile of ln r, by the trapezoid rule. */
  #lnRate(p: number): number {
    const wanted = p * this.#weigh();
    let sum = 0;
    for (let i = 1; i < POINTS; i++) {
      const slice = (SCRATCH[i - 1]! + SCRATCH[i]!) / 2;
      if (sum + slice >= wanted && slice > 0) {
        return this.#centre + (i - 1 - HALF + (wanted - sum) / slice) * STEP;
      }
      sum += slice;
    }
    return this.#centre + HALF * STEP;
  }

  /** Use at which P(F > 0.9) reaches a chance; the accepted risk if none is given. */
  dueAt(chance = this.risk): number {
    return DUE_LEVEL / Math.exp(this.#lnRate(1 - chance));
  }

  /** Use at which the limit itself, F = 1, is as likely passed as not. */
  evenOddsAt(): number {
    return LIMIT / Math.exp(this.#lnRate(0.5));
  }

  /** Fouling expected after some use. */
  foulingAt(n: number): Fouling {
    const at = (p: number) => Math.exp(this.#lnRate(p)) * n;
    return { low: at(0.1), median: at(0.5), high: at(0.9) };
  }

  /** Standard deviation of ln r: how wide the belief still is. */
  spread(): number {
    const sum = this.#weigh();
    let mean = 0;
    let square = 0;
    for (let i = 0; i < POINTS; i++) {
      const x = (i - HALF) * STEP;
      mean += SCRATCH[i]! * x;
      square += SCRATCH[i]! * x * x;
    }
    return Math.sqrt(square / sum - (mean / sum) ** 2);
  }
}

const SCRATCH = new Float64Array(POINTS);
