import type { Machine, VisitTask } from '../../model/schemas.js';
import { hazardById, holds, procedureOf, setUpById, taskOf } from '../catalogue/lookup.js';
import type { Build, SetUp, Step, Task } from '../catalogue/types.js';
import { setUpsOf, minutesOf } from '../catalogue/set-ups.js';

/** Where in a visit a step belongs. */
export type Phase = 'set-up' | 'work' | 'put-back' | 'undo' | 'last' | 'proof';

export const PHASE_NAMES: Record<Phase, string> = {
  'set-up': 'Get ready',
  work: 'Clean',
  'put-back': 'Put back',
  undo: 'Leave it ready',
  last: 'Last of all',
  proof: 'Proof',
};

/** One step of a visit, as it fills the screen. */
export interface VisitStep {
  /** Unique in the visit and stable from one version to the next: `machine/task/step`. */
  key: string;
  machineId: string;
  /** Absent in steps that several tasks share. */
  task?: string;
  phase: Phase;
  step: Step;
  /** The words of the cautions at this step. */
  cautions: string[];
}

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
 * Works a visit out. Machines go one after the other, dry work before wet; within a machine the
 * set-ups are made once, the tasks follow in their natural order, parts that must dry go back last,
 * the set-ups are undone, water and gas before the push back and the plug last; then comes what needs
 * the machine standing and running (level, the hot empty cycle), and the proofs.
 *
 * ```
 *   unplug > flap open > [ gasket ] > [ filter ] > flap, plug in > [ drum clean ] > proofs
 * ```
 * @throws RangeError for an unknown task or a machine that is not given
 */
export function planVisit(
  tasks: readonly VisitTask[],
  machines: readonly VisitMachine[],
): VisitPlan {
  const plan: VisitPlan = { steps: [], fetch: [], setups: {}, minutes: { hands: 0, waiting: 0 } };
  for (const { machine, chosen } of byMachine(tasks, machines)) {
    const setups = setUpsOf(machine, chosen);
    plan.setups[machine.id] = setups;
    plan.steps.push(...stepsFor(machine, chosen, setups));
    addFetch(plan.fetch, machine, chosen, setups);
    const { hands, waiting } = minutesOf(machine, chosen);
    plan.minutes.hands += hands;
    plan.minutes.waiting += waiting;
  }
  return plan;
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
    const chosen = [...ids].map((one) => taskOf(machine, one)).sort((a, b) => a.order - b.order);
    return { machine, chosen };
  });
  return groups.sort((a, b) => a.chosen[0]!.order - b.chosen[0]!.order);
}

const rinses = ({ step }: VisitStep): boolean => step.rinses === 'all';

/** From here on the way out the machine gets its power back; what had to dry goes in before. */
const PLUG_BACK = setUpById('unplugged').back;

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
        cautions: (step.hazards ?? []).map((id) => hazardById(id).caution),
      }));
  const works: VisitStep[] = [];
  const lasts: VisitStep[] = [];
  const ends: VisitStep[] = [];
  const proofs: VisitStep[] = [];
  for (const { id } of chosen) {
    const procedure = procedureOf(machine, id);
    if (procedure.atEnd) {
      ends.push(...fitting('last', id, [...procedure.steps, ...procedure.putBack], id));
    } else {
      works.push(...fitting('work', id, procedure.steps, id));
      (procedure.putBackLast ? lasts : works).push(
        ...fitting('put-back', id, procedure.putBack, id),
      );
    }
    proofs.push(...fitting('proof', id, procedure.proof, id));
  }
  const undone = (which: (setup: SetUp) => boolean): VisitStep[] =>
    [...setups]
      .filter(which)
      .sort((a, b) => a.back - b.back)
      .flatMap(({ id, undo }) => fitting('undo', id, undo));
  return [
    ...setups.flatMap(({ id, steps }) => fitting('set-up', id, steps)),
    ...works,
    ...undone(({ back }) => back < PLUG_BACK),
    ...lasts,
    ...undone(({ back }) => back >= PLUG_BACK),
    // What was put on before is rinsed out before anything goes into the hot cycle.
    ...proofs.filter(rinses),
    ...ends,
    ...proofs.filter((proof) => !rinses(proof)),
  ];
}

function addFetch(
  list: FetchItem[],
  machine: VisitMachine,
  chosen: readonly Task[],
  setups: readonly SetUp[],
): void {
  const things = [
    ...setups.flatMap(({ fetch }) => fetch),
    ...chosen.flatMap(({ id }) =>
      procedureOf(machine, id)
        .fetch.filter(({ when }) => holds(when, machine))
        .map(({ what }) => what),
    ),
  ];
  for (const what of things) {
    const known = list.find((item) => item.what === what);
    if (!known) list.push({ what, machineIds: [machine.id] });
    else if (!known.machineIds.includes(machine.id)) known.machineIds.push(machine.id);
  }
}

/** The station a step works at, if it belongs to a task. */
export const stationOf = (step: VisitStep, machine: Build): string | undefined =>
  step.task && taskOf(machine, step.task).station;
