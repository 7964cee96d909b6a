import { quantityOf, type QuantityId } from '../../model/quantities.js';
import type { Grade } from '../../model/vocabulary.js';
import { MS_PER_DAY, type Day } from '../../units/calendar.js';
import type { Task } from '../catalogue/types.js';
import { RateBelief, LEAST_USE } from './belief.js';
import { inDriver } from '../catalogue/interval-figure.js';
import { Openings, type Opening } from '../record/openings.js';
import type { Usage } from '../record/load-counts.js';
import type { Measured } from '../record/history.js';

/** An opening or a reading as evidence: after how much use it was seen. */
export interface Evidence {
  entryId: string;
  day: Day;
  /** Loads or days since the clean before. */
  n: number;
  grade?: Grade;
  /** The fouling that a reading tells, with what it was measured against. */
  measured?: {
    quantity: QuantityId;
    value: number;
    clean: number;
    /** Standard deviation of ln(value / clean). */
    error: number;
    fouling: number;
  };
}

/** Why an interval did not lengthen further: `failed`, it was found blocked after so much; `heavy` likewise. */
export type Held = 'restraint' | 'stretch' | 'own' | 'failed' | 'heavy';

export interface Learned {
  belief: RateBelief;
  /** The interval in the driver's unit as learned. */
  learned: number;
  /** The latest of it; all of it is in `seen`. */
  evidence: Evidence[];
  seen: Summary;
  held?: Held;
}

/** All that was seen, in figures. */
export interface Summary {
  /** Times a grade was noted. */
  opened: number;
  /** Loads or days since the clean before, in the mean of those times. */
  typical: number;
  /** The grade, where it was the same each time. */
  always?: Grade;
  /** Figures read. */
  measured: number;
}

export interface LearningQuestion {
  task: Task;
  openings: Openings;
  /** In order of time. */
  readings: readonly Measured[];
  /** With the programmes weighted for this task. */
  usage: Usage;
  /** The school's interval after the profile, in the driver's unit. */
  base: number;
  risk: number;
  /** The interval is the household's own figure, past which nothing lengthens. */
  own: boolean;
  /** How many times wider the household's record showed that things are believed; 1 where nothing is said. */
  widened?: number;
  /** Calendar date since which something of the cause is different: finds from before hold nothing. */
  changedOn?: Day;
}

/** Evidence lengthens an interval by no more than this factor at each opening. Judgement. */
const RESTRAINT = 1.5;
const STRETCH_ROOM = 2;
/** A heavy find at an age gives at most so many times that age. Judgement. */
const AFTER_HEAVY = 1.15;
const [HEAVY, BLOCKED] = [3, 4] as const;
/** A figure read within so many loads or days of a clean is one of the clean machine. Judgement. */
const STILL_CLEAN = 3;
/** So much evidence is kept to be shown; a record of decades has more. */
const KEPT = 12;

/** What was last learned from some openings; it goes when they do. */
const KNOWN = new WeakMap<Openings, { question: LearningQuestion; learned: Learned }>();

/**
 * Goes through what was seen, in order, and moves the interval. What came of it is kept
 * while the openings, the use and the interval stay the same ones: a screen is read far more often than
 * something happens.
 */
export function learn(question: LearningQuestion): Learned {
  const { openings } = question;
  const known = KNOWN.get(openings);
  if (known && sameQuestion(known.question, question)) return known.learned;
  const learned = learnFrom(question);
  if (openings !== Openings.NONE) KNOWN.set(openings, { question, learned });
  return learned;
}

const sameQuestion = (a: LearningQuestion, b: LearningQuestion): boolean =>
  a.task === b.task &&
  a.usage === b.usage &&
  a.readings === b.readings &&
  a.base === b.base &&
  a.risk === b.risk &&
  a.own === b.own &&
  a.widened === b.widened &&
  a.changedOn === b.changedOn;

function learnFrom(question: LearningQuestion): Learned {
  const sightings = sightingsOf(question);
  const belief = unseen(question);
  const seen = sightings.summary();
  if (sightings.count === 0) return { belief, learned: question.base, evidence: [], seen };
  for (let i = 0; i < sightings.count; i++) sightings.add(belief, i, 1);
  const { learned, held } = intervalAfter(sightings, belief, question);
  return { belief, learned, evidence: sightings.latest(KEPT), seen, ...(held ? { held } : {}) };
}

/** What is believed before anything was seen. */
const unseen = ({ base, risk, widened }: LearningQuestion): RateBelief =>
  new RateBelief(base, risk, undefined, widened);

/** An opening with a grade, and what was believed before it. */
export interface Before {
  /** Only until the next is asked for. */
  belief: RateBelief;
  /** Loads or days since the clean before. */
  n: number;
  grade: Grade;
  opening: Opening;
}

