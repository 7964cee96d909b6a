import { setUpById, setUpIdsOf, taskOf } from '../care/catalogue/lookup.js';
import type { Task } from '../care/catalogue/types.js';
import { LIMIT } from '../care/fouling/belief.js';
import { due, reckon, type Due, type DueQuestion } from '../care/schedule/due.js';
import { questionsOf } from '../care/schedule/dues.js';
import { everyDays, type House } from '../care/schedule/year.js';
import { CAUSES } from '../trouble/data/causes.js';
import { dayOf, daysBetween, plusDays, type Day } from '../units/calendar.js';
import type { Chore, Problem, Shared } from './problem.js';

const WEEK = 7;
/** No sooner than this share of its interval, and no later than that much past it. Common practice. */
const EARLIEST = 0.6;
const SLIP = 0.2;
/** Fetching things, going there and washing one's hands, minutes. */
const WAY = 10;
/** Work in its season is so much dearer out of it, minutes. */
const OUT_OF_SEASON = 5;
/** Weeks within which something is looked at that was never opened: what can hurt somebody, and the rest. */
const UNKNOWN = { safety: 2, rest: 8 };
/** Finding out what is wrong, and a load that is washed or dried again, minutes. Judgement. */
const TROUBLE = 60;

/** Days on which nobody is at home, both counted. */
export interface Away {
  from: Day;
  to: Day;
}

/** What a household wants of its plan. */
export interface PlanWishes {
  weeks?: number;
  /** At work in one visit, at most, minutes. */
  limit?: number;
  /** On which somebody can work: 1 Monday to 7 Sunday. */
  weekdays?: readonly number[];
  away?: readonly Away[];
  /** Minutes that each visit takes besides. */
  way?: number;
}

/** A task of a machine, as a chore of a plan. */
export interface ChoreOf {
  machineId: string;
  task: Task;
  due: Due;
}

export interface HouseProblem extends Problem {
  /** The first day of week 0: today. */
  start: Day;
  /** The day of each week on which visits are; nothing where nobody is there. */
  days: readonly (Day | undefined)[];
  /** In the chores' order. */
  of: readonly ChoreOf[];
}

/** What a house asks of a year, as a problem to plan: its tasks with their windows, and what they share. */
export function houseProblem(house: House, wishes: PlanWishes = {}): HouseProblem {
  const { weeks = 52, limit, weekdays = [1, 2, 3, 4, 5, 6, 7], away = [], way = WAY } = wishes;
  const start = dayOf(house.now, house.household.zone);
  const places: Shared[] = [];
  const setups: Shared[] = [];
  const indexOf = (all: Shared[], id: string, minutes: number): number => {
    const at = all.findIndex((one) => one.id === id);
    return at >= 0 ? at : all.push({ id, minutes }) - 1;
  };
  const days = daysOfVisits(start, weeks, weekdays, away);
  const chores: Chore[] = [];
  const of: ChoreOf[] = [];
  house.machines.forEach((machine, i) => {
    const history = house.histories[i]!;
    const { perWeek } = history.usage.weeklyRate(house.now);
    for (const question of questionsOf(machine, history, house.household, house.now)) {
      const known = due(question);
      const rhythm = rhythmOf(known, question.task, perWeek, { start, days });
      if (!rhythm) continue;
      const task = taskOf(machine, known.task);
      chores.push({
        id: `${machine.id}/${task.id}`,
        place: indexOf(places, machine.place, way),
        minutes: task.minutes.hands,
        setups: setUpIdsOf(task, machine).map((id) =>
          indexOf(setups, `${machine.id}/${id}`, setUpById(id).minutes),
        ),
        safety: task.safety,
        first: rhythm.first,
        gap: rhythm.gap,
        late: task.safety ? [] : latePrices(question, rhythm, perWeek),
        byLoads: rhythm.byLoads,
        ...seasonOf(known, start, weeks),
      });
      of.push({ machineId: machine.id, task, due: known });
    }
  });
  const follows = followsOf(of, house);
  return {
    ...{
      weeks,
      chores: chores.map((chore, i) => following(chore, follows[i]!)),
      setups,
      places,
      start,
      days,
      of,
    },
    away: days.map((day) => day === undefined),
    ...(limit === undefined ? {} : { limit }),
  };
}

/** What follows what: the filter after the drum was cleaned, the feet after it was pulled out. */
function followsOf(of: readonly ChoreOf[], { machines }: House): number[][] {
  const follows: number[][] = of.map(() => []);
  of.forEach(({ machineId, due: { inForce } }, i) => {
    const { tasks = [], setups = [] } = inForce.school.after ?? {};
    const machine = machines.find(({ id }) => id === machineId)!;
    of.forEach((leader, k) => {
      if (k === i || leader.machineId !== machineId || isLed(k, i, follows)) return;
      const calls =
        tasks.includes(leader.task.id) ||
        setUpIdsOf(leader.task, machine).some((one) => setups.includes(one));
      if (calls) follows[i]!.push(k);
    });
  });
  return follows;
}

/** Whether one comes after another already: nothing follows itself. */
const isLed = (i: number, by: number, follows: readonly (readonly number[])[]): boolean =>
  follows[i]!.some((one) => one === by || isLed(one, by, follows));

