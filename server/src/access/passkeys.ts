import { and, asc, eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Passkey } from '@needlecase/core/model/access';
import type { Db } from '../db/open.js';
import { passkeys } from '../db/tables.js';
import { defined } from '../store/defined.js';

/** So long one looks for one's finger. */
const CHALLENGE_MS = 5 * 60_000;
const MOST_CHALLENGES = 500;

export type PasskeyRow = typeof passkeys.$inferSelect;

/** Challenges that were given out: each is answered once, for what it was given for. */
export class Challenges {
  readonly #open = new Map<string, { until: number; of: string }>();

  constructor(private readonly now: () => number = () => Date.now()) {}

  /** @param of what it was given for */
  give(challenge: string, of: string): void {
    for (const [one, { until }] of this.#open) if (until < this.now()) this.#open.delete(one);
    // Whoever asks for many only shortens the time of the oldest.
    const [oldest] = this.#open.keys();
    if (this.#open.size >= MOST_CHALLENGES) this.#open.delete(oldest!);
    this.#open.set(challenge, { until: this.now() + CHALLENGE_MS, of });
  }

  /** @returns whether it was given for that, lately, and was not answered yet */
  take(challenge: string, of: string): boolean {
    const given = this.#open.get(challenge);
    this.#open.delete(challenge);
    return given !== undefined && given.of === of && given.until >= this.now();
  }
}

/** Keys of persons' own devices. */
export class Passkeys {
  readonly challenges = new Challenges();

  constructor(private readonly db: Db) {}

  add(row: Omit<PasskeyRow, 'id' | 'madeAt' | 'usedAt'>): Passkey {
    const kept = { ...row, id: randomUUID(), madeAt: Date.now(), usedAt: null };
    this.db.insert(passkeys).values(kept).run();
    return toPasskey(kept);
  }

  /** @param personId those of all where nobody is named */
  list(personId?: string): Passkey[] {
    return this.rows(personId).map(toPasskey);
  }

  rows(personId?: string): PasskeyRow[] {
    return this.db
      .select()
      .from(passkeys)
      .where(personId === undefined ? undefined : eq(passkeys.personId, personId))
      .orderBy(asc(passkeys.madeAt))
      .all();
  }

  byCredential(credential: string): PasskeyRow | undefined {
    return this.db.select().from(passkeys).where(eq(passkeys.credential, credential)).get();
  }

  get(id: string): PasskeyRow | undefined {
    return this.db.select().from(passkeys).where(eq(passkeys.id, id)).get();
  }

  /** @param counter as the key told it: one that goes back is a copy's */
  used(id: string, counter: number): void {
    this.db.update(passkeys).set({ counter, usedAt: Date.now() }).where(eq(passkeys.id, id)).run();
  }

  remove(id: string, personId: string): void {
    this.db
      .delete(passkeys)
      .where(and(eq(passkeys.id, id), eq(passkeys.personId, personId)))
      .run();
  }

  removeAllOf(personId: string): void {
    this.db.delete(passkeys).where(eq(passkeys.personId, personId)).run();
  }
}

function toPasskey({ id, personId, name, madeAt, usedAt }: PasskeyRow): Passkey {
  return defined({
    id,
    personId,
    name,
    madeAt: new Date(madeAt).toISOString(),
    usedAt: usedAt === null ? null : new Date(usedAt).toISOString(),
  });
}
