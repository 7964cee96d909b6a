import type { EntryDraft } from '@needlecase/core';
import type { Caller } from '../access/caller.js';
import { invalid, ProblemError } from '../http/problem.js';
import type { Store } from '../store/store.js';

const DAY_MS = 86_400_000;
/** How long ago a guest's load may have been, and how many they may count at once and in a day. */
export const GUEST = { days: 3, atOnce: 10, aDay: 60 };

/**
 * Keeps what a guest enters within what a guest does: loads of these days, as many as a house has.
 * @throws 422 beside the field; 429 where it was enough for today
 */
export function mustBeAGuests(store: Store, caller: Caller, draft: EntryDraft, now: number): void {
  if (caller.by !== 'device' || caller.role !== 'guest') return;
  const earliest = now - GUEST.days * DAY_MS;
  if (Date.parse(draft.at) < earliest) {
    throw invalid([{ field: 'at', message: `Guests count loads of the last ${GUEST.days} days.` }]);
  }
  if ((draft.count ?? 1) > GUEST.atOnce) {
    throw invalid([
      { field: 'count', message: `Guests count up to ${GUEST.atOnce} loads at once.` },
    ]);
  }
  if (store.entries.countBy(caller.person.id, now - DAY_MS, earliest) >= GUEST.aDay) {
    throw new ProblemError(429, `Guests count up to ${GUEST.aDay} loads a day.`, {
      detail: 'Nothing was stored. An owner or a helper can count more.',
    });
  }
}
