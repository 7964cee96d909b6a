import { and, asc, eq, isNull } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Feed, FeedDraft } from '@needlecase/core/model/planned';
import type { Db } from '../db/open.js';
import { feeds } from '../db/tables.js';
import { defined } from '../store/defined.js';
import { digestOf, newSecret } from './secrets.js';

/** A reading is noted again after so long, ms. */
const SEEN_MS = 3_600_000;

type Row = typeof feeds.$inferSelect;

/** Addresses at which calendar programs read the visits: each belongs to a person, and can be taken back. */
export class Feeds {
  constructor(private readonly db: Db) {}

  /** @returns it, and the secret that its address ends with */
  make(draft: FeedDraft, personId: string | undefined): { feed: Feed; secret: string } {
    const secret = newSecret();
    const row = {
      ...{ id: randomUUID(), personId: personId ?? null, digest: digestOf(secret) },
      ...draft,
      madeAt: Date.now(),
    };
    this.db.insert(feeds).values(row).run();
    return { feed: this.get(row.id)!.feed, secret };
  }

  /** Those that hold. */
  list(): { feed: Feed; personId: string | null }[] {
    return this.db
      .select()
      .from(feeds)
      .where(isNull(feeds.revokedAt))
      .orderBy(asc(feeds.madeAt))
      .all()
      .map((row) => ({ feed: toFeed(row), personId: row.personId }));
  }

  get(id: string): { feed: Feed; personId: string | null } | undefined {
    const row = this.db.select().from(feeds).where(eq(feeds.id, id)).get();
    return row && { feed: toFeed(row), personId: row.personId };
  }

  /** The one of a secret that was not taken back. */
  bySecret(secret: string): { feed: Feed; personId: string | null } | undefined {
    const row = this.db
      .select()
      .from(feeds)
      .where(and(eq(feeds.digest, digestOf(secret)), isNull(feeds.revokedAt)))
      .get();
    if (!row) return undefined;
    if (Date.now() - (row.readAt ?? 0) > SEEN_MS) {
      this.db.update(feeds).set({ readAt: Date.now() }).where(eq(feeds.id, row.id)).run();
    }
    return { feed: toFeed(row), personId: row.personId };
  }

  revoke(id: string): void {
    this.db.update(feeds).set({ revokedAt: Date.now() }).where(eq(feeds.id, id)).run();
  }
}

const iso = (at: number | null): string | null => (at === null ? null : new Date(at).toISOString());

function toFeed({
  digest: _digest,
  personId: _person,
  madeAt,
  readAt,
  revokedAt,
  ...row
}: Row): Feed {
  return defined({
    ...row,
    madeAt: iso(madeAt),
    readAt: iso(readAt),
    revokedAt: iso(revokedAt),
  }) as Feed;
}
