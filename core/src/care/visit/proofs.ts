import type { Machine } from '../../model/schemas.js';
import { knowsTask, procedureOf, taskOf } from '../catalogue/lookup.js';
import type { History } from '../record/history.js';

/** A proof that is still open. */
export interface ProofQuestion {
  machineId: string;
  task: string;
  /** Of the task. */
  name: string;
  station: string;
  step: string;
  do: string;
  look?: string;
  /** `ask`: a load has run since it was planned. `bad`: it did not hold, and nothing was done since. */
  state: 'ask' | 'bad';
  /** UTC instant, milliseconds, of what was said last. */
  since: number;
}

/**
 * Proofs to be asked for, or that did not hold. One that was planned is asked after the next load; one
 * that did not hold stays open until it holds or the task was done again.
 * @param now UTC instant, milliseconds
 */
export function openProofs(
  machine: Machine,
  { proofs, openings, usage }: Pick<History, 'proofs' | 'openings' | 'usage'>,
  now: number,
): ProofQuestion[] {
  const latest = new Map(proofs.map((proof) => [`${proof.task}/${proof.step}`, proof]));
  return [...latest.values()].flatMap(({ task, step: stepId, result, at }): ProofQuestion[] => {
    if (result === 'good' || !knowsTask(machine, task)) return [];
    const step = procedureOf(machine, task).proof.find(({ id }) => id === stepId);
    if (!step) return [];
    const again = openings.get(task)?.lastCleaned;
    if (again && again.at > at) return [];
    if (result === 'planned' && usage.between(at, now).counted === 0) return [];
    const { name, station } = taskOf(machine, task);
    return [
      {
        machineId: machine.id,
        task,
        name,
        station,
        step: stepId,
        do: step.do,
        ...(step.look ? { look: step.look } : {}),
        state: result === 'planned' ? 'ask' : 'bad',
        since: at,
      },
    ];
  });
}
