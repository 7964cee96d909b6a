import { MS_PER_DAY } from '../units/calendar.js';

/** Loads counted at one time. */
export interface LoadCount {
  /** UTC instant, milliseconds. */
  at: number;
  count: number;
}

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

  /**
   * @param taps in any order
   * @param usualPerWeek loads a week where nothing is counted, 0 or more
   */
  constructor(
    taps: readonly LoadCount[],
    readonly usualPerWeek: number,
  ) {
    this.#perMs = usualPerWeek / (7 * MS_PER_DAY);
    let counted = 0;
    let estimated = 0;
    for (const tap of [...taps].sort((a, b) => a.at - b.at)) {
      const last = this.#at.at(-1);
      if (last !== undefined) estimated += this.#standIn(tap.at - last);
      counted += tap.count;
      this.#at.push(tap.at);
      this.#counted.push(counted);
      this.#estimated.push(estimated);
    }
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
    const done = (instant: number) => {
      const n = this.between(from, instant);
      return n.counted + n.estimated >= loads;
    };
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

export const total = (loads: Loads): number => loads.counted + loads.estimated;
