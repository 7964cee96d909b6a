import type { Grade } from '../../model/vocabulary.js';
import type { Day } from '../../units/calendar.js';

/** One time a station was opened: looked at, or cleaned. */
export interface Opening {
  entryId: string;
  /** UTC instant, milliseconds. */
  at: number;
  /** Calendar date in the zone it was entered in. */
  day: Day;
  task: string;
  grade?: Grade;
  cleaned: boolean;
}

const UNGRADED = -1;

/**
 * The openings of one task in order of time. A decade has hundreds, and a due date goes over all of
 * them: what it reckons with stands in rows of figures beside them.
 */
export class Openings {
  static readonly NONE = new Openings([]);

  readonly list: readonly Opening[];
  /** UTC instants, milliseconds. */
  readonly at: Float64Array;
  readonly #grades: Int8Array;
  readonly #cleaned: Uint8Array;
  /** The latest at which it was cleaned. */
  readonly lastCleaned: Opening | undefined;

  /** @param openings in any order; of two at one instant the first given stays first */
  constructor(openings: Iterable<Opening>) {
    const list = [...openings].sort((a, b) => a.at - b.at);
    this.list = list;
    // Plain loops: an array's `from` with a function takes ten times as long, and houses have many of these.
    this.at = new Float64Array(list.length);
    this.#grades = new Int8Array(list.length);
    this.#cleaned = new Uint8Array(list.length);
    for (let i = 0; i < list.length; i++) {
      const { at, grade, cleaned } = list[i]!;
      this.at[i] = at;
      this.#grades[i] = grade ?? UNGRADED;
      this.#cleaned[i] = Number(cleaned);
    }
    this.lastCleaned = list.findLast(({ cleaned }) => cleaned);
  }

  get length(): number {
    return this.list.length;
  }

  gradeOf(index: number): Grade | undefined {
    const grade = this.#grades[index]!;
    return grade === UNGRADED ? undefined : (grade as Grade);
  }

  isCleaned(index: number): boolean {
    return this.#cleaned[index] === 1;
  }
}
