import type { EntryKind } from '@needlecase/core';
import { yearView, type YearView } from '@needlecase/core/views/year';
import type { Store } from '../store/store.js';
import { householdOf } from './household.js';

/** What a year of care is told from, and from how long ago at most. */
const OF_A_YEAR: readonly EntryKind[] = [
  ...(['done', 'opened', 'bought', 'load'] as const),
  ...(['replaced', 'called'] as const),
];
const YEAR_MS = 430 * 86_400_000;

/** A year of care as it was. @param now UTC instant, milliseconds */
export function yearOf(store: Store, now: number): YearView {
  const entries = store.entries.inOrder({ kinds: OF_A_YEAR, from: now - YEAR_MS });
  const kept = { machines: store.machines.list(), supplies: store.supplies.list() };
  return yearView({ household: householdOf(store), ...kept, entries, now });
}
