import { eq, getTableName } from 'drizzle-orm';
import type { SQLiteTable } from 'drizzle-orm/sqlite-core';
import type { Entry, FieldProblem } from '@needlecase/core';
import type { BackupDifference, BackupKind, Side } from '@needlecase/core/formats/backup';
import type { Db } from '../db/open.js';
import { caseEvents, cases, entries, machines } from '../db/tables.js';
import { rowOf } from '../store/entry-rows.js';
import {
  compareEntries,
  compareRecords,
  RECORD_KINDS,
  type NewEntries,
  type Pair,
} from './differences.js';
import { linesOf, PARTS, putLine } from './parts.js';

/** What taking in a backup of the same household would mean. */
export interface Merge {
  records: { kind: BackupKind; added: object[]; pairs: Pair[] }[];
  entries: NewEntries;
  /** New here, by kind. */
  added: Record<string, number>;
  differences: BackupDifference[];
}

/** @param theirs the staged file; it is attached to ours as `theirs` */
export function planMerge(ours: Db, theirs: Db): Merge {
  const records = RECORD_KINDS.map((kind) => ({ kind, ...compareRecords(kind, ours, theirs) }));
  const log = compareEntries(ours, theirs);
  const count = (rest: string) =>
    Number(ours.$client.prepare(`SELECT count(*) FROM theirs.${rest}`).pluck().get());
  const added: Record<string, number> = {
    ...Object.fromEntries(records.map((one) => [one.kind, one.added.length])),
    entries: log.taken.length,
    cases: count('cases WHERE id NOT IN (SELECT id FROM main.cases)'),
    photos: count('photos WHERE id NOT IN (SELECT id FROM main.photos)'),
    documents: count('documents WHERE id NOT IN (SELECT id FROM main.documents)'),
  };
  return {
    records,
    entries: log,
    added: Object.fromEntries(Object.entries(added).filter(([, n]) => n > 0)),
    differences: [
      ...records.flatMap(({ pairs }) => pairs.map(({ difference }) => difference)),
      ...log.forks.map(({ difference }) => difference),
    ],
  };
}

/** What was not said of things that differ. */
export function missingChoices(
  { differences }: Merge,
  choices: Readonly<Record<string, Side>>,
): FieldProblem[] {
  return differences
    .filter(({ id }) => !(id in choices))
    .map(({ id, what }) => ({
      field: `choices.${id}`,
      message: `${what} differs. Say which holds.`,
    }));
}

/** Takes in what is missing here, and of what differs what was chosen. To be called inside a transaction. */
export function merge(
  ours: Db,
  theirs: Db,
  { records, entries: log }: Merge,
  choices: Readonly<Record<string, Side>>,
): void {
  const client = ours.$client;
  let position = [...linesOf(ours, 'machines')].length;
  for (const { kind, added, pairs } of records) {
    for (const line of added) putLine(ours, kind, line, kind === 'machines' ? position++ : 0);
    for (const pair of pairs) {
      if (choices[pair.ours.id] === 'theirs') replaceRecord(ours, pair);
    }
  }
  takeEntries(ours, theirs, log, choices, goingOn(records, choices));
  client.exec(`INSERT INTO main.cases (id, machine_id)
    SELECT id, machine_id FROM theirs.cases WHERE id NOT IN (SELECT id FROM main.cases) ORDER BY rowid`);
  const [events, known] = [getTableName(caseEvents), getTableName(cases)];
  client.exec(`INSERT INTO main.${events} (id, case_id, event, recorded_at)
    SELECT id, case_id, event, recorded_at FROM theirs.${events}
    WHERE id NOT IN (SELECT id FROM main.${events}) AND case_id IN (SELECT id FROM main.${known})
    ORDER BY number`);
  for (const kind of ['meter-days', 'photos', 'documents', 'answers'] as const) {
    const name = getTableName(PARTS[kind].tables[0]!);
    client.exec(`INSERT OR IGNORE INTO main.${name} SELECT * FROM theirs.${name} ORDER BY rowid`);
  }
}

/** Ours with what theirs says, as a further change of it: whoever has the old one is told. */
function replaceRecord(ours: Db, { kind, ours: known, theirs }: Pair): void {
  const table = PARTS[kind].tables[0] as SQLiteTable & { id: typeof machines.id };
  const position =
    kind === 'machines'
      ? ours.select().from(machines).where(eq(machines.id, known.id)).get()!.position
      : 0;
  const version = Math.max(known.version, theirs.version) + 1;
  // What stands on it stays: foreign keys are looked at when all is done.
  ours.delete(table).where(eq(table.id, known.id)).run();
  putLine(ours, kind, { ...theirs, id: known.id, version }, position);
}

/** Visits that go on here, whatever became of them there: their work is recorded when they are finished. */
const goingOn = (records: Merge['records'], choices: Readonly<Record<string, Side>>): Set<string> =>
  new Set(
    records
      .filter(({ kind }) => kind === 'runs')
      .flatMap(({ pairs }) => pairs)
      .filter(({ ours }) => choices[ours.id] === 'ours')
      .map(({ ours }) => ours.id),
  );

function takeEntries(
  ours: Db,
  theirs: Db,
  { taken, forks }: NewEntries,
  choices: Readonly<Record<string, Side>>,
  here: ReadonlySet<string>,
): void {
  const wanted = new Set(taken);
  const left = new Set<string>();
  for (const line of linesOf(theirs, 'entries') as Iterable<Entry>) {
    if (!wanted.has(line.id)) continue;
    const stands = line.revises !== undefined && left.has(line.revises);
    if (stands || (line.runId !== undefined && here.has(line.runId))) left.add(line.id);
    else putLine(ours, 'entries', line, 0);
  }
  for (const { root, ours: end, theirs: chain } of forks) {
    if (choices[root] !== 'theirs') continue;
    chain.forEach((entry, i) =>
      ours
        .insert(entries)
        .values(rowOf(i === 0 ? { ...entry, revises: end.id } : entry))
        .run(),
    );
  }
}
