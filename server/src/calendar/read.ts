import ICAL from 'ical.js';
import { daysBetween, plusDays, type Day } from '@needlecase/core';

/** A calendar of more than this is not one that a person keeps. Bytes. */
export const MOST_CALENDAR = 2_000_000;
/** So much of a day taken, and nobody can. Hours. */
const TAKEN_HOURS = 4;
/** Times of one event that are looked through, from whenever it began. */
const MOST_TIMES = 60_000;
/** Steps from one time that an event may have to the next, in a whole calendar: a rule may ask for days that are none. */
const MOST_STEPS = 150_000;
/** Events that a person has in a lifetime. */
const MOST_EVENTS = 20_000;

/** Why a text is no calendar, in words. */
export class NoCalendar extends Error {}

/** A calendar that was read. */
export interface ReadCalendar {
  name: string;
  days: Day[];
}

/** As `busyDays`, with what the calendar is called. @throws NoCalendar */
export const readCalendar = (text: string, from: Day, to: Day, zone: string): ReadCalendar => ({
  name: /^X-WR-CALNAME:(.+)$/m.exec(text)?.[1]?.trim().slice(0, 80) ?? 'A calendar',
  days: busyDays(text, from, to, zone),
});

/** What the library goes from step to step with; it has no end of its own for a rule that nothing fits. */
const STEPS = {
  check_contracting_rules: 1,
  increment_month: 1,
  /** A year that is laid out takes as long as so many steps. */
  expand_year_days: 50,
} as const;
type Stepping = Record<keyof typeof STEPS, (this: unknown, ...given: unknown[]) => unknown>;

/** Counts the steps of whatever recurs while some work is done, and ends it when there are too many. */
function inSteps<T>(work: () => T): T {
  const stepping = ICAL.RecurIterator.prototype as unknown as Stepping;
  const own = pick(stepping);
  let left = MOST_STEPS;
  for (const name of Object.keys(STEPS) as (keyof typeof STEPS)[]) {
    stepping[name] = function (...given) {
      left -= STEPS[name];
      if (left < 0) throw new NoCalendar('An event in this calendar comes too often to be read.');
      return own[name].apply(this, given);
    };
  }
  try {
    return work();
  } finally {
    Object.assign(stepping, own);
  }
}

const pick = (from: Stepping): Stepping =>
  Object.fromEntries(
    (Object.keys(STEPS) as (keyof typeof STEPS)[]).map((name) => [name, from[name]]),
  ) as Stepping;

/**
 * The days of a calendar on which nobody can: whole days, and such as are taken for four hours or more. What was
 * cancelled, or takes no time, counts nothing.
 * @param from the first day that is looked at
 * @param to the last
 * @param zone whose days they are
 * @throws NoCalendar
 */
export function busyDays(text: string, from: Day, to: Day, zone: string): Day[] {
  let calendar: ICAL.Component;
  try {
    calendar = new ICAL.Component(ICAL.parse(text) as unknown[]);
  } catch {
    throw new NoCalendar('This is no calendar file (.ics).');
  }
  if (calendar.name !== 'vcalendar') throw new NoCalendar('This is no calendar file (.ics).');
  const hours = new Map<Day, number>();
  const add = (day: Day, more: number) => hours.set(day, (hours.get(day) ?? 0) + more);
  for (const zoned of calendar.getAllSubcomponents('vtimezone')) {
    ICAL.TimezoneService.register(zoned);
  }
  const events = calendar.getAllSubcomponents('vevent');
  if (events.length > MOST_EVENTS) {
    throw new NoCalendar(`This calendar has more than ${MOST_EVENTS} events.`);
  }
  const taken = (): void => {
    for (const component of events) {
      if (component.getFirstPropertyValue('status') === 'CANCELLED') continue;
      if (component.getFirstPropertyValue('transp') === 'TRANSPARENT' && !isWholeDay(component)) {
        continue;
      }
      for (const { start, end } of timesOf(component, from, to)) {
        spread(start, end, zone, (day, more) => {
          if (day >= from && day <= to) add(day, more);
        });
      }
    }
  };
  try {
    inSteps(taken);
  } catch (error) {
    if (error instanceof NoCalendar) throw error;
    throw new NoCalendar('An event in this calendar cannot be read.');
  } finally {
    ICAL.TimezoneService.reset();
  }
  return [...hours].flatMap(([day, taken]) => (taken >= TAKEN_HOURS ? [day] : [])).sort();
}

const isWholeDay = (component: ICAL.Component): boolean =>
  (component.getFirstPropertyValue('dtstart') as ICAL.Time | null)?.isDate ?? false;

function* timesOf(
  component: ICAL.Component,
  from: Day,
  to: Day,
): Generator<{ start: ICAL.Time; end: ICAL.Time }> {
  const event = new ICAL.Event(component);
  if (!event.startDate) return;
  if (!event.isRecurring()) {
    yield { start: event.startDate, end: event.endDate };
    return;
  }
  const lasts = Math.min(MOST_DAYS, Math.ceil(event.duration.toSeconds() / 86_400) + 1);
  const longBefore = plusDays(from, -(MOST_DAYS + lasts));
  const times = event.iterator();
  for (let n = 0; n < MOST_TIMES; n++) {
    const next = times.next() as ICAL.Time | undefined;
    if (!next || dateOf(next) > to) return;
    // Long before the days that are looked at, only the times are gone through.
    if (dateOf(next) < longBefore) continue;
    // The library’s types leave the details open.
    const details = event.getOccurrenceDetails(next) as {
      startDate: ICAL.Time;
      endDate: ICAL.Time;
    };
    const { startDate: start, endDate: end } = details;
    if (dateOf(end) >= from) yield { start, end };
  }
  throw new NoCalendar('An event in this calendar comes too often to be read.');
}

/** No event takes longer; one that is moved by hand is not moved further. Days. */
const MOST_DAYS = 800;

const dateOf = ({ year, month, day }: ICAL.Time): Day =>
  `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;

/** The hours of each day that a span takes. */
function spread(
  start: ICAL.Time,
  end: ICAL.Time,
  zone: string,
  add: (day: Day, hours: number) => void,
): void {
  if (start.isDate) {
    const last = dateOf(end) > dateOf(start) ? plusDays(dateOf(end), -1) : dateOf(start);
    const days = Math.min(MOST_DAYS, daysBetween(dateOf(start), last));
    for (let i = 0; i <= days; i++) add(plusDays(dateOf(start), i), 24);
    return;
  }
  const [a, b] = [local(start, zone), local(end, zone)];
  for (let day = a.day, n = 0; day <= b.day && n < MOST_DAYS; day = plusDays(day, 1), n++) {
    const begins = day === a.day ? a.hour : 0;
    const ends = day === b.day ? b.hour : 24;
    if (ends > begins) add(day, ends - begins);
  }
}

function local(time: ICAL.Time, zone: string): { day: Day; hour: number } {
  // A time without a zone is meant where one is.
  if (time.zone === ICAL.Timezone.localTimezone) {
    return { day: dateOf(time), hour: time.hour + time.minute / 60 };
  }
  const parts = new Intl.DateTimeFormat('en-CA', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
  }).formatToParts(new Date(time.toUnixTime() * 1000));
  const of = (type: string) => parts.find((part) => part.type === type)!.value;
  return {
    day: `${of('year')}-${of('month')}-${of('day')}`,
    hour: Number(of('hour')) + Number(of('minute')) / 60,
  };
}
