import { eq } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import { facts } from '../db/tables.js';
import type { Reach } from './reach.js';

const NAME = 'host';

/** The name or number of this computer that the household has laid down for its devices. */
export class ChosenHost {
  #host: string | undefined;

  constructor(private readonly db: Db) {
    this.#host = db.select().from(facts).where(eq(facts.name, NAME)).get()?.value;
  }

  choose(value: string): void {
    this.db
      .insert(facts)
      .values({ name: NAME, value })
      .onConflictDoUpdate({ target: facts.name, set: { value } })
      .run();
    this.#host = value;
  }

  /** How the house reaches the server, by that. */
  in(reach: Reach): Reach {
    return this.#host === undefined ? reach : { ...reach, host: this.#host };
  }
}
