import { getTableColumns } from 'drizzle-orm';
import { dayOf, type Entry, type EntryDraft } from '@needlecase/core';
import { entries } from '../db/tables.js';
import { defined } from './defined.js';

/** An entry as the data file has it. */
export type Row = typeof entries.$inferSelect;

/** Columns that an entry may leave empty, empty; what has no column of its own goes into `more`. */
const COLUMNS: ReadonlySet<string> = new Set(Object.keys(getTableColumns(entries)));
export const EMPTY = Object.fromEntries([...COLUMNS].map((name) => [name, null])) as Pick<
  Row,
  { [K in keyof Row]: null extends Row[K] ? K : never }[keyof Row]
>;

/** What a draft tells, by column, and the rest. */
export function split(
  told: Omit<EntryDraft, 'id' | 'author' | 'source' | 'at'>,
): Partial<Row> & Pick<Row, 'more'> {
  const fields = Object.entries(defined(told));
  return {
    ...(Object.fromEntries(fields.filter(([name]) => COLUMNS.has(name))) as Partial<Row>),
    more: Object.fromEntries(fields.filter(([name]) => !COLUMNS.has(name))),
  };
}

/** Columns that an entry tells as they are. */
const TOLD_AS_IT_IS = [...COLUMNS].filter(
  (name) => !['more', 'day', 'at', 'recordedAt'].includes(name),
) as (keyof Row)[];

/** An entry as it is told. @param revisedBy the one that took its place */
export function toEntry(row: Row, revisedBy?: string): Entry {
  const entry: Record<string, unknown> = {};
  for (const name of TOLD_AS_IT_IS) {
    const field = row[name];
    if (field !== null && field !== undefined) entry[name] = field;
  }
  entry['at'] = new Date(row.at).toISOString();
  entry['recordedAt'] = new Date(row.recordedAt).toISOString();
  Object.assign(entry, row.more);
  if (revisedBy) entry['revisedBy'] = revisedBy;
  return entry as unknown as Entry;
}

/** An entry as it was told, as its row again. */
export function rowOf({ at: told, recordedAt, revisedBy: _worked, ...rest }: Entry): Row {
  const at = Date.parse(told);
  return {
    ...EMPTY,
    ...split(rest),
    id: rest.id,
    kind: rest.kind,
    author: rest.author,
    source: rest.source,
    zone: rest.zone,
    at,
    day: dayOf(at, rest.zone),
    recordedAt: Date.parse(recordedAt),
  };
}
