import { undoing, type Entry } from '@needlecase/core';
import type { Store } from '../store/store.js';

/** Who is named as the author where nobody else is. */
export const AUTHOR = 'household';

/** Marks entries as undone; each can be brought back. */
export function undo(store: Store, entries: readonly Entry[], zone: string): Entry[] {
  return entries.map((entry) =>
    store.entries.add(undoing(entry), { zone, author: AUTHOR, revises: entry.id }),
  );
}
