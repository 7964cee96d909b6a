import type { EntryDraft, Machine } from '../../model/schemas.js';
import { cellText } from '../../units/cells.js';
import { instantsOf, type Day } from '../../units/calendar.js';
import { orderOf, readDate, type DateOrder } from './dates.js';
import { machinesCalled, Meanings, type Doubt } from './meaning.js';

/* A table of old notes as entries: what its columns are, when each line was, and what it means. Nothing is kept here. */

export const COLUMN_ROLES = ['date', 'machine', 'what', 'note', 'by', 'none'] as const;
export type ColumnRole = (typeof COLUMN_ROLES)[number];

/** So many lines are looked at, and columns, and letters of a cell: more is divided or is no notes. */
export const MOST_LINES = 5000;
export const MOST_COLUMNS = 60;
const MOST_LETTERS = 2000;

/** What somebody said of how it is written. */
export interface NoteChoices {
  columns?: readonly ColumnRole[];
  order?: DateOrder;
  /** Whether the first line tells the columns' names. */
  header?: boolean;
}

export interface NotesGround {
  machines: readonly Machine[];
  /** Of the house. */
  zone: string;
  /** UTC milliseconds. */
  now: number;
}

/** A line as it was understood. */
export interface NoteLine {
  /** From 1, as it stands in the table. */
  line: number;
  /** As it was written, its cells by a bar. */
  written: string;
  /** Not there where it cannot be kept. */
  draft?: EntryDraft;
  /** What somebody is to look at. */
  doubts: (Doubt | 'day')[];
  /** Why it cannot be kept. */
  wrong?: string;
}

export interface UnderstoodNotes {
  columns: ColumnRole[];
  header: boolean;
  /** What the columns are called, or the first line of them. */
  names: string[];
  /** What comes first in dates; to be asked where nothing tells it. */
  order: DateOrder | 'asked' | undefined;
  lines: NoteLine[];
}

const HEADERS: readonly (readonly [ColumnRole, RegExp])[] = [
  ['date', /^(?:date|day|when|at|time|datum)\b/i],
  ['machine', /^(?:machine|appliance|device|which)\b/i],
  ['what', /^(?:what|task|work|job|done|action|event|description|entry)\b/i],
  ['note', /^(?:note|notes|comment|comments|remark|remarks|details?)\b/i],
  ['by', /^(?:by|who|person|name|author)\b/i],
];
/** A column is of dates where so much of it is; of machines likewise. */
const MOSTLY = 0.6;
/** Notes without a time are of noon. */
const NOON = 12 * 60;
/** So far ahead may a clock be that wrote it, ms. */
const AHEAD = 86_400_000;

/**
 * What a table of notes says.
 * @param rows its cells as they were read; empty lines among them are passed over
 */
export function readNotes(
  rows: readonly (readonly string[])[],
  ground: NotesGround,
  choices: NoteChoices = {},
): UnderstoodNotes {
  const table = rows
    .slice(0, MOST_LINES + 1)
    .map((row, i) => ({ line: i + 1, cells: row.slice(0, MOST_COLUMNS).map(cellOf) }))
    .filter(({ cells }) => cells.some(Boolean));
  const width = Math.max(0, ...table.map(({ cells }) => cells.length));
  const first = table[0]?.cells ?? [];
  const header = choices.header ?? isHeader(first);
  const body = (header ? table.slice(1) : table).slice(0, MOST_LINES);
  const column = (i: number): string[] => body.map(({ cells }) => cells[i] ?? '');
  const columns = choices.columns
    ? Array.from({ length: width }, (_, i) => choices.columns![i] ?? 'none')
    : guessed(width, header ? first : [], column, ground.machines);
  const dates = columns.flatMap((role, i) => (role === 'date' ? column(i) : []));
  const order = choices.order ?? orderOf(dates);
  const meanings = new Meanings(ground.machines);
  return {
    ...{ columns, header, order },
    names: Array.from({ length: width }, (_, i) => (header && first[i]) || `Column ${i + 1}`),
    lines: body.map(({ line, cells }) => lineOf(line, cells, columns, order, meanings, ground)),
  };
}

const cellOf = (cell: string): string => cellText(cell).trim().slice(0, MOST_LETTERS);

