import { startOf, plusDays, type RecordQuery } from '@needlecase/core';
import { recordSchema } from '@needlecase/core/formats/record';
import {
  KIND_OF_TABLE,
  TABLE_NAMES,
  type TableGround,
  type TableName,
} from '@needlecase/core/care/tables/tables';
import { localInstant } from '@needlecase/core/units/calendar';
import { doneCalendar } from '../calendar/done.js';
import { readDatabase, type Db } from '../db/open.js';
import { invalid } from '../http/problem.js';
import { fileRoute, type Route } from '../http/route.js';
import { csvOf } from '../record/write-csv.js';
import { recordOf } from '../record/write-record.js';
import type { InOrder } from '../store/entries-in-order.js';
import type { Store } from '../store/store.js';
import { householdOf } from '../work/household.js';

/** After it no calendar has another: to it is to the end. */
const LAST_DAY = '9999-12-31';

const SUMMARIES: Record<TableName, string> = {
  entries: 'Everything that happened as a table: CSV (RFC 4180), a line an entry',
  readings:
    'What was measured as a table: CSV, in the units of the household, those of the record beside them',
  loads: 'What was washed and dried as a table: CSV, with what meters told',
};

/**
 * The record, to take along in open formats.
 * @param place of the data file; none where it is only in memory
 */
export function recordRoutes(store: Store, place: { db: Db; file?: string | undefined }): Route[] {
  const ground = (): TableGround => {
    const { units } = householdOf(store);
    const machines = new Map(store.machines.list().map((machine) => [machine.id, machine]));
    const persons = new Map(store.persons.list().map(({ id, name }) => [id, name]));
    return {
      ...{ units, localOf: localInstant },
      machineOf: (id) => (id === undefined ? undefined : machines.get(id)),
      nameOf: (author) => persons.get(author) ?? author,
    };
  };
  return [
    ...TABLE_NAMES.map((table) =>
      fileRoute({
        path: `/api/v1/${table}.csv`,
        summary: SUMMARIES[table],
        query: 'RecordQuery',
        gives: 'text/csv',
        handle: ({ query }) => {
          const asked = inOrder(store, query);
          const kind = KIND_OF_TABLE[table];
          const entries = store.entries.inOrder(kind ? { ...asked, kinds: [kind] } : asked);
          return {
            body: { pieces: csvOf(table, entries, ground()) },
            fileName: `needlecase-${table}.csv`,
          };
        },
      }),
    ),
    fileRoute({
      path: '/api/v1/record.json',
      summary: 'The whole record as JSON, to be read without the program and taken in again',
      query: 'RecordQuery',
      gives: 'application/json',
      handle: ({ query: { pictures = true } }) => {
        householdOf(store);
        // As it stands at one moment, whatever is written while it is on its way.
        const own = place.file === undefined ? undefined : readDatabase(place.file);
        own?.$client.exec('BEGIN');
        return {
          body: {
            pieces: recordOf(own ?? place.db, Date.now(), pictures),
            done: () => own?.$client.close(),
          },
          fileName: 'needlecase-record.json',
        };
      },
    }),
    fileRoute({
      path: '/api/v1/record.schema.json',
      summary: 'What is in the record as JSON: its schema (JSON Schema 2020-12)',
      gives: 'application/schema+json',
      handle: () => ({ body: Buffer.from(`${JSON.stringify(recordSchema(), undefined, 2)}\n`) }),
    }),
    fileRoute({
      path: '/api/v1/done.ics',
      summary: 'What was done, as a calendar of the past',
      query: 'RecordQuery',
      gives: 'text/calendar',
      handle: ({ query }) => {
        const entries = store.entries.inOrder(inOrder(store, query));
        const pieces = doneCalendar(entries, { ...ground(), household: householdOf(store).name });
        return { body: { pieces }, fileName: 'needlecase-done.ics' };
      },
    }),
  ];
}

/** What is asked for, by instants. @throws 422 where the days are the wrong way round */
function inOrder(store: Store, { machine, kind, from, to, all }: RecordQuery): InOrder {
  const { zone } = householdOf(store);
  if (from !== undefined && to !== undefined && from > to) {
    throw invalid([{ field: 'to', message: 'This is before the first day.' }]);
  }
  return {
    ...(machine === undefined ? {} : { machine }),
    ...(kind === undefined ? {} : { kinds: [kind] }),
    ...(from === undefined ? {} : { from: startOf(from, zone) }),
    ...(to === undefined || to >= LAST_DAY ? {} : { to: startOf(plusDays(to, 1), zone) }),
    ...(all ? { all } : {}),
  };
}
