import { asc, eq, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Person, PersonDraft } from '@needlecase/core/model/access';
import type { Db } from '../db/open.js';
import { persons } from '../db/tables.js';
import { Remembered } from './remembered.js';

/** The people of the household. */
export class PersonStore {
  readonly #known: Remembered<readonly Person[]>;

  constructor(private readonly db: Db) {
    this.#known = new Remembered(() =>
      db.select().from(persons).orderBy(asc(persons.position)).all().map(toPerson),
    );
  }

  list(): Person[] {
    return [...this.#known.get()];
  }

  forget(): void {
    this.#known.forget();
  }

  get(id: string): Person | undefined {
    return this.#known.get().find((one) => one.id === id);
  }

  create(draft: PersonDraft, id: string = randomUUID()): Person {
    const { next } = this.db
      .select({ next: sql<number>`coalesce(max(${persons.position}) + 1, 0)` })
      .from(persons)
      .get()!;
    this.forget();
    this.db
      .insert(persons)
      .values({ id, version: 1, position: next, ...draft })
      .run();
    return this.get(id)!;
  }

  replace(id: string, version: number, draft: PersonDraft): Person {
    this.forget();
    this.db
      .update(persons)
      .set({ ...draft, version: version + 1 })
      .where(eq(persons.id, id))
      .run();
    return this.get(id)!;
  }

  remove(id: string): void {
    this.forget();
    this.db.delete(persons).where(eq(persons.id, id)).run();
  }

  /** The digest of a person's pass phrase. */
  passphraseOf(id: string): string | undefined {
    const row = this.db.select().from(persons).where(eq(persons.id, id)).get();
    return row?.passphrase ?? undefined;
  }

  /** @param digest nothing takes it away */
  setPassphrase(id: string, digest: string | undefined): void {
    this.forget();
    this.db
      .update(persons)
      .set({ passphrase: digest ?? null })
      .where(eq(persons.id, id))
      .run();
  }
}

export function toPerson(row: typeof persons.$inferSelect): Person {
  const { position: _position, passphrase, ...rest } = row;
  return { ...rest, passphrase: passphrase !== null };
}
