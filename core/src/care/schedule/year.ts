import type { Household, Machine } from '../../model/schemas.js';
import { SCHOOLS, type SchoolId } from '../../model/vocabulary.js';
import { DAYS_PER_MONTH, dayOf, daysBetween, plusDays, type Day } from '../../units/calendar.js';
import { groupedBy } from '../../units/grouped.js';
import { duesOf, questionsOf } from './dues.js';
import { taskOf } from '../catalogue/lookup.js';
import type { Task } from '../catalogue/types.js';
import { due, reckon, type Due } from './due.js';
import { LIMIT } from '../fouling/belief.js';
import type { History } from '../record/history.js';
import { paceOf, scaled, type InForce } from './interval.js';
import { ruleFor, speedsUnder, withoutSchools } from './rules.js';
import { minutesOf, taskKey, withoutCovered } from '../catalogue/set-ups.js';
import { usesOf, type Use } from '../catalogue/uses.js';

const YEAR = 365;
/** A task is not done before this share of its interval, unless its set-ups are made anyway. */
const EARLIEST = 0.6;
const ALONG_DAYS = 14;

/** A household's machines with their record, for looking ahead. */
export interface House {
  household: Household;
  machines: readonly Machine[];
  /** By the machines' order. */
  histories: readonly History[];
  /** UTC instant, milliseconds. */
  now: number;
}

/** Days between two times of a task at a pace of use; Infinity where nothing makes it due. */
export function everyDays(inForce: InForce, perWeek: number, cap?: Task['cap']): number {
  const byLoads =
    inForce.loads === undefined || perWeek <= 0 ? Infinity : (inForce.loads * 7) / perWeek;
  const days = (bound: { days?: number; months?: number } | undefined) =>
    Math.min(bound?.days ?? Infinity, (bound?.months ?? Infinity) * DAYS_PER_MONTH);
  return Math.max(1, Math.min(byLoads, days(inForce), days(cap)));
}

/** Work that will fall due. */
export interface WorkAhead {
  machineId: string;
  task: Task;
  on: Day;
}

/** What falls due up to a number of days ahead, as the dates and intervals stand now, in order; a machine a step. */
export function* workAhead(
  { household, machines, histories, now }: House,
  days: number,
): Generator<undefined, WorkAhead[]> {
  const today = dayOf(now, household.zone);
  const work: WorkAhead[] = [];
  for (const [i, machine] of machines.entries()) {
    const history = histories[i]!;
    const { perWeek } = history.usage.weeklyRate(now);
    for (const known of duesOf(machine, history, household, now)) {
      const task = taskOf(machine, known.task);
      const dates = datesOf(known, task, perWeek, today, days);
      work.push(...dates.map((on) => ({ machineId: machine.id, task, on })));
    }
    yield;
  }
  return work.sort((a, b) => a.on.localeCompare(b.on));
}

function datesOf(due: Due, task: Task, perWeek: number, today: Day, days: number): Day[] {
  if (due.status === 'off' || due.status === 'habit') return [];
  if (due.status !== 'unknown' && due.on === undefined) return [];
  const every = everyDays(due.inForce, perWeek, task.cap);
  const first = due.on && due.on > today ? daysBetween(today, due.on) : 0;
  const dates: Day[] = [];
  for (let ahead = first; ahead <= days; ahead += every) {
    dates.push(plusDays(today, Math.round(ahead)));
    if (!Number.isFinite(every)) break;
  }
  return dates;
}

/** What a school asks of a house in a year. */
export interface SchoolYear {
  school: SchoolId;
  visits: number;
  /** Minutes at work and waiting. */
  hands: number;
  waiting: number;
  /** Supplies used up, by supply, in its unit. */
  supplies: Record<string, number>;
  /** Chance that a station is past its limit when it is cleaned, in the mean of all cleanings. */
  chance: number;
  /** How many times a year that happens, in the mean. */
  timesPast: number;
  /** The first year's visits, for drawing: day of the year and minutes at work. */
  calendar: { day: number; hands: number }[];
}

interface Chore {
  machine: Machine;
  task: Task;
  every: number;
  chance: number;
  uses: readonly Use[];
}

/**
 * Each school's year for a house, side by side: its intervals after the profile, with own figures and
 * tasks switched off kept as they are. The chance rests on what was found at each station so far.
 */
export const schoolYears = (house: House): SchoolYear[] =>
  SCHOOLS.map((school) => {
    const chores = choresOf(school, house);
    // Nothing that is done at one place goes along at another: each has a year of its own.
    const at = groupedBy(chores, ({ machine }) => machine.place);
    return summed(school, [...at.values()].map(yearOf));
  });

