import { asc, eq, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Machine, MachineDraft } from '@needlecase/core';
import type { Db } from '../db/open.js';
import { machines } from '../db/tables.js';
import { defined } from './defined.js';
import { Remembered } from './remembered.js';
import { whole } from './whole.js';

export class MachineStore {
  readonly #known: Remembered<readonly Machine[]>;

  constructor(private readonly db: Db) {
    this.#known = new Remembered(() =>
      db.select().from(machines).orderBy(asc(machines.position)).all().map(toMachine),
    );
  }

  list(): Machine[] {
    return [...this.#known.get()];
  }

  forget(): void {
    this.#known.forget();
  }

  count(): number {
    return this.db
      .select({ n: sql<number>`count(*)` })
      .from(machines)
      .get()!.n;
  }

  get(id: string): Machine | undefined {
    const row = this.db.select().from(machines).where(eq(machines.id, id)).get();
    return row && toMachine(row);
  }

  create(draft: MachineDraft, id: string = randomUUID()): Machine {
    const position = this.count();
    this.forget();
    this.db
      .insert(machines)
      .values({ id, version: 1, position, ...draft })
      .run();
    return this.get(id)!;
  }

  /** Takes away a machine of which nothing was recorded. @returns false where something points at it */
  remove(id: string): boolean {
    this.forget();
    try {
      return this.db.delete(machines).where(eq(machines.id, id)).run().changes > 0;
    } catch (problem) {
      if (/FOREIGN KEY/i.test(String(problem))) return false;
      if (/FOREIGN KEY/i.test(String((problem as Error).cause))) return false;
      throw problem;
    }
  }

  replace(id: string, version: number, draft: MachineDraft): Machine {
    this.forget();
    this.db
      .update(machines)
      .set({ ...whole(machines, draft), version: version + 1 })
      .where(eq(machines.id, id))
      .run();
    return this.get(id)!;
  }
}

export function toMachine(row: typeof machines.$inferSelect): Machine {
  const { position: _position, ...rest } = row;
  return defined(rest);
}
