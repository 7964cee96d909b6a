import { asc, eq, getTableColumns, gt, sql } from 'drizzle-orm';
import type { SQLiteTable } from 'drizzle-orm/sqlite-core';
import type { BackupKind, BackupLine, FiledKind } from '@needlecase/core/formats/backup';
import type { Db } from '../db/open.js';
import * as tables from '../db/tables.js';
import { toSheet } from '../store/code-sheets.js';
import { defined } from '../store/defined.js';
import { rowOf, toEntry } from '../store/entry-rows.js';
import { toMachine } from '../store/machines.js';
import { plannedRow, toPlanned } from '../store/planned.js';
import { toVisit, visitRow } from '../store/visits.js';

/** How the lines of a kind are read out of a data file, and put into one. */
interface Part<K extends BackupKind> {
  /** The tables that are told by it. */
  tables: readonly SQLiteTable[];
  /** Every line, a page in memory at a time, in the order of coming in. */
  lines(db: Db): Iterable<BackupLine<K>>;
  /** @param number of the line, from 0 */
  put(db: Db, line: BackupLine<K>, number: number): void;
}

/** Tables that are in no backup, and why. */
export const STAYS_OUT: Readonly<Record<string, string>> = {
  devices: 'holds what lets a device in: on another computer each is paired anew',
  pairing_codes: 'holds what lets a device in',
  tokens: 'holds what lets a script in: on another computer a new one is made',
  meters: 'holds what lets this computer in at a broker: on another one each is set up anew',
  meter_samples: 'is read into loads and days within minutes; those are in',
  links: 'holds what lets a guest of the house in',
  mail_recipients: 'is about this computer: which letters it sends',
  feeds: 'holds what lets a calendar program read here',
  passkeys: 'holds what lets a person in; it belongs to the name of this server',
  set_aside: 'waits here for a yes of whoever keeps the house',
  access_events: 'is about this computer: who came in here, and who was turned away',
  facts: 'says when the demo household was made, and by what name this computer is known',
  __drizzle_migrations: 'is about the file: the program that restores it makes its own',
  sqlite_sequence: 'is about the file: numbers are given anew in the same order',
};

const PAGE = 500;

/** The rows of a table in the order of coming in, read a page at a time. */
function* rowsOf<T extends SQLiteTable>(db: Db, table: T): Generator<T['$inferSelect']> {
  const place = sql<number>`rowid`;
  for (let last = -1; ;) {
    const page = db
      .select({ place, row: table })
      .from(table as SQLiteTable)
      .where(gt(place, last))
      .orderBy(asc(place))
      .limit(PAGE)
      .all() as { place: number; row: T['$inferSelect'] }[];
    for (const { row } of page) yield row;
    if (page.length < PAGE) return;
    last = page.at(-1)!.place;
  }
}

function* told<T, L>(rows: Iterable<T>, tell: (row: T) => L): Generator<L> {
  for (const row of rows) yield tell(row);
}

const iso = (at: number): string => new Date(at).toISOString();

/** A kind whose row is its line. */
const plain = <K extends 'household' | 'supplies' | 'vent-runs' | 'absences' | 'busy-calendars'>(
  table: SQLiteTable,
): Part<K> => ({
  tables: [table],
  lines: (db) => told(rowsOf(db, table), (row) => defined(row) as BackupLine<K>),
  put: (db, line) => void db.insert(table).values(line).run(),
});

