import type { TaskRecord, Used, VisitProgress, VisitTask } from '../../model/schemas.js';
import { taskOf } from '../catalogue/lookup.js';
import { usesOf, usuallyUsed } from '../catalogue/uses.js';
import type { VisitMachine, VisitPlan } from './plan.js';

/** The supply that a product told at a step comes out of. */
const SUPPLY_OF: Readonly<Record<string, string>> = {
  vinegar: 'vinegar',
  'citric-acid': 'citric-acid',
  alcohol: 'alcohol',
  'mould-bleach': 'mould-remover',
  'mould-peroxide': 'mould-remover',
  'mould-alcohol': 'mould-remover',
  'mould-unknown': 'mould-remover',
  'cleaner-acid': 'machine-cleaner',
  'cleaner-oxygen': 'machine-cleaner',
  'cleaner-mild': 'machine-cleaner',
  'cleaner-unknown': 'machine-cleaner',
};

/**
 * What a task of a visit used up: as somebody said at its end, else what it always needs and what was told at its
 * steps, less what was told to be nothing or something else.
 * @returns amounts in each supply’s unit
 */
export function usedIn(
  task: VisitTask,
  machine: VisitMachine,
  { steps }: Pick<VisitPlan, 'steps'>,
  { brought = {} }: Pick<VisitProgress, 'brought'>,
  { used }: Pick<TaskRecord, 'used'>,
): Used[] {
  if (used) return used;
  const uses = usesOf(taskOf(machine, task.task), machine);
  const usual = usuallyUsed(uses);
  const asked = steps.filter(
    (step) =>
      step.machineId === task.machineId &&
      step.task === task.task &&
      brought[step.key] !== undefined,
  );
  const told = new Set(asked.map(({ key }) => SUPPLY_OF[brought[key]!.product]));
  const offered = new Set(
    asked.flatMap(({ step }) => step.brings?.products.flatMap((id) => SUPPLY_OF[id] ?? []) ?? []),
  );
  return uses
    .filter(({ supply }) =>
      offered.has(supply)
        ? told.has(supply)
        : told.has(supply) || usual.some((one) => one.supply === supply),
    )
    .map(({ supply, amount }) => ({ supply, amount }));
}
