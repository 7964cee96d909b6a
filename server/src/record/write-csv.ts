import Papa from 'papaparse';
import { safeCell } from '@needlecase/core/units/cells';
import {
  columnsOf,
  rowIn,
  type Cell,
  type TableGround,
  type TableName,
} from '@needlecase/core/care/tables/tables';
import type { Entry } from '@needlecase/core';

/** Rows are gathered into pieces of so many. */
const ROWS = 250;
const BOM = '\uFEFF';

const safe = (cell: Cell): Cell => (typeof cell === 'string' ? safeCell(cell) : cell);
const lines = (rows: readonly (readonly Cell[])[]): string =>
  `${Papa.unparse(rows as Cell[][], { newline: '\r\n' })}\r\n`;

/**
 * A table of the record as CSV (RFC 4180), in pieces: UTF-8 with its mark, which spreadsheets ask for; a header; lines
 * that end as the standard has it.
 */
export function* csvOf(
  table: TableName,
  entries: Iterable<Entry>,
  ground: TableGround,
): Generator<string> {
  yield BOM + lines([columnsOf(table)]);
  let rows: Cell[][] = [];
  for (const entry of entries) {
    rows.push(rowIn(table, entry, ground).map(safe));
    if (rows.length < ROWS) continue;
    yield lines(rows);
    rows = [];
  }
  if (rows.length) yield lines(rows);
}
