import type { Grade } from '../../model/vocabulary.js';
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
const DEFAULT_RISK = 0.1;

const RATE_SIGMA = 0.6;
const GRADE_SPREAD = 0.35;
/** Upper edges of the grades 0 to 3; grade 4 has none. */
export const GRADE_EDGES = [0.1, 0.3, 0.6, 0.9] as const;

/*
 * The grid reaches further to the fast side: what blocks at the first load of an interval of hundreds has
 * to be believed.
 */
const STEP = 0.15;
const LOW = 20;
const HIGH = 42;
const POINTS = LOW + HIGH + 1;
/** Log weights further than this below the highest are nothing. */
const NOTHING = 20;

const LN_EDGES = GRADE_EDGES.map(Math.log);

/** What is seen after less use than this, loads or days, tells nothing of the rate. */
export const LEAST_USE = 0.5;

/** Log weights over ln r before anything was seen. */
const PRIOR: readonly number[] = Array.from(
  { length: POINTS },
  (_, i) => -0.5 * (((i - LOW) * STEP) / RATE_SIGMA) ** 2,
);

const QUANTILES = new Map<number, number>();
/** A household has one risk; its quantile is worked out once. */
function quantileOf(chance: number): number {
  const known = QUANTILES.get(chance);
  if (known !== undefined) return known;
  const quantile = normalQuantile(chance);
  QUANTILES.set(chance, quantile);
  return quantile;
}

/** Fouling expected at some use: the middle of the belief and the bounds that leave out 10 % each. */
export interface Fouling {
  low: number;
  median: number;
  high: number;
}

/**
 * Log likelihood of each grade over ln F, tabulated once from -20 to 20, finer than the grid. One row
 * has every fourth point, so that what the grid needs of it stands side by side; there is a row for
 * each quarter of a step, and the first again, a step on.
 */
const TABLE_START = -20;
const FINER = 4;
const TABLE_STEP = STEP / FINER;
const TABLE_POINTS = Math.round((-2 * TABLE_START) / STEP) + 1;
const TABLE = ([0, 1, 2, 3, 4] as const).map((grade) =>
  Array.from({ length: FINER + 1 }, (_, quarter) =>
    Float64Array.from({ length: TABLE_POINTS }, (_, i) =>
      logLikelihood(grade, TABLE_START + (i * FINER + quarter) * TABLE_STEP),
    ),
  ),
);

/**
 * Log probability of seeing a grade where ln F is given: that of a normal variable between two edges.
 * Far outside them, where the probability is too small for a number, the tail's own expansion holds.
 */
function logLikelihood(grade: Grade, lnFouling: number): number {
  const z = (edge: number) => (Math.log(edge) - lnFouling) / GRADE_SPREAD;
  const from = grade === 0 ? -Infinity : z(GRADE_EDGES[grade - 1]!);
  const to = grade === 4 ? Infinity : z(GRADE_EDGES[grade]);
  // Both edges above the middle: the difference of the upper tails keeps its digits.
  const chance = from > 0 ? normalCdf(-from) - normalCdf(-to) : normalCdf(to) - normalCdf(from);
  if (chance > 1e-250) return Math.log(chance);
  const nearest = Math.min(Math.abs(from), Math.abs(to));
  return -0.5 * nearest * nearest - Math.log(nearest * Math.sqrt(2 * Math.PI));
}

const PER_STEP = Math.exp(STEP);

/** A figure read at a station. */
export interface Figure {
  /** What was read, over the figure of the clean machine. */
  ratio: number;
  /** How many times its clean figure it reaches where F = 1. */
  limit: number;
  /** Standard deviation of ln ratio: of one reading, and of what it is held against. */
  error: number;
}

/** A belief about the rate r of one station, moved by what was seen. */
export class RateBelief {
  readonly #centre: number;
  /** Standard deviation of ln r from one time to the next. */
  readonly #scatter: number;
  #logWeights: number[];
  #rates: Fouling | undefined;

