import ical, { ICalAlarmType, ICalCalendarMethod, ICalEventStatus } from 'ical-generator';
import { Temporal } from 'temporal-polyfill';
import { tzlib_get_ical_block } from 'timezones-ical-library';
import { many, type Day } from '@needlecase/core';
import type { FeedDraft } from '@needlecase/core/model/planned';
import type { PlannedVisitView, HousePlan } from '@needlecase/core/views/plan';

/** When visits begin where nobody said. */
const USUAL = '10:00';
/** Nothing in a calendar is shorter, minutes: a line of no height cannot be read. */
const SHORTEST = 15;
/** Reminders of the evening before are at this hour. */
const EVENING = 19;

type Reminders = Pick<FeedDraft, 'evening' | 'begins'>;

/** What is written into a calendar. */
export interface Written {
  view: HousePlan;
  /** Without a slash at its end: where the visits are to be opened. */
  address: string;
  /** When each was changed last, by its id. */
  changed: ReadonlyMap<string, string>;
  reminders: Reminders;
}

interface Told {
  uid: string;
  sequence: number;
  day: Day;
  minutes: number;
  title: string;
  text: string;
  place?: string;
  url: string;
  status: ICalEventStatus;
  changedAt: string;
  categories: string[];
}

/**
 * The visits of the year ahead as a calendar (RFC 5545): each under a name of its own that it keeps, numbered higher
 * with each change, in the household's zone with its rules of summer time.
 * @param only one visit
 */
export function writeCalendar(written: Written, only?: string): string {
  const { view, reminders } = written;
  const { zone, name } = view.household;
  const vtimezone = tzlib_get_ical_block(zone)[0];
  const calendar = ical({
    name: `${name}: laundry care`,
    prodId: { company: 'Needlecase', product: 'Plan' },
    ...(only ? {} : { method: ICalCalendarMethod.PUBLISH }),
    ...(vtimezone ? { timezone: { name: zone, generator: () => vtimezone } } : { timezone: null }),
  });
  for (const one of told(written)) {
    if (only && one.uid !== only) continue;
    const start = Temporal.PlainDateTime.from(`${one.day}T${view.household.plan?.at ?? USUAL}`);
    const end = start.add({ minutes: Math.max(SHORTEST, Math.round(one.minutes)) });
    const at = (time: Temporal.PlainDateTime) =>
      vtimezone ? time.toString() : new Date(time.toZonedDateTime(zone).epochMilliseconds);
    const event = calendar.createEvent({
      id: one.uid,
      sequence: one.sequence,
      start: at(start),
      end: at(end),
      stamp: new Date(one.changedAt),
      lastModified: new Date(one.changedAt),
      summary: one.title,
      description: one.text,
      url: one.url,
      status: one.status,
      categories: one.categories.map((category) => ({ name: category })),
      ...(vtimezone ? { timezone: zone } : {}),
      ...(one.place ? { location: one.place } : {}),
    });
    if (one.status === ICalEventStatus.CANCELLED) continue;
    if (reminders.begins) {
      event.createAlarm({ type: ICalAlarmType.display, trigger: 0, description: one.title });
    }
    if (reminders.evening) {
      const evening = start.subtract({ days: 1 }).with({ hour: EVENING, minute: 0 });
      const before = start.since(evening, { largestUnit: 'seconds' }).seconds;
      event.createAlarm({ type: ICalAlarmType.display, trigger: before, description: one.title });
    }
  }
  return asUtc(calendar.toString());
}

/** Stamps are in universal time, and say so (RFC 5545, 3.8.7): the library leaves their Z out beside a zone. */
const asUtc = (text: string): string =>
  text.replaceAll(/^(DTSTAMP|LAST-MODIFIED|CREATED):(\d{8}T\d{6})(?=\r?$)/gm, '$1:$2Z');

function told({ view, address, changed }: Written): Told[] {
  return [
    ...view.visits.map((visit) =>
      visitTold(visit, address, changed.get(visit.id) ?? `${view.start}T00:00:00Z`),
    ),
    ...view.away.map(({ day, kind, span, minutes, todo }): Told => {
      const absence = view.absences.find(({ from }) => from === span.from)!;
      return {
        uid: `${absence.id}-${kind}`,
        sequence: absence.version - 1,
        ...{ day, minutes },
        title:
          kind === 'before' ? 'Before you go: leave the laundry safe' : 'Back home: the laundry',
        text: todo.map((what) => `- ${what}`).join('\n'),
        url: `${address}/plan`,
        status: ICalEventStatus.CONFIRMED,
        changedAt: `${view.start}T00:00:00Z`,
        categories: ['Laundry care'],
      };
    }),
  ];
}

function visitTold(visit: PlannedVisitView, address: string, changedAt: string): Told {
  const { id, version, day, place, tasks, who, minutes, fetch, done, skipped } = visit;
  const work = tasks.length === 1 ? tasks[0]!.name : many(tasks.length, 'task');
  const length = minutes || tasks.reduce((sum, task) => sum + task.minutes, 0);
  const safety = tasks.some((task) => task.safety);
  const lines = [
    ...(who ? [`For ${who}.`] : []),
    `${length} minutes at work.`,
    ...tasks.map(
      ({ name, machine, minutes: each, safety: safe }) =>
        `- ${name}, ${machine}: ${each} min${safe ? ' (keeps people safe)' : ''}`,
    ),
    ...(fetch.length ? [`Fetch: ${fetch.join(', ')}.`] : []),
    ...(skipped === undefined ? [] : [`Left out this once: ${skipped}`]),
  ];
  return {
    uid: id,
    sequence: version - 1,
    ...{ day, place, changedAt },
    minutes: length,
    title: `${done ? '✓ ' : ''}${place}: ${work}`,
    text: lines.join('\n'),
    url: `${address}/plan?visit=${id}`,
    status: skipped === undefined ? ICalEventStatus.CONFIRMED : ICalEventStatus.CANCELLED,
    categories: ['Laundry care', ...(safety ? ['Safety'] : [])],
  };
}
