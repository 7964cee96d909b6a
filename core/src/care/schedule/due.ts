import type { Household, Machine } from '../../model/schemas.js';
import {
  dayOf,
  daysBetween,
  earliest,
  plusDays,
  plusMonths,
  type Day,
} from '../../units/calendar.js';
import type { Interval, Task } from '../catalogue/types.js';
import type { Fouling } from '../fouling/belief.js';
import { inDriver } from '../catalogue/interval-figure.js';
import { paceOf, scaled, weightsOf, type InForce, type SpeedUp } from './interval.js';
import {
  learn,
  replayed,
  type Before,
  type Evidence,
  type Held,
  type Learned,
  type LearningQuestion,
  type Summary,
} from '../fouling/learning.js';
import type { Measured } from '../record/history.js';
import type { Opening, Openings } from '../record/openings.js';
import { ruleFor, speedsUnder } from './rules.js';
import { HARDLY_ANY_SCALE } from '../fouling/scale.js';
import type { Loads, Usage } from '../record/load-counts.js';

/** `off`: switched off, or not needed here. `habit`: done with each load, never due. */
export type DueStatus = 'unknown' | 'fine' | 'soon' | 'due' | 'off' | 'habit';

/** All that is derived about one task of one machine. Never stored. */
export interface Due {
  task: string;
  station: string;
  status: DueStatus;
  /** Neglected, it can hurt somebody. */
  safety?: true;
  /** Why it is off, where the household did not switch it off. */
  needless?: 'soft-water';
  inForce: InForce;
  /** Where the interval comes from, in words: a school, or the household's own figure. */
  from: string;
  /** The school's interval after the profile, in the driver's unit: what holds without evidence. */
  base: number;
  /** The interval in the driver's unit as learned. */
  learned: number;
  /** Why it did not lengthen further at the last opening. */
  held?: Held;
  /** The latest of what was seen; `seen` tells of all of it. */
  evidence: Evidence[];
  seen: Summary;
  last?: Opening;
  loads?: Loads;
  days?: number;
  fouling?: Fouling;
  /** Fouling expected per load or day, in the driver's unit. */
  rate: Fouling;
  /** Loads or days since the last clean, in the driver's unit, programmes weighted. */
  use?: number;
  /** The date by which to do it; absent where it is not known or nothing is ever washed. */
  on?: Day;
  /** The bound that sets the date. */
  by?: 'loads' | 'days' | 'cap' | 'after';
}

/**
 * Left alone, the dates at which the limit is passed with a chance of one, five and nine in ten; a date
 * further off than ten years is left out.
 */
export interface LimitDates {
  early?: Day;
  even?: Day;
  late?: Day;
}

export interface DueQuestion {
  task: Task;
  machine: Pick<Machine, 'features' | 'habits' | 'school' | 'rules'>;
  household: Pick<Household, 'school' | 'risk' | 'hardness' | 'zone' | 'multipliers' | 'widened'>;
  /** Of this task. */
  openings: Openings;
  /** Of this task's quantities, in order of time. */
  readings?: readonly Measured[];
  usage: Usage;
  /** The date of the latest work after an instant that calls for this task too. */
  calledFor?: (after: NonNullable<Interval['after']>, at: number) => Day | undefined;
  /** UTC instant, milliseconds. */
  now: number;
}

const SOON_DAYS = 14;
/** Dates further off than this are not worth telling. */
const HORIZON_DAYS = 3650;

/** The interval that holds for a task and what is believed of its station. */
interface Reckoned extends Learned {
  school: Interval;
  from: string;
  own: boolean;
  speeds: SpeedUp[];
  /** What the school's interval is multiplied by for the profile. */
  pace: number;
  /** The school's interval after the profile, in the driver's unit. */
  base: number;
  /** With the programmes weighted for this task. */
  usage: Usage;
}

type InForceFor = Omit<Reckoned, keyof Learned>;

/** The interval that holds before anything was seen, and what is learned from. */
function askedOf(question: DueQuestion): InForceFor & { asks: LearningQuestion; planned: boolean } {
  const { task, machine, household, openings, readings = NONE } = question;
  const { interval: school, own, planned = false, from } = ruleFor(task, machine, household);
  const changed = machine.rules?.[task.id]?.changed;
  const speeds = speedsUnder({ interval: school, own }, task, machine, household);
  const pace = paceOf(speeds);
  const base = inDriver(school, task.driver) * pace;
  const usage =
    task.driver === 'loads' ? question.usage.weighted(weightsOf(task, speeds)) : question.usage;
  const { risk, widened } = household;
  const asks: LearningQuestion = {
    ...{ task, openings, readings, usage, base, risk, own },
    ...(widened === undefined ? {} : { widened }),
    ...(changed ? { changedOn: changed.on } : {}),
  };
  return { school, from, own, speeds, pace, base, usage, asks, planned };
}

/**
 * Works out which interval holds, and learns from what was seen. An interval that a plan gave is meant as it stands:
 * what is believed of the station still rests on the one it would have otherwise.
 */
