import { and, asc, eq, isNull, lt, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Link, LinkDraft, Token } from '@needlecase/core/model/access';
import type { Db } from '../db/open.js';
import { links, tokens } from '../db/tables.js';
import { defined } from '../store/defined.js';
import { digestOf, newSecret } from './secrets.js';

const DAY_MS = 86_400_000;
const LINK_LIFE_MS = 14 * DAY_MS;
const SEEN_MS = DAY_MS / 24;

const iso = (at: number | null): string | null => (at === null ? null : new Date(at).toISOString());

/** Tokens for scripts: each does what its scopes say, and nothing else. */
export class Tokens {
  constructor(private readonly db: Db) {}

  /** @param of the meter that it is of, which sends what it reads */
  make(draft: Pick<Token, 'name' | 'scopes'>, of?: string): Token {
    const secret = `needlecase_${newSecret()}`;
    const row = {
      ...{ id: randomUUID(), ...draft, meterId: of ?? null },
      ...{ digest: digestOf(secret), madeAt: Date.now() },
    };
    this.db.insert(tokens).values(row).run();
    return { ...toToken({ ...row, usedAt: null, revokedAt: null }), token: secret };
  }

  list(): Token[] {
    return this.db.select().from(tokens).orderBy(asc(tokens.madeAt)).all().map(toToken);
  }

  /** The one of a secret that was not taken back. */
  bySecret(secret: string): Token | undefined {
    const row = this.db
      .select()
      .from(tokens)
      .where(and(eq(tokens.digest, digestOf(secret)), isNull(tokens.revokedAt)))
      .get();
    if (!row) return undefined;
    if (Date.now() - (row.usedAt ?? 0) > SEEN_MS) {
      this.db.update(tokens).set({ usedAt: Date.now() }).where(eq(tokens.id, row.id)).run();
    }
    return toToken(row);
  }

  get(id: string): Token | undefined {
    const row = this.db.select().from(tokens).where(eq(tokens.id, id)).get();
    return row && toToken(row);
  }

  /** Takes every token of a meter back. */
  revokeOf(meterId: string): void {
    const own = this.list().filter((token) => token.meterId === meterId);
    for (const { id } of own) this.revoke(id);
  }

  revoke(id: string): void {
    this.db
      .update(tokens)
      .set({ revokedAt: Date.now() })
      .where(and(eq(tokens.id, id), isNull(tokens.revokedAt)))
      .run();
  }
}

function toToken(row: typeof tokens.$inferSelect): Token {
  const { digest: _digest, madeAt, usedAt, revokedAt, ...rest } = row;
  return defined({
    ...rest,
    madeAt: iso(madeAt),
    usedAt: iso(usedAt),
    revokedAt: iso(revokedAt),
  }) as Token;
}

/** Links that show one machine's record or one case, for a fortnight. */
export class Links {
  constructor(
    private readonly db: Db,
    private readonly now: () => number = () => Date.now(),
  ) {}

  /** @returns it, and the secret that its address ends with */
  make(draft: LinkDraft): { link: Link; secret: string } {
    const secret = newSecret();
    const now = this.now();
    const row = {
      id: randomUUID(),
      ...draft,
      notes: draft.notes ?? false,
      digest: digestOf(secret),
      madeAt: now,
      until: now + LINK_LIFE_MS,
      opened: 0,
    };
    this.db.insert(links).values(row).run();
    return { link: toLink({ ...row, openedAt: null, revokedAt: null }), secret };
  }

  list(): Link[] {
    return this.db.select().from(links).orderBy(asc(links.madeAt)).all().map(toLink);
  }

  get(id: string): Link | undefined {
    const row = this.db.select().from(links).where(eq(links.id, id)).get();
    return row && toLink(row);
  }

  /** The one of a secret, if it still shows anything. */
  bySecret(secret: string): Link | undefined {
    const row = this.db
      .select()
      .from(links)
      .where(and(eq(links.digest, digestOf(secret)), isNull(links.revokedAt)))
      .get();
    return row && row.until > this.now() ? toLink(row) : undefined;
  }

  opened(id: string): void {
    this.db
      .update(links)
      .set({ opened: sql`${links.opened} + 1`, openedAt: this.now() })
      .where(eq(links.id, id))
      .run();
  }

  revoke(id: string): void {
    this.db
      .update(links)
      .set({ revokedAt: this.now() })
      .where(and(eq(links.id, id), isNull(links.revokedAt)))
      .run();
  }

  /** Those that ended more than half a year ago. */
  forgetOld(): void {
    this.db
      .delete(links)
      .where(lt(links.until, this.now() - 180 * DAY_MS))
      .run();
  }
}

function toLink(row: typeof links.$inferSelect): Link {
  const { digest: _digest, madeAt, until, openedAt, revokedAt, ...rest } = row;
  return defined({
    ...rest,
    madeAt: iso(madeAt),
    until: iso(until),
    openedAt: iso(openedAt),
    revokedAt: iso(revokedAt),
  }) as Link;
}
