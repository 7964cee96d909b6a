import { asc, eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Absence, AbsenceDraft } from '@needlecase/core/model/planned';
import type { Db } from '../db/open.js';
import { absences } from '../db/tables.js';
import { defined } from './defined.js';
import { whole } from './whole.js';

/** Days on which nobody is at home. */
export class AbsenceStore {
  constructor(private readonly db: Db) {}

  list(): Absence[] {
    return this.db.select().from(absences).orderBy(asc(absences.from)).all().map(defined);
  }

  get(id: string): Absence | undefined {
    const row = this.db.select().from(absences).where(eq(absences.id, id)).get();
    return row && defined(row);
  }

  create(draft: AbsenceDraft): Absence {
    const id = randomUUID();
    this.db
      .insert(absences)
      .values({ id, version: 1, ...draft })
      .run();
    return this.get(id)!;
  }

  replace(id: string, version: number, draft: AbsenceDraft): Absence {
    this.db
      .update(absences)
      .set({ ...whole(absences, draft), version: version + 1 })
      .where(eq(absences.id, id))
      .run();
    return this.get(id)!;
  }

  remove(id: string): void {
    this.db.delete(absences).where(eq(absences.id, id)).run();
  }
}