function choresOf(school: SchoolId, { household, machines, histories, now }: House): Chore[] {
  return machines.flatMap((machine, i) => {
    const { perWeek } = histories[i]!.usage.weeklyRate(now);
    return questionsOf(machine, histories[i]!, household, now).flatMap((question): Chore[] => {
      const { task } = question;
      const { status } = due(question);
      if (status === 'off' || status === 'habit') return [];
      const { interval, own } = ruleFor(task, withoutSchools(machine, task), {
        ...household,
        school,
      });
      if (interval.sign !== undefined) return [];
      const speeds = speedsUnder({ interval, own }, task, machine, household);
      const every = everyDays(scaled(task, interval, speeds, paceOf(speeds)), perWeek, task.cap);
      if (!Number.isFinite(every)) return [];
      const n = task.driver === 'loads' ? (every * perWeek) / 7 : every;
      const chance = task.ungraded ? 0 : reckon(question).belief.chanceAbove(LIMIT, n);
      return [{ machine, task, every, chance, uses: usesOf(task, machine) }];
    });
  });
}

/**
 * Two years of visits under a school, starting clean, halved. On the day on which something falls
 * due, all at its place that falls due within two weeks and is past 60 % of its interval goes along,
 * and what needs no set-up beyond those made anyway from there on.
 */
function yearOf(chores: readonly Chore[]): TwoYears {
  const next = new Map(chores.map((chore) => [chore, chore.every]));
  const last = new Map(chores.map((chore) => [chore, 0]));
  const total = { visits: 0, hands: 0, waiting: 0, cleanings: 0, past: 0 };
  const supplies: Record<string, number> = {};
  const calendar: SchoolYear['calendar'] = [];
  for (;;) {
    const first = [...next].reduce<[Chore | undefined, number]>(
      (soonest, one) => (one[1] < soonest[1] ? one : soonest),
      [undefined, Infinity],
    );
    const [due, at] = first;
    if (!due || at > 2 * YEAR) break;
    const along = chores.filter(
      (chore) =>
        chore.machine.place === due.machine.place &&
        next.get(chore)! <= at + ALONG_DAYS &&
        at - last.get(chore)! >= EARLIEST * chore.every,
    );
    const visit = along.includes(due) ? along : [due, ...along];
    const minutes = minutesOfVisit(visit);
    total.visits++;
    total.hands += minutes.hands;
    total.waiting += minutes.waiting;
    if (at <= YEAR) calendar.push({ day: Math.round(at), hands: minutes.hands });
    for (const chore of visit) {
      total.cleanings++;
      total.past += chore.chance;
      for (const { supply, expected } of chore.uses) {
        supplies[supply] = (supplies[supply] ?? 0) + expected / 2;
      }
      last.set(chore, at);
      next.set(chore, at + chore.every);
    }
  }
  return { ...total, supplies, calendar };
}

/** What two years at a place come to. */
interface TwoYears extends Pick<SchoolYear, 'supplies' | 'calendar'> {
  visits: number;
  hands: number;
  waiting: number;
  cleanings: number;
  past: number;
}

function summed(school: SchoolId, places: readonly TwoYears[]): SchoolYear {
  const sum = (of: (one: TwoYears) => number) => places.reduce((all, one) => all + of(one), 0);
  const supplies: Record<string, number> = {};
  for (const [supply, amount] of places.flatMap((one) => Object.entries(one.supplies))) {
    supplies[supply] = (supplies[supply] ?? 0) + amount;
  }
  const [cleanings, past] = [sum((one) => one.cleanings), sum((one) => one.past)];
  return {
    school,
    visits: sum(({ visits }) => visits) / 2,
    hands: sum(({ hands }) => hands) / 2,
    waiting: sum(({ waiting }) => waiting) / 2,
    supplies,
    chance: cleanings ? past / cleanings : 0,
    timesPast: past / 2,
    calendar: places.flatMap(({ calendar }) => calendar).sort((a, b) => a.day - b.day),
  };
}

function minutesOfVisit(visit: readonly Chore[]): { hands: number; waiting: number } {
  const kept = new Set(
    withoutCovered(
      visit.map(({ machine, task }) => ({ machineId: machine.id, task: task.id })),
    ).map(taskKey),
  );
  const machines = new Set(visit.map(({ machine }) => machine));
  return [...machines].reduce(
    (sum, machine) => {
      const tasks = visit
        .filter((one) => one.machine === machine)
        .map(({ task }) => task)
        .filter((task) => kept.has(taskKey({ machineId: machine.id, task: task.id })));
      const { hands, waiting } = minutesOf(machine, tasks);
      return { hands: sum.hands + hands, waiting: sum.waiting + waiting };
    },
    { hands: 0, waiting: 0 },
  );
}
