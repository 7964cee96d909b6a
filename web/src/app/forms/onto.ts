/**
 * A stored record with what a form says in the place of the fields that the form knows. Fields that it does
 * not know stay as they are stored; a form from before a field came to be does not erase it.
 *
 * @param knows the fields that the form asks; one that `told` leaves out is emptied
 * @example onto({ name: 'A', price: 2 }, ['name', 'place'], { name: 'B' }) // { name: 'B', price: 2 }
 */
export function onto<T extends object>(
  stored: T | undefined,
  knows: readonly (keyof T)[],
  told: T,
): T {
  const kept = Object.entries(stored ?? {}).filter(([name]) => !knows.includes(name as keyof T));
  return { ...(Object.fromEntries(kept) as Partial<T>), ...told };
}

/** A stored record without what the server adds. */
export function withoutVersion<T extends { id: string; version: number }>(
  record: T,
): Omit<T, 'id' | 'version'> {
  const { id: _id, version: _version, ...draft } = record;
  return draft;
}