  /**
   * @param interval the interval in force, in loads or days, above 0: with no evidence the due point
   * @param risk accepted chance that the station passes 0.9 before it is cleaned, 0.02 to 0.3
   * @param widened how many times as far as elsewhere finds scatter, from 1 up: rates that change from one time to the
   *   next. What was seen tells less of the next time then; the due point without evidence stays
   */
  constructor(
    readonly interval: number,
    readonly risk = DEFAULT_RISK,
    from: readonly number[] = PRIOR,
    readonly widened = 1,
  ) {
    if (!(interval > 0)) throw new RangeError('An interval is above 0.');
    this.#logWeights = from.slice();
    this.#scatter = GRADE_SPREAD * Math.sqrt(Math.max(0, widened ** 2 - 1));
    const sigma = Math.hypot(RATE_SIGMA, this.#scatter);
    this.#centre = Math.log(DUE_LEVEL / interval) - sigma * quantileOf(1 - risk);
  }

  /** The same belief, to be moved on its own. */
  copy(): RateBelief {
    return new RateBelief(this.interval, this.risk, this.#logWeights, this.widened);
  }

  /**
   * Takes in a grade seen after some use. Grades seen straight after a clean (under half a load or
   * day) say nothing about the rate and are passed over.
   * @param n loads or days since the last clean
   * @returns whether it told anything
   */
  observe(grade: Grade, n: number): boolean {
    if (!(n >= LEAST_USE)) return false;
    this.#addTable(TABLE[grade]!, n, 1);
    return true;
  }

  /** Takes a grade back that was taken in before. */
  takeBack(grade: Grade, n: number): void {
    if (n >= LEAST_USE) this.#addTable(TABLE[grade]!, n, -1);
  }

  /**
   * Takes in a figure that grows with fouling: v = clean (1 + F (limit - 1)), read with an error on the
   * figure itself. Near clean it says little of F, and that continuously.
   * @param n loads or days since the last clean
   * @param sign -1 takes it back
   * @returns whether it told anything
   */
  measure({ ratio, limit, error }: Figure, n: number, sign: 1 | -1 = 1): boolean {
    if (!(n >= LEAST_USE) || !(ratio > 0)) return false;
    const seen = Math.log(ratio);
    const grows = limit - 1;
    const weights = this.#logWeights;
    let fouling = Math.exp(this.#lowest(n));
    for (let i = 0; i < POINTS; i++, fouling *= PER_STEP) {
      const z = (seen - Math.log1p(fouling * grows)) / error;
      weights[i]! -= sign * 0.5 * z * z;
    }
    this.#rates = undefined;
    return true;
  }

  /** ln F at the lowest point of the grid after some use. */
  #lowest(n: number): number {
    return this.#centre - LOW * STEP + Math.log(n);
  }

  #addTable(rows: readonly Float64Array[], n: number, sign: 1 | -1): void {
    const wanted = (this.#lowest(n) - TABLE_START) / TABLE_STEP;
    const place = Math.min(Math.max(wanted, 0), FINER * (TABLE_POINTS - POINTS) - 1);
    const whole = Math.floor(place);
    const quarter = whole % FINER;
    const start = (whole - quarter) / FINER;
    const after = sign * (place - whole);
    const before = sign - after;
    const [below, above] = [rows[quarter]!, rows[quarter + 1]!];
    const weights = this.#logWeights;
    for (let i = 0; i < POINTS; i++) {
      weights[i]! += before * below[start + i]! + after * above[start + i]!;
    }
    this.#rates = undefined;
  }

  /** The log weights, with what was seen counting for as much as it tells. */
  #logs(): readonly number[] {
    if (this.widened <= 1) return this.#logWeights;
    const sure = 1 / this.widened ** 2;
    return this.#logWeights.map((log, i) => PRIOR[i]! + (log - PRIOR[i]!) * sure);
  }

  /** The points that count: the first, the last, and the highest between them. */
  #counted(): [first: number, last: number, peak: number] {
    const logs = this.#logs();
    let peak = 0;
    for (let i = 1; i < POINTS; i++) if (logs[i]! > logs[peak]!) peak = i;
    const nothing = logs[peak]! - NOTHING;
    let first = 0;
    let last = POINTS - 1;
    // One point on each side of the peak stays, however steep it is.
    while (first + 1 < peak && logs[first + 1]! <= nothing) first++;
    while (last - 1 > peak && logs[last - 1]! <= nothing) last--;
    return [first, last, peak];
  }

