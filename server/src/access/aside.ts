import { and, asc, count, eq, isNull, lt } from 'drizzle-orm';
import { createHash, randomUUID } from 'node:crypto';
import type { Request } from 'express';
import type { Aside } from '@needlecase/core/model/access';
import type { Db } from '../db/open.js';
import { setAside } from '../db/tables.js';
import type { Caller } from './caller.js';

/** What leaves a device by itself when it finds the server: work noted in the cellar, trouble told. */
const TAKEN: readonly string[] = [
  'post /api/v1/entries',
  'post /api/v1/entries/{id}/undo',
  'post /api/v1/cases',
];
/** A device that was taken out may be in wrong hands: it fills nothing. */
const MOST_OF_ONE = 200;
const MOST_LETTERS = 20_000;
const KEEP_MS = 180 * 86_400_000;

/** What a device sent after it was taken out: set aside, once each, until a keeper says whether it holds. */
export class SetAside {
  constructor(private readonly db: Db) {}

  /** @returns whether it is set aside; what cannot be stays on its device */
  keep(route: string, request: Request, caller: Caller): boolean {
    if (caller.by !== 'revoked' || !TAKEN.includes(route)) return false;
    const { path } = request;
    const body = (request.body ?? null) as unknown;
    const text = JSON.stringify(body);
    if (text.length > MOST_LETTERS) return false;
    const key =
      request.get('Idempotency-Key') ??
      createHash('sha256')
        .update(path + text)
        .digest('hex');
    const { id: deviceId } = caller.device;
    const mine = eq(setAside.deviceId, deviceId);
    const there = this.db.select({ n: count() }).from(setAside).where(mine).get()!.n;
    if (there >= MOST_OF_ONE) return this.#has(key);
    this.db
      .insert(setAside)
      .values({ id: randomUUID(), deviceId, key, route, path, body, at: Date.now() })
      .onConflictDoNothing()
      .run();
    return true;
  }

  #has = (key: string): boolean =>
    this.db.select().from(setAside).where(eq(setAside.key, key)).get() !== undefined;

  list(): Aside[] {
    return this.db
      .select()
      .from(setAside)
      .where(isNull(setAside.doneAt))
      .orderBy(asc(setAside.at))
      .all()
      .map(({ id, deviceId, route, body, at }) => ({
        id,
        deviceId,
        what: route.endsWith('undo') ? 'undo' : route.endsWith('cases') ? 'case' : 'entry',
        body,
        at: new Date(at).toISOString(),
      }));
  }

  /** One that waits. */
  get(id: string): typeof setAside.$inferSelect | undefined {
    return this.db
      .select()
      .from(setAside)
      .where(and(eq(setAside.id, id), isNull(setAside.doneAt)))
      .get();
  }

  done(id: string): void {
    this.db.update(setAside).set({ doneAt: Date.now() }).where(eq(setAside.id, id)).run();
  }

  forgetOld(): void {
    this.db
      .delete(setAside)
      .where(lt(setAside.at, Date.now() - KEEP_MS))
      .run();
  }
}
