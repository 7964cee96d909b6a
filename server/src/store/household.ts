import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Household, HouseholdDraft } from '@needlecase/core';
import type { Db } from '../db/open.js';
import { households } from '../db/tables.js';
import { defined } from './defined.js';
import { whole } from './whole.js';

/** The one household of a data file. */
export class HouseholdStore {
  constructor(private readonly db: Db) {}

  get(): Household | undefined {
    const row = this.db.select().from(households).get();
    if (!row) return undefined;
    return defined(row);
  }

  create(draft: HouseholdDraft): Household {
    this.db
      .insert(households)
      .values({ id: randomUUID(), version: 1, ...draft })
      .run();
    return this.get()!;
  }

  replace(id: string, version: number, draft: HouseholdDraft): Household {
    this.db
      .update(households)
      .set({ ...whole(households, draft), version: version + 1 })
      .where(eq(households.id, id))
      .run();
    return this.get()!;
  }
}
