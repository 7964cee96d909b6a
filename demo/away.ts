import type { AbsenceDraft } from '@needlecase/core/model/planned';
import { plusDays, type Day } from '@needlecase/core';

/** When nobody is at Kiln Lane House, by the calendar of any year: its first day, and how many days. */
const SPANS = [
  { first: '12-19', days: 16, note: 'Winter holidays' },
  { first: '03-26', days: 4, note: 'Regatta' },
  { first: '07-19', days: 21, note: 'Summer' },
] as const;

/** The days away within a year from a day on, in order. */
export function awayFrom(today: Day): AbsenceDraft[] {
  return SPANS.map(({ first, days, note }) => {
    const year = Number(today.slice(0, 4));
    // A span that has begun already is that of the next year.
    const from =
      `${year}-${first}` > plusDays(today, 2) ? `${year}-${first}` : `${year + 1}-${first}`;
    return { from, to: plusDays(from, days - 1), note };
  }).sort((a, b) => a.from.localeCompare(b.from));
}
