import { planVisit } from '../care/visit/plan.js';
import type { VisitStep } from '../care/visit/visit-step.js';
import type { Features } from '../model/schemas.js';
import type { MachineKind } from '../model/vocabulary.js';
import { brokenInVisit } from './check-visit.js';

/**
 * Changed visits (`mutants.json`), drawn with a seed and judged by hand before the laws were asked: wrong is
 * what hurts, floods, cannot be done as it is told, hides what is to be looked at, falsifies the record, or
 * leaves the machine otherwise than it was.
 */
export interface MutantSet {
  seed: string;
  /** What the laws said the first time, before anything was mended for it. */
  firstRun: { caught: number; wrong: number; falseAlarms: number; harmless: number };
  /** Taken out since: the visit no longer has the step, or is another. */
  gone: { wrong: number; harmless: number };
  mutants: readonly Mutant[];
}

/** A visit made wrong on purpose, or at least different, and what an expert said of it beforehand. */
export interface Mutant {
  kind: MachineKind;
  features: Features;
  tasks: readonly string[];
  /** Left out; two exchanged; one done once more, after another. Steps as `task/step`. */
  change:
    { drop: string } | { swap: readonly [string, string] } | { double: string; after: string };
  judged: 'wrong' | 'harmless';
  reason: string;
}

/** A step without its machine: `task/step`. */
export const nameOf = ({ key }: VisitStep): string => key.split('/').slice(1).join('/');

/**
 * The steps of a visit with a change made.
 * @throws RangeError where the visit has no such step
 */
export function mutated(
  steps: readonly VisitStep[],
  change: Mutant['change'],
): readonly VisitStep[] {
  const at = (name: string): number => {
    const found = steps.findIndex((one) => nameOf(one) === name);
    if (found < 0) throw new RangeError(`This visit has no step "${name}".`);
    return found;
  };
  if ('drop' in change) {
    const gone = at(change.drop);
    return steps.filter((_, i) => i !== gone);
  }
  if ('swap' in change) {
    const [a, b] = change.swap.map(at) as [number, number];
    return steps.map((one, i) => (i === a ? steps[b]! : i === b ? steps[a]! : one));
  }
  const after = at(change.after);
  return [...steps.slice(0, after + 1), steps[at(change.double)]!, ...steps.slice(after + 1)];
}

/** Whether the laws cry out at a changed visit. */
export function isCaught({ kind, features, tasks, change }: Mutant): boolean {
  const machine = { id: 'm', kind, features };
  const { steps } = planVisit(
    tasks.map((task) => ({ machineId: 'm', task })),
    [machine],
  );
  return brokenInVisit({ steps: mutated(steps, change) }, [machine]).length > 0;
}

/** What the laws say of changed visits. */
export function rate(mutants: readonly Mutant[]) {
  const judged = (how: Mutant['judged']) => mutants.filter(({ judged }) => judged === how);
  const [wrong, harmless] = [judged('wrong'), judged('harmless')];
  return {
    wrong: wrong.length,
    harmless: harmless.length,
    missed: wrong.filter((one) => !isCaught(one)),
    falseAlarms: harmless.filter(isCaught),
  };
}