export const PARTS: { readonly [K in BackupKind]: Part<K> } = {
  household: plain(tables.households),
  persons: {
    tables: [tables.persons],
    *lines(db) {
      const rows = db.select().from(tables.persons).orderBy(asc(tables.persons.position)).all();
      for (const { position: _position, passphrase: _secret, ...line } of rows) yield line;
    },
    put: (db, line) =>
      void db
        .insert(tables.persons)
        .values({ ...line, position: sql`(SELECT coalesce(max(position) + 1, 0) FROM persons)` })
        .run(),
  },
  machines: {
    tables: [tables.machines],
    *lines(db) {
      const rows = db.select().from(tables.machines).orderBy(asc(tables.machines.position)).all();
      yield* rows.map(toMachine);
    },
    put: (db, line, position) =>
      void db
        .insert(tables.machines)
        .values({ ...line, position })
        .run(),
  },
  supplies: plain(tables.supplies),
  runs: {
    tables: [tables.visits],
    lines: (db) => told(rowsOf(db, tables.visits), toVisit),
    put: (db, line) => void db.insert(tables.visits).values(visitRow(line)).run(),
  },
  entries: {
    tables: [tables.entries],
    lines: (db) => told(rowsOf(db, tables.entries), (row) => toEntry(row)),
    put: (db, line) => void db.insert(tables.entries).values(rowOf(line)).run(),
  },
  cases: {
    tables: [tables.cases, tables.caseEvents],
    lines: (db) =>
      told(rowsOf(db, tables.cases), ({ id, machineId }) => {
        const events = db
          .select()
          .from(tables.caseEvents)
          .where(eq(tables.caseEvents.caseId, id))
          .orderBy(asc(tables.caseEvents.number))
          .all();
        return {
          id,
          machineId,
          events: events.map(({ event }) => event),
          recordedAt: events.map(({ recordedAt }) => iso(recordedAt)),
        };
      }),
    put(db, { id, machineId, events, recordedAt }) {
      db.insert(tables.cases).values({ id, machineId }).run();
      events.forEach((event, i) =>
        db
          .insert(tables.caseEvents)
          .values({
            id: event.id,
            caseId: id,
            event,
            recordedAt: Date.parse(recordedAt[i] ?? event.at),
          })
          .run(),
      );
    },
  },
  'code-sheets': {
    tables: [tables.codeSheets],
    lines: (db) => told(rowsOf(db, tables.codeSheets), toSheet),
    put: (db, { id, version, ...sheet }) =>
      void db.insert(tables.codeSheets).values({ id, version, sheet }).run(),
  },
  'vent-runs': plain(tables.ventRuns),
  absences: plain(tables.absences),
  'busy-calendars': plain(tables.busyCalendars),
  'planned-visits': {
    tables: [tables.plannedVisits],
    lines: (db) => told(rowsOf(db, tables.plannedVisits), toPlanned),
    put: (db, line) => void db.insert(tables.plannedVisits).values(plannedRow(line)).run(),
  },
  'meter-days': {
    tables: [tables.meterDays],
    lines: (db) =>
      told(rowsOf(db, tables.meterDays), ({ minutes, ...row }) => ({
        ...row,
        minutes: minutes.toString('base64'),
      })),
    put: (db, { minutes, ...line }) =>
      void db
        .insert(tables.meterDays)
        .values({ ...line, minutes: Buffer.from(minutes, 'base64') })
        .run(),
  },
  photos: {
    tables: [tables.photos],
    *lines(db) {
      const { picture, ...rest } = tables.photos;
      const rows = db
        .select({
          id: rest.id,
          width: rest.width,
          height: rest.height,
          bytes: sql<number>`length(${picture})`,
          storedAt: rest.storedAt,
        })
        .from(tables.photos)
        .orderBy(sql`rowid`)
        .all();
      yield* told(rows, ({ storedAt, ...row }) => ({ ...row, storedAt: iso(storedAt) }));
    },
    /** The picture comes after, from a file of its own. */
    put: (db, { id, width, height, storedAt }) =>
      void db
        .insert(tables.photos)
        .values({
          id,
          width,
          height,
          picture: Buffer.alloc(0),
          storedAt: Date.parse(storedAt),
        })
        .run(),
  },
  documents: {
    tables: [tables.documents],
    *lines(db) {
      const { file: _file, ...rest } = getTableColumns(tables.documents);
      const rows = db
        .select(rest)
        .from(tables.documents)
        .orderBy(sql`rowid`)
        .all();
      yield* told(rows, ({ storedAt, ...row }) => ({ ...row, storedAt: iso(storedAt) }));
    },
    /** The file comes after. */
    put: (db, { storedAt, ...line }) =>
      void db
        .insert(tables.documents)
        .values({ ...line, file: Buffer.alloc(0), storedAt: Date.parse(storedAt) })
        .run(),
  },
  answers: {
    tables: [tables.answers],
    lines: (db) => told(rowsOf(db, tables.answers), ({ at, ...row }) => ({ ...row, at: iso(at) })),
    put: (db, { at, ...line }) =>
      void db
        .insert(tables.answers)
        .values({ ...line, at: Date.parse(at) })
        .run(),
  },
};

/** The lines of a kind. */
export const linesOf = (db: Db, kind: BackupKind): Iterable<object> => PARTS[kind].lines(db);

/** Puts a line of a kind in; it fits the schema. */
export const putLine = (db: Db, kind: BackupKind, line: unknown, number: number): void =>
  (PARTS[kind] as Part<BackupKind>).put(db, line as BackupLine<BackupKind>, number);

const FILES = {
  photos: { table: tables.photos, id: tables.photos.id, file: tables.photos.picture },
  documents: { table: tables.documents, id: tables.documents.id, file: tables.documents.file },
} as const;

/** The file of a thing; empty where it is not there. */
export function fileOf(db: Db, kind: FiledKind, of: string): Buffer {
  const { table, id, file } = FILES[kind];
  return db.select({ file }).from(table).where(eq(id, of)).get()?.file ?? Buffer.alloc(0);
}

/** Puts the file of a thing in that is there. @returns whether it is */
export function putFile(db: Db, kind: FiledKind, of: string, file: Buffer): boolean {
  const put =
    kind === 'photos'
      ? db.update(tables.photos).set({ picture: file }).where(eq(tables.photos.id, of))
      : db.update(tables.documents).set({ file }).where(eq(tables.documents.id, of));
  return put.run().changes === 1;
}

export const countOf = (db: Db, kind: BackupKind): number =>
  db
    .select({ lines: sql<number>`count(*)` })
    .from(PARTS[kind].tables[0]!)
    .get()!.lines;
