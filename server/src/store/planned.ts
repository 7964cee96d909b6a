import { asc, eq, inArray } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { PlannedVisit } from '@needlecase/core/model/planned';
import type { Db } from '../db/open.js';
import { facts, plannedVisits } from '../db/tables.js';
import { defined } from './defined.js';
import { Remembered } from './remembered.js';
import { whole } from './whole.js';

type Row = typeof plannedVisits.$inferSelect;
type Told = Omit<PlannedVisit, 'id' | 'version' | 'changedAt'>;

/** The fact under which it is kept what the visits were planned from. */
const BASIS = 'plan';

/** The visits of the year ahead, and what they were planned from. */
export class PlannedStore {
  readonly #known: Remembered<readonly PlannedVisit[]>;

  constructor(private readonly db: Db) {
    this.#known = new Remembered(() =>
      db.select().from(plannedVisits).orderBy(asc(plannedVisits.day)).all().map(toPlanned),
    );
  }

  list(): readonly PlannedVisit[] {
    return this.#known.get();
  }

  get(id: string): PlannedVisit | undefined {
    return this.list().find((one) => one.id === id);
  }

  forget(): void {
    this.#known.forget();
  }

  add(visit: Told, at: number): PlannedVisit {
    this.forget();
    const id = randomUUID();
    this.db
      .insert(plannedVisits)
      .values({ id, version: 1, ...visit, changedAt: at })
      .run();
    return this.get(id)!;
  }

  /** Told anew, with the next version. */
  replace(id: string, version: number, visit: Told, at: number): PlannedVisit {
    this.forget();
    this.db
      .update(plannedVisits)
      .set({ ...whole(plannedVisits, { ...visit, changedAt: at }), version: version + 1 })
      .where(eq(plannedVisits.id, id))
      .run();
    return this.get(id)!;
  }

  remove(ids: readonly string[]): void {
    if (ids.length === 0) return;
    this.forget();
    this.db
      .delete(plannedVisits)
      .where(inArray(plannedVisits.id, [...ids]))
      .run();
  }

  /** What the visits were planned from, as it was kept. */
  get basis(): string | undefined {
    return this.db.select().from(facts).where(eq(facts.name, BASIS)).get()?.value;
  }

  set basis(value: string | undefined) {
    this.db.delete(facts).where(eq(facts.name, BASIS)).run();
    if (value !== undefined) this.db.insert(facts).values({ name: BASIS, value }).run();
  }
}

export const toPlanned = ({ changedAt, ...row }: Row): PlannedVisit => ({
  ...defined(row),
  changedAt: new Date(changedAt).toISOString(),
});

export const plannedRow = ({
  changedAt,
  ...visit
}: PlannedVisit): typeof plannedVisits.$inferInsert => ({
  ...visit,
  changedAt: Date.parse(changedAt),
});
