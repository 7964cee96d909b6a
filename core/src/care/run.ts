import type { Machine, RunProgress, RunTask, TaskRecord } from '../model/schemas.js';
import {
  hazardById,
  holds,
  procedureFor,
  setUpById,
  setUpIdsOf,
  isTask,
  taskById,
  taskOf,
  type Build,
  type SetUp,
  type Step,
  type Task,
  type When,
} from './catalogue.js';
import { FEATURE_QUESTIONS, type FeatureQuestion } from './data/features.js';

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

/** One step of a run, as it fills the screen. */
export interface RunStep {
  /** Unique in the run and stable from one version to the next: `machine/task/step`. */
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
export interface RunPlan {
  steps: RunStep[];
  fetch: FetchItem[];
  /** The set-ups of each machine, by machine. */
  setups: Record<string, SetUp[]>;
  minutes: { hands: number; waiting: number };
}

export type RunMachine = Pick<Machine, 'id' | 'kind' | 'features' | 'ownTasks'>;

/** Key of a task's record within a run. */
export const taskKey = ({ machineId, task }: RunTask): string => `${machineId}/${task}`;

export const emptyProgress = (): RunProgress => ({
  ticked: {},
  tasks: {},
  readings: {},
  timers: {},
  fetched: [],
});

/** The set-ups of some tasks of a machine, each once, in the order in which they are made. */
export function setUpsOf(machine: Build, tasks: readonly Task[]): SetUp[] {
  const ids = new Set(tasks.flatMap((task) => setUpIdsOf(task, machine)));
  return [...ids].map(setUpById).sort((a, b) => a.order - b.order);
}

/** Minutes at work and waiting for some tasks of one machine, each set-up counted once. */
export function minutesOf(
  machine: Build,
  tasks: readonly Task[],
): { hands: number; waiting: number } {
  const setups = setUpsOf(machine, tasks).reduce((sum, { minutes }) => sum + minutes, 0);
  return {
    hands: tasks.reduce((sum, { minutes }) => sum + minutes.hands, setups),
    waiting: tasks.reduce((sum, { minutes }) => sum + minutes.waiting, 0),
  };
}

/** Tasks without those that another of them does along the way. */
export function withoutCovered<T extends RunTask>(tasks: readonly T[]): T[] {
  return tasks.filter(
    ({ machineId, task }) =>
      !tasks.some(
        (other) =>
          other.machineId === machineId &&
          isTask(other.task) &&
          taskById(other.task).covers?.includes(task),
      ),
  );
}

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
export function planRun(tasks: readonly RunTask[], machines: readonly RunMachine[]): RunPlan {
  const plan: RunPlan = { steps: [], fetch: [], setups: {}, minutes: { hands: 0, waiting: 0 } };
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

function byMachine(tasks: readonly RunTask[], machines: readonly RunMachine[]) {
  const groups = [...new Set(tasks.map(({ machineId }) => machineId))].map((id) => {
    const machine = machines.find((one) => one.id === id);
    if (!machine) throw new RangeError(`No machine has the id "${id}".`);
    const ids = new Set(tasks.filter((task) => task.machineId === id).map(({ task }) => task));
    const chosen = [...ids].map((one) => taskOf(machine, one)).sort((a, b) => a.order - b.order);
    return { machine, chosen };
  });
  return groups.sort((a, b) => a.chosen[0]!.order - b.chosen[0]!.order);
}

const rinses = ({ step }: RunStep): boolean => step.rinses === 'all';

/** Whether a step proves a task; what only rinses proves nothing. */
export const isProof = ({ phase, step }: RunStep): boolean => phase === 'proof' && !step.rinses;

/** From here on the way out the machine gets its power back; what had to dry goes in before. */
const PLUG_BACK = setUpById('unplugged').back;

function stepsFor(
  machine: RunMachine,
  chosen: readonly Task[],
  setups: readonly SetUp[],
): RunStep[] {
  const fitting = (phase: Phase, owner: string, steps: readonly Step[], task?: string): RunStep[] =>
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
  const works: RunStep[] = [];
  const lasts: RunStep[] = [];
  const ends: RunStep[] = [];
  const proofs: RunStep[] = [];
  for (const { id } of chosen) {
    const procedure = procedureFor(machine, id);
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
  const undone = (which: (setup: SetUp) => boolean): RunStep[] =>
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
  machine: RunMachine,
  chosen: readonly Task[],
  setups: readonly SetUp[],
): void {
  const things = [
    ...setups.flatMap(({ fetch }) => fetch),
    ...chosen.flatMap(({ id }) =>
      procedureFor(machine, id)
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

/** Something about a machine that the steps of a visit depend on and nobody has told yet. */
export interface OpenQuestion {
  machineId: string;
  question: FeatureQuestion;
}

/**
 * What to ask before a visit: each feature on which a step, a set-up or something to fetch depends and
 * which is not known of the machine. Asked once, since the answer is kept with the machine.
 */
export function openQuestions(
  tasks: readonly RunTask[],
  machines: readonly RunMachine[],
): OpenQuestion[] {
  return byMachine(tasks, machines).flatMap(({ machine, chosen }) => {
    const asked = new Set(
      chosen.flatMap((task) => conditionsOf(task, machine)).flatMap((when) => Object.keys(when)),
    );
    return FEATURE_QUESTIONS.filter(
      ({ id, kinds }) =>
        asked.has(id) &&
        kinds.includes(machine.kind) &&
        (machine.features[id] ?? 'unknown') === 'unknown',
    ).map((question) => ({ machineId: machine.id, question }));
  });
}

function conditionsOf(task: Task, machine: RunMachine): When[] {
  const { fetch, steps, putBack, proof } = procedureFor(machine, task.id);
  const setups = setUpIdsOf(task, machine).map(setUpById);
  const all: readonly { when?: When }[] = [
    ...fetch,
    ...steps,
    ...putBack,
    ...proof,
    ...setups.flatMap((setup) => [...setup.steps, ...setup.undo]),
    ...task.setups.flatMap((use) => (typeof use === 'string' ? [] : use)),
    ...(task.when ? [{ when: task.when }] : []),
  ];
  // What holds for the kind alone is no question.
  return all.flatMap(({ when }) =>
    when && (!when.kinds || when.kinds.includes(machine.kind)) ? when : [],
  );
}

/** What a run's task has come to: as the person said, else from the steps ticked. */
export function outcomeOf(
  task: RunTask,
  plan: RunPlan,
  progress: RunProgress,
): { outcome: 'cleaned' | 'looked' | 'skipped'; record: TaskRecord; doneAt?: string } {
  const record = progress.tasks[taskKey(task)] ?? {};
  const own = plan.steps.filter(
    (step) =>
      step.machineId === task.machineId && step.task === task.task && step.phase !== 'proof',
  );
  const times = own.flatMap(({ key }) => progress.ticked[key] ?? []).sort();
  const doneAt = record.doneAt ?? times.at(-1);
  const outcome =
    record.outcome ??
    (times.length === own.length ? 'cleaned' : record.grade !== undefined ? 'looked' : 'skipped');
  return { outcome, record, ...(doneAt ? { doneAt } : {}) };
}

/** The station a run step works at, if it belongs to a task. */
export const stationOf = (step: RunStep, machine: Build): string | undefined =>
  step.task && taskOf(machine, step.task).station;
