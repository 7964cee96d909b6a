import type { Household } from '../model/schemas.js';
import { SCHOOLS } from '../model/vocabulary.js';
import type { Task } from '../care/catalogue/types.js';
import type { Due, DueQuestion } from '../care/schedule/due.js';
import { paceOf, scaled } from '../care/schedule/interval.js';
import { ruleFor, speedsUnder, withoutSchools } from '../care/schedule/rules.js';
import { everyDays } from '../care/schedule/year.js';
import { daysBetween, weekdayOf, type Day } from '../units/calendar.js';
import type { Chore } from './problem.js';
import { WEEK, type PlanWeeks } from './weeks.js';

/** No sooner than this share of its interval, and no later than that much past it. Common practice. */
const EARLIEST = 0.6;
const SLIP = 0.2;
/** Weeks within which something is looked at that was never opened: what can hurt somebody, and the rest. */
const UNKNOWN = { safety: 2, rest: 8 };
/** Weeks of what is never due by itself. */
const NEVER = 10_000;

/** When a task is done first and how often then, in weeks. */
export interface Rhythm extends Pick<Chore, 'first' | 'gap' | 'byLoads'> {
  /** Days, of the interval in force. */
  every: number;
  /** Days since it was done last, at the usual pace; nothing where nobody knows. */
  elapsed?: number;
  /** Weeks that it may be late, at a price. */
  slip: number;
  /** How often is a matter of choice: no safety, no own figure. */
  free: boolean;
}

/** What is asked of a task. */
export interface Asked {
  question: DueQuestion;
  known: Due;
  /** Loads a week. */
  perWeek: number;
  weeks: PlanWeeks;
  /** The day on which it was left out for once, since it was done last. */
  skipped?: Day | undefined;
}

/** A task's rhythm by the interval in force; nothing where it is never due. */
export function rhythmInForce(asked: Asked): Rhythm | undefined {
  const { known, question, perWeek, weeks } = asked;
  const { task } = question;
  const { status, on, inForce } = known;
  if (status === 'off' || status === 'habit') return undefined;
  if (status !== 'unknown' && on === undefined) {
    if (!inForce.school.after) return undefined;
    const never = { from: 1, to: NEVER };
    return {
      every: Infinity,
      gap: never,
      byLoads: false,
      first: { from: 0, to: NEVER },
      slip: 0,
      free: false,
    };
  }
  const every = everyDays(inForce, perWeek, task.cap);
  const gap = gapOf(every, EARLIEST * every, task.safety ? spreadOf(weeks) : 0);
  return {
    every,
    gap,
    byLoads: isByLoads(known, perWeek, task.cap, every),
    first: firstOf(asked, gap),
    slip: task.safety ? 0 : slipOf(every),
    free: !task.safety && !task.own && !question.machine.rules?.[task.id]?.own,
    ...elapsedOf(asked),
  };
}

/**
 * How seldom and how often a task may be done: between the rhythm that does it most often and the one that stretches
 * it, within its cap. What can hurt somebody, and what the household or its manual says, keeps its own.
 */
export function rhythmAtWill(asked: Asked): Rhythm | undefined {
  const { question, perWeek, known } = asked;
  const { task, machine, household } = question;
  const inForce = rhythmInForce(asked);
  if (!inForce?.free) return inForce;
  const every = SCHOOLS.map((school) =>
    everyUnder(school, task, machine, household, perWeek),
  ).filter(Number.isFinite);
  // A rhythm may slip, and so may what is left open: at the price of what it risks.
  const longest = (1 + SLIP) * Math.max(inForce.every, ...every);
  const shortest = Math.min(inForce.every, ...every);
  const gap = gapOf(longest, EARLIEST * shortest, 0);
  const { elapsed } = inForce;
  const skipped = since(asked);
  const done = skipped ?? elapsed;
  const first =
    done === undefined || known.status === 'unknown'
      ? { from: 0, to: Math.min(gap.to, UNKNOWN.rest) }
      : {
          from: Math.max(0, Math.ceil((EARLIEST * shortest - done) / WEEK)),
          to: Math.max(inForce.first.to + inForce.slip, Math.floor((longest - done) / WEEK)),
        };
  return { ...inForce, every: longest, gap, first: ordered(first), slip: 0 };
}

