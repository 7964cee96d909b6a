import type { Machine, VisitTask } from '../../model/schemas.js';
import { FETCHED_TOGETHER } from '../catalogue/data/fetched-together.js';
import { TASKS } from '../catalogue/data/tasks.js';
import { cautionsFor, holds, procedureOf, taskOf } from '../catalogue/lookup.js';
import type { Build, Fetch, SetUp, Step, Task } from '../catalogue/types.js';
import { setUpsOf, minutesOf } from '../catalogue/set-ups.js';
import type { Phase, VisitStep } from './visit-step.js';
import { CLASSES, inOrder, LONG_WAIT, piecesOf, type Piece, type PieceClass } from './order.js';

export interface FetchItem {
  what: string;
  /** Machines it is for. */
  machineIds: string[];
}

/** A visit worked out: what to fetch, every step in order, and how long. */
export interface VisitPlan {
  steps: VisitStep[];
  fetch: FetchItem[];
  /** The set-ups of each machine, by machine. */
  setups: Record<string, SetUp[]>;
  minutes: { hands: number; waiting: number };
}

export type VisitMachine = Pick<Machine, 'id' | 'kind' | 'features' | 'ownTasks'>;

/**
 * Works a visit out. Machines go one after the other, dry work before wet; within a machine the order
 * follows from what the steps need and do (`order.ts`): set-ups are made once, what soaks or dries is
 * waited for with other work, what was opened is looked at while it can be seen and before the hot cycle,
 * and what only the next load can tell comes last.
 *
 * ```
 *   unplug > flap open > [ gasket ] > [ filter ] > plug in > rinse, drips? > flap shut > [ drum clean ] > proofs
 * ```
 * @throws RangeError for an unknown task or a machine that is not given
 */
export function planVisit(
  tasks: readonly VisitTask[],
  machines: readonly VisitMachine[],
): VisitPlan {
  const plan: VisitPlan = {
    steps: [],
    fetch: fetchFor(tasks, machines),
    setups: {},
    minutes: minutesOfVisit(tasks, machines),
  };
  for (const { machine, chosen } of byMachine(tasks, machines)) {
    const setups = setUpsOf(machine, chosen);
    plan.setups[machine.id] = setups;
    plan.steps.push(...stepsFor(machine, chosen, setups));
  }
  return plan;
}

/**
 * What to fetch for a visit, without working out its steps.
 * @throws RangeError for an unknown task or a machine that is not given
 */
export function fetchFor(
  tasks: readonly VisitTask[],
  machines: readonly VisitMachine[],
): FetchItem[] {
  const list: FetchItem[] = [];
  for (const { machine, chosen } of byMachine(tasks, machines)) {
    addFetch(list, machine, chosen, setUpsOf(machine, chosen));
  }
  return together(list);
}

/**
 * Minutes at work and waiting for a visit.
 * @throws RangeError for an unknown task or a machine that is not given
 */
export function minutesOfVisit(
  tasks: readonly VisitTask[],
  machines: readonly VisitMachine[],
): VisitPlan['minutes'] {
  return byMachine(tasks, machines)
    .map(({ machine, chosen }) => minutesOf(machine, chosen))
    .reduce((a, b) => ({ hands: a.hands + b.hands, waiting: a.waiting + b.waiting }), {
      hands: 0,
      waiting: 0,
    });
}

/**
 * The tasks of a visit by machine, both in their natural order.
 * @throws RangeError for an unknown task or a machine that is not given
 */
export function byMachine(tasks: readonly VisitTask[], machines: readonly VisitMachine[]) {
  const groups = [...new Set(tasks.map(({ machineId }) => machineId))].map((id) => {
    const machine = machines.find((one) => one.id === id);
    if (!machine) throw new RangeError(`No machine has the id "${id}".`);
    const ids = new Set(tasks.filter((task) => task.machineId === id).map(({ task }) => task));
    const chosen = [...ids].map((one) => taskOf(machine, one)).sort(naturally);
    return { machine, chosen };
  });
  return groups.sort((a, b) => naturally(a.chosen[0]!, b.chosen[0]!));
}

const PLACES = new Map(TASKS.map(({ id }, place) => [id, place]));

/** A task's place in the natural order; those that the household added come after the catalogue's. */
const placeIn = ({ id }: Pick<Task, 'id'>): number => PLACES.get(id) ?? TASKS.length;

/** Before every place there is. */
const EARLIEST = 1000;

/**
 * Which of two tasks comes first in the natural order: dry before wet, top before bottom, behind last.
 * @returns a number below, at or above 0
 */
export const naturally = (a: Pick<Task, 'id'>, b: Pick<Task, 'id'>): number =>
  placeIn(a) - placeIn(b);

