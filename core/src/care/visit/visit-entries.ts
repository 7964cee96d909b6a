import { QUANTITIES } from '../../model/quantities.js';
import type { EntryDraft, Visit } from '../../model/schemas.js';
import { taskOf } from '../catalogue/lookup.js';
import { isProof, outcomeOf } from './progress.js';
import { planVisit, type VisitMachine } from './plan.js';
import { usedIn } from './used.js';

/**
 * The entries that a visit leaves: one for each task cleaned or looked at, one for each figure.
 * @param now UTC instant, milliseconds, for tasks without a time of their own
 */
export function entriesOf(
  visit: Visit,
  machines: readonly VisitMachine[],
  now: number,
): EntryDraft[] {
  const plan = planVisit(visit.tasks, machines);
  const { progress } = visit;
  const machineOf = (id: string) => machines.find((machine) => machine.id === id)!;
  const work = visit.tasks.flatMap((task): EntryDraft[] => {
    const { outcome, record, doneAt } = outcomeOf(task, plan, progress);
    if (outcome === 'skipped') return [];
    const { grade, found, trays, note, photos } = record;
    // Said at the end, or told at a step; what is usual needs no words.
    const told = plan.steps.some(
      ({ key, machineId, task: of }) =>
        machineId === task.machineId && of === task.task && progress.brought?.[key] !== undefined,
    );
    const used =
      record.used ??
      (told ? usedIn(task, machineOf(task.machineId), plan, progress, record) : undefined);
    return [
      {
        machineId: task.machineId,
        kind: outcome === 'cleaned' ? 'done' : 'opened',
        task: task.task,
        station: taskOf(machineOf(task.machineId), task.task).station,
        at: doneAt ?? new Date(now).toISOString(),
        source: 'run',
        ...(grade === undefined ? {} : { grade }),
        ...(found?.length ? { found } : {}),
        ...(trays === undefined ? {} : { trays }),
        ...(note?.trim() ? { note } : {}),
        ...(photos?.length ? { photos } : {}),
        ...(used ? { used } : {}),
      },
    ];
  });
  const readings = plan.steps.flatMap(({ key, machineId, task, step }): EntryDraft[] => {
    const reading = progress.readings[key];
    if (!reading || !step.reading || !task) return [];
    return [
      {
        machineId,
        kind: 'reading',
        station: taskOf(machineOf(machineId), task).station,
        at: progress.ticked[key] ?? new Date(now).toISOString(),
        source: 'run',
        quantity: step.reading,
        value: reading.value,
        unit: QUANTITIES[step.reading].unit,
      },
    ];
  });
  const cleaned = new Set(
    visit.tasks
      .filter((task) => outcomeOf(task, plan, progress).outcome === 'cleaned')
      .map(({ machineId, task }) => `${machineId}/${task}`),
  );
  const proofs = plan.steps.flatMap((visitStep): EntryDraft[] => {
    const { key, machineId, task, step } = visitStep;
    if (!isProof(visitStep) || !task || !cleaned.has(`${machineId}/${task}`)) return [];
    const result = progress.proofs?.[key] ?? (step.later ? 'planned' : undefined);
    if (!result) return [];
    return [
      {
        machineId,
        kind: 'proof',
        task,
        station: taskOf(machineOf(machineId), task).station,
        step: step.id,
        result,
        at: progress.ticked[key] ?? new Date(now).toISOString(),
        source: 'run',
      },
    ];
  });
  return [...work, ...readings, ...proofs];
}
