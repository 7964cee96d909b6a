import { dayOf, many, plusDays, sayDay } from '@needlecase/core';
import type { BusyAddress, BusyCalendar } from '@needlecase/core/model/planned';
import { NoCalendar } from '../calendar/read.js';
import type { May } from '../http/outgoing.js';
import { invalid, ProblemError } from '../http/problem.js';
import type { Store } from '../store/store.js';
import type { Cells } from '../threads/cells.js';
import { mustHaveRoom, MOST } from './ceilings.js';
import { householdOf } from './household.js';
import type { Told } from './house-watch.js';
import type { PlanAnswer } from './plan-answer.js';

/** Read for so long no more, a calendar of an address is told of, days. */
const LONG_DAYS = 2;

/** Calendars of others, read in as days on which nobody can: out of a file, or again each day from an address. */
export class BusyDays {
  constructor(
    private readonly store: Store,
    private readonly plan: PlanAnswer,
    private readonly cells: Cells,
    private readonly fetched: (address: string, may: May) => Promise<string>,
  ) {}

  /** @throws 422 beside the field where it cannot be read, or there is no room for one more */
  async take(text: string, from?: BusyAddress): Promise<BusyCalendar> {
    const { store } = this;
    const { zone } = householdOf(store);
    const span = this.plan.span();
    const field = from === undefined ? 'calendar' : 'address';
    const { name, days } = await this.cells.read('calendar', { text, ...span, zone, field }, field);
    return store.write(() => {
      const before = store.busy.list();
      if (!before.some((one) => one.name === name)) {
        mustHaveRoom(before.length, MOST.busy, 'calendars');
      }
      const kept = store.busy.keep({ name, days, readOn: span.from });
      store.busy.from(kept.id, from);
      store.changed({ topic: 'plan' });
      return kept;
    });
  }

  /** @throws 422 beside the field */
  async takeFrom(from: BusyAddress): Promise<BusyCalendar> {
    let text: string;
    try {
      text = await this.fetched(from.address, from.atHome ? 'home' : 'world');
    } catch (error) {
      if (!(error instanceof NoCalendar)) throw error;
      throw invalid([{ field: 'address', message: error.message }]);
    }
    return this.take(text, from);
  }

  /** Calendars of an address that were read for days no more, for the owners. @param now UTC milliseconds */
  trouble(now: number): Told | undefined {
    const household = this.store.household.get();
    if (!household) return undefined;
    const long = plusDays(dayOf(now, household.zone), -LONG_DAYS);
    const unread = this.store.busy
      .list()
      .filter(({ id, readOn }) => readOn < long && this.store.busy.addressOf(id) !== undefined);
    const [first] = unread;
    if (!first) return undefined;
    const { name, readOn } = first;
    const others = unread.length === 1 ? '' : ` ${many(unread.length - 1, 'other')} likewise.`;
    return {
      title: `The calendar “${name}” could not be read since ${sayDay(readOn)}.${others}`,
      detail:
        'Its days are those that were read last. Is its address still right, and may the server ask there? An address in your own network has to be allowed: add it again under Plan, and say that it is on your own network.',
    };
  }

  /** Reads those of an address again that were read before today; what cannot be read stays as it was. */
  async refresh(): Promise<void> {
    if (!this.store.household.get()) return;
    const today = this.plan.span().from;
    for (const { id, readOn } of this.store.busy.list()) {
      const from = this.store.busy.addressOf(id);
      if (from === undefined || readOn >= today) continue;
      await this.takeFrom(from).catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
      });
    }
  }
}
