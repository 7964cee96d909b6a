import type { Household, Machine } from '../model/schemas.js';
import type { Grade } from '../model/vocabulary.js';
import { dayOf, daysBetween, earliest, plusDays, plusMonths, type Day } from '../units/calendar.js';
import type { Interval, Task } from './catalogue.js';
import { Belief, type Fouling } from './fouling.js';
import { inDriver, scaled, speedUps, type InForce } from './interval.js';
import { ruleFor } from './rules.js';
import { total, type Loads, type Usage } from './usage.js';

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

/** `off`: switched off by the household. */
export type DueStatus = 'unknown' | 'fine' | 'soon' | 'due' | 'off';

/** An opening as evidence: after how much use, and what it did to the interval. */
export interface Evidence {
  opening: Opening;
  /** Loads or days since the clean before. */
  n: number;
  /** Interval in the driver's unit before and after. */
  before: number;
  after: number;
  /** Why it did not lengthen further. */
  held?: 'restraint' | 'stretch';
}

/** All that is derived about one task of one machine. Never stored. */
export interface Due {
  task: string;
  station: string;
  status: DueStatus;
  inForce: InForce;
  /** Where the interval comes from, in words: a school, or the household's own figure. */
  from: string;
  /** The school's interval after the profile, in the driver's unit: what holds without evidence. */
  base: number;
  /** The interval in the driver's unit as learned. */
  learned: number;
  evidence: Evidence[];
  last?: Opening;
  loads?: Loads;
  days?: number;
  fouling?: Fouling;
  /** Fouling expected per load or day, in the driver's unit. */
  rate: Fouling;
  /** Loads or days since the last clean, in the driver's unit. */
  use?: number;
  /** The date by which to do it; absent where it is not known or nothing is ever washed. */
  on?: Day;
  /** The bound that sets the date. */
  by?: 'loads' | 'days' | 'cap';
  /** The date by which the limit is as likely passed as not. */
  evenOddsOn?: Day;
}

export interface DueQuestion {
  task: Task;
  machine: Pick<Machine, 'features' | 'habits' | 'school' | 'rules'>;
  household: Pick<Household, 'school' | 'risk' | 'hardness' | 'zone'>;
  /** Of this task, any order. */
  openings: readonly Opening[];
  usage: Usage;
  /** UTC instant, milliseconds. */
  now: number;
}

const SOON_DAYS = 14;
/** Evidence lengthens an interval by no more than this at each opening. */
const RESTRAINT = 1.5;
const STRETCH_ROOM = 2;
/** Dates further off than this are not worth telling. */
const HORIZON_DAYS = 3650;

/** When a task is due, and everything that the date rests on. */
export function due(question: DueQuestion): Due {
  const { task, machine, household, usage, now } = question;
  const { interval: school, own, from } = ruleFor(task, machine, household);
  // The maker's figure is taken as it stands; the profile acts on schools.
  const speeds = own ? [] : speedUps(task, machine, household);
  const pace = 1 / speeds.reduce((product, { multiplier }) => product * multiplier, 1);
  const base = inDriver(school, task.driver) * pace;
  const { belief, learned, evidence } = learn(question, base);
  const inForce = scaled(task, school, speeds, evidence.length ? (learned / base) * pace : pace);

  const result: Due = {
    task: task.id,
    station: task.station,
    status: 'unknown',
    inForce,
    from,
    base,
    learned,
    evidence,
    rate: belief.foulingAt(1),
  };
  if (machine.rules?.[task.id]?.off) return { ...result, status: 'off' };
  const last = lastClean(question.openings);
  if (!last) return result;

  const today = dayOf(now, household.zone);
  const loads = usage.between(last.at, now);
  const days = Math.max(0, daysBetween(last.day, today));
  const n = task.driver === 'loads' ? total(loads) : days;
  Object.assign(result, { last, loads, days, use: n, fouling: belief.foulingAt(n) });

  const bounds: { by: NonNullable<Due['by']>; on: Day }[] = [];
  const byLoads =
    inForce.loads === undefined ? undefined : loadsDay(inForce.loads, last, question, today);
  if (byLoads) bounds.push({ by: 'loads', on: byLoads });
  const byDays = dateBound(inForce, last.day);
  if (byDays) bounds.push({ by: 'days', on: byDays });
  const cap = task.cap && dateBound(task.cap, last.day);
  if (cap) bounds.push({ by: 'cap', on: cap });
  if (bounds.length === 0) return { ...result, status: 'fine' };

  const on = earliest(...bounds.map((bound) => bound.on));
  const ahead = daysBetween(today, on);
  const evenOdds = useDay(belief.evenOddsAt(), last, question, today);
  return {
    ...result,
    on,
    by: bounds.find((bound) => bound.on === on)!.by,
    status: ahead <= 0 ? 'due' : ahead <= SOON_DAYS ? 'soon' : 'fine',
    ...(evenOdds ? { evenOddsOn: evenOdds } : {}),
  };
}

