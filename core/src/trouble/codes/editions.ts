import type { CodeRow, CodeSheetDraft } from '../../model/schemas.js';
import { bare, sayLamps } from './read.js';

/** A code that stands otherwise in two editions of a sheet, or in one alone. */
export interface EditionDifference {
  /** What shows it: the code, or its lamps. */
  shows: string;
  is: 'new' | 'gone' | 'other';
  ours?: CodeRow;
  theirs?: CodeRow;
  /** Of one that stands in both: what differs. */
  fields: (keyof CodeRow)[];
}

/** What makes two rows the same code, however it is written. */
const keyOf = ({ code, pattern }: CodeRow): string =>
  code !== undefined ? bare(code) : pattern ? sayLamps(pattern) : '';

const FIELDS = ['says', 'class', 'stations', 'clears', 'strength'] as const;

const sameField = (a: unknown, b: unknown): boolean =>
  JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/**
 * Two editions of a sheet, code by code: those that are new in theirs, those that only ours has, those that differ; in
 * the order of theirs, and then of ours.
 */
export function compareEditions(
  ours: Pick<CodeSheetDraft, 'rows'>,
  theirs: Pick<CodeSheetDraft, 'rows'>,
): EditionDifference[] {
  const known = new Map(ours.rows.map((row) => [keyOf(row), row]));
  const named = new Set(theirs.rows.map(keyOf));
  const showsOf = (row: CodeRow): string => row.code ?? (row.pattern ? sayLamps(row.pattern) : '');
  return [
    ...theirs.rows.flatMap((row): EditionDifference[] => {
      const own = known.get(keyOf(row));
      const shows = showsOf(row);
      if (!own) return [{ shows, is: 'new', theirs: row, fields: [] }];
      const fields = FIELDS.filter((field) => !sameField(own[field], row[field]));
      return fields.length ? [{ shows, is: 'other', ours: own, theirs: row, fields }] : [];
    }),
    ...ours.rows
      .filter((row) => !named.has(keyOf(row)))
      .map((row): EditionDifference => ({
        shows: showsOf(row),
        is: 'gone',
        ours: row,
        fields: [],
      })),
  ];
}

/**
 * Our sheet with what was taken over from another edition: what is new there comes in, what differs takes its place,
 * what is gone there goes.
 * @param taken differences of these two
 */
export function withTaken<S extends CodeSheetDraft>(
  ours: S,
  theirs: Pick<CodeSheetDraft, 'rows' | 'lamps'>,
  taken: readonly EditionDifference[],
): S {
  const gone = new Set(taken.flatMap(({ is, ours: row }) => (is === 'gone' && row ? [row] : [])));
  const other = new Map(
    taken.flatMap(({ ours: row, theirs: next }) => (row && next ? [[row, next] as const] : [])),
  );
  const rows = [
    ...ours.rows.filter((row) => !gone.has(row)).map((row) => other.get(row) ?? row),
    ...taken.flatMap(({ is, theirs: row }) => (is === 'new' && row ? [row] : [])),
  ];
  const lamps = [...new Set([...(ours.lamps ?? []), ...(theirs.lamps ?? [])])].filter(
    (lamp) =>
      rows.some(({ pattern }) => pattern?.lamps.includes(lamp)) || ours.lamps?.includes(lamp),
  );
  return { ...ours, rows, ...(lamps.length ? { lamps } : {}) };
}
