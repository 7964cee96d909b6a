import { desc, eq, inArray } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { emptyProgress, type Visit, type VisitChange, type VisitDraft } from '@needlecase/core';
import type { Db } from '../db/open.js';
import { runs } from '../db/tables.js';

export class VisitStore {
  constructor(private readonly db: Db) {}

  get(id: string): Visit | undefined {
    const row = this.db.select().from(runs).where(eq(runs.id, id)).get();
    return row && toVisit(row);
  }

  /** Runs begun and not ended, the latest first. */
  open(): Visit[] {
    return this.db
      .select()
      .from(runs)
      .where(inArray(runs.state, ['active', 'paused']))
      .orderBy(desc(runs.startedAt))
      .all()
      .map(toVisit);
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
    this.db.insert(runs).values(row).run();
    return this.get(row.id)!;
  }

  change(run: Visit, change: Omit<VisitChange, 'state'> & { state?: Visit['state'] }): Visit {
    const now = Date.now();
    const finishedAt =
      change.state === undefined ? {} : { finishedAt: change.state === 'finished' ? now : null };
    this.db
      .update(runs)
      .set({ ...change, ...finishedAt, changedAt: now, version: run.version + 1 })
      .where(eq(runs.id, run.id))
      .run();
    return this.get(run.id)!;
  }
}

function toVisit(row: typeof runs.$inferSelect): Visit {
  const { startedAt, changedAt, finishedAt, ...rest } = row;
  return {
    ...rest,
    startedAt: new Date(startedAt).toISOString(),
    changedAt: new Date(changedAt).toISOString(),
    ...(finishedAt === null ? {} : { finishedAt: new Date(finishedAt).toISOString() }),
  };
}
