import { setUpById, setUpIdsOf, stationById, taskOf } from '../care/catalogue/lookup.js';
import { usesOf } from '../care/catalogue/uses.js';
import type { SectionTold } from '../care/house/sections.js';
import { costOf as costOfSupplies } from '../care/house/supplies.js';
import { duesOf } from '../care/schedule/dues.js';
import type { House } from '../care/schedule/year.js';
import { isDryer } from '../model/vocabulary.js';
import { fetchFor } from '../care/visit/plan.js';
import type { Household, Machine, Supply } from '../model/schemas.js';
import type { Absence } from '../model/planned.js';
import type { AheadProblem } from '../plan/ahead.js';
import { calendarOf } from '../plan/ahead.js';
import { awayVisits, type AwayVisit } from '../plan/away-visits.js';
import type { GaveWay } from '../plan/cost.js';
import type { Plan } from '../plan/problem.js';
import { troubleAhead } from '../plan/trouble-ahead.js';
import { isSafety, maySlip, threadsOf } from '../plan/threads.js';
import type { AheadTask, AheadVisit, YearPlan } from '../plan/year-plan.js';
import { many } from '../units/many.js';
import { plusDays, sayDay, type Day } from '../units/calendar.js';

/** A task of a planned visit, with what a person calls it. */
export interface PlannedTaskView extends AheadTask {
  name: string;
  machine: string;
  line: 'water' | 'air';
}

/** A visit of the year ahead, as it is shown. */
export interface PlannedVisitView extends Omit<AheadVisit, 'tasks'> {
  id: string;
  version: number;
  tasks: PlannedTaskView[];
  /** What is made once for several of its tasks. */
  shared: string[];
  fetch: string[];
  /** Why it is left out this once. */
  skipped?: string;
  done?: boolean;
}

/** A visit that the plan moved by itself. */
export interface MovedVisit {
  id: string;
  from: Day;
  to: Day;
  why: string;
}

/** The year ahead of a household. */
export interface PlanView {
  household: Household;
  /** Not there where the whole house is told. */
  section?: SectionTold;
  /** What is told is the plan that stands: a new one is being made. */
  making?: true;
  start: Day;
  end: Day;
  places: string[];
  machines: Pick<Machine, 'id' | 'name' | 'place'>[];
  visits: PlannedVisitView[];
  absences: Absence[];
  away: AwayVisit[];
  /** Minutes a year at work; each task on a day of its own. */
  minutes: number;
  apart: number;
  /** As a part: how much dearer than the best there can be it is at most. */
  within: number;
  /** What no plan can be below, minutes. */
  least: number;
  trouble: { count: number; minutes: number; most: string[] };
  /** Rules that gave way, in sentences. */
  gaveWay: string[];
  moved: MovedVisit[];
  /** In the household's money, by month; and supplies without a price. */
  months: { month: string; money: number; minutes: number; visits: number }[];
  money: number;
  unpriced: number;
  /** Tasks whose rhythm a plan that was taken gave. */
  taken: number;
  /** Work of somebody trained that falls due. */
  trained: string[];
  /** Names of those who do visits. */
  people: string[];
  /** Every task that is planned, as it is called. */
  tasks: Pick<PlannedTaskView, 'machineId' | 'task' | 'name' | 'machine' | 'line'>[];
  problem: AheadProblem;
  plan: Plan;
}

/** What sheets, letters and calendars tell of the plan of a whole house. */
export type HousePlan = Pick<
  PlanView,
  'household' | 'start' | 'end' | 'places' | 'visits' | 'absences' | 'away' | 'minutes'
>;

/** The plan of a whole house out of those of its sections, at least one. */
export function housePlan(views: readonly PlanView[]): HousePlan {
  const [first] = views;
  if (views.length === 1) return first!;
  const { household, start, end } = first!;
  // Days away that were laid down while section after section was told are in some of them.
  const absences = new Map(views.flatMap((view) => view.absences).map((one) => [one.id, one]));
  const away = new Map<string, AwayVisit>();
  for (const one of views.flatMap((view) => view.away)) {
    const name = `${one.day} ${one.kind}`;
    const known = away.get(name);
    const todo = [...new Set([...(known?.todo ?? []), ...one.todo])];
    away.set(name, { ...one, todo });
  }
  return {
    ...{ household, start, end, absences: [...absences.values()] },
    places: [...new Set(views.flatMap(({ places }) => places))],
    visits: views.flatMap(({ visits }) => visits).sort(byDay),
    away: [...away.values()].sort((a, b) => a.day.localeCompare(b.day)),
    minutes: views.reduce((sum, { minutes }) => sum + minutes, 0),
  };
}

const byDay = (a: PlannedVisitView, b: PlannedVisitView): number =>
  a.day.localeCompare(b.day) || a.place.localeCompare(b.place);

