import { DAYS_PER_MONTH } from '../../units/calendar.js';
import type { Interval } from './types.js';

/** The loads a week that the schools' months assume. */
export const BASELINE_PER_WEEK = 5;

/**
 * An interval as one figure in the unit that drives the fouling, the earlier of its bounds.
 * Days and loads are exchanged at five loads a week.
 * @returns loads or days; 1 for "every load"
 */
export function inDriver(interval: Interval, driver: 'loads' | 'days'): number {
  if (interval.everyLoad) return 1;
  const days = Math.min(
    interval.days ?? Infinity,
    interval.months === undefined ? Infinity : interval.months * DAYS_PER_MONTH,
  );
  const loads = interval.loads ?? Infinity;
  return driver === 'loads'
    ? Math.min(loads, (days * BASELINE_PER_WEEK) / 7)
    : Math.min(days, (loads * 7) / BASELINE_PER_WEEK);
}
