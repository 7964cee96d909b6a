import type { Grade } from '../model/vocabulary.js';
import { daysBetween, type Day } from '../units/calendar.js';
import type { Task } from './catalogue.js';
import { Belief } from './fouling.js';
import { inDriver } from './interval.js';
import type { Usage } from './usage.js';

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

/** A figure read at a machine. */
export interface Measured {
  entryId: string;
  at: number;
  day: Day;
  quantity: string;
  value: number;
}

/** An opening or a reading as evidence: after how much use it was seen. */
export interface Evidence {
  entryId: string;
  day: Day;
  /** Loads or days since the clean before. */
  n: number;
  grade?: Grade;
  /** The fouling that a reading tells, with what it was measured against. */
  measured?: { quantity: string; value: number; clean: number; fouling: number };
}

/** Why an interval did not lengthen further. */
export type Held = 'restraint' | 'stretch' | 'own';

export interface Learned {
  belief: Belief;
  /** The interval in the driver's unit as learned. */
  learned: number;
  evidence: Evidence[];
  held?: Held;
}

export interface LearningQuestion {
  task: Task;
  openings: readonly Opening[];
  readings: readonly Measured[];
  /** With the programmes weighted for this task. */
  usage: Usage;
  /** The school's interval after the profile, in the driver's unit. */
  base: number;
  risk: number;
  /** The interval is the household's own figure, past which nothing lengthens. */
  own: boolean;
}

/** Evidence lengthens an interval by no more than this at each opening. */
const RESTRAINT = 1.5;
const STRETCH_ROOM = 2;
/** A figure read within so many loads or days of a clean is one of the clean machine. */
const STILL_CLEAN = 3;

/**
 * What was learned from a list of openings, while the list, the use and the interval stay the same
 * ones. A screen is read far more often than something happens.
 */
const KNOWN = new WeakMap<readonly Opening[], { question: LearningQuestion; learned: Learned }>();

/** Goes through what was seen, in order, and moves the interval. */
export function learn(question: LearningQuestion): Learned {
  const known = KNOWN.get(question.openings);
  if (known && sameQuestion(known.question, question)) return known.learned;
  const learned = learnFrom(question);
  KNOWN.set(question.openings, { question, learned });
  return learned;
}

const sameQuestion = (a: LearningQuestion, b: LearningQuestion): boolean =>
  a.task === b.task &&
  a.usage === b.usage &&
  a.readings === b.readings &&
  a.base === b.base &&
  a.risk === b.risk &&
  a.own === b.own;

function learnFrom(question: LearningQuestion): Learned {
  const { base, risk } = question;
  const belief = new Belief(base, risk);
  const evidence = evidenceOf(question);
  if (evidence.length === 0) return { belief, learned: base, evidence };
  const most = mostFor(question);
  // The interval after the last opening is the least of: its own due point; 1.5 times the due point
  // before; 1.5² times the one before that, and so on. Due points have a least value, so only the
  // last few can matter, and only they are worked out.
  const reach = Math.ceil(Math.log(most / belief.leastDueAt()) / Math.log(RESTRAINT)) + 1;
  const from = Math.max(0, evidence.length - reach);
  let learned = from === 0 ? base : Infinity;
  let held: Held | undefined;
  evidence.forEach((one, i) => {
    take(belief, one, question);
    if (i < from) return;
    held = undefined;
    const due = belief.dueAt();
    const restrained = learned * RESTRAINT;
    learned = due;
    if (learned > restrained) [learned, held] = [restrained, 'restraint'];
    if (learned > most) [learned, held] = [most, question.own ? 'own' : 'stretch'];
  });
  return { belief, learned, evidence, ...(held ? { held } : {}) };
}

/** Evidence never lengthens past twice the stretch school's interval, nor past an own figure. */
function mostFor({ task, base, own }: LearningQuestion): number {
  if (own) return base;
  return Math.max(inDriver(task.intervals.stretch, task.driver) * STRETCH_ROOM, base);
}

function take(belief: Belief, { grade, measured, n }: Evidence, { task }: LearningQuestion): void {
  if (grade !== undefined) belief.observe(grade, n);
  if (!measured) return;
  const { spread } = task.measures!.find(({ quantity }) => quantity === measured.quantity)!;
  belief.measure(measured.fouling, n, spread);
}

/** What the openings and readings tell, in order, each after the use since the clean before it. */
function evidenceOf(question: LearningQuestion): Evidence[] {
  const { task, usage } = question;
  if (task.ungraded || task.habit) return [];
  const readings = task.measures?.length ? inOrder(question.readings) : [];
  const evidence: Evidence[] = [];
  let cleaned: Opening | undefined;
  let next = 0;
  const clean = new Map<string, number[]>();
  const used = (at: number, day: Day): number =>
    task.driver === 'loads' ? usage.amount(cleaned!.at, at) : daysBetween(cleaned!.day, day);
  const readUpTo = (at: number) => {
    for (; next < readings.length && readings[next]!.at <= at; next++) {
      const one = readings[next]!;
      if (!cleaned) continue;
      const told = measuredBy(task, one, used(one.at, one.day), clean);
      if (told) evidence.push(told);
    }
  };
  for (const opening of inOrder(question.openings)) {
    readUpTo(opening.at);
    if (cleaned && opening.grade !== undefined) {
      const n = used(opening.at, opening.day);
      // Seen straight after a clean it tells nothing about the rate.
      if (n >= 0.5) {
        evidence.push({ entryId: opening.entryId, day: opening.day, n, grade: opening.grade });
      }
    }
    if (opening.cleaned) cleaned = opening;
  }
  readUpTo(Infinity);
  return evidence;
}

/** A reading as evidence, against the middle of those taken just after a clean; those are kept. */
function measuredBy(
  task: Task,
  { entryId, day, quantity, value }: Measured,
  n: number,
  clean: Map<string, number[]>,
): Evidence | undefined {
  const measure = task.measures!.find((one) => one.quantity === quantity);
  if (!measure || !(value > 0)) return undefined;
  const before = clean.get(quantity) ?? [];
  if (n < STILL_CLEAN) {
    clean.set(quantity, [...before, value]);
    return undefined;
  }
  if (before.length === 0) return undefined;
  const baseline = [...before].sort((a, b) => a - b)[before.length >> 1]!;
  const fouling = Math.max(0, (value / baseline - 1) / (measure.limit - 1));
  return { entryId, day, n, measured: { quantity, value, clean: baseline, fouling } };
}

function inOrder<T extends { at: number }>(all: readonly T[]): readonly T[] {
  for (let i = 1; i < all.length; i++) {
    if (all[i]!.at < all[i - 1]!.at) return [...all].sort((a, b) => a.at - b.at);
  }
  return all;
}
