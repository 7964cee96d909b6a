import { sql } from 'drizzle-orm';
import {
  blob,
  index,
  integer,
  primaryKey,
  real,
  sqliteTable,
  text,
  uniqueIndex,
  type AnySQLiteColumn,
} from 'drizzle-orm/sqlite-core';
import type {
  CaseEvent,
  CodeSheetDraft,
  Entry,
  Features,
  HouseholdDraft,
  MachineDraft,
  VisitProgress,
  VisitTask,
  SupplyDraft,
  VentRunInput,
} from '@needlecase/core';
import type { LinkDraft, PersonDraft, Token } from '@needlecase/core/model/access';
import type { DocumentDraft, DocumentType } from '@needlecase/core/model/documents';
import type { MeterDraft } from '@needlecase/core/model/meters';

/* Instants are UTC milliseconds. Entries are append-only: triggers in the migration see to it. */

export const households = sqliteTable('households', {
  id: text().primaryKey(),
  version: integer().notNull(),
  name: text().notNull(),
  zone: text().notNull(),
  units: text().$type<HouseholdDraft['units']>().notNull(),
  region: text().$type<NonNullable<HouseholdDraft['region']>>(),
  hardness: real(),
  school: text().$type<HouseholdDraft['school']>().notNull(),
  risk: real().notNull(),
  widened: real(),
  visitMinutes: integer('visit_minutes'),
  plan: text({ mode: 'json' }).$type<NonNullable<HouseholdDraft['plan']>>(),
  multipliers: text({ mode: 'json' }).$type<NonNullable<HouseholdDraft['multipliers']>>(),
  currency: text(),
  energyPrice: real('energy_price'),
  places: text({ mode: 'json' }).$type<NonNullable<HouseholdDraft['places']>>(),
  numbers: text({ mode: 'json' }).$type<NonNullable<HouseholdDraft['numbers']>>(),
  detergents: text({ mode: 'json' }).$type<NonNullable<HouseholdDraft['detergents']>>(),
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
  ways: text({ mode: 'json' }).$type<NonNullable<MachineDraft['ways']>>(),
  pages: text({ mode: 'json' }).$type<NonNullable<MachineDraft['pages']>>(),
  identity: text({ mode: 'json' }).$type<NonNullable<MachineDraft['identity']>>(),
  retired: text({ mode: 'json' }).$type<NonNullable<MachineDraft['retired']>>(),
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

/** Visits; in the file they are called runs. */
export const visits = sqliteTable('runs', {
  id: text().primaryKey(),
  version: integer().notNull(),
  state: text().$type<'active' | 'paused' | 'finished' | 'abandoned'>().notNull(),
  tasks: text({ mode: 'json' }).$type<VisitTask[]>().notNull(),
  progress: text({ mode: 'json' }).$type<VisitProgress>().notNull(),
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
    runId: text('run_id').references(() => visits.id),
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
    more: text({ mode: 'json' }).$type<Partial<Entry>>().notNull(),
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

export const cases = sqliteTable('cases', {
  id: text().primaryKey(),
  machineId: text('machine_id')
    .notNull()
    .references(() => machines.id),
});

/** What happened in a case, in the order of coming in. Only ever added to. */
export const caseEvents = sqliteTable(
  'case_events',
  {
    number: integer().primaryKey({ autoIncrement: true }),
    id: text().notNull().unique(),
    caseId: text('case_id')
      .notNull()
      .references(() => cases.id),
    event: text({ mode: 'json' }).$type<CaseEvent>().notNull(),
    recordedAt: integer('recorded_at').notNull(),
  },
  (table) => [index('case_events_case').on(table.caseId, table.number)],
);

/** Display codes, a sheet for each maker and family. */
export const codeSheets = sqliteTable('code_sheets', {
  id: text().primaryKey(),
  version: integer().notNull(),
  sheet: text({ mode: 'json' }).$type<CodeSheetDraft>().notNull(),
});

/** Vent runs that were laid out, to be compared. */
export const ventRuns = sqliteTable('vent_runs', {
  id: text().primaryKey(),
  version: integer().notNull(),
  name: text().notNull(),
  machineId: text('machine_id').references(() => machines.id),
  run: text({ mode: 'json' }).$type<VentRunInput>().notNull(),
});

/** Days on which nobody is at home. */
export const absences = sqliteTable('absences', {
  id: text().primaryKey(),
  version: integer().notNull(),
  from: text('from_day').notNull(),
  to: text('to_day').notNull(),
  note: text(),
});

/** The visits of the year ahead, as they are told to calendars. */
export const plannedVisits = sqliteTable(
  'planned_visits',
  {
    id: text().primaryKey(),
    version: integer().notNull(),
    day: text().notNull(),
    place: text().notNull(),
    tasks: text({ mode: 'json' }).$type<VisitTask[]>().notNull(),
    who: text(),
    held: integer({ mode: 'boolean' }),
    skipped: text(),
    moved: text({ mode: 'json' }).$type<{ from: string; on: string; why: string }>(),
    done: integer({ mode: 'boolean' }),
    changedAt: integer('changed_at').notNull(),
  },
  (table) => [index('planned_visits_day').on(table.day)],
);

/** Calendars that were read in: the days on which nobody can. */
export const busyCalendars = sqliteTable('busy_calendars', {
  id: text().primaryKey(),
  version: integer().notNull(),
  name: text().notNull(),
  days: text({ mode: 'json' }).$type<string[]>().notNull(),
  readOn: text('read_on').notNull(),
});

/** Pictures that entries name. They come from the browser made small and without metadata. */
export const photos = sqliteTable('photos', {
  id: text().primaryKey(),
  width: integer().notNull(),
  height: integer().notNull(),
  picture: blob({ mode: 'buffer' }).notNull(),
  storedAt: integer('stored_at').notNull(),
});

/** Papers of machines. */
export const documents = sqliteTable(
  'documents',
  {
    id: text().primaryKey(),
    version: integer().notNull(),
    machineId: text('machine_id')
      .notNull()
      .references(() => machines.id),
    kind: text().$type<DocumentDraft['kind']>().notNull(),
    name: text().notNull(),
    type: text().$type<DocumentType>().notNull(),
    bytes: integer().notNull(),
    storedAt: integer('stored_at').notNull(),
    file: blob({ mode: 'buffer' }).notNull(),
  },
  (table) => [index('documents_machine').on(table.machineId)],
);

/** What a machine's meter read: a day of UTC a row, whole watts of each minute, packed. */
export const meterDays = sqliteTable(
  'meter_days',
  {
    machineId: text('machine_id')
      .notNull()
      .references(() => machines.id),
    day: text().notNull(),
    minutes: blob({ mode: 'buffer' }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.machineId, table.day] })],
);

/** Meters that tell what a machine draws as it goes on. A machine of theirs may have been taken away by a backup. */
export const meters = sqliteTable('meters', {
  id: text().primaryKey(),
  version: integer().notNull(),
  name: text().notNull(),
  machineId: text('machine_id').notNull(),
  dryerId: text('dryer_id'),
  mqtt: text({ mode: 'json' }).$type<NonNullable<MeterDraft['mqtt']>>(),
});

/** What they told in the last days, until loads and days were read out of it. */
export const meterSamples = sqliteTable(
  'meter_samples',
  {
    meterId: text('meter_id').notNull(),
    at: integer().notNull(),
    watts: real(),
    wattHours: real('watt_hours'),
  },
  (table) => [primaryKey({ columns: [table.meterId, table.at] })],
);

/** Answers given to requests with an Idempotency-Key, so that a retry gets the same one. */
export const answers = sqliteTable('answers', {
  key: text().primaryKey(),
  request: text().notNull(),
  answer: text({ mode: 'json' }).$type<unknown>().notNull(),
  at: integer().notNull(),
});

export const facts = sqliteTable('facts', { name: text().primaryKey(), value: text().notNull() });

/* Who may do what. Of whatever lets somebody in only its digest is here. */

export const persons = sqliteTable('persons', {
  id: text().primaryKey(),
  version: integer().notNull(),
  position: integer().notNull(),
  name: text().notNull(),
  thread: text().$type<PersonDraft['thread']>().notNull(),
  role: text().$type<PersonDraft['role']>().notNull(),
  /** Salted digest of the pass phrase, with how it was made. */
  passphrase: text(),
});

export const devices = sqliteTable(
  'devices',
  {
    id: text().primaryKey(),
    /** Of a person that a backup put back may have taken away: then it lets nobody in. */
    personId: text('person_id').notNull(),
    name: text().notNull(),
    digest: text().notNull().unique(),
    weak: integer({ mode: 'boolean' }).notNull(),
    pairedAt: integer('paired_at').notNull(),
    seenAt: integer('seen_at').notNull(),
    until: integer().notNull(),
    revokedAt: integer('revoked_at'),
  },
  (table) => [index('devices_person').on(table.personId)],
);

export const pairingCodes = sqliteTable('pairing_codes', {
  digest: text().primaryKey(),
  personId: text('person_id').notNull(),
  until: integer().notNull(),
  usedAt: integer('used_at'),
});

export const tokens = sqliteTable('tokens', {
  id: text().primaryKey(),
  name: text().notNull(),
  digest: text().notNull().unique(),
  scopes: text({ mode: 'json' }).$type<Token['scopes']>().notNull(),
  /** The meter that it is of. */
  meterId: text('meter_id'),
  madeAt: integer('made_at').notNull(),
  usedAt: integer('used_at'),
  revokedAt: integer('revoked_at'),
});

export const links = sqliteTable('links', {
  id: text().primaryKey(),
  digest: text().notNull().unique(),
  shows: text().$type<LinkDraft['shows']>().notNull(),
  target: text().notNull(),
  forWhom: text('for_whom').notNull(),
  notes: integer({ mode: 'boolean' }).notNull().default(false),
  madeAt: integer('made_at').notNull(),
  until: integer().notNull(),
  opened: integer().notNull(),
  openedAt: integer('opened_at'),
  revokedAt: integer('revoked_at'),
});

/** Who came in, who was turned away, what was given and taken back. */
export const accessEvents = sqliteTable(
  'access_events',
  {
    number: integer().primaryKey({ autoIncrement: true }),
    at: integer().notNull(),
    what: text().notNull(),
    personId: text('person_id'),
    device: text(),
    more: text(),
  },
  (table) => [index('access_events_at').on(table.at)],
);

/** Keys of persons' own devices: what is here only tells whether one is right. */
export const passkeys = sqliteTable(
  'passkeys',
  {
    id: text().primaryKey(),
    personId: text('person_id').notNull(),
    /** What the key calls itself. */
    credential: text().notNull().unique(),
    publicKey: blob('public_key', { mode: 'buffer' }).notNull(),
    counter: integer().notNull(),
    transports: text({ mode: 'json' }).$type<string[]>().notNull(),
    name: text().notNull(),
    madeAt: integer('made_at').notNull(),
    usedAt: integer('used_at'),
  },
  (table) => [index('passkeys_person').on(table.personId)],
);

/** What a device sent after it was taken out, or somebody with a link: a keeper says whether it holds. */
export const setAside = sqliteTable('set_aside', {
  id: text().primaryKey(),
  /** One of both. */
  deviceId: text('device_id'),
  linkId: text('link_id'),
  photo: blob({ mode: 'buffer' }),
  /** Names the deed, however often it is sent. */
  key: text().notNull().unique(),
  /** The row of its address. */
  route: text().notNull(),
  path: text().notNull(),
  body: text({ mode: 'json' }).$type<unknown>(),
  at: integer().notNull(),
  /** When it was said yes to, or let go. */
  doneAt: integer('done_at'),
});

/** Addresses at which calendar programs read the visits of the year ahead. */
export const feeds = sqliteTable('feeds', {
  id: text().primaryKey(),
  personId: text('person_id'),
  digest: text().notNull().unique(),
  name: text().notNull(),
  /** Reminders: the evening before, and when it begins. */
  evening: integer({ mode: 'boolean' }).notNull(),
  begins: integer({ mode: 'boolean' }).notNull(),
  /** Only the visits of this name. */
  who: text(),
  madeAt: integer('made_at').notNull(),
  readAt: integer('read_at'),
  revokedAt: integer('revoked_at'),
});

/** Who gets letters of the year ahead. */
export const mailRecipients = sqliteTable('mail_recipients', {
  id: text().primaryKey(),
  personId: text('person_id'),
  address: text().notNull().unique(),
  weekday: integer().notNull(),
  sentOn: text('sent_on'),
  tries: integer().notNull(),
  nextTryAt: integer('next_try_at'),
  problem: text(),
});
