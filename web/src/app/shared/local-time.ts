import { Temporal } from 'temporal-polyfill';

/** An instant as a date-and-time field shows it, `2026-03-01T09:30`, in a zone. */
export function toLocal(instant: string, zone: string): string {
  return Temporal.Instant.from(instant)
    .toZonedDateTimeISO(zone)
    .toPlainDateTime()
    .toString({ smallestUnit: 'minute' });
}

/** The instant of a date-and-time field in a zone; undefined when the field is not filled. */
export function fromLocal(local: string, zone: string): string | undefined {
  try {
    return Temporal.PlainDateTime.from(local).toZonedDateTime(zone).toInstant().toString();
  } catch {
    return undefined;
  }
}
