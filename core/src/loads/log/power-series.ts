import { MS_PER_DAY } from '../../units/days.js';

/** Lengths of a bin, ms, for logs that are so fine or coarser. */
const BINS = [10_000, 30_000, 60_000] as const;
/** A reading holds until the next, at most so many usual intervals, and at least so long: what is longer is a gap. */
const HOLDS_FOR = 10;
const HOLDS_AT_LEAST = 5 * 60_000;
const MINUTE = 60_000;
export const MINUTES_A_DAY = 1440;

/** A stretch of even bins without a break in the record of days. */
export interface Stretch {
  /** UTC milliseconds of its first bin. */
  from: number;
  /** Mean watts of each bin; NaN where nothing was read. */
  watts: Float32Array;
}

interface DayOfPower {
  /** Watt-milliseconds, and the milliseconds that they are of. */
  energy: Float32Array;
  known: Float32Array;
}

/**
 * Power along time as a meter told it, in even bins: as many as the days have, however many samples there were. A bin
 * is the mean of what fell into it, so that samples out of their order, a clock that is put back, or the same file
 * twice make no second of anything.
 */
export class PowerSeries {
  /** Length of a bin, ms. */
  readonly bin: number;
  readonly #longestHold: number;
  readonly #interval: number;
  readonly #days = new Map<number, DayOfPower>();
  #last = -Infinity;
  #watts = 0;
  /** The day of the bins last written to, since the next sample is nearly always of the same. */
  #day = NaN;
  #energy: Float32Array = new Float32Array(0);
  #known: Float32Array = new Float32Array(0);

  /** @param interval usual time between two samples, ms */
  constructor(interval: number) {
    this.bin = BINS.find((bin) => interval <= bin) ?? BINS[2];
    this.#interval = Math.max(1, interval);
    this.#longestHold = Math.max(HOLDS_AT_LEAST, HOLDS_FOR * interval);
  }

  /**
   * Takes in a sample: it holds until the next one.
   * @param at UTC instant, ms
   * @param watts 0 or more
   */
  add(at: number, watts: number): void {
    const since = at - this.#last;
    if (since > 0 && since <= this.#longestHold) this.#spread(this.#last, at, this.#watts);
    else if (this.#last > -Infinity) {
      this.#spread(this.#last, this.#last + this.#interval, this.#watts);
    }
    this.#last = at;
    this.#watts = watts;
  }

  /**
   * Takes in the energy of a stretch that a counter told, as even power over it.
   * @param from @param to UTC instants, ms, in this order
   */
  addEnergy(from: number, to: number, wattHours: number): void {
    if (to > from) this.#spread(from, to, (wattHours * 3_600_000) / (to - from));
  }

  /** The last sample holds for its interval. */
  end(): void {
    if (this.#last > -Infinity) {
      this.#spread(this.#last, this.#last + this.#interval, this.#watts);
    }
    this.#last = -Infinity;
  }

  /** Days with anything in them, each as its number since 1970, rising. */
  get days(): number[] {
    return [...this.#days.keys()].sort((a, b) => a - b);
  }

  /** Lets days before one go. @param day its number since 1970, UTC */
  forget(day: number): void {
    for (const one of this.#days.keys()) if (one < day) this.#days.delete(one);
    this.#day = NaN;
  }

  #spread(from: number, to: number, watts: number): void {
    let at = from;
    while (at < to) {
      const day = Math.floor(at / MS_PER_DAY);
      if (day !== this.#day) this.#turnTo(day);
      const inDay = at - day * MS_PER_DAY;
      const bin = Math.floor(inDay / this.bin);
      const end = Math.min(to, day * MS_PER_DAY + (bin + 1) * this.bin);
      this.#energy[bin]! += watts * (end - at);
      this.#known[bin]! += end - at;
      at = end;
    }
  }

  #turnTo(day: number): void {
    let there = this.#days.get(day);
    if (!there) {
      const bins = MS_PER_DAY / this.bin;
      there = { energy: new Float32Array(bins), known: new Float32Array(bins) };
      this.#days.set(day, there);
    }
    this.#day = day;
    this.#energy = there.energy;
    this.#known = there.known;
  }

  /** All of it as stretches of days that follow one another. */
  stretches(): Stretch[] {
    const stretches: Stretch[] = [];
    const days = this.days;
    for (let i = 0; i < days.length;) {
      let next = i + 1;
      while (next < days.length && days[next] === days[next - 1]! + 1) next++;
      const bins = MS_PER_DAY / this.bin;
      const watts = new Float32Array((next - i) * bins);
      for (let k = i; k < next; k++) {
        const { energy, known } = this.#days.get(days[k]!)!;
        for (let b = 0; b < bins; b++) {
          watts[(k - i) * bins + b] = known[b]! > 0 ? energy[b]! / known[b]! : NaN;
        }
      }
      stretches.push({ from: days[i]! * MS_PER_DAY, watts });
      i = next;
    }
    return stretches;
  }

  /**
   * A day in whole watts, a value a minute, as it is kept: 65,535 where nothing was read.
   * @param day its number since 1970, UTC
   */
  minutesOf(day: number): Uint16Array {
    const minutes = new Uint16Array(MINUTES_A_DAY).fill(UNREAD);
    const there = this.#days.get(day);
    if (!there) return minutes;
    const each = MINUTE / this.bin;
    for (let m = 0; m < MINUTES_A_DAY; m++) {
      let [energy, known] = [0, 0];
      for (let b = m * each; b < (m + 1) * each; b++) {
        energy += there.energy[b]!;
        known += there.known[b]!;
      }
      if (known > 0) minutes[m] = Math.min(UNREAD - 1, Math.round(energy / known));
    }
    return minutes;
  }
}

/** What stands for a minute of which nothing was read. */
export const UNREAD = 65_535;
