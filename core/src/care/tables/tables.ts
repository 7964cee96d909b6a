import { sayEntryIn } from '../record/entry-words.js';
import { quantityOf } from '../../model/quantities.js';
import type { Entry, Machine } from '../../model/schemas.js';
import { GRADE_NAMES, type UnitSystem } from '../../model/vocabulary.js';
import { presentAmount } from '../../units/present-unit.js';

/*
 * The record as tables for spreadsheets: one row an entry, a reading or a load. Names of columns stay as they are; a
 * new one is added at the end.
 */

/** A figure stays one; nothing is an empty cell. */
export type Cell = string | number | undefined;

/** What the rows of a table are told with. */
export interface TableGround {
  machineOf: (id: string | undefined) => Machine | undefined;
  /** What somebody is called, by what an entry names as its author. */
  nameOf: (author: string) => string;
  units: UnitSystem;
  /** An instant by the clock of a zone, with its offset: "2026-11-27T21:19:00+01:00". UTC milliseconds. */
  localOf: (at: number, zone: string) => string;
}

interface Column {
  name: string;
  of: (entry: Entry, ground: TableGround) => Cell;
}

const at: Column = {
  name: 'at',
  of: (entry, { localOf }) => localOf(Date.parse(entry.at), entry.zone),
};
const machine: Column = {
  name: 'machine',
  of: ({ machineId }, { machineOf }) => machineOf(machineId)?.name,
};
const told: Column[] = [
  { name: 'note', of: ({ note }) => note },
  { name: 'by', of: ({ author }, { nameOf }) => nameOf(author) },
  { name: 'source', of: ({ source }) => source },
];
const ids: Column[] = [
  { name: 'id', of: ({ id }) => id },
  { name: 'machine_id', of: ({ machineId }) => machineId },
];

/** The amount of an entry that tells one, in the household's units. */
function presentOf(entry: Entry, { units }: TableGround): { value: Cell; unit: Cell } {
  const { quantity, value, unit } = entry;
  const row = quantityOf(quantity);
  if (value === undefined) return { value: undefined, unit: undefined };
  if (!row || unit === undefined) return { value, unit };
  return presentAmount({ value, unit }, row.dimension, units);
}
const amounts: Column[] = [
  { name: 'value', of: (entry, ground) => presentOf(entry, ground).value },
  { name: 'unit', of: (entry, ground) => presentOf(entry, ground).unit },
  { name: 'recorded_value', of: ({ value }) => value },
  { name: 'recorded_unit', of: ({ unit }) => unit },
  { name: 'device', of: ({ device }) => device },
  { name: 'placement', of: ({ placement }) => placement },
];

const stateOf = ({ kind, revisedBy }: Entry): string =>
  revisedBy !== undefined ? 'corrected or undone' : kind === 'undone' ? 'undoes another' : '';

const minutesBetween = (from: string, to: string | undefined): Cell =>
  to === undefined ? undefined : Math.round((Date.parse(to) - Date.parse(from)) / 6000) / 10;

export const TABLES = {
  /** Everything that happened. */
  entries: [
    at,
    machine,
    { name: 'kind', of: ({ kind }) => kind },
    {
      name: 'what',
      of: (entry, { machineOf, units }) => sayEntryIn(entry, units, machineOf(entry.machineId)),
    },
    { name: 'station', of: ({ station }) => station },
    { name: 'task', of: ({ task }) => task },
    { name: 'grade', of: ({ grade }) => grade },
    {
      name: 'grade_name',
      of: ({ grade }) => (grade === undefined ? undefined : GRADE_NAMES[grade]),
    },
    {
      name: 'found',
      of: ({ found }) => found?.map(({ what, count }) => `${count ?? 1} × ${what}`).join('; '),
    },
    { name: 'quantity', of: ({ quantity }) => quantity },
    ...amounts,
    { name: 'count', of: ({ count }) => count },
    { name: 'programme', of: ({ programme }) => programme },
    { name: 'code', of: ({ code }) => code },
    { name: 'supply', of: ({ supply }) => supply },
    { name: 'product', of: ({ product }) => product },
    ...told,
    { name: 'state', of: stateOf },
    ...ids,
    { name: 'revises', of: ({ revises }) => revises },
    { name: 'part', of: ({ part }) => part },
    { name: 'cost', of: ({ cost }) => cost?.amount },
    { name: 'currency', of: ({ cost }) => cost?.currency },
  ],
  /** What was measured. */
  readings: [
    at,
    machine,
    { name: 'quantity', of: ({ quantity }) => quantity },
    { name: 'what', of: ({ quantity }) => quantityOf(quantity)?.asked },
    ...amounts,
    { name: 'task', of: ({ task }) => task },
    ...told,
    ...ids,
  ],
  /** What was washed and dried. */
  loads: [
    at,
    {
      name: 'end',
      of: ({ cycle, zone }, { localOf }) => cycle && localOf(Date.parse(cycle.to), zone),
    },
    machine,
    { name: 'count', of: ({ count = 1 }) => count },
    { name: 'programme', of: ({ programme, cycle }) => cycle?.name ?? programme },
    { name: 'minutes', of: ({ at: from, cycle }) => minutesBetween(from, cycle?.to) },
    {
      name: 'kwh',
      of: ({ cycle }) => cycle && Number((cycle.wattHours / 1000).toFixed(4)),
    },
    { name: 'peak_w', of: ({ cycle }) => cycle?.peak },
    { name: 'heating_minutes', of: ({ cycle }) => cycle?.heating },
    { name: 'motor_minutes', of: ({ cycle }) => cycle?.motor },
    { name: 'resting_minutes', of: ({ cycle }) => cycle?.idle },
    { name: 'unread_minutes', of: ({ cycle }) => cycle?.unread },
    ...told,
    ...ids,
  ],
} as const satisfies Record<string, readonly Column[]>;
export type TableName = keyof typeof TABLES;
export const TABLE_NAMES = Object.keys(TABLES) as TableName[];

/** The kind of entries that a table is of; all of them where it is none. */
export const KIND_OF_TABLE = { entries: undefined, readings: 'reading', loads: 'load' } as const;

/** The names of a table's columns. */
export const columnsOf = (table: TableName): string[] => TABLES[table].map(({ name }) => name);

/** An entry as a row of a table. */
export const rowIn = (table: TableName, entry: Entry, ground: TableGround): Cell[] =>
  TABLES[table].map(({ of }) => of(entry, ground));
