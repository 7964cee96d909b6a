import { sql } from 'drizzle-orm';
import {
  index,
  integer,
  real,
  sqliteTable,
  text,
  uniqueIndex,
  type AnySQLiteColumn,
} from 'drizzle-orm/sqlite-core';
import type {
  Entry,
  Features,
  HouseholdDraft,
  MachineDraft,
  RunProgress,
  RunTask,
  SupplyDraft,
} from '@needlecase/core';

/* Instants are UTC milliseconds. Entries are append-only: triggers in the migration see to it. */

export const households = sqliteTable('households', {
  id: text().primaryKey(),
  version: integer().notNull(),
  name: text().notNull(),
  zone: text().notNull(),
  units: text().$type<HouseholdDraft['units']>().notNull(),
  hardness: real(),
  school: text().$type<HouseholdDraft['school']>().notNull(),
  risk: real().notNull(),
  visitMinutes: integer('visit_minutes'),
  multipliers: text({ mode: 'json' }).$type<NonNullable<HouseholdDraft['multipliers']>>(),
  currency: text(),
});

export const machines = sqliteTable('machines', {
  id: text().primaryKey(),
  version: integer().notNull(),
  position: integer().notNull(),
  name: text().notNull(),
  kind: text().$type<MachineDraft['kind']>().notNull(),
  maker: text(),
  place: text().notNull(),
  features: text({ mode: 'json' }).$type<Features>().notNull(),
  habits: text({ mode: 'json' }).$type<MachineDraft['habits']>().notNull(),
  loadsPerWeek: real('loads_per_week').notNull(),
  school: text().$type<NonNullable<MachineDraft['school']>>(),
  rules: text({ mode: 'json' }).$type<NonNullable<MachineDraft['rules']>>(),
  ownTasks: text('own_tasks', { mode: 'json' }).$type<NonNullable<MachineDraft['ownTasks']>>(),
  inUseSince: text('in_use_since'),
});

export const supplies = sqliteTable('supplies', {
  id: text().primaryKey(),
  version: integer().notNull(),
  item: text().notNull().unique(),
  name: text().notNull(),
  unit: text().$type<SupplyDraft['unit']>().notNull(),
  pack: real().notNull(),
  price: real(),
  putAway: integer('put_away', { mode: 'boolean' }),
});

export const runs = sqliteTable('runs', {
  id: text().primaryKey(),
  version: integer().notNull(),
  state: text().$type<'active' | 'paused' | 'finished' | 'abandoned'>().notNull(),
  tasks: text({ mode: 'json' }).$type<RunTask[]>().notNull(),
  progress: text({ mode: 'json' }).$type<RunProgress>().notNull(),
  startedAt: integer('started_at').notNull(),
  changedAt: integer('changed_at').notNull(),
  finishedAt: integer('finished_at'),
});

export const entries = sqliteTable(
  'entries',
  {
    id: text().primaryKey(),
    machineId: text('machine_id').references(() => machines.id),
    kind: text().$type<Entry['kind']>().notNull(),
    at: integer().notNull(),
    /** Calendar date of `at` in `zone`. */
    day: text().notNull(),
    zone: text().notNull(),
    author: text().notNull(),
    source: text().$type<Entry['source']>().notNull(),
    recordedAt: integer('recorded_at').notNull(),
    runId: text('run_id').references(() => runs.id),
    revises: text().references((): AnySQLiteColumn => entries.id),
    station: text(),
    task: text(),
    grade: integer().$type<NonNullable<Entry['grade']>>(),
    count: integer(),
    value: real(),
    /** What the value is of: a quantity read, or a supply counted or bought. */
    quantity: text(),
    supply: text(),
    programme: text().$type<NonNullable<Entry['programme']>>(),
    habit: text(),
    /** The rest: what was found and used, unit, code, note. */
    more: text({ mode: 'json' })
      .$type<Pick<Entry, 'found' | 'trays' | 'unit' | 'code' | 'note' | 'used'>>()
      .notNull(),
  },
  (table) => [
    uniqueIndex('entries_revises')
      .on(table.revises)
      .where(sql`revises is not null`),
    index('entries_machine').on(table.machineId, table.kind, table.at),
    index('entries_at').on(table.at, table.id),
    index('entries_run')
      .on(table.runId)
      .where(sql`run_id is not null`),
  ],
);

/** Answers given to requests with an Idempotency-Key, so that a retry gets the same one. */
export const answers = sqliteTable('answers', {
  key: text().primaryKey(),
  request: text().notNull(),
  answer: text({ mode: 'json' }).$type<unknown>().notNull(),
  at: integer().notNull(),
});

export const facts = sqliteTable('facts', { name: text().primaryKey(), value: text().notNull() });
