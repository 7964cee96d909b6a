import type { VisitProgress, VisitTask, TaskRecord } from '../../model/schemas.js';
import { taskKey } from '../catalogue/set-ups.js';
import type { VisitPlan } from './plan.js';
import type { VisitStep } from './visit-step.js';

/** The progress of a visit that was just begun. */
export const emptyProgress = (): VisitProgress => ({
  ticked: {},
  tasks: {},
  readings: {},
  timers: {},
  fetched: [],
});

/** Whether a step proves a task; what only rinses proves nothing. */
export const isProof = ({ phase, step }: VisitStep): boolean => phase === 'proof' && !step.rinses;

/**
 * Steps that may not stay open: those of putting back and leaving a machine ready, of machines at which
 * something was done.
 */
export function leftOpen(
  { steps }: Pick<VisitPlan, 'steps'>,
  { ticked }: Pick<VisitProgress, 'ticked'>,
): VisitStep[] {
  const begun = new Set(Object.keys(ticked).map((key) => key.split('/')[0]));
  return steps.filter(
    ({ key, phase, machineId }) =>
      (phase === 'undo' || phase === 'put-back') &&
      begun.has(machineId) &&
      ticked[key] === undefined,
  );
}

/** What a visit's task has come to: as the person said, else from the steps ticked. */
export function outcomeOf(
  task: VisitTask,
  plan: VisitPlan,
  progress: VisitProgress,
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
