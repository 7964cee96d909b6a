import { many } from './many.js';

/* Calendar dates by themselves: no time zone, and so nothing that knows of them. */

/** A calendar date in the household's zone, `YYYY-MM-DD`. */
export type Day = string;
/** In the mean of the calendar's four years. */
export const DAYS_PER_MONTH = 30.4375;
export const MS_PER_DAY = 86_400_000;

/** Whole days from one date to another; negative when the second is earlier. */
export function daysBetween(from: Day, to: Day): number {
  return serialOf(to) - serialOf(from);
}

/** Dates met so far, both ways; writing and reading them anew is what takes time. */
const DAYS = new Map<number, Day>();
const SERIALS = new Map<Day, number>();
/** So many are kept at hand. */
export const REMEMBERED_DAYS = 50_000;

/** Whole days from 1 January 1970 to a date. */
function serialOf(day: Day): number {
  const known = SERIALS.get(day);
  if (known !== undefined) return known;
  const serial = Math.round(Date.parse(`${day}T00:00:00Z`) / MS_PER_DAY);
  if (SERIALS.size >= REMEMBERED_DAYS) SERIALS.clear();
  SERIALS.set(day, serial);
  return serial;
}

/** The date so many whole days after 1 January 1970. */
export function dayAt(serial: number): Day {
  const known = DAYS.get(serial);
  if (known !== undefined) return known;
  const day = new Date(serial * MS_PER_DAY).toISOString().slice(0, 10);
  if (DAYS.size >= REMEMBERED_DAYS) DAYS.clear();
  DAYS.set(serial, day);
  return day;
}

/** A date so many days later (whole days, may be negative). */
export const plusDays = (day: Day, days: number): Day => dayAt(serialOf(day) + days);

/** The earliest of some calendar dates. */
export const earliest = (...days: Day[]): Day => days.reduce((a, b) => (a < b ? a : b));

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

/** `3 September`, with the year where it is not the year of `today`. */
export function sayDay(day: Day, today?: Day): string {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number];
  const said = `${date} ${MONTHS[month - 1]}`;
  return today?.startsWith(String(year)) ? said : `${said} ${year}`;
}

const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

/** The day of the week: 1 Monday to 7 Sunday. The first of January 1970 was a Thursday. */
export const weekdayOf = (day: Day): number => ((((serialOf(day) + 3) % 7) + 7) % 7) + 1;

/** `Sat 3 September`, without the year. */
export const sayWeekday = (day: Day): string =>
  `${WEEKDAYS[weekdayOf(day) - 1]!.slice(0, 3)} ${sayDay(day, day)}`;

/** `Saturday 3 September`, without the year. */
export const sayLongDay = (day: Day): string =>
  `${WEEKDAYS[weekdayOf(day) - 1]!} ${sayDay(day, day)}`;

/** `today`, `in 3 days`, `5 weeks ago`: how far off a date is. */
export function sayDistance(day: Day, today: Day): string {
  const days = daysBetween(today, day);
  if (days === 0) return 'today';
  if (days === 1) return 'tomorrow';
  if (days === -1) return 'yesterday';
  const span = sayDays(Math.abs(days));
  return days > 0 ? `in ${span}` : `${span} ago`;
}

const DAYS_PER_YEAR = 365.25;

/** Years from one day to a later one. */
export const yearsBetween = (from: Day, to: Day): number => daysBetween(from, to) / DAYS_PER_YEAR;

/** A number of days in the unit people would use. */
export function sayDays(days: number): string {
  if (days < 21) return many(days, 'day');
  if (days < 70) return many(Math.round(days / 7), 'week');
  if (days < 730) return many(Math.round(days / DAYS_PER_MONTH), 'month');
  return many(Math.round(days / DAYS_PER_YEAR), 'year');
}
