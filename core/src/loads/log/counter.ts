import type { PowerSeries } from './power-series.js';

/** No socket of a house gives as much, W. */
export const MOST_WATTS = 25_000;
/** A counter that stood this long without a word was not read in between, ms. */
const UNREAD_FOR = 15 * 60_000;

/** A running counter of energy: its step is what was used since it stepped last; one that falls was begun anew. */
export class Counter {
  #counted = NaN;
  #countedAt = NaN;
  #readAt = NaN;

  constructor(private readonly series: PowerSeries) {}

  /** @param at UTC instant, ms @param wattHours as the counter stands */
  read(at: number, wattHours: number): void {
    const stood = this.#readAt;
    this.#readAt = at;
    if (wattHours === this.#counted) return;
    const grown = wattHours - this.#counted;
    const watts = (grown * 3_600_000) / (at - this.#countedAt);
    if (grown > 0 && at > this.#countedAt && at - stood <= UNREAD_FOR && watts <= MOST_WATTS) {
      this.series.addEnergy(this.#countedAt, at, grown);
    }
    this.#counted = wattHours;
    this.#countedAt = at;
  }
}
