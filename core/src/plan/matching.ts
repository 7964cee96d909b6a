import { daysBetween } from '../units/calendar.js';
import { groupedBy } from '../units/grouped.js';
import type { PlannedVisit } from '../model/planned.js';
import type { AheadVisit } from './year-plan.js';

/** So much of its work, or more, is the same: then it is the same visit on another day. */
const SAME_WORK = 0.34;
/** Further off than this many days it is another one. */
const FAR = 21;

/**
 * Which visit of before each visit of a plan is, so that it keeps its place in calendars: first those on their day,
 * then those whose work is most alike, the nearest first. Nothing where it is new.
 */
export function matched(
  visits: readonly AheadVisit[],
  before: readonly PlannedVisit[],
): (PlannedVisit | undefined)[] {
  const found: (PlannedVisit | undefined)[] = visits.map(() => undefined);
  const free = new Set(before);
  const at = groupedBy(before, ({ place }) => place);
  const pairs = visits.flatMap((visit, i) =>
    (at.get(visit.place) ?? [])
      .map((row) => ({ i, row, alike: alikeness(visit, row) }))
      .filter(({ alike }) => alike > 0),
  );
  for (const { i, row } of pairs.sort((a, b) => b.alike - a.alike || a.i - b.i)) {
    if (found[i] || !free.has(row)) continue;
    found[i] = row;
    free.delete(row);
  }
  return found;
}

function alikeness(visit: AheadVisit, row: PlannedVisit): number {
  const apart = Math.abs(daysBetween(visit.day, row.day));
  if (apart > FAR) return 0;
  const has = new Set(row.tasks.map(({ machineId, task }) => `${machineId}/${task}`));
  const both = visit.tasks.filter(({ machineId, task }) => has.has(`${machineId}/${task}`)).length;
  const share = both / (visit.tasks.length + has.size - both);
  // What was laid down by hand is that, whatever goes along with it.
  if (apart === 0) return (visit.held && row.held && share > 0 ? 4 : 2) + share;
  return share >= SAME_WORK ? 1 + share - apart / FAR : 0;
}
