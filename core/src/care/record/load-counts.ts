import type { Programme } from '../../model/vocabulary.js';
import { MS_PER_DAY } from '../../units/calendar.js';

/** Loads counted at one time. */
export interface LoadCount {
  /** UTC instant, milliseconds. */
  at: number;
  count: number;
  /** What they were, where somebody said so. */
  programme?: Programme;
}

/** What a load of each programme counts for; one where nothing is said. */
export type Weights = Partial<Record<Programme, number>>;

/** How many loads passed between two instants, and what the figure rests on. */
export interface Loads {
  counted: number;
  /** From the usual loads a week, for stretches in which nothing was counted. */
  estimated: number;
}

/** A pause in counting up to this long is taken at its word: nothing was washed. */
const QUIET_DAYS = 14;
const LATELY_DAYS = 56;

/**
 * The use of one machine over time: what was tapped, and the usual loads a week as the stand-in.
 *
 * Before the first count the stand-in is used throughout. After it, a pause of up to 14 days counts
 * as no loads; from the 15th day on the stand-in runs, because people forget to tap more often than
 * they stop washing.
 *
 * ```
 *   stand-in | taps . . .. . | 14 quiet days | stand-in ... | next tap
 * ```
 */
export class Usage {
  readonly #at: number[] = [];
  /** Loads counted up to and with the tap of the same index. */
  readonly #counted: number[] = [];
  /** Loads estimated up to the tap of the same index, from the first tap on. */
  readonly #estimated: number[] = [];
  readonly #perMs: number;
  readonly #byWeights = new Map<string, Usage>();
  readonly #programmes = new Set<Programme>();

  /**
   * @param taps in any order
   * @param usualPerWeek loads a week where nothing is counted, 0 or more
   * @param weights what loads of a programme count for
   */
  constructor(
    readonly taps: readonly LoadCount[],
    readonly usualPerWeek: number,
    weights: Weights = {},
  ) {
    this.#perMs = usualPerWeek / (7 * MS_PER_DAY);
    let counted = 0;
    let estimated = 0;
    for (const { programme } of taps) if (programme) this.#programmes.add(programme);
    for (const tap of [...taps].sort((a, b) => a.at - b.at)) {
      const last = this.#at.at(-1);
      if (last !== undefined) estimated += this.#standIn(tap.at - last);
      counted += tap.count * (tap.programme ? (weights[tap.programme] ?? 1) : 1);
      this.#at.push(tap.at);
      this.#counted.push(counted);
      this.#estimated.push(estimated);
    }
  }

  /**
   * The same use with loads of some programmes counting for more or less; itself where no load has a
   * programme whose weight is not one.
   */
  weighted(weights: Weights): Usage {
    if (![...this.#programmes].some((programme) => (weights[programme] ?? 1) !== 1)) return this;
    const key = JSON.stringify(weights);
    let usage = this.#byWeights.get(key);
    if (!usage) {
      usage = new Usage(this.taps, this.usualPerWeek, weights);
      this.#byWeights.set(key, usage);
    }
    return usage;
  }

  #standIn(pause: number): number {
    return Math.max(0, pause - QUIET_DAYS * MS_PER_DAY) * this.#perMs;
  }

  /** Index of the last tap at or before an instant, or -1. */
  #indexAt(instant: number): number {
    let low = 0;
    let high = this.#at.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.#at[middle]! <= instant) low = middle + 1;
      else high = middle;
    }
    return low - 1;
  }

  #upTo(instant: number): Loads {
    const first = this.#at[0];
    if (first === undefined) return { counted: 0, estimated: instant * this.#perMs };
    const index = this.#indexAt(instant);
    if (index < 0) return { counted: 0, estimated: (instant - first) * this.#perMs };
    return {
      counted: this.#counted[index]!,
      estimated: this.#estimated[index]! + this.#standIn(instant - this.#at[index]!),
    };
  }

  /** Loads after `from`, up to and with `to` (UTC milliseconds); none when `to` is not later. */
  between(from: number, to: number): Loads {
    if (to <= from) return { counted: 0, estimated: 0 };
    const a = this.#upTo(from);
    const b = this.#upTo(to);
    return { counted: b.counted - a.counted, estimated: b.estimated - a.estimated };
  }

  /** Loads after `from`, up to and with `to`, counted and estimated together. */
  amount(from: number, to: number): number {
    return to <= from ? 0 : this.upTo(to) - this.upTo(from);
  }

  /** Loads up to an instant, counted from some fixed one: only differences mean anything. */
  upTo(instant: number): number {
    return this.#upToFrom(this.#indexAt(instant), instant);
  }

  /** @param index of the last tap at or before the instant, or -1 */
  #upToFrom(index: number, instant: number): number {
    if (index < 0) return (instant - (this.#at[0] ?? 0)) * this.#perMs;
    return (
      this.#counted[index]! + this.#estimated[index]! + this.#standIn(instant - this.#at[index]!)
    );
  }

  /**
   * As `upTo`, for instants that are asked for in order: it walks along the taps from one to the next
   * instead of looking for each.
   */
  along(): (instant: number) => number {
    const at = this.#at;
    let index = -1;
    return (instant) => {
      if (index >= 0 && at[index]! > instant) index = this.#indexAt(instant);
      while (index + 1 < at.length && at[index + 1]! <= instant) index++;
      return this.#upToFrom(index, instant);
    };
  }

  /** When loads were last counted, UTC milliseconds. */
  get lastCounted(): number | undefined {
    return this.#at.at(-1);
  }

  /** Loads a week over the eight weeks before an instant; the usual figure where none were counted. */
  weeklyRate(now: number): { perWeek: number; counted: boolean } {
    const from = now - LATELY_DAYS * MS_PER_DAY;
    const lately = this.between(from, now);
    if (lately.counted === 0) return { perWeek: this.usualPerWeek, counted: false };
    return { perWeek: ((lately.counted + lately.estimated) * 7) / LATELY_DAYS, counted: true };
  }

  /**
   * When so many loads had passed after `from`, looking no further than `to`.
   * @returns UTC milliseconds to within a minute, or undefined when it has not happened
   */
  passed(from: number, loads: number, to: number): number | undefined {
    const done = (instant: number) => this.amount(from, instant) >= loads;
    if (!done(to)) return undefined;
    let low = from;
    let high = to;
    while (high - low > 60_000) {
      const middle = (low + high) / 2;
      if (done(middle)) high = middle;
      else low = middle;
    }
    return Math.round(high);
  }
}

/** Loads counted and estimated, together. */
export const total = (loads: Loads): number => loads.counted + loads.estimated;
