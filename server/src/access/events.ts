import { and, desc, eq, lt, lte, notInArray, type SQL } from 'drizzle-orm';
import type { AccessEvent } from '@needlecase/core/model/access';
import type { Db } from '../db/open.js';
import { accessEvents } from '../db/tables.js';
import { defined } from '../store/defined.js';

const KEEP_MS = 180 * 86_400_000;
const MOST = 500;
/** What people without any right can bring about as often as they like: it pushes nothing else out of the list. */
const BY_STRANGERS: readonly Happening[] = ['turned away', 'note left by a link'];
const MOST_BY_STRANGERS = 200;

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
    if (BY_STRANGERS.includes(what)) this.#letGo(what);
  }

  /** Of what strangers bring about only the newest are kept. */
  #letGo(what: Happening): void {
    const oldest = this.db
      .select({ number: accessEvents.number })
      .from(accessEvents)
      .where(eq(accessEvents.what, what))
      .orderBy(desc(accessEvents.number))
      .limit(1)
      .offset(MOST_BY_STRANGERS)
      .get();
    if (!oldest) return;
    this.db
      .delete(accessEvents)
      .where(and(eq(accessEvents.what, what), lte(accessEvents.number, oldest.number)))
      .run();
  }

  /** The newest first. */
  list(): AccessEvent[] {
    const ours = this.#newest(notInArray(accessEvents.what, [...BY_STRANGERS]), MOST);
    const theirs = BY_STRANGERS.flatMap((what) =>
      this.#newest(eq(accessEvents.what, what), MOST_BY_STRANGERS),
    );
    return [...ours, ...theirs]
      .toSorted((a, b) => b.number - a.number)
      .map(({ number: _number, at, ...rest }) => ({
        ...defined(rest),
        at: new Date(at).toISOString(),
      }));
  }

  #newest(which: SQL, most: number) {
    return this.db
      .select()
      .from(accessEvents)
      .where(which)
      .orderBy(desc(accessEvents.number))
      .limit(most)
      .all();
  }

  forgetOld(): void {
    this.db
      .delete(accessEvents)
      .where(lt(accessEvents.at, Date.now() - KEEP_MS))
      .run();
  }
}