/** The state of a plan that the view is made of. */
export interface PlanState {
  problem: AheadProblem;
  plan: Plan;
  /** Of what any plan costs, minutes. */
  bound: number;
  cost: number;
  year: YearPlan;
  /** The identity of each visit, in the year's order; those that are left out or done come after. */
  rows: readonly { id: string; version: number }[];
  aside: readonly (Pick<
    PlannedVisitView,
    'id' | 'version' | 'day' | 'place' | 'skipped' | 'done'
  > & {
    tasks: readonly { machineId: string; task: string }[];
    who?: string | undefined;
  })[];
  moved: readonly MovedVisit[];
  /** It is what stands: a new one is being made. */
  making?: true;
}

/** A visit of the next weeks, as much of it as the bench draws. */
export interface VisitAhead {
  id: string;
  day: Day;
  place: string;
  who?: string;
  minutes: number;
  /** Minutes at work on each thread. */
  water: number;
  air: number;
  safety: boolean;
  slips: boolean;
  /** What its tasks are called. */
  tasks: string[];
}

/** The next weeks of the year ahead, for the bench. */
export interface PlanAhead {
  start: Day;
  end: Day;
  places: string[];
  away: { from: Day; to: Day }[];
  visits: VisitAhead[];
}

/** The bench tells so many days ahead: nine weeks. */
const AHEAD_DAYS = 63;

/** The next weeks of a plan: what is still to be done in them. */
export function planAhead(plan: HousePlan): PlanAhead {
  const { start, places, absences } = plan;
  const end = plusDays(start, AHEAD_DAYS);
  return {
    start,
    end,
    places,
    away: absences
      .filter(({ from, to }) => to >= start && from <= end)
      .map(({ from, to }) => ({ from, to })),
    visits: plan.visits
      .filter(
        ({ day, done, skipped }) => day >= start && day <= end && !done && skipped === undefined,
      )
      .map((visit) => ({
        ...{ id: visit.id, day: visit.day, place: visit.place, minutes: visit.minutes },
        ...(visit.who ? { who: visit.who } : {}),
        ...threadsOf(visit),
        safety: isSafety(visit),
        slips: maySlip(visit),
        tasks: visit.tasks.map(({ name }) => name),
      })),
  };
}

interface Beside {
  absences: readonly Absence[];
  supplies: readonly Supply[];
  people: readonly string[];
  section?: SectionTold | undefined;
}

/** The year ahead, in words and figures. Minutes, weeks and the household's money. */
export function planView(house: House, state: PlanState, beside: Beside): PlanView {
  const { problem, plan, year } = state;
  const { household } = house;
  const machines = new Map(house.machines.map((one) => [one.id, one]));
  const calendar = calendarOf(problem);
  const told = (visit: Omit<AheadVisit, 'tasks'> & { tasks: readonly AheadTask[] }) => {
    const known = visit.tasks.filter(({ machineId }) => machines.has(machineId));
    const tasks = known.map((task) => ({ ...task, ...calledIn(task, machines) }));
    return { ...visit, tasks, shared: sharedIn(known, machines), fetch: fetchOf(known, house) };
  };
  const visits = [
    ...year.visits.map((visit, i) => ({ ...told(visit), ...state.rows[i]! })),
    ...state.aside.map(({ tasks, who, ...row }) => ({
      ...told({
        ...{ day: row.day, place: row.place, saves: 0, held: true },
        minutes: 0,
        tasks: tasks.map((task) => ({
          ...task,
          minutes: minutesIn(task, machines),
          safety: safetyIn(task, machines),
          slips: false,
        })),
        ...(who ? { who } : {}),
      }),
      ...row,
    })),
  ].sort(byDay);
  const trouble = troubleAhead(problem, plan);
  const used = new Map<string, Record<string, number>>();
  for (const { day, tasks } of year.visits) {
    const month = day.slice(0, 7);
    const sums = used.get(month) ?? {};
    for (const { machineId, task } of tasks) {
      const machine = machines.get(machineId)!;
      for (const { supply, expected } of usesOf(taskOf(machine, task), machine)) {
        sums[supply] = (sums[supply] ?? 0) + expected;
      }
    }
    used.set(month, sums);
  }
  const months = [...used].sort().map(([month, supplies]) => {
    const there = year.visits.filter(({ day }) => day.startsWith(month));
    return {
      month,
      visits: there.length,
      minutes: there.reduce((sum, { minutes }) => sum + minutes, 0),
      ...costOfSupplies({ supplies }, beside.supplies),
    };
  });
  const names = new Map(
    problem.of.map(({ machineId, task }, i) => [i, nameOf({ machineId, task }, machines)]),
  );
  return {
    household,
    ...(beside.section ? { section: beside.section } : {}),
    ...(state.making ? { making: true } : {}),
    start: problem.start,
    end: calendar.end,
    places: [...new Set(house.machines.map(({ place }) => place))],
    machines: house.machines.map(({ id, name, place }) => ({ id, name, place })),
    visits,
    absences: [...beside.absences],
    away: awayVisits(problem.spans, house.machines, problem.start),
    minutes: year.minutes,
    apart: year.apart,
    within: Number.isFinite(year.within) ? year.within : 1,
    least: state.bound,
    trouble: {
      count: trouble.count,
      minutes: trouble.minutes,
      most: [...trouble.of.keys()]
        .sort((a, b) => trouble.of[b]! - trouble.of[a]!)
        .slice(0, 3)
        .map((i) => names.get(i)!),
    },
    gaveWay: sayGaveWay(year.gaveWay, problem, (chore) => names.get(chore)!),
    moved: [...state.moved],
    months: months.map(({ unpriced: _unpriced, ...month }) => month),
    money: months.reduce((sum, { money }) => sum + money, 0),
    unpriced: Math.max(0, ...months.map(({ unpriced }) => unpriced)),
    taken: house.machines.reduce(
      (sum, { rules = {} }) => sum + Object.values(rules).filter((rule) => rule.planned).length,
      0,
    ),
    trained: trainedIn(house, problem),
    people: [...beside.people],
    tasks: problem.of.map(({ machineId, task }) => calledIn({ machineId, task }, machines)),
    problem,
    plan,
  };
}

