import { daysBetween, plusDays, type Day } from '@needlecase/core';
import { sayMonth } from './shown';

/** A day away is so wide against one at home: the cloth is pleated there. */
const FOLDED = 0.3;
/** Days away that are fewer than this make no pleat. */
const LEAST_FOLD = 3;

interface Span {
  from: Day;
  to: Day;
}

/** A length along the year: days in order, those away shortened. */
export class BandScale {
  /** By day from the first: where it begins; one more for the end. */
  readonly #at: Float64Array;

  constructor(
    readonly start: Day,
    readonly end: Day,
    readonly length: number,
    readonly away: readonly Span[] = [],
    readonly margin = 0,
  ) {
    const days = daysBetween(start, end) + 1;
    this.#at = new Float64Array(days + 1);
    for (let i = 0; i < days; i++) {
      const day = plusDays(start, i);
      const folded = this.folds.some(({ from, to }) => from <= day && day <= to);
      this.#at[i + 1] = this.#at[i]! + (folded ? FOLDED : 1);
    }
    const scale = (length - 2 * margin) / this.#at[days]!;
    for (let i = 0; i <= days; i++) this.#at[i] = margin + this.#at[i]! * scale;
  }

  get folds(): readonly Span[] {
    return this.away.filter(({ from, to }) => daysBetween(from, to) + 1 >= LEAST_FOLD);
  }

  /** The middle of a day; a day outside lies at the edge. */
  at(day: Day): number {
    const i = Math.max(0, Math.min(this.#at.length - 2, daysBetween(this.start, day)));
    return (this.#at[i]! + this.#at[i + 1]!) / 2;
  }

  /** Where a day begins. */
  from(day: Day): number {
    const i = Math.max(0, Math.min(this.#at.length - 1, daysBetween(this.start, day)));
    return this.#at[i]!;
  }

  /** The day at a place. */
  dayAt(place: number): Day {
    const days = this.#at.length - 1;
    let i = 0;
    while (i < days - 1 && this.#at[i + 1]! <= place) i++;
    return plusDays(this.start, i);
  }

  /** The first of each month, with its name; the year at the first of it. */
  get months(): { day: Day; name: string; at: number }[] {
    const months: { day: Day; name: string; at: number }[] = [];
    const days = daysBetween(this.start, this.end);
    for (let i = 0; i <= days; i++) {
      const day = plusDays(this.start, i);
      if (!day.endsWith('-01')) continue;
      const year = day.slice(5, 7) === '01' ? ` ${day.slice(0, 4)}` : '';
      months.push({ day, name: `${sayMonth(day)}${year}`, at: this.from(day) });
    }
    return months;
  }

  /** Where the weeks begin. */
  get weeks(): number[] {
    const weeks: number[] = [];
    const days = daysBetween(this.start, this.end);
    for (let i = 0; i <= days; i++) {
      const day = plusDays(this.start, i);
      if (new Date(`${day}T12:00:00Z`).getUTCDay() === 1) weeks.push(this.from(day));
    }
    return weeks;
  }
}

/** Something with a label that may not have room. */
interface Labelled {
  at: number;
  /** Of its label. */
  width: number;
  /** The higher, the sooner it gets one. */
  weight: number;
}

/** Which labels have room beside each other on one line, the weightiest first. @param gap between two */
export function roomy(all: readonly Labelled[], from: number, to: number, gap = 6): boolean[] {
  const shown = all.map(() => false);
  const taken: [number, number][] = [];
  const order = [...all.keys()].sort((a, b) => all[b]!.weight - all[a]!.weight || a - b);
  for (const i of order) {
    const { at, width } = all[i]!;
    const [left, right] = [at - width / 2 - gap / 2, at + width / 2 + gap / 2];
    if (left < from || right > to) continue;
    if (taken.some(([a, b]) => left < b && a < right)) continue;
    taken.push([left, right]);
    shown[i] = true;
  }
  return shown;
}
