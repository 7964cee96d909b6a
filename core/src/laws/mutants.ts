import type { VisitStep } from '../care/visit/visit-step.js';
import type { Features } from '../model/schemas.js';
import type { MachineKind } from '../model/vocabulary.js';

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

const nameOf = ({ key }: VisitStep): string => key.split('/').slice(1).join('/');

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
