import type { History } from '../../care/record/history.js';
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
  for (const { entryId, quantity, value, at } of [...readings.values()].flat()) {
    // One reading can be evidence for several tasks.
    if (seen.has(entryId)) continue;
    seen.add(entryId);
    (figures[quantity] ??= []).push({ value, at });
  }
  for (const [quantity, all] of Object.entries(figures)) {
    figures[quantity] = all.sort((a, b) => b.at - a.at).slice(0, FIGURES_TOLD);
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