  /**
   * Writes the weights into `SCRATCH`, the highest about 1. A narrow belief is read up to four times as
   * fine as the grid: the log weights are smooth, and a cubic through four neighbours gives those
   * between two.
   * @returns the first and the last that count, and how many steps there are to one of the grid
   */
  #weigh(): [first: number, last: number, fine: number] {
    const logs = this.#logs();
    const [first, last, peak] = this.#counted();
    const highest = logs[peak]!;
    const span = last - first;
    const fine = span > 30 ? 1 : span > 15 ? 2 : FINER;
    for (let i = first; i < last; i++) {
      SCRATCH[i * fine] = Math.exp(logs[i]! - highest);
      const at = Math.min(Math.max(i - 1, 0), POINTS - 4);
      for (let k = 1; k < fine; k++) {
        const between = CUBIC[i - at]![(k * FINER) / fine]!;
        const log =
          between[0]! * logs[at]! +
          between[1]! * logs[at + 1]! +
          between[2]! * logs[at + 2]! +
          between[3]! * logs[at + 3]!;
        SCRATCH[i * fine + k] = Math.exp(log - highest);
      }
    }
    SCRATCH[last * fine] = Math.exp(logs[last]! - highest);
    return [first * fine, last * fine, fine];
  }

  /** ln r at a place on the grid, which may lie between two points. */
  #lnRateAt(place: number): number {
    return this.#centre + (place - LOW) * STEP;
  }

  /**
   * Quantiles of ln r: the trapezoid rule with its first correction (Euler-Maclaurin), and between two
   * points the weight as a straight line.
   * @param wanted chances, rising
   */
  #lnRates(...wanted: number[]): number[] {
    const [first, last, fine] = this.#weigh();
    let whole = 0;
    for (let i = first; i < last; i++) whole += SCRATCH[i]! + SCRATCH[i + 1]!;
    /** What the trapezoids up to a point have too much, from the slope there. */
    const bend = (i: number): number =>
      i <= first || i >= last ? 0 : (SCRATCH[i + 1]! - SCRATCH[i - 1]!) / 12;
    let sum = 0;
    let i = first;
    return wanted.map((chance) => {
      const target = chance * whole;
      for (; i < last - 1; i++) {
        const slice = SCRATCH[i]! + SCRATCH[i + 1]!;
        if (sum + slice - bend(i + 1) >= target) break;
        sum += slice;
      }
      const [from, to] = [SCRATCH[i]!, SCRATCH[i + 1]!];
      const begun = sum - bend(i);
      const area = sum + from + to - bend(i + 1) - begun;
      const share = area > 0 ? Math.min(1, Math.max(0, (target - begun) / area)) : 0;
      return this.#lnRateAt((i + alongSlope(share, from, to)) / fine);
    });
  }

  /** Quantiles of ln r of the next time: with what it scatters from one time to the next. */
  #scattered(...wanted: number[]): number[] {
    if (this.#scatter === 0) return this.#lnRates(...wanted);
    const [middle, ...lnRates] = this.#lnRates(0.5, ...wanted) as [number, ...number[]];
    return lnRates.map((lnRate, i) => {
      const further = this.#scatter * quantileOf(wanted[i]!);
      return middle + Math.sign(further) * Math.hypot(lnRate - middle, further);
    });
  }

  /** Use at which P(F > 0.9) reaches a chance; the accepted risk if none is given. */
  dueAt(chance = this.risk): number {
    return DUE_LEVEL / Math.exp(this.#scattered(1 - chance)[0]!);
  }

  /** A bound below the due point, at a small part of its cost. */
  dueAtLeast(): number {
    const further = this.#scatter * Math.max(0, quantileOf(1 - this.risk));
    return DUE_LEVEL / Math.exp(this.#lnRateAt(this.#counted()[1]) + further);
  }

  /** No evidence can bring the due point below this. */
  leastDueAt(): number {
    const further = this.#scatter * Math.max(0, quantileOf(1 - this.risk));
    return DUE_LEVEL / Math.exp(this.#centre + HIGH * STEP + further);
  }

  /** Use at which the limit itself, F = 1, is passed with a chance of one, five and nine in ten. */
  limitAt(): { early: number; even: number; late: number } {
    const { low, median, high } = this.foulingAt(1);
    return { early: LIMIT / high, even: LIMIT / median, late: LIMIT / low };
  }

  /** Fouling expected after some use. */
  foulingAt(n: number): Fouling {
    if (!this.#rates) {
      const [low, median, high] = this.#scattered(0.1, 0.5, 0.9).map(Math.exp);
      this.#rates = { low: low!, median: median!, high: high! };
    }
    const { low, median, high } = this.#rates;
    return { low: low * n, median: median * n, high: high * n };
  }

  /** Chance that fouling has passed a level after some use. */
  chanceAbove(level: number, n: number): number {
    if (!(n > 0)) return 0;
    if (this.#scatter > 0) return this.#chanceScattered(Math.log(level / n));
    const [first, last, fine] = this.#weigh();
    const at = ((Math.log(level / n) - this.#centre) / STEP + LOW) * fine;
    let above = 0;
    let whole = 0;
    for (let i = first; i < last; i++) {
      const [from, to] = [SCRATCH[i]!, SCRATCH[i + 1]!];
      const part = Math.min(1, Math.max(0, at - i));
      whole += from + to;
      above += from + to - part * (2 * from + (to - from) * part);
    }
    return whole > 0 ? above / whole : 0;
  }

  /** Chance that ln r of the next time lies above some. */
  #chanceScattered(lnRate: number): number {
    const [first, last, fine] = this.#weigh();
    let [above, whole] = [0, 0];
    for (let i = first; i <= last; i++) {
      whole += SCRATCH[i]!;
      above += SCRATCH[i]! * normalCdf((this.#lnRateAt(i / fine) - lnRate) / this.#scatter);
    }
    return above / whole;
  }

  /** Chance of each grade at an opening after some use, 0 to 1: by the rate, and by how grades scatter. */
  gradeChances(n: number): number[] {
    const [first, last, fine] = this.#weigh();
    const spread = Math.hypot(GRADE_SPREAD, this.#scatter);
    const under = GRADE_EDGES.map(() => 0);
    let whole = 0;
    for (let i = first; i <= last; i++) {
      const weight = SCRATCH[i]!;
      whole += weight;
      const lnFouling = this.#lnRateAt(i / fine) + Math.log(n);
      LN_EDGES.forEach((edge, k) => {
        under[k]! += weight * normalCdf((edge - lnFouling) / spread);
      });
    }
    const upTo = [0, ...under.map((sum) => sum / whole), 1];
    return upTo.slice(1).map((chance, k) => chance - upTo[k]!);
  }

  /** Standard deviation of ln r: how wide the belief still is. */
  spread(): number {
    const [first, last, fine] = this.#weigh();
    let sum = 0;
    let moment = 0;
    for (let i = first; i <= last; i++) {
      sum += SCRATCH[i]!;
      moment += SCRATCH[i]! * i;
    }
    const mean = moment / sum;
    let square = 0;
    for (let i = first; i <= last; i++) square += SCRATCH[i]! * (i - mean) ** 2;
    return Math.hypot((Math.sqrt(square / sum) * STEP) / fine, this.#scatter);
  }
}

/** How far along a step a share of its area lies, where the weight goes from one height to another. */
function alongSlope(share: number, from: number, to: number): number {
  const rise = to - from;
  if (Math.abs(rise) < 1e-9 * (from + to)) return share;
  return (Math.sqrt(from * from + share * rise * (from + to)) - from) / rise;
}

const SCRATCH = new Float64Array(FINER * POINTS);

/** Weights of four neighbours for a point `k` quarters after the first, second or third of them. */
const CUBIC = [0, 1, 2].map((after) =>
  Array.from({ length: FINER }, (_, k) =>
    [0, 1, 2, 3].map((one) =>
      [0, 1, 2, 3]
        .filter((other) => other !== one)
        .reduce((product, other) => (product * (after + k / FINER - other)) / (one - other), 1),
    ),
  ),
);
