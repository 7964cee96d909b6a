import { and, desc, eq, lt, notExists, or, sql, type SQL } from 'drizzle-orm';
import { alias } from 'drizzle-orm/sqlite-core';
import { randomUUID } from 'node:crypto';
import {
  dayOf,
  Usage,
  type Entry,
  type EntryDraft,
  type EntryQuery,
  type History,
  type LoadCount,
  type Machine,
  type Opening,
} from '@needlecase/core';
import type { Db } from '../db/open.js';
import { entries } from '../db/tables.js';

type Row = typeof entries.$inferSelect;
const later = alias(entries, 'later');

/** How an entry came to be, beside what it says. */
export interface Origin {
  zone: string;
  author: string;
  runId?: string;
  revises?: string;
}

/** What the log says of a machine, ready for the engines. */
interface Past {
  openings: Map<string, Opening[]>;
  taps: LoadCount[];
  usage?: Usage;
}

type PastRow = [
  id: string,
  machineId: string,
  kind: string,
  at: number,
  day: string,
  task: string | null,
  grade: NonNullable<Entry['grade']> | null,
  count: number | null,
];

/** The append-only log. */
export class EntryStore {
  /** Derived from the log, by machine; may be dropped at any time. */
  readonly #pasts = new Map<string, Past>();

  constructor(private readonly db: Db) {}

  add(draft: EntryDraft, origin: Origin): Entry {
    const { found, trays, quantity, unit, code, note } = draft;
    const at = Date.parse(draft.at);
    const row: Row = {
      id: draft.id ?? randomUUID(),
      machineId: draft.machineId ?? null,
      kind: draft.kind,
      at,
      day: dayOf(at, origin.zone),
      zone: origin.zone,
      author: draft.author ?? origin.author,
      source: draft.source ?? 'api',
      recordedAt: Date.now(),
      runId: origin.runId ?? null,
      revises: origin.revises ?? null,
      station: draft.station ?? null,
      task: draft.task ?? null,
      grade: draft.grade ?? null,
      count: draft.count ?? null,
      value: draft.value ?? null,
      more: defined({ found, trays, quantity, unit, code, note }),
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

  ofRun(runId: string): Entry[] {
    const rows = this.db
      .select()
      .from(entries)
      .where(and(eq(entries.runId, runId), this.#current()))
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

  /** What the log says of some machines, in one query for those not at hand. */
  histories(machines: readonly Pick<Machine, 'id' | 'loadsPerWeek'>[]): History[] {
    const missing = machines.filter(({ id }) => !this.#pasts.has(id));
    if (missing.length) this.#readPasts(missing.map(({ id }) => id));
    return machines.map(({ id, loadsPerWeek }) => {
      const past = this.#pasts.get(id)!;
      if (past.usage?.usualPerWeek !== loadsPerWeek)
        past.usage = new Usage(past.taps, loadsPerWeek);
      return { openings: past.openings, usage: past.usage };
    });
  }

  /** A tap only adds to what is known of a machine; anything else has it read again. */
  #remember({ machineId, kind, at, count, revises }: Row): void {
    const past = machineId === null ? undefined : this.#pasts.get(machineId);
    if (!machineId || !past) return;
    if (kind === 'load' && revises === null) {
      past.taps.push({ at, count: count ?? 1 });
      delete past.usage;
    } else {
      this.#pasts.delete(machineId);
    }
  }

  /** Drops what was derived; it is read again when needed. */
  dropCaches(): void {
    this.#pasts.clear();
  }

  #readPasts(machineIds: readonly string[]): void {
    for (const id of machineIds) this.#pasts.set(id, { openings: new Map(), taps: [] });
    const rows = this.db.$client
      .prepare(
        `SELECT id, machine_id, kind, at, day, task, grade, count FROM entries e
         WHERE kind IN ('load', 'opened', 'done')
           AND machine_id IN (${machineIds.map(() => '?').join(',')})
           AND NOT EXISTS (SELECT 1 FROM entries r WHERE r.revises = e.id)`,
      )
      .raw()
      .all(...machineIds) as PastRow[];
    for (const [entryId, machineId, kind, at, day, task, grade, count] of rows) {
      const { taps, openings } = this.#pasts.get(machineId)!;
      if (kind === 'load') taps.push({ at, count: count ?? 1 });
      else if (task !== null) {
        const opening = { entryId, at, day, task, cleaned: kind === 'done' };
        const list = openings.get(task) ?? [];
        list.push(grade === null ? opening : { ...opening, grade });
        openings.set(task, list);
      }
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

function toEntry(row: Row, revisedBy?: string): Entry {
  const { more, day: _day, at, recordedAt, ...rest } = row;
  return {
    ...(defined(rest) as unknown as Entry),
    at: new Date(at).toISOString(),
    recordedAt: new Date(recordedAt).toISOString(),
    ...more,
    ...(revisedBy ? { revisedBy } : {}),
  };
}

/** Without the fields that are not there. */
function defined<T extends object>(value: T): { [K in keyof T]: NonNullable<T[K]> } {
  return Object.fromEntries(
    Object.entries(value).filter(([, field]) => field !== null && field !== undefined),
  ) as { [K in keyof T]: NonNullable<T[K]> };
}
