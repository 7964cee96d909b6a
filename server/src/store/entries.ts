import { and, desc, gte, eq, lt, notExists, or, sql, type SQL } from 'drizzle-orm';
import { alias } from 'drizzle-orm/sqlite-core';
import { randomUUID } from 'node:crypto';
import {
  dayOf,
  entryKindsWhere,
  gather,
  tapOf,
  Usage,
  type Entry,
  type EntryDraft,
  type EntryKind,
  type EntryQuery,
  type Fact,
  type Grade,
  type History,
  type Machine,
  type Past,
  type Programme,
  type StockEvent,
  type Used,
} from '@needlecase/core';
import type { Db } from '../db/open.js';
import { entries } from '../db/tables.js';
import { defined } from './defined.js';
import { entriesInOrder, type InOrder } from './entries-in-order.js';
import { EMPTY, split, toEntry, type Row } from './entry-rows.js';

/** Which entries are read for what. Loads are by far the most: they are read by themselves, without what they do not have. */
const HISTORY_KINDS = entryKindsWhere(({ history }) => history !== undefined).filter(
  (kind) => kind !== 'load',
);
const WHOLE_KINDS = entryKindsWhere(({ history }) => history === 'all');
const STOCK_KINDS = entryKindsWhere(({ stock }) => stock === true);
const quoted = (kinds: readonly EntryKind[]): string => kinds.map((kind) => `'${kind}'`).join(', ');

/** So many entries are looked through for which machines are used. */
const LATELY = 2000;

const later = alias(entries, 'later');

/** What somebody wrote of an entry, or found. */
const WRITTEN = sql`concat_ws(' ', json_extract(${entries.more}, '$.note'), json_extract(${entries.more}, '$.code'), json_extract(${entries.more}, '$.product'), (SELECT group_concat(json_extract(value, '$.what'), ' ') FROM json_each(${entries.more}, '$.found')))`;
const withWord = (word: string): SQL =>
  sql`${WRITTEN} LIKE ${`%${word.replaceAll(/[\\%_]/g, '\\$&')}%`} ESCAPE '\\'`;

/** How an entry came to be, beside what it says. */
export interface Origin {
  zone: string;
  author: string;
  runId?: string;
  revises?: string;
}

/** What the log says of a machine, with the use worked out of it. */
interface KnownPast extends Past {
  /** The same object until its entries or the usual loads change, so that what follows from it can be kept. */
  history?: History;
}

type FactRow = [
  entryId: string,
  machineId: string,
  kind: EntryKind,
  at: number,
  day: string,
  task: string | null,
  grade: Grade | null,
  count: number | null,
  value: number | null,
  quantity: string | null,
  programme: Programme | null,
  habit: string | null,
  /** Of entries that are read whole: where, and the rest. */
  station: string | null,
  more: string | null,
];

type LoadRow = [machineId: string, at: number, count: number | null, programme: Programme | null];

type StockRow = [
  kind: StockEvent['kind'],
  at: number,
  supply: string | null,
  value: number | null,
  machineId: string | null,
  task: string | null,
  used: string | null,
];

/** The append-only log. */
export class EntryStore {
  /** Derived from the log, by machine; may be dropped at any time. */
  readonly #pasts = new Map<string, KnownPast>();
  #stockEvents: StockEvent[] | undefined;
  /** Machines whose past was changed in the transaction that goes on. */
  readonly #touched = new Set<string>();

  constructor(private readonly db: Db) {}

  add(draft: EntryDraft, origin: Origin): Entry {
    const { id = randomUUID(), author = origin.author, source = 'api', at: told, ...rest } = draft;
    const at = Date.parse(told);
    const row: Row = {
      ...EMPTY,
      ...split(rest),
      id,
      author,
      source,
      kind: draft.kind,
      at,
      day: dayOf(at, origin.zone),
      zone: origin.zone,
      recordedAt: Date.now(),
      runId: origin.runId ?? null,
      revises: origin.revises ?? null,
    };
    this.db.insert(entries).values(row).run();
    this.#remember(row);
    return toEntry(row);
  }

  get(id: string): Entry | undefined {
    const row = this.db.select().from(entries).where(eq(entries.id, id)).get();
    return row && toEntry(row, this.revisionOf(id)?.id);
  }

  /** The entry that took this one's place, if any. */
  revisionOf(id: string): Entry | undefined {
    const row = this.db.select().from(entries).where(eq(entries.revises, id)).get();
    return row && toEntry(row);
  }

