import { asc, eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Supply, SupplyDraft } from '@needlecase/core';
import type { Db } from '../db/open.js';
import { supplies } from '../db/tables.js';
import { defined } from './defined.js';
import { whole } from './whole.js';

/** The supplies that the household keeps. What is left of them follows from the log. */
export class SupplyStore {
  constructor(private readonly db: Db) {}

  list(): Supply[] {
    return this.db.select().from(supplies).orderBy(asc(supplies.name)).all().map(defined);
  }

  get(id: string): Supply | undefined {
    const row = this.db.select().from(supplies).where(eq(supplies.id, id)).get();
    return row && defined(row);
  }

  create(draft: SupplyDraft): Supply {
    const id = randomUUID();
    this.db
      .insert(supplies)
      .values({ id, version: 1, ...draft })
      .run();
    return this.get(id)!;
  }

  replace(id: string, version: number, draft: SupplyDraft): Supply {
    this.db
      .update(supplies)
      .set({ ...whole(supplies, draft), version: version + 1 })
      .where(eq(supplies.id, id))
      .run();
    return this.get(id)!;
  }
}
