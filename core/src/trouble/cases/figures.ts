import type { History, Measured } from '../../care/record/history.js';
import { procedureOf } from '../../care/catalogue/lookup.js';
import type { Build } from '../../care/catalogue/types.js';
import type { LoggedFigure, VisitProof } from './state.js';

const FIGURES_TOLD = 12;

/** The latest figures of each quantity in a machine's history, the newest first. */
export function lastFigures({
  readings,
}: Pick<History, 'readings'>): Record<string, LoggedFigure[]> {
  const figures: Record<string, LoggedFigure[]> = {};
  const seen = new Set<string>();
  const all = new Map<string, Measured[]>();
  for (const one of [...readings.values()].flat()) {
    // One reading can be evidence for several tasks.
    if (seen.has(one.entryId)) continue;
    seen.add(one.entryId);
    const list = all.get(one.quantity);
    if (list) list.push(one);
    else all.set(one.quantity, [one]);
  }
  for (const [quantity, of] of all) {
    const [latest, ...before] = of.sort((a, b) => b.at - a.at);
    // Another phone is another instrument.
    figures[quantity] = [latest!, ...before.filter(({ taken }) => taken === latest!.taken)]
      .slice(0, FIGURES_TOLD)
      .map(({ value, at }) => ({ value, at }));
  }
  return figures;
}

/** Proofs that visits gave at a machine, the newest first: what was looked at, and what it showed. */
export function proofsGiven(machine: Build, { proofs }: Pick<History, 'proofs'>): VisitProof[] {
  return [...proofs]
    .sort((a, b) => b.at - a.at)
    .slice(0, FIGURES_TOLD)
    .flatMap(({ at, task, step, result }) => {
      const proof = procedureOf(machine, task).proof.find(({ id }) => id === step);
      return proof && result !== 'planned'
        ? [
            {
              at,
              task,
              say: proof.do,
              good: result === 'good',
              ...(proof.reading ? { quantity: proof.reading } : {}),
            },
          ]
        : [];
    });
}