/** What follows is never too early. */
const following = (chore: Chore, follows: readonly number[]): Chore =>
  follows.length === 0
    ? chore
    : {
        ...chore,
        follows,
        first: { ...chore.first, from: 0 },
        gap: { ...chore.gap, from: 1 },
      };

/** What is never due by itself. */
const NEVER = 10_000;

interface Rhythm extends Pick<Chore, 'first' | 'gap' | 'byLoads'> {
  every: number;
}

/** When a task is due first and how often then, in weeks; nothing where it is never due. */
function rhythmOf(
  known: Due,
  task: Task,
  perWeek: number,
  calendar: Pick<HouseProblem, 'start' | 'days'>,
): Rhythm | undefined {
  const { status, on, inForce } = known;
  if (status === 'off' || status === 'habit') return undefined;
  if (status !== 'unknown' && on === undefined) {
    if (!inForce.school.after) return undefined;
    const never = { from: 1, to: NEVER };
    return { every: Infinity, gap: never, byLoads: false, first: { from: 0, to: NEVER } };
  }
  const every = everyDays(inForce, perWeek, task.cap);
  const byDays = everyDays(
    { school: inForce.school, speedUps: [], ...daysOf(inForce) },
    perWeek,
    task.cap,
  );
  const to = Number.isFinite(every) ? Math.max(1, Math.floor(every / WEEK)) : NEVER;
  const from = Math.min(to, Math.max(1, Math.ceil((EARLIEST * every) / WEEK)));
  const gap = { from: Number.isFinite(from) ? from : to, to };
  return { every, gap, byLoads: every < byDays, first: firstOf(known, gap, calendar) };
}

const daysOf = ({ days, months }: Due['inForce']) => ({
  ...(days === undefined ? {} : { days }),
  ...(months === undefined ? {} : { months }),
});

function firstOf(
  { status, on, safety }: Due,
  gap: Chore['gap'],
  { start, days }: Pick<HouseProblem, 'start' | 'days'>,
): Chore['first'] {
  if (status === 'unknown' || on === undefined) {
    return { from: 0, to: Math.min(gap.to, safety ? UNKNOWN.safety : UNKNOWN.rest) };
  }
  const ahead = daysBetween(start, on);
  // It is the day of the visit that counts: the last week whose day is not past the date.
  const inTime = days.findLastIndex((day) => day !== undefined && day <= on);
  const to = ahead >= days.length * WEEK ? Math.floor(ahead / WEEK) : Math.max(0, inTime);
  return { from: Math.max(0, to - (gap.to - gap.from)), to };
}

/** What a week later costs: the rise of the chance that the limit is passed, times what such a trouble costs. */
function latePrices(
  { ...question }: DueQuestion,
  { every, gap }: Rhythm,
  perWeek: number,
): number[] {
  const most = Math.floor((SLIP * every) / WEEK);
  if (!Number.isFinite(most) || most <= 0) return [];
  const { task } = question;
  const cost = troubleOf(task.id);
  const { belief } = reckon(question);
  const chance = (weeks: number) =>
    task.ungraded
      ? Math.min(1, weeks / gap.to) / 4
      : belief.chanceAbove(LIMIT, task.driver === 'loads' ? weeks * perWeek : weeks * WEEK);
  const usual = chance(gap.to);
  let before = 0;
  return Array.from({ length: Math.min(most, 30) }, (_, k) => {
    // It never falls, and a week that risks nothing still costs a little: sooner is better where all else is the same.
    before = Math.max(before + 0.1, (chance(gap.to + k + 1) - usual) * cost);
    return before;
  });
}

/** Minutes that it costs where a task's station passes its limit: to find it, and to put it right. */
export function troubleOf(task: string): number {
  const fixes = CAUSES.filter(({ fouling }) => fouling === task).map(({ fix }) => fix.minutes);
  return TROUBLE + (fixes.length ? fixes.reduce((a, b) => a + b, 0) / fixes.length : 0);
}

const SPRING_AND_AUTUMN = [3, 4, 5, 9, 10, 11];

function seasonOf({ inForce }: Due, start: Day, weeks: number): Pick<Chore, 'season'> {
  if (!/spring and autumn/i.test(inForce.school.said ?? '')) return {};
  return {
    season: Array.from({ length: weeks }, (_, week) => {
      const month = Number(plusDays(start, week * WEEK + 3).slice(5, 7));
      return SPRING_AND_AUTUMN.includes(month) ? 0 : OUT_OF_SEASON;
    }),
  };
}

/** The last day of each week, from the first on, on which somebody is at home and can work. */
function daysOfVisits(
  start: Day,
  weeks: number,
  weekdays: readonly number[],
  away: readonly Away[],
): (Day | undefined)[] {
  return Array.from({ length: weeks }, (_, week) =>
    Array.from({ length: WEEK }, (_d, day) => plusDays(start, week * WEEK + day)).findLast(
      (day) =>
        weekdays.includes(weekdayOf(day)) && !away.some(({ from, to }) => from <= day && day <= to),
    ),
  );
}

/** 1 Monday to 7 Sunday. The first of January 1970 was a Thursday. */
const weekdayOf = (day: Day): number => ((daysBetween('1970-01-01', day) + 3) % WEEK) + 1;
