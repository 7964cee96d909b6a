import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Household, HouseholdDraft } from '@needlecase/core';
import type { Db } from '../db/open.js';
import { households } from '../db/tables.js';
import { defined } from './defined.js';
import { Remembered } from './remembered.js';
import { whole } from './whole.js';

/** The one household of a data file. */
export class HouseholdStore {
  readonly #known: Remembered<Household | undefined>;

  constructor(private readonly db: Db) {
    this.#known = new Remembered(() => {
      const row = db.select().from(households).get();
      return row && defined(row);
    });
  }

  get(): Household | undefined {
    return this.#known.get();
  }

  forget(): void {
    this.#known.forget();
  }

  create(draft: HouseholdDraft): Household {
    this.forget();
    this.db
      .insert(households)
      .values({ id: randomUUID(), version: 1, ...draft })
      .run();
    return this.get()!;
  }

  replace(id: string, version: number, draft: HouseholdDraft): Household {
    this.forget();
    this.db
      .update(households)
      .set({ ...whole(households, draft), version: version + 1 })
      .where(eq(households.id, id))
      .run();
    return this.get()!;
  }
}
