import { asc, eq } from 'drizzle-orm';
import type { CaseEvent, CaseRecord } from '@needlecase/core';
import type { Db } from '../db/open.js';
import { caseEvents, cases } from '../db/tables.js';
import { Remembered } from './remembered.js';

/** Cases of trouble, each with everything that happened in it, in the order of coming in. */
export class CaseStore {
  readonly #known: Remembered<readonly CaseRecord[]>;

  constructor(private readonly db: Db) {
    this.#known = new Remembered(() => this.#read());
  }

  list(): CaseRecord[] {
    return [...this.#known.get()];
  }

  forget(): void {
    this.#known.forget();
  }

  #read(): CaseRecord[] {
    const found = this.db.select().from(cases).all();
    if (found.length === 0) return [];
    const byCase = new Map<string, CaseEvent[]>(found.map(({ id }) => [id, []]));
    const rows = this.db.select().from(caseEvents).orderBy(asc(caseEvents.number)).all();
    for (const { caseId, event } of rows) byCase.get(caseId)!.push(event);
    return found.map((one) => ({ ...one, events: byCase.get(one.id)! }));
  }

  get(id: string): CaseRecord | undefined {
    const found = this.db.select().from(cases).where(eq(cases.id, id)).get();
    if (!found) return undefined;
    const rows = this.db
      .select()
      .from(caseEvents)
      .where(eq(caseEvents.caseId, id))
      .orderBy(asc(caseEvents.number))
      .all();
    return { ...found, events: rows.map(({ event }) => event) };
  }

  /** The case that an event of this id is in. */
  caseOf(eventId: string): string | undefined {
    return this.db.select().from(caseEvents).where(eq(caseEvents.id, eventId)).get()?.caseId;
  }

  open(id: string, machineId: string): void {
    this.forget();
    this.db.insert(cases).values({ id, machineId }).run();
  }

  add(caseId: string, event: CaseEvent): void {
    this.forget();
    this.db
      .insert(caseEvents)
      .values({ id: event.id, caseId, event, recordedAt: Date.now() })
      .run();
  }
}
