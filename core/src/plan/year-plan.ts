import { weekdayOf, type Day } from '../units/calendar.js';
import { calendarOf, type AheadProblem } from './ahead.js';
import { costOf, overBy, visitsOf, type GaveWay, type WeekAtPlace } from './cost.js';
import { spreadOver } from './spread.js';
import type { Plan } from './problem.js';
import type { Progress } from './solve.js';
import type { Standing } from './standing.js';
import type { PlanWeeks } from './weeks.js';

/** A visit of the year ahead. */
export interface AheadVisit {
  day: Day;
  place: string;
  /** At work, minutes, without the way there. */
  minutes: number;
  tasks: AheadTask[];
  /** Minutes that it saves against doing each task by itself, the way there counted in. */
  saves: number;
  /** Between which days it may be moved without a rule giving way; nothing where there is none. */
  window?: { from: Day; to: Day };
  /** Laid down by hand. */
  held: boolean;
  who?: string;
}

export interface AheadTask {
  machineId: string;
  task: string;
  minutes: number;
  /** Neglected, it can hurt somebody: it does not slip. */
  safety: boolean;
  /** It comes later than its interval says, at a price. */
  slips: boolean;
}

/** Somebody who does visits. */
export interface Worker {
  name: string;
  /** On which they can: 1 Monday to 7 Sunday; all where nothing is said. */
  weekdays?: readonly number[];
}

/** The year ahead of a house. */
export interface YearPlan {
  visits: AheadVisit[];
  /** A year at work, the way to each visit counted in, minutes. */
  minutes: number;
  /** Each task on a day of its own, minutes. */
  apart: number;
  /** How much dearer it is at most than the best there can be, as a part. */
  within: number;
  /** Rules that gave way. */
  gaveWay: readonly GaveWay[];
}

/** What of the plan before holds. */
export interface YearAsk {
  /** Visits on days laid down by hand, and such as are left out. */
  standing?: readonly (Standing & { who?: string | undefined })[];
}

/** A plan of weeks as visits on days, with what it costs and saves. */
export function yearPlan(
  problem: AheadProblem,
  { plan, cost, bound }: Pick<Progress, 'plan' | 'cost' | 'bound'>,
  { standing = [] }: YearAsk = {},
): YearPlan {
  const { places } = problem;
  const calendar = calendarOf(problem);
  const { work, gaveWay } = costOf(problem, plan);
  const slips = slipsIn(problem, plan);
  const skipped = standing.filter((one) => one.skipped);
  const isSkipped = (chore: number, week: number) =>
    skipped.some((one) => calendar.weekOf(one.day) === week && has(one, problem, chore));
  let saved = 0;
  let more = 0;
  const visits = visitsOf(problem, plan).flatMap((group) => {
    const chores = group.chores.filter((chore) => !isSkipped(chore, group.week));
    saved += group.minutes - minutesOf(problem, chores);
    if (chores.length === 0) {
      saved += places[group.place]!.minutes;
      return [];
    }
    const parts = onDays(problem, { ...group, chores }, standing, calendar);
    const minutes = parts.map((part) => minutesOf(problem, part.chores));
    more += (parts.length - 1) * places[group.place]!.minutes;
    more += minutes.reduce((a, b) => a + b, 0) - minutesOf(problem, chores);
    return parts.map((part, k): AheadVisit => {
      const window = windowOf(problem, plan, part.chores, group.week, calendar);
      return {
        day: part.day,
        place: places[group.place]!.id,
        minutes: minutes[k]!,
        tasks: part.chores.map((chore) => ({
          machineId: problem.of[chore]!.machineId,
          task: problem.of[chore]!.task,
          minutes: problem.chores[chore]!.minutes,
          safety: problem.chores[chore]!.safety,
          slips: slips.has(`${chore}/${group.week}`),
        })),
        saves:
          part.chores.reduce((sum, chore) => sum + alone(problem, chore), 0) -
          minutes[k]! -
          places[group.place]!.minutes,
        ...(window ? { window } : {}),
        held: part.by !== undefined,
        ...(part.by?.who ? { who: part.by.who } : {}),
      };
    });
  });
  visits.sort((a, b) => a.day.localeCompare(b.day) || a.place.localeCompare(b.place));
  return {
    visits,
    minutes: work - saved + more,
    apart: visits.reduce(
      (sum, { saves, minutes, place }) =>
        sum + saves + minutes + places.find(({ id }) => id === place)!.minutes,
      0,
    ),
    within: bound > 0 ? Math.max(0, cost / bound - 1) : Infinity,
    gaveWay: gaveWay.filter(
      (one) =>
        one.rule !== 'minutes' ||
        visits.some(
          ({ day, place, minutes, tasks }) =>
            places[one.place]!.id === place &&
            calendar.weekOf(day) === one.week &&
            overBy(minutes, tasks.length, problem.limit ?? Infinity) > 0,
        ),
    ),
  };
}

/** A task on a day of its own, minutes. */
function alone({ chores, setups, places }: AheadProblem, chore: number): number {
  const { minutes, setups: needs, place } = chores[chore]!;
  return minutes + needs.reduce((sum, s) => sum + setups[s]!.minutes, 0) + places[place]!.minutes;
}

