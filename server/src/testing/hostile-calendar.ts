import type { Chance } from './chance.js';

/** A calendar whose events come again by rules that no program makes. */
export function hostileCalendar(chance: Chance): string {
  const part = (name: string, from: readonly (string | number)[]) =>
    chance.is(0.4) ? `;${name}=${chance.of(from)}` : '';
  const events = Array.from({ length: 1 + chance.below(3) }, (_, i) => {
    const often = chance.of([
      'SECONDLY',
      'MINUTELY',
      'HOURLY',
      'DAILY',
      'WEEKLY',
      'MONTHLY',
      'YEARLY',
    ]);
    const rule = [
      `FREQ=${often}`,
      part('INTERVAL', [0, 1, 7, 999_999]),
      part('BYMONTH', [2, 13, '1,2']),
      part('BYMONTHDAY', [30, 31, -31, 0]),
      part('BYDAY', ['MO', '5MO', '-53SU', 'XX']),
      part('BYYEARDAY', [366, -366]),
      part('COUNT', [1, 1e9]),
      part('UNTIL', ['19700101', '99991231T235959Z']),
    ].join('');
    const start = chance.of([
      '19700101T000000Z',
      '20270306',
      '00010101T000000',
      '99990101T000000Z',
    ]);
    return [`BEGIN:VEVENT`, `UID:${i}`, `DTSTART:${start}`, `RRULE:${rule}`, 'END:VEVENT'];
  });
  return ['BEGIN:VCALENDAR', ...events.flat(), 'END:VCALENDAR'].join('\r\n');
}
