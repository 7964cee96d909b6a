import { instantsOf } from '../../units/calendar.js';

/** How a file writes its times. */
export const TIME_KINDS = [
  'epoch-s',
  'epoch-ms',
  'year-first',
  'day-first',
  'month-first',
] as const;
export type TimeKind = (typeof TIME_KINDS)[number];

/** A clock that goes back by more than this within an hour that comes twice has come to its second time, ms. */
const AGAIN = 20 * 60_000;
const HOUR = 3_600_000;

/**
 * Turns what a clock on the wall of a zone showed into instants, in the order in which it showed them: of the hour that
 * comes twice in autumn, the first time and then the second; the hour that never was in spring goes on from before.
 */
export class WallClock {
  #hour = NaN;
  #instants: readonly number[] = [0];
  #last = -Infinity;
  #second = false;
  #backwards = false;

  /** @param zone IANA name @param newestFirst whether times fall from line to line */
  constructor(
    readonly zone: string,
    readonly newestFirst = false,
  ) {}

  /** @param wall milliseconds as if the wall's time were UTC */
  instant(wall: number): number {
    const hour = Math.floor(wall / HOUR);
    if (hour !== this.#hour) {
      const entered = !Number.isNaN(this.#hour);
      this.#hour = hour;
      this.#instants = instantsOf(hour * HOUR, this.zone);
      // A file with its newest line first comes to the second time before the first.
      this.#backwards = entered ? this.#last > wall : this.newestFirst;
      this.#second = this.#instants.length === 2 && this.#backwards;
    } else if (this.#instants.length === 2) {
      if (!this.#backwards && wall < this.#last - AGAIN) this.#second = true;
      if (this.#backwards && wall > this.#last + AGAIN) this.#second = false;
    }
    this.#last = wall;
    const begun = this.#instants[this.#second ? this.#instants.length - 1 : 0]!;
    return begun + (wall - hour * HOUR);
  }
}
