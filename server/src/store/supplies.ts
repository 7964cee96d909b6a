import { asc, eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Supply, SupplyDraft } from '@needlecase/core';
import type { Db } from '../db/open.js';
import { supplies } from '../db/tables.js';
import { defined } from './defined.js';
import { Remembered } from './remembered.js';
import { whole } from './whole.js';

/** The supplies that the household keeps. What is left of them follows from the log. */
export class SupplyStore {
  readonly #known: Remembered<readonly Supply[]>;

  constructor(private readonly db: Db) {
    this.#known = new Remembered(() =>
      db.select().from(supplies).orderBy(asc(supplies.name)).all().map(defined),
    );
  }

  list(): Supply[] {
    return [...this.#known.get()];
  }

  forget(): void {
    this.#known.forget();
  }

  get(id: string): Supply | undefined {
    const row = this.db.select().from(supplies).where(eq(supplies.id, id)).get();
    return row && defined(row);
  }

  create(draft: SupplyDraft): Supply {
    const id = randomUUID();
    this.forget();
    this.db
      .insert(supplies)
      .values({ id, version: 1, ...draft })
      .run();
    return this.get(id)!;
  }

  replace(id: string, version: number, draft: SupplyDraft): Supply {
    this.forget();
    this.db
      .update(supplies)
      .set({ ...whole(supplies, draft), version: version + 1 })
      .where(eq(supplies.id, id))
      .run();
    return this.get(id)!;
  }
}
