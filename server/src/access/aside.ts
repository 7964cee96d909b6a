import { and, asc, count, eq, isNull, lt } from 'drizzle-orm';
import { createHash, randomUUID } from 'node:crypto';
import type { Request } from 'express';
import type { Aside } from '@needlecase/core/model/access';
import type { Db } from '../db/open.js';
import { devices, links, setAside } from '../db/tables.js';
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
/** Of one link: a technician has said what there was to say. */
const MOST_OF_LINK = 20;
const KEEP_MS = 180 * 86_400_000;

/** What waits, and the name of the device that sent it or of the one that the link is for. */
export type AsideRow = typeof setAside.$inferSelect & { from: string };

/** What a link's holder leaves: a deed of theirs, and the photo that it names. */
export interface Left {
  key: string;
  route: string;
  path: string;
  body: unknown;
  photo?: Buffer;
}

/**
 * What a device sent after it was taken out, and what somebody with a link left: set aside, once each, until a keeper
 * says whether it holds.
 */
export class SetAside {
  constructor(private readonly db: Db) {}

  /** Whether what is sent to a route is worth setting aside. */
  takes = (route: string): boolean => TAKEN.includes(route);

  /** @returns whether it is set aside; what cannot be stays on its device */
  keep(route: string, request: Request, caller: Caller): boolean {
    if (caller.by !== 'revoked' || !this.takes(route)) return false;
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

  /** @returns whether it is set aside; not where this link has left too much already */
  leave(linkId: string, left: Left): boolean {
    const mine = eq(setAside.linkId, linkId);
    const there = this.db.select({ n: count() }).from(setAside).where(mine).get()!.n;
    if (there >= MOST_OF_LINK) return this.#has(left.key);
    this.db
      .insert(setAside)
      .values({ id: randomUUID(), linkId, at: Date.now(), ...left })
      .onConflictDoNothing()
      .run();
    return true;
  }

  #has = (key: string): boolean =>
    this.db.select().from(setAside).where(eq(setAside.key, key)).get() !== undefined;

  list(): Aside[] {
    return this.#waiting().map(({ id, from, linkId, route, body, photo, at }) => ({
      id,
      from,
      byLink: linkId !== null,
      what: route.endsWith('undo') ? 'undo' : route.endsWith('cases') ? 'case' : 'entry',
      body,
      photo: photo !== null,
      at: new Date(at).toISOString(),
    }));
  }

  /** One that waits. */
  get(id: string): AsideRow | undefined {
    const [one] = this.#waiting(id);
    return one;
  }

  #waiting(id?: string): AsideRow[] {
    return this.db
      .select({ row: setAside, device: devices.name, forWhom: links.forWhom })
      .from(setAside)
      .leftJoin(devices, eq(devices.id, setAside.deviceId))
      .leftJoin(links, eq(links.id, setAside.linkId))
      .where(and(isNull(setAside.doneAt), id === undefined ? undefined : eq(setAside.id, id)))
      .orderBy(asc(setAside.at))
      .all()
      .map(({ row, device, forWhom }) => ({
        ...row,
        from: device ?? forWhom ?? 'a device no longer listed',
      }));
  }

  /** Said yes to, or let go; a photo is not kept twice. */
  done(id: string): void {
    this.db
      .update(setAside)
      .set({ doneAt: Date.now(), photo: null })
      .where(eq(setAside.id, id))
      .run();
  }

  forgetOld(): void {
    this.db
      .delete(setAside)
      .where(lt(setAside.at, Date.now() - KEEP_MS))
      .run();
  }
}
