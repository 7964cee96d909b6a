import { getTableColumns, inArray } from 'drizzle-orm';
import type { Entry, EntryKind } from '@needlecase/core';
import type { Db } from '../db/open.js';
import { entries } from '../db/tables.js';
import { toEntry, type Row } from './entry-rows.js';

/** The first instant that there is, UTC milliseconds (ECMA-262). */
const EARLIEST = -8.64e15;
/** Entries of a page that is read at a time. */
const PAGE = 500;
/** The columns of a row, by the names that the program has for them. */
const AS_ROW = Object.entries(getTableColumns(entries))
  .map(([name, column]) => `e."${column.name}" AS "${name}"`)
  .join(', ');

/** Which entries are read in order. */
export interface InOrder {
  machine?: string;
  kinds?: readonly EntryKind[];
  /** UTC milliseconds, the end left out. */
  from?: number;
  to?: number;
  /** Only loads that a meter told. */
  metered?: boolean;
  /** Also those that were corrected or undone. */
  all?: boolean;
}

/** Entries in the order of time, a page in memory at a time. */
export function* entriesInOrder(db: Db, query: InOrder): Generator<Entry> {
  const { machine, kinds, from = EARLIEST, to, all = false, metered } = query;
  // As plain SQL: a third of the time that the mapping of columns takes.
  const asked: [string, ...unknown[]][] = [['at >= ?', from]];
  if (to !== undefined) asked.push(['at < ?', to]);
  if (machine !== undefined) asked.push(['machine_id = ?', machine]);
  if (kinds) asked.push([`kind IN (${kinds.map(() => '?').join(', ')})`, ...kinds]);
  if (metered) asked.push(["json_extract(more, '$.cycle') IS NOT NULL"]);
  if (!all) {
    asked.push(["kind <> 'undone'"]);
    asked.push(['NOT EXISTS (SELECT 1 FROM entries r WHERE r.revises = e.id)']);
  }
  const page = db.$client.prepare(
    `SELECT ${AS_ROW} FROM entries e
     WHERE ${[...asked.map(([clause]) => clause), 'at >= ? AND (at > ? OR id > ?)'].join(' AND ')}
     ORDER BY at, id LIMIT ${PAGE}`,
  );
  const told = asked.flatMap(([, ...values]) => values);
  let last = { at: EARLIEST, id: '' };
  for (;;) {
    const rows = page.all(...told, last.at, last.at, last.id) as (Omit<Row, 'more'> & {
      more: string;
    })[];
    const revised = all ? revisedAmong(db, rows) : undefined;
    for (const row of rows) {
      (row as unknown as Row).more = JSON.parse(row.more) as Row['more'];
      yield toEntry(row as unknown as Row, revised?.get(row.id));
    }
    if (rows.length < PAGE) return;
    const { at, id } = rows.at(-1)!;
    last = { at, id };
  }
}

/** What took the place of some entries, by their ids. */
function revisedAmong(db: Db, rows: readonly Pick<Row, 'id'>[]): Map<string, string> {
  const found = db
    .select({ id: entries.id, revises: entries.revises })
    .from(entries)
    .where(
      inArray(
        entries.revises,
        rows.map(({ id }) => id),
      ),
    )
    .all();
  return new Map(found.map(({ id, revises }) => [revises!, id]));
}
