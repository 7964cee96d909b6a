import type { Household, Machine } from '../model/schemas.js';
import { dayOf, daysBetween, type Day } from '../units/calendar.js';
import { stationsOf, taskById, tasksOf, type Station } from './catalogue.js';
import { due, type Due, type DueStatus, type Opening } from './due.js';
import { sayState, why } from './explain.js';
import type { Fouling } from './fouling.js';
import { planRun, type FetchItem } from './run.js';
import type { Usage } from './usage.js';

/** What the record says of one machine, as the engines need it. */
export interface History {
  /** By task. */
  openings: ReadonlyMap<string, readonly Opening[]>;
  usage: Usage;
}

/** A station's gauge on the line drawing. */
export interface StationState {
  id: string;
  name: string;
  line: Station['line'];
  /** `none`: nothing is scheduled here. */
  status: DueStatus | 'none';
  /** A few words on the state, for labels and screen readers. */
  said: string;
  fouling?: Fouling;
}

export interface DueLine {
  machineId: string;
  task: string;
  name: string;
  station: string;
  status: DueStatus;
  said: string;
  why: string;
  on?: Day;
}

export interface MachineState {
  machineId: string;
  stations: StationState[];
  dues: DueLine[];
}

/** A visit proposed: everything at one place that is worth doing in one go. */
export interface Visit {
  place: string;
  machineIds: string[];
  tasks: DueLine[];
  fetch: FetchItem[];
  minutes: { hands: number; waiting: number };
  /** When it has to be done by; absent where its tasks are only not known yet. */
  on?: Day;
}

/** Due dates of all tasks of a machine. */
export function duesOf(
  machine: Machine,
  history: History,
  household: Household,
  now: number,
): Due[] {
  return tasksOf(machine).map((task) =>
    due({
      task,
      machine,
      household,
      openings: history.openings.get(task.id) ?? NONE,
      usage: history.usage,
      now,
    }),
  );
}

/** A machine's line with the state of every station, and what is due on it. */
export function stateOf(
  machine: Machine,
  history: History,
  household: Household,
  now: number,
): MachineState {
  const today = dayOf(now, household.zone);
  const dues = duesOf(machine, history, household, now);
  const stations = stationsOf(machine).map((station): StationState => {
    const { id, name, line } = station;
    const own = dues.filter((one) => one.station === id).sort(byUrgency);
    const first = own[0];
    if (!first) return { id, name, line, status: 'none', said: 'nothing scheduled' };
    const foulest = own
      .flatMap(({ fouling }) => fouling ?? [])
      .sort((a, b) => b.median - a.median)[0];
    return {
      id,
      name,
      line,
      status: first.status,
      said: sayState(first, today),
      ...(foulest ? { fouling: foulest } : {}),
    };
  });
  return {
    machineId: machine.id,
    stations,
    dues: [...dues].sort(byUrgency).map((one) => dueLine(machine.id, one, today)),
  };
}

export function dueLine(machineId: string, one: Due, today: Day): DueLine {
  const task = taskById(one.task);
  return {
    machineId,
    task: one.task,
    name: task.name,
    station: one.station,
    status: one.status,
    said: sayState(one, today),
    why: why(task, one, today).short,
    ...(one.on ? { on: one.on } : {}),
  };
}

const RANK: Record<DueStatus, number> = { due: 0, unknown: 1, soon: 2, fine: 3, off: 4 };

/** Due before not known before soon before fine; the earlier date first. */
export function byUrgency(a: Pick<Due, 'status' | 'on'>, b: Pick<Due, 'status' | 'on'>): number {
  return RANK[a.status] - RANK[b.status] || (a.on ?? '9999').localeCompare(b.on ?? '9999');
}

/**
 * The next visit worth making: at the place of the most urgent task, all that is due there, not
 * known, or coming due within two weeks of it. Undefined where nothing can be due.
 */
export function nextVisit(
  machines: readonly Machine[],
  states: readonly MachineState[],
  today: Day,
): Visit | undefined {
  const all = states.flatMap(({ dues }) => dues).sort(byUrgency);
  const first = all.find(({ on, status }) => on !== undefined || status === 'unknown');
  if (!first) return undefined;
  const placeOf = (id: string) => machines.find((machine) => machine.id === id)!.place;
  const place = placeOf(first.machineId);
  const from = first.on && first.on > today ? first.on : today;
  const tasks = all.filter(
    ({ machineId, on, status }) =>
      placeOf(machineId) === place &&
      (status === 'unknown' || (on !== undefined && daysBetween(from, on) <= 14)),
  );
  const { fetch, minutes } = planRun(tasks, machines);
  const dates = tasks.flatMap(({ on }) => on ?? []).sort();
  return {
    place,
    machineIds: [...new Set(tasks.map(({ machineId }) => machineId))],
    tasks,
    fetch,
    minutes,
    ...(dates[0] ? { on: dates[0] } : {}),
  };
}

const NONE: readonly Opening[] = [];
