import type { History } from '../../care/record/history.js';
import type { LoggedFigure } from './state.js';

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