/** Days between two times under a school, as the house is. */
function everyUnder(
  school: Household['school'],
  task: Task,
  machine: DueQuestion['machine'],
  household: DueQuestion['household'],
  perWeek: number,
): number {
  const { interval, own } = ruleFor(task, withoutSchools(machine, task), { ...household, school });
  if (interval.sign !== undefined) return Infinity;
  const speeds = speedsUnder({ interval, own }, task, machine, household);
  return everyDays(scaled(task, interval, speeds, paceOf(speeds)), perWeek, task.cap);
}

function gapOf(every: number, earliest: number, spread: number): Chore['gap'] {
  const to = Number.isFinite(every) ? Math.max(1, Math.floor((every - spread) / WEEK)) : NEVER;
  const from = Math.min(to, Math.max(1, Math.ceil(earliest / WEEK)));
  return { from: Number.isFinite(from) ? from : to, to };
}

const ordered = ({ from, to }: Chore['first']) => ({ from: Math.min(from, to), to });

/** Days by which two visits are further apart than their weeks, at most. */
function spreadOf({ days }: PlanWeeks): number {
  const weekdays = days.flatMap((day) => (day === undefined ? [] : [weekdayOf(day)]));
  return weekdays.length ? Math.max(...weekdays) - Math.min(...weekdays) : 0;
}

const slipOf = (every: number): number => {
  const most = Math.floor((SLIP * every) / WEEK);
  return Number.isFinite(most) ? Math.min(most, 30) : 0;
};

/** Loads set the date, and not the calendar. */
function isByLoads({ inForce }: Due, perWeek: number, cap: Task['cap'], every: number): boolean {
  const { school, days, months } = inForce;
  const dates = {
    ...(days === undefined ? {} : { days }),
    ...(months === undefined ? {} : { months }),
  };
  return every < everyDays({ school, speedUps: [], ...dates }, perWeek, cap);
}

function firstOf(asked: Asked, gap: Chore['gap']): Chore['first'] {
  const { known, weeks } = asked;
  const { status, on, safety } = known;
  const skipped = since(asked);
  if (skipped !== undefined) {
    const ago = Math.floor(skipped / WEEK);
    return ordered({ from: Math.max(0, gap.from - ago), to: Math.max(0, gap.to - ago) });
  }
  if (status === 'unknown' || on === undefined) {
    return { from: 0, to: Math.min(gap.to, safety ? UNKNOWN.safety : UNKNOWN.rest) };
  }
  // It is the day of the visit that counts: the last week whose day is not past the date.
  const inTime = weeks.days.findLastIndex((day) => day !== undefined && day <= on);
  const soonest = safety
    ? 0
    : Math.max(
        0,
        weeks.days.findIndex((day) => day !== undefined),
      );
  const to = on > weeks.end ? weeks.weekOf(on) : Math.max(soonest, inTime);
  return { from: Math.max(0, to - (gap.to - gap.from)), to };
}

/** Days since it was left out for once; nothing where it was done since. */
function since({ skipped, known, weeks }: Asked): number | undefined {
  if (skipped === undefined || skipped >= weeks.start) return undefined;
  if (known.last && known.last.day > skipped) return undefined;
  return daysBetween(skipped, weeks.start);
}

function elapsedOf({ known, perWeek, question }: Asked): { elapsed?: number } {
  if (known.status === 'unknown' || known.use === undefined) return {};
  if (question.task.driver === 'loads') {
    return perWeek > 0 ? { elapsed: (known.use * WEEK) / perWeek } : {};
  }
  return { elapsed: known.use };
}