function stepsFor(
  machine: VisitMachine,
  chosen: readonly Task[],
  setups: readonly SetUp[],
): VisitStep[] {
  const fitting = (
    phase: Phase,
    owner: string,
    steps: readonly Step[],
    task?: string,
  ): VisitStep[] =>
    steps
      .filter((step) => holds(step.when, machine))
      .map((step) => ({
        key: `${machine.id}/${owner}/${step.id}`,
        machineId: machine.id,
        phase,
        step,
        ...(task ? { task } : {}),
        cautions: cautionsFor(machine, step.hazards),
      }));
  const pieces: Piece[] = [];
  setups.forEach(({ id, steps, undo }, i) => {
    const made = piecesOf(fitting('set-up', id, steps), [CLASSES.setUp, i]);
    const undone = piecesOf(fitting('undo', id, undo), [CLASSES.undo, -i], made.at(-1));
    pieces.push(...made, ...undone);
  });
  for (const task of chosen) {
    const { id } = task;
    const { steps, putBack, proof } = procedureOf(machine, id);
    const place = placeIn(task);
    const work = [...fitting('work', id, steps, id), ...fitting('put-back', id, putBack, id)];
    const worked = piecesOf(work, [classOf(work), place]);
    pieces.push(...worked);
    let before = worked.at(-1);
    for (const one of fitting('proof', id, proof, id)) {
      const [proved] = piecesOf([one], rankOfProof(one, place), before);
      pieces.push(proved!);
      if (!one.step.later) before = proved;
    }
  }
  return lastOfAll(inOrder(pieces, machine));
}

/** What must dry long is begun first, what runs hot comes last. */
function classOf(steps: readonly VisitStep[]): PieceClass {
  if (steps.some(({ step }) => step.acts.runs === 'hot')) return CLASSES.heat;
  const dries = steps.some(({ step: { acts } }) => (acts.dries?.minutes ?? 0) >= LONG_WAIT);
  return dries ? CLASSES.drying : CLASSES.work;
}

/** A look that needs nothing to run is made before anything is put in its way. */
function rankOfProof({ step }: VisitStep, place: number): Piece['rank'] {
  if (step.later) return [CLASSES.later, place];
  return step.acts.runs ? [CLASSES.proof, place] : [CLASSES.undo, place - EARLIEST];
}

/** Cleaning that comes after the machine was left ready is told so. */
function lastOfAll(steps: readonly VisitStep[]): VisitStep[] {
  const ready = steps.findIndex(({ phase }) => phase === 'undo');
  return steps.map((one, i) =>
    ready >= 0 && i > ready && one.phase === 'work' ? { ...one, phase: 'last' } : one,
  );
}

function addFetch(
  list: FetchItem[],
  machine: VisitMachine,
  chosen: readonly Task[],
  setups: readonly SetUp[],
): void {
  const wanted = chosen
    .flatMap(({ id }) => procedureOf(machine, id).fetch)
    .filter(({ when }) => holds(when, machine));
  const things = [
    ...setups.flatMap(({ fetch }) => fetch),
    ...wanted.filter(keptApart(wanted)).map(({ what }) => what),
  ];
  for (const what of things) {
    const known = list.find((item) => item.what === what);
    if (!known) list.push({ what, machineIds: [machine.id] });
    else if (!known.machineIds.includes(machine.id)) known.machineIds.push(machine.id);
  }
}

/** Without doubles: what serves for two is fetched once, for the machines of both. */
function together(list: readonly FetchItem[]): FetchItem[] {
  for (const { both, say } of FETCHED_TOGETHER) {
    const found = both.map((what) => list.findIndex((item) => item.what === what));
    if (found.includes(-1)) continue;
    const machineIds = [...new Set(found.flatMap((at) => list[at]!.machineIds))];
    const first = Math.min(...found);
    const rest = list.filter((_, at) => at === first || !found.includes(at));
    return together(rest.map((item) => (item === list[first] ? { what: say, machineIds } : item)));
  }
  return [...list];
}

/**
 * Chlorine and acid are not carried to the same machine: what may be needed gives way to what is needed,
 * and vinegar in case of film to mould remover in case of mould.
 */
function keptApart(wanted: readonly Fetch[]): (one: Fetch) => boolean {
  const of = (kind: Fetch['holds']) => wanted.filter(({ holds: what }) => what === kind);
  if (of('chlorine').length === 0) return () => true;
  const needed = of('acid').some(({ uses }) => uses?.share === undefined);
  const gone = needed ? 'chlorine' : 'acid';
  return ({ holds: what }) => what !== gone;
}

/** The station a step works at, if it belongs to a task. */
export const stationOf = (step: VisitStep, machine: Build): string | undefined =>
  step.task && taskOf(machine, step.task).station;
