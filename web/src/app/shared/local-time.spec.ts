import { fromLocal, toLocal } from './local-time';

describe('date-and-time fields', () => {
  it('show an instant in its zone, and read it back', () => {
    expect(toLocal('2026-07-01T08:05:30Z', 'Europe/Vienna')).toBe('2026-07-01T10:05');
    expect(fromLocal('2026-07-01T10:05', 'Europe/Vienna')).toBe('2026-07-01T08:05:00Z');
    expect(fromLocal('2026-01-01T10:05', 'America/Chicago')).toBe('2026-01-01T16:05:00Z');
  });

  it('read an hour that the change of clocks left out as the next', () => {
    expect(fromLocal('2026-03-29T02:30', 'Europe/Vienna')).toBe('2026-03-29T01:30:00Z');
  });

  it('read nothing from an empty field', () => {
    expect(fromLocal('', 'UTC')).toBeUndefined();
  });
});
