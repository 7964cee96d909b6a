import { undoing, type Entry } from '@needlecase/core';
import type { Store } from '../store/store.js';

/** Marks entries as undone, by an author; each can be brought back. */
export function undo(
  store: Store,
  entries: readonly Entry[],
  zone: string,
  author: string,
): Entry[] {
  return entries.map((entry) =>
    store.entries.add(undoing(entry), { zone, author, revises: entry.id }),
  );
}
