import type { Machine } from '../model/schemas.js';
import { DRYING, isWasher } from '../model/vocabulary.js';
import { daysBetween, plusDays, type Day } from '../units/calendar.js';
import type { Away } from './weeks.js';

/** Away for so many days or more, a house is left in order. Common practice. */
export const LONG_AWAY = 7;

/** What is done before going away, or on coming back. */
export interface AwayVisit {
  day: Day;
  kind: 'before' | 'after';
  /** Of the days away. */
  span: Away;
  minutes: number;
  todo: string[];
}

const MINUTES = { before: 15, after: 10 } as const;

/**
 * The short visits around days away: the day before, so that no water goes stale and nothing is left under pressure,
 * and on the day of coming back. Common practice.
 * @param today nothing before it is told
 */
export function awayVisits(
  away: readonly Away[],
  machines: readonly Pick<Machine, 'kind' | 'features' | 'name'>[],
  today: Day,
): AwayVisit[] {
  const washers = machines.filter(({ kind }) => isWasher(kind));
  const tanks = machines.filter(({ features }) => features.condensateTo === 'tank');
  const dryers = machines.filter(({ kind }) => DRYING.some((one) => one === kind));
  const before = [
    ...(washers.length
      ? [
          'Drain the water that stands in the washer through its thin hose or filter, where it has one.',
          'Leave the washer’s door and drawer ajar.',
          'Shut the taps of the fill hoses.',
        ]
      : []),
    ...(tanks.length ? ['Empty the dryer’s water tank.'] : []),
    ...(dryers.length ? ['Clear the lint screen.'] : []),
    'Take the last load out, and pull the plugs with dry hands.',
  ];
  const after = [
    'Plugs in with dry hands, and look under the machines: is it dry?',
    ...(washers.length
      ? ['Open the taps slowly and look at the hoses.', 'Run one rinse without laundry first.']
      : []),
    ...(dryers.some(({ features }) => features.ventPath !== undefined)
      ? ['Look whether the hood’s flap opens while the dryer runs.']
      : []),
  ];
  return away
    .filter(({ from, to }) => daysBetween(from, to) + 1 >= LONG_AWAY)
    .flatMap((span): AwayVisit[] => [
      { day: plusDays(span.from, -1), kind: 'before', span, minutes: MINUTES.before, todo: before },
      { day: plusDays(span.to, 1), kind: 'after', span, minutes: MINUTES.after, todo: after },
    ])
    .filter(({ day }) => day >= today)
    .sort((a, b) => a.day.localeCompare(b.day));
}
