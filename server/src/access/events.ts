import { desc, lt } from 'drizzle-orm';
import type { AccessEvent } from '@needlecase/core/model/access';
import type { Db } from '../db/open.js';
import { accessEvents } from '../db/tables.js';
import { defined } from '../store/defined.js';

const KEEP_MS = 180 * 86_400_000;
const MOST = 500;

/** What can happen, in the words that are shown. */
export type Happening =
  | 'paired'
  | 'signed in'
  | 'turned away'
  | 'signed out'
  | 'device taken out'
  | 'person added'
  | 'person changed'
  | 'person taken out'
  | 'pass phrase set'
  | 'pass phrase taken away'
  | 'passkey made'
  | 'passkey taken away'
  | 'code made'
  | 'token made'
  | 'token taken back'
  | 'link made'
  | 'calendar made'
  | 'calendar taken back'
  | 'link opened'
  | 'link taken back'
  | 'address laid down'
  | 'note left by a link'
  | 'taken in'
  | 'let go';

/** Who came in, who was turned away, what was given and taken back: kept for 180 days. */
export class AccessEvents {
  constructor(private readonly db: Db) {}

  note(
    what: Happening,
    more: { personId?: string | undefined; device?: string | undefined; more?: string } = {},
  ): void {
    this.db
      .insert(accessEvents)
      .values({ at: Date.now(), what, ...defined(more) })
      .run();
  }

  /** The newest first. */
  list(): AccessEvent[] {
    return this.db
      .select()
      .from(accessEvents)
      .orderBy(desc(accessEvents.number))
      .limit(MOST)
      .all()
      .map(({ number: _number, at, ...rest }) => ({
        ...defined(rest),
        at: new Date(at).toISOString(),
      }));
  }

  forgetOld(): void {
    this.db
      .delete(accessEvents)
      .where(lt(accessEvents.at, Date.now() - KEEP_MS))
      .run();
  }
}
