import { asc, eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { KeptVentRun, VentRunDraft } from '@needlecase/core';
import type { Db } from '../db/open.js';
import { ventRuns } from '../db/tables.js';
import { defined } from './defined.js';
import { whole } from './whole.js';

/** Vent runs that were laid out. */
export class VentRunStore {
  constructor(private readonly db: Db) {}

  list(): KeptVentRun[] {
    return this.db.select().from(ventRuns).orderBy(asc(ventRuns.name)).all().map(defined);
  }

  get(id: string): KeptVentRun | undefined {
    const row = this.db.select().from(ventRuns).where(eq(ventRuns.id, id)).get();
    return row && defined(row);
  }

  create(draft: VentRunDraft): KeptVentRun {
    const id = randomUUID();
    this.db
      .insert(ventRuns)
      .values({ id, version: 1, ...draft })
      .run();
    return this.get(id)!;
  }

  replace(id: string, version: number, draft: VentRunDraft): KeptVentRun {
    this.db
      .update(ventRuns)
      .set({ ...whole(ventRuns, draft), version: version + 1 })
      .where(eq(ventRuns.id, id))
      .run();
    return this.get(id)!;
  }

  remove(id: string): void {
    this.db.delete(ventRuns).where(eq(ventRuns.id, id)).run();
  }
}
