import type { Household, Machine } from '../model/schemas.js';
import { dayOf, daysBetween, type Day } from '../units/calendar.js';
import {
  setUpIdsOf,
  stationsOf,
  taskOf,
  tasksOf,
  type Interval,
  type Station,
  type Task,
} from './catalogue.js';
import { chemicalsOf, type Chemicals } from './chemicals.js';
import { due, type Due, type DueQuestion, type DueStatus } from './due.js';
import { sayState, why } from './explain.js';
import type { Fouling } from './fouling.js';
import type { History } from './history.js';
import type { Measured } from './learning.js';
import { Openings } from './openings.js';
import { openProofs, type ProofQuestion } from './proofs.js';
import { planRun, withoutCovered, type FetchItem } from './run.js';

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
  /** Work for somebody trained: told, and never proposed as a visit. */
  professional?: true;
  on?: Day;
}

export interface MachineState {
  machineId: string;
  stations: StationState[];
  dues: DueLine[];
  /** Cleaning products that were not rinsed out yet. */
  chemicals: Chemicals;
  /** Proofs to be asked for, or that did not hold. */
  proofs: ProofQuestion[];
}

/** A visit proposed: everything at one place that is worth doing in one go. */
export interface Visit {
  place: string;
  machineIds: string[];
  tasks: DueLine[];
  fetch: FetchItem[];
  minutes: { hands: number; waiting: number };
  /** Tasks at this place that did not fit into the minutes at work. */
  later: number;
  /** When it has to be done by; absent where its tasks are only not known yet. */
  on?: Day;
}

/** Due dates of all tasks of a machine. */
export function duesOf(
  machine: Machine,
  history: Pick<History, 'openings' | 'readings' | 'usage'>,
  household: Household,
  now: number,
): Due[] {
  return questionsOf(machine, history, household, now).map(due);
}

/** What is asked of the engine for each task of a machine. */
export function questionsOf(
  machine: Machine,
  history: Pick<History, 'openings' | 'readings' | 'usage'>,
  household: Household,
  now: number,
): DueQuestion[] {
  const tasks = tasksOf(machine);
  return tasks.map((task) => ({
    task,
    machine,
    household,
    openings: history.openings.get(task.id) ?? Openings.NONE,
    readings: history.readings.get(task.id) ?? NO_READINGS,
    usage: history.usage,
    calledFor: (after, at) => latestOf(callers(after, tasks, machine), history, at),
    now,
  }));
}

/** The tasks after which another one falls due. */
function callers(
  { tasks: ids = [], setups = [] }: NonNullable<Interval['after']>,
  tasks: readonly Task[],
  machine: Machine,
): Task[] {
  return tasks.filter(
    (task) =>
      ids.includes(task.id) || setUpIdsOf(task, machine).some((setup) => setups.includes(setup)),
  );
}

function latestOf(
  tasks: readonly Task[],
  { openings }: Pick<History, 'openings'>,
  after: number,
): Day | undefined {
  const later = tasks
    .flatMap(({ id }) => openings.get(id)?.list ?? [])
    .filter(({ at, cleaned }) => cleaned && at > after)
    .sort((a, b) => a.at - b.at);
  return later.at(-1)?.day;
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
    const all = dues.filter((one) => one.station === id).sort(byUrgency);
    const own = all.filter(({ status }) => status !== 'habit');
    const first = own[0];
    if (!first) {
      const said = all.length ? 'with each load' : 'nothing scheduled';
      return { id, name, line, status: 'none', said };
    }
    const foulest = own
      .flatMap(({ fouling }) => fouling ?? [])
      .sort((a, b) => b.median - a.median)[0];
    return {
      id,
      name,
      line,
      status: first.status,
      said: sayState(first, machine, today),
      ...(foulest ? { fouling: foulest } : {}),
    };
  });
  return {
    machineId: machine.id,
    stations,
    dues: dues
      .filter(({ status }) => status !== 'habit')
      .sort(byUrgency)
      .map((one) => dueLine(machine, one, today)),
    chemicals: chemicalsOf(machine, history),
    proofs: openProofs(machine, history, now),
  };
}

export function dueLine(machine: Machine, one: Due, today: Day): DueLine {
  const task = taskOf(machine, one.task);
  return {
    machineId: machine.id,
    task: one.task,
    name: task.name,
    station: one.station,
    status: one.status,
    said: sayState(one, machine, today),
    why: why(task, one, today).short,
    ...(task.professional ? { professional: true as const } : {}),
    ...(one.on ? { on: one.on } : {}),
  };
}

const RANK: Record<DueStatus, number> = {
  due: 0,
  unknown: 1,
  soon: 2,
  fine: 3,
  off: 4,
  habit: 5,
};

/** Due before not known before soon before fine; the earlier date first. */
export function byUrgency(a: Pick<Due, 'status' | 'on'>, b: Pick<Due, 'status' | 'on'>): number {
  return RANK[a.status] - RANK[b.status] || (a.on ?? '9999').localeCompare(b.on ?? '9999');
}

/** Minutes at work that a proposed visit may take, where the household does not say. */
export const VISIT_MINUTES = 60;
/** What comes due within this of the visit is done along. */
const ALONG_DAYS = 14;

/**
 * The next visit worth making: at the place of the most urgent task, what is due there, then what
 * comes due within two weeks, then what is not known yet, as far as the minutes at work reach. The
 * most urgent task is always in it. What shares a set-up with it costs less and so fits in sooner.
 * Undefined where nothing can be due.
 */
export function nextVisit(
  machines: readonly Machine[],
  states: readonly MachineState[],
  today: Day,
  minutesAtWork = VISIT_MINUTES,
): Visit | undefined {
  const all = states
    .flatMap(({ dues }) => dues)
    .filter(({ professional }) => !professional)
    .sort(byUrgency);
  const first = all.find(({ on, status }) => on !== undefined || status === 'unknown');
  if (!first) return undefined;
  const placeOf = (id: string) => machines.find((machine) => machine.id === id)!.place;
  const place = placeOf(first.machineId);
  const from = first.on && first.on > today ? first.on : today;
  const there = all.filter(({ machineId }) => placeOf(machineId) === place);
  const wanted = [
    ...there.filter(({ on }) => on !== undefined && daysBetween(from, on) <= ALONG_DAYS),
    ...there.filter(({ status }) => status === 'unknown'),
  ];
  const chosen = [first];
  for (const one of wanted) {
    if (chosen.includes(one)) continue;
    const { hands } = planRun(withoutCovered([...chosen, one]), machines).minutes;
    if (hands <= minutesAtWork) chosen.push(one);
  }
  const tasks = withoutCovered(chosen).sort(byUrgency);
  const { fetch, minutes } = planRun(tasks, machines);
  const dates = tasks.flatMap(({ on }) => on ?? []).sort();
  return {
    place,
    machineIds: [...new Set(tasks.map(({ machineId }) => machineId))],
    tasks,
    fetch,
    minutes,
    later: wanted.length + (wanted.includes(first) ? 0 : 1) - chosen.length,
    ...(dates[0] ? { on: dates[0] } : {}),
  };
}

const NO_READINGS: readonly Measured[] = [];
