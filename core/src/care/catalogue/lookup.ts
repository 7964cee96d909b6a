import type { FeatureId, MachineKind } from '../../model/vocabulary.js';
import { ownProcedure, ownTask } from './own-task.js';
import { HAZARDS } from './data/hazards.js';
import { PARTS, type Part } from './data/parts.js';
import { PROCEDURES } from './data/procedures/index.js';
import { SETUPS } from './data/setups.js';
import { STATIONS } from './data/stations.js';
import { TASKS } from './data/tasks.js';
import type { When, Station, Task, Procedure, Build } from './types.js';

/**
 * Whether a condition holds for a machine. A feature that is not known yet counts as `unknown`,
 * so that data can say what to do then.
 */
export function holds(when: When | undefined, { kind, features }: Build): boolean {
  if (!when) return true;
  const { kinds, or, ...wanted } = when;
  if (or && holds(or, { kind, features })) return true;
  if (kinds && !kinds.includes(kind)) return false;
  return Object.entries(wanted).every(([feature, values]) =>
    values.includes(String(features[feature as FeatureId] ?? 'unknown')),
  );
}

/** The features that a condition asks for on a kind of machine. */
export function featuresIn(when: When | undefined, kind: MachineKind): FeatureId[] {
  if (!when) return [];
  const { kinds, or, ...wanted } = when;
  const own = !kinds || kinds.includes(kind) ? (Object.keys(wanted) as FeatureId[]) : [];
  return [...own, ...featuresIn(or, kind)];
}

/** The stations of a machine, in the order of its line. */
export function stationsOf(machine: Build): Station[] {
  return STATIONS.filter(
    (station) => station.kinds.includes(machine.kind) && holds(station.when, machine),
  );
}

/** The parts of a machine that wear, each at the station where it has it, in the order of its line. */
export function partsOf(machine: Build): Part[] {
  const there = new Set(stationsOf(machine).map(({ id }) => id));
  return PARTS.filter(({ kinds }) => kinds.includes(machine.kind)).flatMap((part) => {
    const station = [part.station, part.or].find((id) => id !== undefined && there.has(id));
    return station === undefined ? [] : [station === part.station ? part : { ...part, station }];
  });
}

/** The tasks of a machine, in the natural order of a visit. */
export function tasksOf(machine: Build): Task[] {
  const own = (machine.ownTasks ?? []).map((one) => ownTask(one, machine.kind));
  return [
    ...TASKS.filter((task) => task.kinds.includes(machine.kind) && holds(task.when, machine)),
    ...own,
  ];
}

/**
 * A task by its id: from the catalogue, or one that the household added to this machine.
 * @throws RangeError where neither knows it
 */
export function taskOf(machine: Build, id: string): Task {
  const own = machine.ownTasks?.find((one) => one.id === id);
  return own ? ownTask(own, machine.kind) : taskById(id);
}

/** The procedure of a task of a machine. @throws RangeError for an unknown task */
export function procedureOf(machine: Build, id: string): Procedure {
  const own = machine.ownTasks?.find((one) => one.id === id);
  return own ? ownProcedure(own) : procedureById(id);
}

/** Whether a machine has, or had, a task of this name. */
export const knowsTask = (machine: Build | undefined, id: string): boolean =>
  isTask(id) || machine?.ownTasks?.some((own) => own.id === id) === true;

/** The set-ups that a task needs on a machine. */
export const setUpIdsOf = (task: Task, machine: Build): string[] =>
  task.setups.flatMap((use) =>
    typeof use === 'string' ? use : holds(use.when, machine) ? use.id : [],
  );

const finder = <T>(what: string, byId: ReadonlyMap<string, T>) => {
  return (id: string): T => {
    const found = byId.get(id);
    if (found === undefined) throw new RangeError(`No ${what} is called "${id}".`);
    return found;
  };
};
const byId = <T extends { id: string }>(all: readonly T[]) =>
  new Map(all.map((one) => [one.id, one]));

export const stationById = finder('station', byId(STATIONS));
export const taskById = finder('task', byId(TASKS));
export const setUpById = finder('set-up', byId(SETUPS));
export const hazardById = finder('hazard', byId(HAZARDS));

/** The words of some hazards, of those that a machine built so has. @throws RangeError for an unknown one */
export const cautionsFor = (machine: Build, hazards: readonly string[] = []): string[] =>
  hazards
    .map(hazardById)
    .filter(({ when }) => holds(when, machine))
    .map(({ caution }) => caution);

export const procedureById = finder('procedure for', new Map(PROCEDURES.map((p) => [p.task, p])));

/** Whether the catalogue knows these names, for checking what comes from outside. */
export const isStation = (id: string): boolean => STATIONS.some((station) => station.id === id);
/** Whether the catalogue has a task of this id; own tasks are not among them. */
export const isTask = (id: string): boolean => TASKS.some((task) => task.id === id);

/** Stands in where a machine is not known: the catalogue’s own tasks are found all the same. */
export const NO_MACHINE: Build = { kind: 'front-load-washer', features: {} };