const isHeader = (cells: readonly string[]): boolean =>
  !cells.some((cell) => readDate(cell)) &&
  cells.some((cell) => HEADERS.some(([, word]) => word.test(cell)));

function guessed(
  width: number,
  names: readonly string[],
  column: (i: number) => string[],
  machines: readonly Machine[],
): ColumnRole[] {
  const roles: ColumnRole[] = Array.from({ length: width }, (): ColumnRole => 'none');
  const free = (i: number): boolean => roles[i] === 'none';
  const give = (i: number, role: ColumnRole): void => {
    if (!roles.includes(role)) roles[i] = role;
  };
  names.forEach((name, i) => {
    const found = HEADERS.find(([, word]) => word.test(name));
    if (found) give(i, found[0]);
  });
  const share = (i: number, is: (cell: string) => boolean): number => {
    const cells = column(i).filter(Boolean);
    return cells.length ? cells.filter(is).length / cells.length : 0;
  };
  const all = Array.from({ length: width }, (_, i) => i);
  const date = all.find(
    (i) => free(i) && share(i, (cell) => readDate(cell) !== undefined) >= MOSTLY,
  );
  if (date !== undefined) give(date, 'date');
  const machine = all.find(
    (i) =>
      free(i) &&
      share(i, (cell) => cell.length <= 60 && machinesCalled(cell, machines).length > 0) >=
        MOSTLY &&
      new Set(column(i).map((cell) => cell.toLowerCase())).size <= Math.max(6, 3 * machines.length),
  );
  if (machine !== undefined) give(machine, 'machine');
  // What is left tells what was done, the first of the longer ones; then a note.
  const length = (i: number): number => column(i).reduce((sum, cell) => sum + cell.length, 0);
  const rest = all.filter((i) => free(i) && length(i) > 0);
  const [what] = rest;
  if (what !== undefined && !roles.includes('what')) {
    give(
      rest.reduce((best, i) => (length(i) > 1.5 * length(best) ? i : best), what),
      'what',
    );
  }
  const note = all.filter((i) => free(i) && length(i) > 0).sort((a, b) => length(b) - length(a))[0];
  if (note !== undefined) give(note, 'note');
  return roles;
}

function lineOf(
  line: number,
  cells: readonly string[],
  columns: readonly ColumnRole[],
  order: DateOrder | 'asked' | undefined,
  meanings: Meanings,
  { zone, now }: NotesGround,
): NoteLine {
  const of = (role: ColumnRole): string =>
    columns.flatMap((one, i) => (one === role && cells[i] ? [cells[i]] : [])).join(', ');
  const written = cells.filter(Boolean).join(' | ').slice(0, MOST_LETTERS);
  const [date, what, note] = [of('date'), of('what'), of('note')];
  const read = readDate(date, order === 'month' ? 'month' : 'day');
  const base = { line, written, doubts: [] as NoteLine['doubts'] };
  if (!date) return { ...base, wrong: 'It has no date.' };
  if (!read) return { ...base, wrong: `“${date.slice(0, 40)}” is no date.` };
  const at = instantOf(read.day, read.minutes ?? NOON, zone);
  if (at > now + AHEAD) return { ...base, wrong: 'It is in the future.' };
  const { doubts, ...meaning } = meanings.of(
    what || note,
    columns.includes('machine') ? of('machine') : undefined,
  );
  const by = of('by') ? `(by ${of('by')})` : '';
  const said = [[what, note].filter(Boolean).join('. '), by]
    .filter(Boolean)
    .join(' ')
    .slice(0, MOST_LETTERS);
  if (meaning.kind === 'note' && !said) return { ...base, wrong: 'It says nothing.' };
  const draft: EntryDraft = {
    ...meaning,
    at: new Date(Math.min(at, now)).toISOString(),
    source: 'import',
    ...(said ? { note: said } : {}),
  };
  return { ...base, draft, doubts: [...doubts, ...(read.vague ? (['day'] as const) : [])] };
}

const instantOf = (day: Day, minutes: number, zone: string): number =>
  instantsOf(Date.parse(`${day}T00:00:00Z`) + 60_000 * minutes, zone)[0]!;