  ofVisit(runId: string): Entry[] {
    const rows = this.db
      .select()
      .from(entries)
      .where(and(eq(entries.runId, runId), this.#current()))
      .all();
    return rows.map((row) => toEntry(row));
  }

  /** Whether a meter told loads of a machine that began from one instant to another, ms. */
  hasMetered(machineId: string, from: number, to: number): boolean {
    return (
      this.db.$client
        .prepare(
          `SELECT 1 FROM entries WHERE machine_id = ? AND kind = 'load' AND at >= ? AND at < ?
             AND json_extract(more, '$.cycle') IS NOT NULL LIMIT 1`,
        )
        .get(machineId, from, to) !== undefined
    );
  }

  /** Loads of a machine that began from one instant to another, ms; those that were struck out among them. */
  loadsBetween(machineId: string, from: number, to: number): Entry[] {
    const rows = this.db
      .select({ row: entries, revisedBy: later.id })
      .from(entries)
      .leftJoin(later, eq(later.revises, entries.id))
      .where(
        and(
          eq(entries.machineId, machineId),
          eq(entries.kind, 'load'),
          gte(entries.at, from),
          lt(entries.at, to),
        ),
      )
      .orderBy(entries.at)
      .all();
    return rows.map(({ row, revisedBy }) => toEntry(row, revisedBy ?? undefined));
  }

  /** Tasks done since, as they stand now. */
  doneSince(at: number): Pick<Entry, 'author' | 'machineId' | 'task'>[] {
    const rows = this.db
      .select()
      .from(entries)
      .where(and(eq(entries.kind, 'done'), gte(entries.at, at), this.#current()))
      .all();
    return rows.map((row) => toEntry(row));
  }

  /** One page of the log, newest first. */
  list(query: EntryQuery): { entries: Entry[]; next?: string } {
    const limit = query.limit ?? 50;
    const conditions: (SQL | undefined)[] = [
      query.machine ? eq(entries.machineId, query.machine) : undefined,
      query.station ? eq(entries.station, query.station) : undefined,
      query.kind ? eq(entries.kind, query.kind) : undefined,
      query.photos ? sql`json_array_length(${entries.more}, '$.photos') > 0` : undefined,
      ...(query.words ?? '').split(/\s+/).filter(Boolean).map(withWord),
      query.all ? undefined : this.#current(),
      query.all ? undefined : sql`${entries.kind} <> 'undone'`,
      query.before ? before(query.before) : undefined,
    ];
    const rows = this.db
      .select({ row: entries, revisedBy: later.id })
      .from(entries)
      .leftJoin(later, eq(later.revises, entries.id))
      .where(and(...conditions))
      .orderBy(desc(entries.at), desc(entries.id))
      .limit(limit + 1)
      .all();
    const page = rows.slice(0, limit);
    const last = page.at(-1)?.row;
    return {
      entries: page.map(({ row, revisedBy }) => toEntry(row, revisedBy ?? undefined)),
      ...(rows.length > limit && last ? { next: `${last.at}~${last.id}` } : {}),
    };
  }

  /** Entries in the order of time, a page in memory at a time. */
  inOrder(query: InOrder): Generator<Entry> {
    return entriesInOrder(this.db, query);
  }

  /** What the log says of some machines, in one query for those not at hand. */
  histories(machines: readonly Pick<Machine, 'id' | 'loadsPerWeek'>[]): History[] {
    const missing = machines.filter(({ id }) => !this.#pasts.has(id));
    if (missing.length) this.#readPasts(missing.map(({ id }) => id));
    return machines.map(({ id, loadsPerWeek }) => {
      const past = this.#pasts.get(id)!;
      if (past.history?.usage.usualPerWeek !== loadsPerWeek) {
        const { taps, history: _old, ...rest } = past;
        past.history = { ...rest, usage: new Usage(taps, loadsPerWeek) };
      }
      return past.history;
    });
  }

  /** Machines whose past is not at hand, those with the newest entries first. */
  cold(machineIds: readonly string[]): string[] {
    const cold = machineIds.filter((id) => !this.#pasts.has(id));
    if (cold.length < 2) return cold;
    const lately = this.db
      .select({ id: entries.machineId })
      .from(entries)
      .orderBy(desc(entries.at))
      .limit(LATELY)
      .all()
      .map(({ id }) => id);
    const rank = new Map(lately.toReversed().map((id, i) => [id, i]));
    return cold.sort((a, b) => (rank.get(b) ?? -1) - (rank.get(a) ?? -1));
  }

  /** Everything that changed a stock, in one query unless it is at hand. */
  stockEvents(): StockEvent[] {
    this.#stockEvents ??= (
      this.db.$client
        .prepare(
          `SELECT kind, at, supply, value, machine_id, task, json_extract(more, '$.used')
           FROM entries e
           WHERE kind IN (${quoted(STOCK_KINDS)})
             AND NOT EXISTS (SELECT 1 FROM entries r WHERE r.revises = e.id)`,
        )
        .raw()
        .all() as StockRow[]
    ).map(([kind, at, supply, value, machineId, task, used]) => ({
      kind,
      at,
      ...defined({ supply, value, machineId, task }),
      ...(used === null ? {} : { used: JSON.parse(used) as Used[] }),
    }));
    return this.#stockEvents;
  }

  /** A tap only adds to what is known of a machine; anything else has it read again, what a meter told among it. */
  #remember({ machineId, kind, at, count, programme, revises, more }: Row): void {
    // An entry that takes another's place may take something back.
    if (revises !== null || STOCK_KINDS.includes(kind)) this.#stockEvents = undefined;
    const past = machineId === null ? undefined : this.#pasts.get(machineId);
    if (!machineId || !past) return;
    this.#touched.add(machineId);
    if (kind === 'load' && revises === null && !more.cycle) {
      past.taps.push(tapOf({ at, ...defined({ count, programme }) }));
      delete past.history;
    } else {
      this.#pasts.delete(machineId);
    }
  }

  /** What is added from here on may be taken back together. */
  begin(): void {
    this.#touched.clear();
  }

  /** What was added since `begin` is not there: what was derived from it goes, too. */
  takenBack(): void {
    for (const id of this.#touched) this.#pasts.delete(id);
    this.#stockEvents = undefined;
  }

  /** Drops what was derived; it is read again when needed. */
  dropCaches(): void {
    this.#pasts.clear();
    this.#stockEvents = undefined;
  }

  #readPasts(machineIds: readonly string[]): void {
    const rows = this.db.$client
      .prepare(
        `SELECT id, machine_id, kind, at, day, task, grade, count, value, quantity, programme, habit,
           CASE WHEN kind IN (${quoted(WHOLE_KINDS)}) THEN station END,
           CASE WHEN kind IN (${quoted(WHOLE_KINDS)}) THEN more END
         FROM entries e
         WHERE kind IN (${quoted(HISTORY_KINDS)})
           AND machine_id IN (${machineIds.map(() => '?').join(',')})
           AND NOT EXISTS (SELECT 1 FROM entries r WHERE r.revises = e.id)`,
      )
      .raw()
      .all(...machineIds) as FactRow[];
    const facts = new Map<string, Fact[]>(machineIds.map((id) => [id, []]));
    for (const row of rows) facts.get(row[1])!.push(factOf(row));
    const loads = this.db.$client
      .prepare(
        `SELECT machine_id, at, count, programme FROM entries e
         WHERE kind = 'load' AND machine_id IN (${machineIds.map(() => '?').join(',')})
           AND NOT EXISTS (SELECT 1 FROM entries r WHERE r.revises = e.id)`,
      )
      .raw()
      .all(...machineIds) as LoadRow[];
    for (const [id, all] of facts) this.#pasts.set(id, gather(all));
    for (const [id, at, count, programme] of loads) {
      this.#pasts.get(id)!.taps.push(tapOf({ at, ...defined({ count, programme }) }));
    }
  }

  #current(): SQL {
    return notExists(
      this.db
        .select({ one: sql`1` })
        .from(later)
        .where(eq(later.revises, entries.id)),
    );
  }

  /** How many came in from a person since an instant, of what happened since another. UTC milliseconds. */
  countBy(author: string, cameIn: number, happened: number): number {
    return this.db.$client
      .prepare('SELECT count(*) FROM entries WHERE at > ? AND author = ? AND recorded_at > ?')
      .pluck()
      .get(happened, author, cameIn) as number;
  }

  /** When the newest came in, UTC milliseconds. */
  newestRecordedAt(): number | undefined {
    return this.db.$client
      .prepare('SELECT recorded_at FROM entries ORDER BY rowid DESC LIMIT 1')
      .pluck()
      .get() as number | undefined;
  }

  count(): number {
    return Number(
      this.db
        .select({ n: sql<number>`count(*)` })
        .from(entries)
        .get()!.n,
    );
  }
}

function before(cursor: string): SQL | undefined {
  const [at, id] = cursor.split('~') as [string, string];
  return or(lt(entries.at, Number(at)), and(eq(entries.at, Number(at)), lt(entries.id, id)));
}

/** Written out, field by field: there are tens of thousands of them. */
function factOf([
  entryId,
  ,
  kind,
  at,
  day,
  task,
  grade,
  count,
  value,
  quantity,
  programme,
  habit,
  station,
  more,
]: FactRow): Fact {
  const fact: Fact = { entryId, kind, at, day };
  if (task !== null) fact.task = task;
  if (grade !== null) fact.grade = grade;
  if (count !== null) fact.count = count;
  if (value !== null) fact.value = value;
  if (quantity !== null) fact.quantity = quantity;
  if (programme !== null) fact.programme = programme;
  if (habit !== null) fact.habit = habit;
  if (station !== null) fact.station = station;
  if (more !== null) Object.assign(fact, JSON.parse(more) as Partial<Fact>);
  return fact;
}