/** Goes through what was seen once more: at each opening that was graded, what was believed up to then. */
export function* replayed(question: LearningQuestion): Generator<Before> {
  const sightings = sightingsOf(question);
  const belief = unseen(question);
  for (let i = 0; i < sightings.count; i++) {
    const graded = sightings.gradedAt(i);
    if (graded) yield { belief, ...graded };
    sightings.add(belief, i, 1);
  }
}

/**
 * The interval after the last opening. It is the least of: its own due point; 1.5 times the due point
 * before it; 1.5² times the one before that, and so on to the school's interval; the most it may be; every
 * age at which it was found blocked; and 1.15 times that at which it was found heavy, 1.5 times more for
 * each opening since. Due points have a least value, so only the last few can matter; they are found by
 * taking the evidence back, one after the other.
 */
function intervalAfter(
  sightings: Sightings,
  belief: RateBelief,
  question: LearningQuestion,
): { learned: number; held?: Held } {
  const own = belief.dueAt();
  const most = mostFor(question);
  const before = belief.copy();
  const { failed, heavy } = sightings.ceilings(question.changedOn);
  let least = Math.min(own, most, failed, heavy);
  for (let back = 1; back <= sightings.count; back++) {
    const room = RESTRAINT ** back;
    if (belief.leastDueAt() * room >= least) break;
    sightings.add(before, sightings.count - back, -1);
    const all = back === sightings.count;
    if (!all && before.dueAtLeast() * room >= least) continue;
    const due = all ? question.base : before.dueAt();
    least = Math.min(least, due * room);
  }
  if (least === own) return { learned: own };
  if (least === failed) return { learned: failed, held: 'failed' };
  if (least === heavy) return { learned: heavy, held: 'heavy' };
  if (least === most) return { learned: most, held: question.own ? 'own' : 'stretch' };
  return { learned: least, held: 'restraint' };
}

/** Evidence never lengthens past twice the stretch school's interval, nor past an own figure. */
function mostFor({ task, base, own }: LearningQuestion): number {
  if (own) return base;
  return Math.max(inDriver(task.intervals.stretch, task.driver) * STRETCH_ROOM, base);
}

/** What the openings and readings tell, in order, each after the use since the clean before it. */
function sightingsOf({ task, usage, openings, readings }: LearningQuestion): Sightings {
  const sightings = new Sightings(task, openings);
  if (task.ungraded || task.habit) return sightings;
  /** Loads or days up to then, from a fixed point. */
  const upTo = task.driver === 'loads' ? usage.along() : (at: number): number => at / MS_PER_DAY;
  const figures = task.measures?.length ? new Figures(task, readings) : undefined;
  let cleanedAt = NaN;
  for (let i = 0; i < openings.length; i++) {
    const at = openings.at[i]!;
    figures?.readUpTo(at, cleanedAt, upTo, sightings);
    const now = upTo(at);
    // Before the first clean the use is not known.
    const n = now - cleanedAt;
    const grade = openings.gradeOf(i);
    if (grade !== undefined && n >= LEAST_USE) sightings.see(i, grade, n);
    if (openings.isCleaned(i)) cleanedAt = now;
  }
  figures?.readUpTo(Infinity, cleanedAt, upTo, sightings);
  return sightings;
}

/** How many times worse than clean: more where less is better, and the other way round. */
const timesWorse = (quantity: QuantityId, value: number, clean: number): number =>
  quantityOf(quantity)!.better === 'more' ? clean / value : value / clean;

/** What a figure read tells. */
type Told = Pick<Evidence, 'entryId' | 'day'> & { measured: NonNullable<Evidence['measured']> };

/** Stands for the grade where a figure was read. */
const READ = -1;

/** What was seen, in order, in rows of figures. */
class Sightings {
  readonly #uses: number[] = [];
  readonly #grades: number[] = [];
  /** Which opening a grade is of, or which of the figures told. */
  readonly #sources: number[] = [];
  readonly #told: Told[] = [];

  constructor(
    readonly task: Task,
    readonly openings: Openings,
  ) {}

  get count(): number {
    return this.#uses.length;
  }

  /** A grade at an opening, after `n` loads or days. */
  see(opening: number, grade: Grade, n: number): void {
    this.#uses.push(n);
    this.#grades.push(grade);
    this.#sources.push(opening);
  }

  /** A figure read after `n` loads or days. */
  read(told: Told, n: number): void {
    this.#uses.push(n);
    this.#grades.push(READ);
    this.#sources.push(this.#told.push(told) - 1);
  }