function minutesOf({ chores, setups }: AheadProblem, done: readonly number[]): number {
  const needed = new Set(done.flatMap((chore) => chores[chore]!.setups));
  return (
    done.reduce((sum, chore) => sum + chores[chore]!.minutes, 0) +
    [...needed].reduce((sum, setup) => sum + setups[setup]!.minutes, 0)
  );
}

/** Minutes of one more chore beside others: its own, and of its set-ups those that are not made for them. */
function moreIn({ chores, setups }: AheadProblem, done: readonly number[], one: number): number {
  const { minutes, setups: needs } = chores[one]!;
  return needs
    .filter((need) => !done.some((chore) => chores[chore]!.setups.includes(need)))
    .reduce((sum, need) => sum + setups[need]!.minutes, minutes);
}

const has = ({ tasks }: Standing, { of }: AheadProblem, chore: number): boolean => {
  const { machineId, task } = of[chore]!;
  return tasks.some((one) => one.machineId === machineId && one.task === task);
};

interface Part {
  day: Day;
  chores: number[];
  by?: YearAsk['standing'] extends readonly (infer S)[] | undefined ? S : never;
}

/** A week's work at a place on days: as laid down by hand, else in one visit, or in several where one is too long. */
function onDays(
  problem: AheadProblem,
  { week, place, chores }: WeekAtPlace,
  standing: NonNullable<YearAsk['standing']>,
  calendar: PlanWeeks,
): Part[] {
  const name = problem.places[place]!.id;
  const byHand = standing.filter(
    (one) => one.held && !one.skipped && one.place === name && calendar.weekOf(one.day) === week,
  );
  const rest = new Set(chores);
  const parts: Part[] = byHand.map((by) => {
    const own = chores.filter((chore) => rest.has(chore) && has(by, problem, chore));
    for (const chore of own) rest.delete(chore);
    return { day: by.day, chores: own, by };
  });
  const real = parts.filter((part) => part.chores.length > 0);
  if (rest.size === 0) return real;
  // What is left goes along with what is there already, as far as it has room.
  const [first] = real;
  const limit = problem.limit ?? Infinity;
  if (first && minutesOf(problem, [...first.chores, ...rest]) <= limit) {
    first.chores.push(...rest);
    return real;
  }
  const taken = new Set(real.map(({ day }) => day));
  const open = calendar.openDays(week).filter((day) => !taken.has(day));
  const days = open.length ? open : [calendar.dayOf(week)];
  const loads = spreadOver(
    [...rest],
    days.length,
    limit,
    {
      minutes: (some) => minutesOf(problem, some),
      more: (some, one) => moreIn(problem, some, one),
    },
    (i) => (problem.chores[i]!.safety ? 0 : 1),
  );
  return [...real, ...loads.map((some, k) => ({ day: days[k]!, chores: some }))];
}

/** Between which days a visit may be moved without a rule giving way. */
function windowOf(
  { chores, weeks }: AheadProblem,
  plan: Plan,
  done: readonly number[],
  week: number,
  calendar: PlanWeeks,
): AheadVisit['window'] {
  let from = 0;
  let to = weeks - 1;
  for (const chore of done) {
    const { first, gap, late, safety } = chores[chore]!;
    const before = plan[chore]!.filter((one) => one < week).at(-1);
    const { from: soonest, to: latest } =
      before === undefined
        ? first
        : { from: before + Math.min(gap.from, gap.to), to: before + gap.to };
    from = Math.max(from, soonest);
    to = Math.min(to, latest + (safety ? 0 : late.length));
  }
  if (from > week || to < week) return undefined;
  const days = calendar.daysIn(from);
  return { from: days[0]!, to: calendar.daysIn(to).at(-1)! };
}

/** Gives each visit that nobody has to whoever can on its day and has the least to do so far. */
export function share(visits: readonly AheadVisit[], workers: readonly Worker[]): void {
  if (workers.length === 0) return;
  const load = new Map(workers.map(({ name }) => [name, 0]));
  for (const visit of visits) {
    const can = workers.filter(({ weekdays }) => weekdays?.includes(weekdayOf(visit.day)) ?? true);
    const least = (can.length ? can : workers).reduce((a, b) =>
      load.get(b.name)! < load.get(a.name)! ? b : a,
    );
    visit.who ??= least.name;
    load.set(visit.who, (load.get(visit.who) ?? 0) + visit.minutes);
  }
}

/** The times that come later than the interval says, as `chore/week`. */
function slipsIn({ chores, away }: AheadProblem, plan: Plan): Set<string> {
  const homeWeeks = (from: number, to: number) => away.slice(from, to).filter((is) => !is).length;
  return new Set(
    plan.flatMap((weeks, chore) => {
      const { first, gap, byLoads } = chores[chore]!;
      return weeks
        .filter((week, i) => {
          const before = weeks[i - 1];
          if (before === undefined) return week > first.to;
          return (byLoads ? homeWeeks(before, week) : week - before) > gap.to;
        })
        .map((week) => `${chore}/${week}`);
    }),
  );
}
