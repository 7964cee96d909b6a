import { asc, eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { BusyAddress, BusyCalendar } from '@needlecase/core/model/planned';
import type { Db } from '../db/open.js';
import { busyCalendars, facts } from '../db/tables.js';

/** Under this the address of a calendar is kept, which may be a secret: it is in no backup. */
const factOf = (id: string): string => `busy-address ${id}`;
/** Stands before an address of which somebody said that it leads into the house's own network. */
const AT_HOME = 'at-home ';

/** Calendars that were read in: the days on which nobody can. */
export class BusyStore {
  constructor(private readonly db: Db) {}

  list(): BusyCalendar[] {
    return this.db.select().from(busyCalendars).orderBy(asc(busyCalendars.name)).all();
  }

  get(id: string): BusyCalendar | undefined {
    return this.db.select().from(busyCalendars).where(eq(busyCalendars.id, id)).get();
  }

  /** One of the same name takes the place of the one before. */
  keep(calendar: Omit<BusyCalendar, 'id' | 'version'>): BusyCalendar {
    const before = this.list().find(({ name }) => name === calendar.name);
    if (before) {
      this.db
        .update(busyCalendars)
        .set({ ...calendar, version: before.version + 1 })
        .where(eq(busyCalendars.id, before.id))
        .run();
      return this.get(before.id)!;
    }
    const id = randomUUID();
    this.db
      .insert(busyCalendars)
      .values({ id, version: 1, ...calendar })
      .run();
    return this.get(id)!;
  }

  /** Where a calendar is read again; nowhere where none is named. */
  from(id: string, from: BusyAddress | undefined): void {
    this.db
      .delete(facts)
      .where(eq(facts.name, factOf(id)))
      .run();
    if (from !== undefined) {
      this.db
        .insert(facts)
        .values({ name: factOf(id), value: `${from.atHome ? AT_HOME : ''}${from.address}` })
        .run();
    }
  }

  addressOf(id: string): BusyAddress | undefined {
    const kept = this.db
      .select()
      .from(facts)
      .where(eq(facts.name, factOf(id)))
      .get()?.value;
    if (kept === undefined) return undefined;
    return kept.startsWith(AT_HOME)
      ? { address: kept.slice(AT_HOME.length), atHome: true }
      : { address: kept };
  }

  remove(id: string): void {
    this.from(id, undefined);
    this.db.delete(busyCalendars).where(eq(busyCalendars.id, id)).run();
  }
}