  /**
   * What later dates are held by: the least age at which it was found blocked, and what the heavy finds
   * give.
   * @param since calendar date from which on finds count
   */
  ceilings(since: Day = ''): { failed: number; heavy: number } {
    let [failed, heavy] = [Infinity, Infinity];
    for (let i = 0; i < this.count; i++) {
      const grade = this.#grades[i]!;
      heavy *= RESTRAINT;
      if (grade < HEAVY || this.openings.list[this.#sources[i]!]!.day < since) continue;
      const n = this.#uses[i]!;
      heavy = Math.min(heavy, AFTER_HEAVY * n);
      if (grade === BLOCKED) failed = Math.min(failed, n);
    }
    return { failed, heavy };
  }

  /** Takes one of them into a belief, or back out of it. */
  add(belief: RateBelief, index: number, sign: 1 | -1): void {
    const grade = this.#grades[index]!;
    const n = this.#uses[index]!;
    if (grade === READ) {
      const { quantity, value, clean, error } = this.#told[this.#sources[index]!]!.measured;
      const { limit } = this.task.measures!.find((one) => one.quantity === quantity)!;
      belief.measure({ ratio: timesWorse(quantity, value, clean), limit, error }, n, sign);
    } else if (sign === 1) {
      belief.observe(grade as Grade, n);
    } else {
      belief.takeBack(grade as Grade, n);
    }
  }

  /** The opening that one of them is of; nothing where it is a figure read. */
  gradedAt(index: number): { n: number; grade: Grade; opening: Opening } | undefined {
    const grade = this.#grades[index]!;
    if (grade === READ) return undefined;
    const opening = this.openings.list[this.#sources[index]!]!;
    return { n: this.#uses[index]!, grade: grade as Grade, opening };
  }

  latest(most: number): Evidence[] {
    const from = Math.max(0, this.count - most);
    return this.#uses.slice(from).map((n, i): Evidence => {
      const grade = this.#grades[from + i]!;
      const source = this.#sources[from + i]!;
      if (grade === READ) return { ...this.#told[source]!, n };
      const { entryId, day } = this.openings.list[source]!;
      return { entryId, day, n, grade: grade as Grade };
    });
  }

  summary(): Summary {
    let opened = 0;
    let used = 0;
    let always: number | undefined;
    let differs = false;
    for (let i = 0; i < this.count; i++) {
      const grade = this.#grades[i]!;
      if (grade === READ) continue;
      opened++;
      used += this.#uses[i]!;
      always ??= grade;
      differs ||= always !== grade;
    }
    return {
      opened,
      typical: opened ? used / opened : 0,
      measured: this.count - opened,
      ...(always === undefined || differs ? {} : { always: always as Grade }),
    };
  }
}

/** Goes along the figures read, and tells what each says against those of the clean machine. */
class Figures {
  #next = 0;
  readonly #clean = new Map<string, number[]>();

  constructor(
    readonly task: Task,
    readonly readings: readonly Measured[],
  ) {}

  /** Adds what was read up to an instant, since the clean at `cleanedAt` (loads or days). */
  readUpTo(
    at: number,
    cleanedAt: number,
    upTo: (at: number) => number,
    sightings: Sightings,
  ): void {
    for (; this.#next < this.readings.length; this.#next++) {
      const one = this.readings[this.#next]!;
      if (one.at > at) return;
      const n = upTo(one.at) - cleanedAt;
      const told = this.#tell(one, n);
      if (told) sightings.read(told, n);
    }
  }

  /** A reading against the middle of those taken just after a clean; those are kept. */
  #tell({ entryId, day, quantity, value, taken = '' }: Measured, n: number): Told | undefined {
    const measure = this.task.measures!.find((one) => one.quantity === quantity);
    if (!measure || !(value > 0) || !(n >= 0)) return undefined;
    const same = `${quantity} ${taken}`;
    const before = this.#clean.get(same) ?? [];
    if (n < STILL_CLEAN) {
      this.#clean.set(same, [...before, value]);
      return undefined;
    }
    if (before.length === 0) return undefined;
    const clean = [...before].sort((a, b) => a - b)[before.length >> 1]!;
    const fouling = Math.max(0, (timesWorse(quantity, value, clean) - 1) / (measure.limit - 1));
    const error = errorOf(measure.spread, before);
    return { entryId, day, measured: { quantity, value, clean, error, fouling } };
  }
}

/** So many readings' worth of judgement stands behind the error of one reading. */
const PRIOR_READINGS = 4;

/**
 * Error of a reading held against those of the clean machine, as standard deviation of ln: the readings'
 * own scatter where there are several, drawn to what is usual, and that of their middle.
 * @param usual standard deviation of ln of one reading
 * @param clean readings of the clean machine
 */
function errorOf(usual: number, clean: readonly number[]): number {
  const logs = clean.map(Math.log);
  const mean = logs.reduce((a, b) => a + b, 0) / logs.length;
  const squares = logs.reduce((sum, log) => sum + (log - mean) ** 2, 0);
  const one = (PRIOR_READINGS * usual ** 2 + squares) / (PRIOR_READINGS + logs.length - 1);
  return Math.sqrt(one * (1 + 1 / logs.length));
}
