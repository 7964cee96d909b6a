import { notFound, stale } from '../http/problem.js';
import type { Ask } from '../http/route.js';

/**
 * The record that a request changes, as it is stored.
 * @throws 404 where there is none, 409 with both versions where it was changed since it was read
 */
export function currentOf<T extends { version: number }>(
  what: string,
  find: (id: string) => T | undefined,
  { params, version, body }: Ask,
): T {
  const record = find(params.id);
  if (!record) throw notFound(what);
  if (record.version !== version) throw stale(record, body);
  return record;
}