export function reckon(question: DueQuestion): Reckoned {
  const { asks, planned, ...inForce } = askedOf(question);
  if (!planned) return { ...learn(asks), ...inForce };
  const { task, machine } = question;
  const otherwise = reckon({ ...question, machine: withoutPlan(machine, task) });
  const base = inDriver(inForce.school, task.driver);
  const { held: _held, ...rest } = otherwise;
  const { school, from, own } = inForce;
  return { ...rest, school, from, own, speeds: [], pace: 1, base, learned: base };
}

/** At each opening that was graded, what was believed of the station up to then. */
export function believedBefore(question: DueQuestion): Generator<Before> {
  const { task, machine } = question;
  return replayed(askedOf({ ...question, machine: withoutPlan(machine, task) }).asks);
}

function withoutPlan(machine: DueQuestion['machine'], { id }: Task): DueQuestion['machine'] {
  const { planned: _planned, ...rule } = machine.rules?.[id] ?? {};
  return { ...machine, rules: { ...machine.rules, [id]: rule } };
}

/** When a task is due, and everything that the date rests on. */
export function due(question: DueQuestion): Due {
  const { task, machine, household, now } = question;
  const { belief, learned, evidence, seen, held, school, from, speeds, pace, base, usage } =
    reckon(question);
  const inForce =
    school.sign !== undefined && evidence.length === 0
      ? { school, speedUps: speeds }
      : scaled(task, school, speeds, evidence.length ? (learned / base) * pace : pace);

  const result: Due = {
    task: task.id,
    station: task.station,
    ...(task.safety ? { safety: true as const } : {}),
    status: 'unknown',
    inForce,
    from,
    base,
    learned,
    ...(held ? { held } : {}),
    evidence,
    seen,
    rate: belief.foulingAt(1),
  };
  const last = question.openings.lastCleaned;
  if (last) {
    const today = dayOf(now, household.zone);
    const days = Math.max(0, daysBetween(last.day, today));
    const n = task.driver === 'loads' ? usage.amount(last.at, now) : days;
    result.last = last;
    result.loads = question.usage.between(last.at, now);
    result.days = days;
    result.use = n;
    result.fouling = belief.foulingAt(n);
  }
  const said = (status: DueStatus): Due => {
    result.status = status;
    return result;
  };
  if (machine.rules?.[task.id]?.off) return said('off');
  if (task.onlyHardWater && (household.hardness ?? Infinity) <= HARDLY_ANY_SCALE) {
    result.needless = 'soft-water';
    return said('off');
  }
  if (task.habit) return said('habit');
  if (!last) return result;

  const dates = new Dates(question, usage, last);
  const bounds: { by: NonNullable<Due['by']>; on: Day }[] = [];
  const add = (by: NonNullable<Due['by']>, on: Day | undefined) => on && bounds.push({ by, on });
  if (inForce.loads !== undefined) add('loads', dates.loads(inForce.loads));
  add('days', dateBound(inForce, last.day));
  if (school.after) add('after', question.calledFor?.(school.after, last.at));
  if (task.cap) add('cap', dateBound(task.cap, last.day));
  if (bounds.length === 0) return said('fine');

  const on = earliest(...bounds.map((bound) => bound.on));
  const ahead = daysBetween(dates.today, on);
  result.on = on;
  result.by = bounds.find((bound) => bound.on === on)!.by;
  return said(ahead <= 0 ? 'due' : ahead <= SOON_DAYS ? 'soon' : 'fine');
}

/** When trouble is to be expected at a station that is left alone; nothing where it was never opened. */
export function limitDatesOf(question: DueQuestion): LimitDates | undefined {
  const { task, openings, machine } = question;
  const last = openings.lastCleaned;
  if (!last || task.ungraded || task.habit || machine.rules?.[task.id]?.off) return undefined;
  const { belief, usage } = reckon(question);
  return new Dates(question, usage, last).trouble(belief.limitAt());
}

const NONE: readonly Measured[] = [];

/** Turns use since a clean into dates. */
class Dates {
  readonly today: Day;
  readonly #done: number;
  readonly #perDay: number;

  constructor(
    readonly question: DueQuestion,
    readonly usage: Usage,
    readonly last: Opening,
  ) {
    this.today = dayOf(question.now, question.household.zone);
    this.#done = usage.amount(last.at, question.now);
    this.#perDay = usage.weeklyRate(question.now).perWeek / 7;
  }

  /** The date by which so many loads will have passed, or had. */
  loads(loads: number): Day | undefined {
    const { now, household } = this.question;
    if (loads <= this.#done) {
      return dayOf(this.usage.passed(this.last.at, loads, now)!, household.zone);
    }
    const ahead = (loads - this.#done) / this.#perDay;
    return ahead > HORIZON_DAYS ? undefined : plusDays(this.today, Math.ceil(ahead - 1e-9));
  }

  /** The date by which so much use, in the driver's unit, will have passed. */
  #use(use: number): Day | undefined {
    if (this.question.task.driver === 'loads') return this.loads(use);
    return use > HORIZON_DAYS ? undefined : plusDays(this.last.day, Math.round(use));
  }

  trouble(limit: { early: number; even: number; late: number }): LimitDates {
    const [early, even, late] = [limit.early, limit.even, limit.late].map((use) => this.#use(use));
    return { ...(early ? { early } : {}), ...(even ? { even } : {}), ...(late ? { late } : {}) };
  }
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
