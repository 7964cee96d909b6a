import { daysBetween, plusDays, weekdayOf, type Day } from '../units/calendar.js';

export const WEEK = 7;

/** Days on which nobody is at home, both counted. */
export interface Away {
  from: Day;
  to: Day;
}

/** Whether nobody is at home on a day. */
export const isAway = (away: readonly Away[], day: Day): boolean =>
  away.some(({ from, to }) => from <= day && day <= to);

/**
 * The weeks of a plan, Monday to Sunday as in the calendar, so that tomorrow's plan has the same ones: week 0 is what
 * is left of this one.
 */
export class PlanWeeks {
  /** The Monday of week 0. */
  readonly #monday: Day;
  /** The day of each week on which visits are; nothing where nobody is there or can work. */
  readonly days: readonly (Day | undefined)[];

  /**
   * @param count weeks
   * @param closed days on which nobody can, though somebody is at home
   * @param weekdays on which somebody can work, the dearest first: 1 Monday to 7 Sunday
   */
  constructor(
    readonly start: Day,
    readonly count: number,
    readonly weekdays: readonly number[],
    readonly away: readonly Away[],
    readonly closed: readonly Day[] = [],
  ) {
    this.#monday = plusDays(start, 1 - weekdayOf(start));
    this.days = Array.from({ length: count }, (_, week) => this.openDays(week)[0]);
  }

  /** The days of a week from today on. */
  daysIn(week: number): Day[] {
    return Array.from({ length: WEEK }, (_, day) =>
      plusDays(this.#monday, week * WEEK + day),
    ).filter((day) => day >= this.start);
  }

  /** Somebody is there and can work. */
  isOpen(day: Day): boolean {
    return (
      this.weekdays.includes(weekdayOf(day)) &&
      !isAway(this.away, day) &&
      !this.closed.includes(day)
    );
  }

  /** The days of a week on which visits may be, the dearest first. */
  openDays(week: number): Day[] {
    const days = this.daysIn(week);
    return this.weekdays.flatMap((weekday) =>
      days.filter((day) => weekdayOf(day) === weekday && this.isOpen(day)),
    );
  }

  /** The week of a day; below 0 before this one. */
  weekOf(day: Day): number {
    return Math.floor(daysBetween(this.#monday, day) / WEEK);
  }

  /** The day of a visit in a week; where nobody can work, the first on which somebody is there, or its last. */
  dayOf(week: number): Day {
    const days = this.daysIn(week);
    return (
      this.days[week] ?? days.find((day) => !isAway(this.away, day)) ?? days.at(-1) ?? this.start
    );
  }

  /** The last day of the plan. */
  get end(): Day {
    return plusDays(this.#monday, this.count * WEEK - 1);
  }
}
