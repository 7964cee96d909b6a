import { describe, expect, it } from 'vitest';
import {
  dayOf,
  daysBetween,
  isZone,
  plusDays,
  plusMonths,
  sayDay,
  sayDays,
  sayDistance,
  startOf,
  weekOf,
} from './calendar.js';

describe('calendar', () => {
  it('puts an instant on the date that the wall calendar of the zone shows', () => {
    const late = Date.parse('2026-03-28T23:30:00Z');
    expect(dayOf(late, 'Europe/Vienna')).toBe('2026-03-29');
    expect(dayOf(late, 'America/Chicago')).toBe('2026-03-28');
  });

  it('keeps whole days across both changes of the clock', () => {
    expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2);
    expect(plusDays('2026-10-24', 2)).toBe('2026-10-26');
    expect(startOf('2026-03-30', 'Europe/Vienna') - startOf('2026-03-29', 'Europe/Vienna')).toBe(
      23 * 3_600_000,
    );
  });

  it('counts weeks by ISO 8601: from Monday, of the year of their Thursday', () => {
    // ISO 8601:2004, 3.2.2 (from memory): 2026-01-01 is a Thursday, 2021-01-03 a Sunday.
    expect(weekOf('2026-01-01')).toBe('2026-W01');
    expect(weekOf('2021-01-03')).toBe('2020-W53');
    expect(weekOf('2026-12-31')).toBe('2026-W53');
    expect(weekOf('2024-12-30')).toBe('2025-W01');
  });

  it('adds months by the calendar', () => {
    expect(plusMonths('2026-01-31', 1)).toBe('2026-02-28');
    expect(plusMonths('2027-08-31', 6)).toBe('2028-02-29');
  });

  it('says dates and distances as people do', () => {
    expect(sayDay('2026-09-03', '2026-11-24')).toBe('3 September');
    expect(sayDay('2027-01-03', '2026-11-24')).toBe('3 January 2027');
    expect(
      ['2026-11-24', '2026-11-25', '2026-11-23', '2026-11-30', '2026-10-01'].map((day) =>
        sayDistance(day, '2026-11-24'),
      ),
    ).toEqual(['today', 'tomorrow', 'yesterday', 'in 6 days', '8 weeks ago']);
    expect([1, 20, 21, 100, 800].map(sayDays)).toEqual([
      '1 day',
      '20 days',
      '3 weeks',
      '3 months',
      '2 years',
    ]);
  });

  it('knows zones from words', () => {
    expect(isZone('Asia/Kathmandu')).toBe(true);
    expect(isZone('Middle/Earth')).toBe(false);
  });
});
