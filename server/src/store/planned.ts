import { and, asc, eq, inArray, like, notInArray } from 'drizzle-orm';
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

/** Facts under such names keep what the visits of each section were planned from. */
const BASIS = 'plan of ';

/** The visits of the year ahead, and what they were planned from. */
export class PlannedStore {
  readonly #known: Remembered<readonly PlannedVisit[]>;
  readonly #bases = new Map<string, Basis | undefined>();
  /** Grows with every change of a visit. */
  revision = 0;

  constructor(private readonly db: Db) {
    this.#known = new Remembered(() =>
      db
        .select()
        .from(plannedVisits)
        .orderBy(asc(plannedVisits.day), asc(plannedVisits.id))
        .all()
        .map(toPlanned),
    );
  }

  /** By their days. */
  list(): readonly PlannedVisit[] {
    return this.#known.get();
  }

  get(id: string): PlannedVisit | undefined {
    return this.list().find((one) => one.id === id);
  }

  forget(): void {
    this.#known.forget();
    this.#bases.clear();
    this.revision++;
  }

  add(visit: Told, at: number): PlannedVisit {
    const { added } = this.change({ added: [visit] }, at);
    return this.get(added[0]!)!;
  }

  /** Told anew, with the next version. */
  replace(id: string, version: number, visit: Told, at: number): PlannedVisit {
    this.change({ laid: [{ id, version, visit }] }, at);
    return this.get(id)!;
  }

  remove(ids: readonly string[]): void {
    this.change({ removed: ids }, 0);
  }

  /**
   * Changes many at once.
   * @param at UTC milliseconds
   * @returns the ids of those that were added
   */
  change({ added = [], laid = [], removed = [] }: Changes, at: number): { added: string[] } {
    const rows = added.map((visit) => ({ id: randomUUID(), version: 1, ...visit, changedAt: at }));
    if (rows.length) this.db.insert(plannedVisits).values(rows).run();
    const anew = laid.map(({ id, version, visit }) => ({
      ...whole(plannedVisits, { ...visit, changedAt: at }),
      ...{ id, version: version + 1 },
    }));
    for (const { id, ...row } of anew) {
      this.db.update(plannedVisits).set(row).where(eq(plannedVisits.id, id)).run();
    }
    if (removed.length) {
      this.db
        .delete(plannedVisits)
        .where(inArray(plannedVisits.id, [...removed]))
        .run();
    }
    if (rows.length + anew.length + removed.length === 0) return { added: [] };
    // What is known is changed along: thousands are not read again for one.
    const gone = new Set([...removed, ...anew.map(({ id }) => id)]);
    const list = this.list().filter(({ id }) => !gone.has(id));
    const there = new Set(list.map(({ id }) => id));
    const changed = [...anew, ...rows]
      .filter(({ id }) => !there.has(id))
      .map((row) => toPlanned(row as Row));
    this.#known.set([...list, ...changed].sort(byDayAndId));
    this.revision++;
    return { added: rows.map(({ id }) => id) };
  }

  /** What the visits of a section were planned from. */
  basis(section: string): Basis | undefined {
    if (!this.#bases.has(section)) {
      const kept = this.db
        .select()
        .from(facts)
        .where(eq(facts.name, BASIS + section))
        .get()?.value;
      this.#bases.set(section, kept === undefined ? undefined : (JSON.parse(kept) as Basis));
    }
    return this.#bases.get(section);
  }

  setBasis(section: string, basis: Basis): void {
    const [name, value] = [BASIS + section, JSON.stringify(basis)];
    this.db
      .insert(facts)
      .values({ name, value })
      .onConflictDoUpdate({ target: facts.name, set: { value } })
      .run();
    this.#bases.set(section, basis);
  }

  /** Forgets what sections that are no more were planned from. */
  keepBases(sections: readonly string[]): void {
    const names = sections.map((one) => BASIS + one);
    this.db
      .delete(facts)
      .where(and(like(facts.name, `${BASIS}%`), notInArray(facts.name, names)))
      .run();
  }
}

/** As the file sorts them. */
function byDayAndId(a: PlannedVisit, b: PlannedVisit): number {
  if (a.day !== b.day) return a.day < b.day ? -1 : 1;
  return a.id < b.id ? -1 : 1;
}

interface Changes {
  added?: readonly Told[];
  laid?: readonly { id: string; version: number; visit: Told }[];
  removed?: readonly string[];
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
