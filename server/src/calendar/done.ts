import ical, { ICalCalendarMethod, ICalEventStatus, ICalEventTransparency } from 'ical-generator';
import {
  sayEntryIn,
  type Entry,
  type EntryKind,
  type Machine,
  type UnitSystem,
} from '@needlecase/core';

/** What is told of in a calendar: what somebody did at a machine. */
const TOLD: readonly EntryKind[] = ['done', 'opened', 'replaced', 'called', 'case'];
/** Nothing in a calendar is shorter, ms: a line of no height cannot be read. */
const SHORTEST = 15 * 60_000;
/** Nothing that was done took longer, ms: a visit that was left open over night. */
const LONGEST = 6 * 3_600_000;

const END = 'END:VCALENDAR';

/** What a calendar of the past is made with. */
export interface DoneGround {
  household: string;
  units: UnitSystem;
  machineOf: (id: string | undefined) => Machine | undefined;
  nameOf: (author: string) => string;
}

/**
 * What was done as a calendar of the past (RFC 5545): a visit is one event, other work one each, all in UTC and none of
 * it taking anybody's time; an event at a time.
 * @param entries in the order of time
 */
export function* doneCalendar(entries: Iterable<Entry>, ground: DoneGround): Generator<string> {
  const calendar = ical({
    name: `${ground.household}: laundry care done`,
    prodId: { company: 'Needlecase', product: 'Record' },
    method: ICalCalendarMethod.PUBLISH,
    timezone: null,
  });
  const [head] = calendar.toString().split(END);
  yield head!;
  for (const [id, work] of together(entries)) {
    const [first, last] = [work[0]!, work.at(-1)!];
    const from = Date.parse(first.at);
    const to = Math.min(from + LONGEST, Math.max(from + SHORTEST, Date.parse(last.at)));
    const machines = [...new Set(work.map((one) => ground.machineOf(one.machineId)?.name ?? ''))];
    const said = work.map((one) => sayEntryIn(one, ground.units, ground.machineOf(one.machineId)));
    const event = calendar.createEvent({
      id,
      start: new Date(from),
      end: new Date(to),
      stamp: new Date(Math.max(...work.map(({ recordedAt }) => Date.parse(recordedAt)))),
      summary: `${machines.filter(Boolean).join(', ')}: ${said.length > 1 ? `${said.length} tasks` : said[0]}`,
      description: work.map((one, i) => line(one, said[i]!, ground)).join('\n'),
      status: ICalEventStatus.CONFIRMED,
      transparency: ICalEventTransparency.TRANSPARENT,
      categories: machines.filter(Boolean).map((name) => ({ name })),
    });
    yield `${event.toString()}\r\n`;
    calendar.clear();
  }
  yield `${END}\r\n`;
}

const line = ({ author, note }: Entry, said: string, { nameOf }: DoneGround): string =>
  `${said} (${nameOf(author)})${note ? `: ${note}` : ''}`;

function together(entries: Iterable<Entry>): Map<string, Entry[]> {
  const events = new Map<string, Entry[]>();
  for (const entry of entries) {
    if (!TOLD.includes(entry.kind)) continue;
    const id = entry.runId ?? entry.id;
    events.set(id, [...(events.get(id) ?? []), entry]);
  }
  return events;
}
