import { Temporal } from 'temporal-polyfill';
import { dayAt, MS_PER_DAY, REMEMBERED_DAYS, type Day } from './days.js';

export * from './days.js';

/**
 * The calendar date of an instant in a time zone.
 * @param instant UTC instant, milliseconds since 1970
 * @param zone IANA name
 */
export function dayOf(instant: number, zone: string): Day {
  return dayAt(Math.floor((instant + offsetAt(instant, zone)) / MS_PER_DAY));
}

/**
 * An instant by the clock of a zone, to the second, with its offset from UTC.
 * @param instant UTC milliseconds @param zone IANA name
 * @example localInstant(Date.parse('2026-11-27T20:19:00Z'), 'Europe/Vienna') // '2026-11-27T21:19:00+01:00'
 */
export function localInstant(instant: number, zone: string): string {
  const offset = offsetAt(instant, zone);
  const wall = new Date(instant + offset).toISOString().slice(0, 19);
  const minutes = Math.round(Math.abs(offset) / 60_000);
  const two = (value: number): string => String(value).padStart(2, '0');
  return `${wall}${offset < 0 ? '-' : '+'}${two(Math.floor(minutes / 60))}:${two(minutes % 60)}`;
}

/** A stretch of time over which a zone's offset from UTC stays the same, milliseconds. */
interface Span {
  from: number;
  to: number;
  offset: number;
}

/** Stretches met so far, the latest used first; asking Temporal anew for each date is slow. */
const SPANS = new Map<string, Span[]>();

function offsetAt(instant: number, zone: string): number {
  const spans = SPANS.get(zone) ?? [];
  const at = spans.findIndex(({ from, to }) => instant >= from && instant < to);
  if (at === 0) return spans[0]!.offset;
  const span = at > 0 ? spans.splice(at, 1)[0]! : spanAt(instant, zone);
  spans.unshift(span);
  SPANS.set(zone, spans);
  return span.offset;
}

function spanAt(instant: number, zone: string): Span {
  const local = Temporal.Instant.fromEpochMilliseconds(instant).toZonedDateTimeISO(zone);
  const after = local.getTimeZoneTransition('next');
  const before = local.add({ nanoseconds: 1 }).getTimeZoneTransition('previous');
  return {
    from: before?.epochMilliseconds ?? -Infinity,
    to: after?.epochMilliseconds ?? Infinity,
    offset: local.offsetNanoseconds / 1e6,
  };
}

/** First instant of a calendar date in a zone, milliseconds. */
export function startOf(day: Day, zone: string): number {
  return Temporal.PlainDate.from(day).toZonedDateTime(zone).epochMilliseconds;
}

const MONTHS_ON = new Map<string, Day>();

/** A date so many calendar months later; the 31st becomes the last of a shorter month. */
export function plusMonths(day: Day, months: number): Day {
  const key = `${day}+${months}`;
  const known = MONTHS_ON.get(key);
  if (known !== undefined) return known;
  const later = Temporal.PlainDate.from(day).add({ months }).toString();
  if (MONTHS_ON.size >= REMEMBERED_DAYS) MONTHS_ON.clear();
  MONTHS_ON.set(key, later);
  return later;
}

/** The week of a day by ISO 8601, as `2026-W53`: it begins on Monday, and is of the year of its Thursday. */
export function weekOf(day: Day): string {
  const { weekOfYear, yearOfWeek } = Temporal.PlainDate.from(day);
  return `${yearOfWeek}-W${String(weekOfYear).padStart(2, '0')}`;
}

/** Whether this is a time zone that can be reckoned with. */
export function isZone(zone: string): boolean {
  try {
    Temporal.Now.zonedDateTimeISO(zone);
    return true;
  } catch {
    return false;
  }
}

/**
 * The instants at which a zone's clocks show a time: one; two in the hour that comes twice in autumn, the earlier first.
 * Of the hour that never is in spring, the one that goes on from before it.
 * @param wall milliseconds as if the time shown were UTC
 */
export function instantsOf(wall: number, zone: string): number[] {
  const near = [offsetAt(wall - MS_PER_DAY, zone), offsetAt(wall + MS_PER_DAY, zone)];
  const shown = [...new Set(near)].filter((offset) => offsetAt(wall - offset, zone) === offset);
  if (!shown.length) return [wall - near[0]!];
  return shown.map((offset) => wall - offset).sort((a, b) => a - b);
}