/** Work of somebody trained that falls due within the plan, in words. */
function trainedIn(
  { household, machines, histories, now }: House,
  { start }: AheadProblem,
): string[] {
  return machines.flatMap((machine, i) =>
    duesOf(machine, histories[i]!, household, now).flatMap(({ task, on, status }) => {
      const { professional, name } = taskOf(machine, task);
      if (!professional || status === 'off' || (on === undefined && status !== 'unknown'))
        return [];
      return [
        `${name}, ${machine.name}: ${on ? `by ${sayDay(on, start)}` : 'not known when last'}`,
      ];
    }),
  );
}

type Machines = ReadonlyMap<string, Machine>;
interface Of {
  machineId: string;
  task: string;
}

const nameOf = ({ machineId, task }: Of, machines: Machines): string => {
  const machine = machines.get(machineId)!;
  return `${taskOf(machine, task).name}, ${machine.name}`;
};
const minutesIn = ({ machineId, task }: Of, machines: Machines): number => {
  const machine = machines.get(machineId);
  return machine ? taskOf(machine, task).minutes.hands : 0;
};
const safetyIn = ({ machineId, task }: Of, machines: Machines): boolean => {
  const machine = machines.get(machineId);
  return machine !== undefined && taskOf(machine, task).safety;
};

function calledIn({ machineId, task }: Of, machines: Machines) {
  const machine = machines.get(machineId)!;
  const { name, station } = taskOf(machine, task);
  return { machineId, task, name, machine: machine.name, line: lineOf(station, machine) };
}

/** Told as one of the two threads: the small line of condensate is water, a dryer's body air. */
function lineOf(station: string, { kind }: Machine): 'water' | 'air' {
  const { line } = stationById(station);
  return line === 'air' || (line === 'body' && isDryer(kind)) ? 'air' : 'water';
}

/** Set-ups that serve several of a visit's tasks, in words. */
function sharedIn(tasks: readonly Of[], machines: Machines): string[] {
  const users = new Map<string, { name: string; count: number }>();
  for (const { machineId, task } of tasks) {
    const machine = machines.get(machineId)!;
    for (const id of setUpIdsOf(taskOf(machine, task), machine)) {
      const known = users.get(`${machineId}/${id}`) ?? { name: setUpById(id).name, count: 0 };
      users.set(`${machineId}/${id}`, { ...known, count: known.count + 1 });
    }
  }
  return [...new Set([...users.values()].filter(({ count }) => count > 1).map(({ name }) => name))];
}

const fetchOf = (tasks: readonly Of[], { machines }: House): string[] =>
  tasks.length ? fetchFor(tasks, machines).map(({ what }) => what) : [];

/** Rules that gave way, in sentences, each once. */
export function sayGaveWay(
  gaveWay: readonly GaveWay[],
  problem: AheadProblem,
  name: (chore: number) => string,
): string[] {
  const calendar = calendarOf(problem);
  const when = (week: number) =>
    week < problem.weeks ? sayDay(calendar.dayOf(week), problem.start) : 'the end of the year';
  const sentences = gaveWay.map((one) => {
    switch (one.rule) {
      case 'safety':
        return `${name(one.chore)} comes ${many(one.weeks, 'week')} late on ${when(one.week)}: it keeps people safe, do it sooner by hand.`;
      case 'late':
        return `${name(one.chore)} comes later than it may, on ${when(one.week)}.`;
      case 'early':
        return `${name(one.chore)} comes sooner than it needs to, on ${when(one.week)}.`;
      case 'away':
        return `${name(one.chore)} is on ${when(one.week)} although nobody is there or that is none of your days: it cannot wait.`;
      case 'after':
        return `${name(one.chore)} does not follow what it belongs to on ${when(one.week)}.`;
      case 'minutes':
        return `${problem.places[one.place]!.id} on ${when(one.week)} takes ${one.over} min more than a visit may.`;
    }
  });
  return [...new Set(sentences)];
}
