import { desc, eq, inArray } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { emptyProgress, type Visit, type VisitChange, type VisitDraft } from '@needlecase/core';
import type { Db } from '../db/open.js';
import { visits } from '../db/tables.js';
import { Remembered } from './remembered.js';

export class VisitStore {
  readonly #known: Remembered<readonly Visit[]>;

  constructor(private readonly db: Db) {
    this.#known = new Remembered(() =>
      db
        .select()
        .from(visits)
        .where(inArray(visits.state, ['active', 'paused']))
        .orderBy(desc(visits.startedAt))
        .all()
        .map(toVisit),
    );
  }

  get(id: string): Visit | undefined {
    const row = this.db.select().from(visits).where(eq(visits.id, id)).get();
    return row && toVisit(row);
  }

  /** Visits begun and not ended, the latest first. */
  open(): Visit[] {
    return [...this.#known.get()];
  }

  forget(): void {
    this.#known.forget();
  }

  create(draft: VisitDraft): Visit {
    const now = Date.now();
    const row = {
      id: randomUUID(),
      version: 1,
      state: 'active' as const,
      tasks: draft.tasks,
      progress: emptyProgress(),
      startedAt: now,
      changedAt: now,
    };
    this.forget();
    this.db.insert(visits).values(row).run();
    return this.get(row.id)!;
  }

  change(visit: Visit, change: Omit<VisitChange, 'state'> & { state?: Visit['state'] }): Visit {
    const now = Date.now();
    const finishedAt =
      change.state === undefined ? {} : { finishedAt: change.state === 'finished' ? now : null };
    this.forget();
    this.db
      .update(visits)
      .set({ ...change, ...finishedAt, changedAt: now, version: visit.version + 1 })
      .where(eq(visits.id, visit.id))
      .run();
    return this.get(visit.id)!;
  }
}

/** A visit as it was told, as its row again. */
export function visitRow({ startedAt, changedAt, finishedAt, ...rest }: Visit) {
  return {
    ...rest,
    startedAt: Date.parse(startedAt),
    changedAt: Date.parse(changedAt),
    finishedAt: finishedAt === undefined ? null : Date.parse(finishedAt),
  };
}

export function toVisit(row: typeof visits.$inferSelect): Visit {
  const { startedAt, changedAt, finishedAt, ...rest } = row;
  return {
    ...rest,
    startedAt: new Date(startedAt).toISOString(),
    changedAt: new Date(changedAt).toISOString(),
    ...(finishedAt === null ? {} : { finishedAt: new Date(finishedAt).toISOString() }),
  };
}
