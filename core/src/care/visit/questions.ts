import type { VisitTask } from '../../model/schemas.js';
import { featuresIn, procedureOf, setUpById, setUpIdsOf } from '../catalogue/lookup.js';
import type { Task, When } from '../catalogue/types.js';
import { FEATURE_QUESTIONS, type FeatureQuestion } from '../catalogue/data/features.js';
import { byMachine, type VisitMachine } from './plan.js';

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
  tasks: readonly VisitTask[],
  machines: readonly VisitMachine[],
): OpenQuestion[] {
  return byMachine(tasks, machines).flatMap(({ machine, chosen }) => {
    const asked = new Set<string>(
      chosen
        .flatMap((task) => conditionsOf(task, machine))
        .flatMap((when) => featuresIn(when, machine.kind)),
    );
    return FEATURE_QUESTIONS.filter(
      ({ id, kinds }) =>
        asked.has(id) &&
        kinds.includes(machine.kind) &&
        (machine.features[id] ?? 'unknown') === 'unknown',
    ).map((question) => ({ machineId: machine.id, question }));
  });
}

function conditionsOf(task: Task, machine: VisitMachine): When[] {
  const { fetch, steps, putBack, proof } = procedureOf(machine, task.id);
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
  return all.flatMap(({ when }) => when ?? []);
}