function lastClean(openings: readonly Opening[]): Opening | undefined {
  let last: Opening | undefined;
  for (const one of openings) if (one.cleaned && (!last || one.at >= last.at)) last = one;
  return last;
}

interface Learned {
  belief: Belief;
  learned: number;
  evidence: Evidence[];
}

/**
 * What was learned from a list of openings, while the list, the use and the interval stay the same
 * ones. A screen is read far more often than something happens.
 */
const KNOWN = new WeakMap<
  readonly Opening[],
  Learned & { usage: Usage; base: number; risk: number; own: boolean }
>();

function learn(question: DueQuestion, base: number): Learned {
  const { openings, usage } = question;
  const { risk } = question.household;
  const own = question.machine.rules?.[question.task.id]?.own !== undefined;
  const known = KNOWN.get(openings);
  if (known?.usage === usage && known.base === base && known.risk === risk && known.own === own) {
    return known;
  }
  const learned = learnFrom(question, base);
  KNOWN.set(openings, { ...learned, usage, base, risk, own });
  return learned;
}

/**
 * Goes through the openings in order and moves the interval. Evidence shortens at once; it lengthens
 * by at most half at each opening and never past twice the stretch school's interval.
 */
function learnFrom(question: DueQuestion, base: number): Learned {
  const { task, household, machine, usage, openings } = question;
  const belief = new Belief(base, household.risk);
  const stretch = Math.max(inDriver(task.intervals.stretch, task.driver) * STRETCH_ROOM, base);
  const most = ruleFor(task, machine, household).own ? base : stretch;
  const evidence: Evidence[] = [];
  let learned = base;
  let cleaned: Opening | undefined;
  for (const opening of inOrder(openings)) {
    const before = learned;
    const n =
      cleaned &&
      (task.driver === 'loads'
        ? total(usage.between(cleaned.at, opening.at))
        : daysBetween(cleaned.day, opening.day));
    let held: Evidence['held'];
    if (opening.grade !== undefined && n !== undefined && belief.observe(opening.grade, n)) {
      learned = belief.dueAt();
      if (learned > before * RESTRAINT) [learned, held] = [before * RESTRAINT, 'restraint'];
      if (learned > most) [learned, held] = [most, 'stretch'];
      evidence.push({ opening, n, before, after: learned, ...(held ? { held } : {}) });
    }
    if (opening.cleaned) cleaned = opening;
  }
  return { belief, learned, evidence };
}

const inOrder = (openings: readonly Opening[]): Opening[] =>
  [...openings].sort((a, b) => a.at - b.at);

/** The date by which so much use (in the driver's unit) will have passed since a clean. */
function useDay(use: number, last: Opening, question: DueQuestion, today: Day): Day | undefined {
  if (question.task.driver === 'loads') return loadsDay(use, last, question, today);
  return use > HORIZON_DAYS ? undefined : plusDays(last.day, Math.round(use));
}

function loadsDay(
  loads: number,
  last: Opening,
  question: DueQuestion,
  today: Day,
): Day | undefined {
  const { usage, now, household } = question;
  const passedAt = usage.passed(last.at, loads, now);
  if (passedAt !== undefined) return dayOf(passedAt, household.zone);
  const { perWeek } = usage.weeklyRate(now);
  const left = loads - total(usage.between(last.at, now));
  const ahead = perWeek > 0 ? (left * 7) / perWeek : Infinity;
  return ahead > HORIZON_DAYS ? undefined : plusDays(today, Math.ceil(ahead - 1e-9));
}

function dateBound(
  { days, months }: Pick<Interval, 'days' | 'months'>,
  from: Day,
): Day | undefined {
  const bounds = [
    ...(days === undefined ? [] : [plusDays(from, Math.round(days))]),
    ...(months === undefined ? [] : [plusMonths(from, months)]),
  ];
  return bounds.length ? earliest(...bounds) : undefined;
}
