import type { BusyCalendar } from '@needlecase/core/model/planned';
import { calendarOf } from '@needlecase/core/plan/ahead';
import { fetchCalendar } from '../calendar/fetch.js';
import { busyDays } from '../calendar/read.js';
import type { Store } from '../store/store.js';
import { mustHaveRoom, MOST } from './ceilings.js';
import { householdOf } from './household.js';
import type { PlanAnswer } from './plan-answer.js';

/** Calendars of others, read in as days on which nobody can: out of a file, or again each day from an address. */
export class BusyDays {
  constructor(
    private readonly store: Store,
    private readonly plan: PlanAnswer,
  ) {}

  /** @throws NoCalendar, 422 where there is no room for one more */
  take(text: string, address?: string): BusyCalendar {
    const { store } = this;
    const { zone } = householdOf(store);
    const problem = this.plan.problem();
    const days = busyDays(text, problem.start, calendarOf(problem).end, zone);
    const name = /^X-WR-CALNAME:(.+)$/m.exec(text)?.[1]?.trim().slice(0, 80) ?? 'A calendar';
    return store.write(() => {
      const before = store.busy.list();
      if (!before.some((one) => one.name === name)) {
        mustHaveRoom(before.length, MOST.busy, 'calendars');
      }
      const kept = store.busy.keep({ name, days, readOn: problem.start });
      store.busy.from(kept.id, address);
      store.changed({ topic: 'plan' });
      return kept;
    });
  }

  /** @throws NoCalendar */
  async takeFrom(address: string): Promise<BusyCalendar> {
    return this.take(await fetchCalendar(address), address);
  }

  /** Reads those of an address again that were read before today; what cannot be read stays as it was. */
  async refresh(): Promise<void> {
    if (!this.store.household.get()) return;
    const today = this.plan.problem().start;
    for (const { id, readOn } of this.store.busy.list()) {
      const address = this.store.busy.addressOf(id);
      if (address === undefined || readOn >= today) continue;
      await this.takeFrom(address).catch(() => undefined);
    }
  }
}
