import { findCycles, USUAL_WAYS, type Cycle, type Ways } from '../cycles/cycles.js';
import { Counter } from '../log/counter.js';
import { MINUTES_A_DAY, PowerSeries, UNREAD } from '../log/power-series.js';
import type { Sample } from './samples.js';

const MINUTE = 60_000;
const DAY = MINUTES_A_DAY * MINUTE;
/** How long after a load the next tumble against creases may come, ms: before, it may not be over. */
const SETTLES = 20 * MINUTE;
/** Who has been silent for so long will not speak of the time before, ms. */
const SILENT = 2 * 60 * MINUTE;
/** Days of which all is at hand: a load and its tail are within. */
const DAYS_AT_HAND = 3;
/** So many samples tell how often a meter speaks. */
const TELLING = 30;
/** Until then, ms. */
const USUALLY = 10_000;

/** What a meter tells as it goes on, with the loads that are over and the days that it has spoken of. */
export class LiveLog {
  #series = new PowerSeries(USUALLY);
  #counter = new Counter(this.#series);
  /** The first ones, until they tell how often the meter speaks. */
  #first: Sample[] | undefined = [];
  #touched = new Set<number>();
  /** The newest sample. */
  newest: Sample | undefined;

  /** Takes samples in, in any order; those that were taken in before are not to be among them. */
  take(samples: readonly Sample[]): void {
    const inOrder = samples.toSorted((a, b) => a.at - b.at);
    if (this.#first) {
      this.#first.push(...inOrder);
      if (this.#first.length < TELLING) return this.#add(inOrder);
      const all = this.#first.sort((a, b) => a.at - b.at);
      this.#first = undefined;
      this.#series = new PowerSeries(intervalOf(all));
      this.#counter = new Counter(this.#series);
      return this.#add(all);
    }
    this.#add(inOrder);
  }

  #add(samples: readonly Sample[]): void {
    for (const sample of samples) {
      const { at, watts, wattHours } = sample;
      if (watts !== undefined) this.#series.add(at, watts);
      else this.#counter.read(at, wattHours!);
      this.#touched.add(Math.floor(at / DAY));
      if (!this.newest || at >= this.newest.at) this.newest = sample;
    }
  }

  /** Loads that are over; the same ones are told again each time. @param now UTC milliseconds */
  loads(now: number, ways: Ways = USUAL_WAYS): Cycle[] {
    const cycles = this.#cycles(ways);
    const to = this.#spokenTo(now);
    return cycles.filter(({ until }) => until + Math.max(SETTLES, ways.pause + MINUTE) <= to);
  }

  /** Whether a load may come out of what was said, though nothing more is said. @param now UTC milliseconds */
  unsettled(now: number): boolean {
    const last = this.#cycles(USUAL_WAYS).at(-1);
    return last !== undefined && last.until + SETTLES > this.#spokenTo(now);
  }

  /** The load that runs, if one does: when it began and its energy so far. */
  running(ways: Ways = USUAL_WAYS): Cycle | undefined {
    const now = this.newest?.at ?? -Infinity;
    const last = this.#cycles(ways).at(-1);
    return last && last.until + 3 * this.#series.bin >= now ? last : undefined;
  }

  #cycles(ways: Ways): Cycle[] {
    return findCycles(this.#series.stretches(), this.#series.bin, ways);
  }

  /** To when it is known what was drawn: of a meter that has been silent for hours, nothing more will come. */
  #spokenTo(now: number): number {
    const newest = this.newest?.at ?? -Infinity;
    return now - newest > SILENT ? now : newest;
  }

  /** Whole watts of each minute, of the days that were spoken of since they were kept last. */
  days(): { day: number; minutes: Uint16Array }[] {
    const touched = [...this.#touched].sort((a, b) => a - b);
    return touched.map((day) => ({ day, minutes: this.#series.minutesOf(day) }));
  }

  /** The days that were told are on the disk. */
  daysKept(): void {
    this.#touched.clear();
  }

  /** The watts that half of a load's minutes do not reach. @param load UTC milliseconds of its ends */
  middleOf({ from, to }: Pick<Cycle, 'from' | 'to'>): number {
    const watts: number[] = [];
    for (let day = Math.floor(from / DAY); day * DAY < to; day++) {
      this.#series.minutesOf(day).forEach((value, i) => {
        const at = day * DAY + i * MINUTE;
        if (value !== UNREAD && at >= from && at < to) watts.push(value);
      });
    }
    return watts.sort((a, b) => a - b)[watts.length >> 1] ?? 0;
  }

  /** Whole watts of each of so many minutes to the newest sample, W; null where nothing was said. */
  lately(count: number): (number | null)[] {
    if (!this.newest) return [];
    const end = Math.floor(this.newest.at / MINUTE);
    const days = new Map<number, Uint16Array>();
    return Array.from({ length: count }, (_, i) => {
      const minute = end - count + 1 + i;
      const day = Math.floor(minute / MINUTES_A_DAY);
      if (!days.has(day)) days.set(day, this.#series.minutesOf(day));
      const watts = days.get(day)![minute - day * MINUTES_A_DAY]!;
      return watts === UNREAD ? null : watts;
    });
  }

  /** UTC instant from which on all is to stay at hand, ms. */
  get since(): number {
    return (Math.floor((this.newest?.at ?? 0) / DAY) - DAYS_AT_HAND) * DAY;
  }

  /** Lets days go that are long over: what is in them was read. */
  forget(): void {
    this.#series.forget(this.since / DAY);
  }
}

/** How often a meter speaks: what lies between two samples in the middle, ms. */
function intervalOf(samples: readonly Sample[]): number {
  const gaps = samples
    .slice(1)
    .map(({ at }, i) => at - samples[i]!.at)
    .filter((gap) => gap > 0)
    .sort((a, b) => a - b);
  return gaps[gaps.length >> 1] ?? USUALLY;
}

/** What dries draws evenly for most of its time; a washer tumbles, fills and rests for the most of it. W. Common practice. */
const DRIES = 220;

/** Whether a load on a socket of a washer and a dryer was dried, by what it drew in the middle, W. */
export const isDrying = (middle: number): boolean => middle >= DRIES;
