import { asc, eq, inArray } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { PlannedVisit } from '@needlecase/core/model/planned';
import type { Progress } from '@needlecase/core/plan/solve';
import type { Db } from '../db/open.js';
import { facts, plannedVisits } from '../db/tables.js';
import { defined } from './defined.js';
import { Remembered } from './remembered.js';
import { whole } from './whole.js';

type Row = typeof plannedVisits.$inferSelect;
type Told = Omit<PlannedVisit, 'id' | 'version' | 'changedAt'>;

/** What a section of the house was planned from, and what came of it. */
export interface Basis extends Progress {
  key: string;
}
type Bases = Readonly<Record<string, Basis | undefined>>;

/** The fact under which it is kept what the visits were planned from. */
const BASIS = 'plan';

/** The visits of the year ahead, and what they were planned from. */
export class PlannedStore {
  readonly #known: Remembered<readonly PlannedVisit[]>;
  readonly #bases = new Remembered((): Bases => {
    const kept = this.db.select().from(facts).where(eq(facts.name, BASIS)).get()?.value;
    const told = kept === undefined ? {} : (JSON.parse(kept) as { sections?: Bases });
    // What an earlier version kept is planned anew.
    return told.sections ?? {};
  });

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
    this.#bases.forget();
  }

  add(visit: Told, at: number): PlannedVisit {
    const [id] = this.addAll([visit], at);
    return this.get(id!)!;
  }

  /** @returns their ids */
  addAll(visits: readonly Told[], at: number): string[] {
    this.#known.forget();
    return visits.map((visit) => {
      const id = randomUUID();
      this.db
        .insert(plannedVisits)
        .values({ id, version: 1, ...visit, changedAt: at })
        .run();
      return id;
    });
  }

  /** Told anew, with the next version. */
  replace(id: string, version: number, visit: Told, at: number): PlannedVisit {
    this.lay(id, version, visit, at);
    return this.get(id)!;
  }

  /** The same, of many: nothing is read again between them. */
  lay(id: string, version: number, visit: Told, at: number): void {
    this.#known.forget();
    this.db
      .update(plannedVisits)
      .set({ ...whole(plannedVisits, { ...visit, changedAt: at }), version: version + 1 })
      .where(eq(plannedVisits.id, id))
      .run();
  }

  remove(ids: readonly string[]): void {
    if (ids.length === 0) return;
    this.#known.forget();
    this.db
      .delete(plannedVisits)
      .where(inArray(plannedVisits.id, [...ids]))
      .run();
  }

  /** What the visits of each section were planned from. */
  get bases(): Bases {
    return this.#bases.get();
  }

  set bases(sections: Bases) {
    this.#bases.forget();
    this.db.delete(facts).where(eq(facts.name, BASIS)).run();
    this.db
      .insert(facts)
      .values({ name: BASIS, value: JSON.stringify({ sections }) })
      .run();
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
