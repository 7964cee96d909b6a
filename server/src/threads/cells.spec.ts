import { fileURLToPath } from 'node:url';
import { afterEach, describe, expect, it } from 'vitest';
import { ownCells, type Cells } from './cells.js';

const SCRIPT = fileURLToPath(new URL('../../dist/cell.js', import.meta.url));

let cells: Cells;
afterEach(() => cells.close());

const calendar = (...lines: string[]) =>
  ['BEGIN:VCALENDAR', 'BEGIN:VEVENT', 'UID:1', ...lines, 'END:VEVENT', 'END:VCALENDAR'].join(
    '\r\n',
  );
const ask = (text: string) => ({
  ...{ text, from: '2026-11-27', to: '2027-11-21' },
  ...{ zone: 'Europe/Vienna', field: 'calendar' },
});
const bytesOf = (value: unknown) => Buffer.from(JSON.stringify(value));

/** What somebody is told whose thing could not be read. */
const told = (reading: Promise<unknown>) =>
  reading.then(
    () => 'read',
    ({ more }: { more: { errors: { field: string; message: string }[] } }) => more.errors[0],
  );

describe('a cell', () => {
  it('reads, and hands on what was found and what is wrong', async () => {
    cells = ownCells(SCRIPT);
    const weekly = calendar('DTSTART;VALUE=DATE:20261205', 'RRULE:FREQ=WEEKLY;COUNT=2');
    expect(await cells.read('calendar', ask(weekly), 'calendar')).toEqual({
      name: 'A calendar',
      days: ['2026-12-05', '2026-12-12'],
    });
    expect(await cells.read('json', { bytes: bytesOf({ a: [1] }) }, '')).toEqual({ a: [1] });
    expect(await told(cells.read('calendar', ask('Dear all'), 'calendar'))).toEqual({
      field: 'calendar',
      message: 'This is no calendar file (.ics).',
    });
  });

  it.each([
    ['a rule that nothing fits', 'RRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30'],
    ['one of each second since 1970', 'RRULE:FREQ=SECONDLY'],
    ['one of each minute that nothing fits', 'RRULE:FREQ=MINUTELY;BYMONTH=2;BYMONTHDAY=31'],
    [
      'one of Mondays that fall on no such day',
      'RRULE:FREQ=YEARLY;BYMONTH=4;BYDAY=1MO;BYMONTHDAY=15',
    ],
    ['one of a week that no year has', 'RRULE:FREQ=YEARLY;BYWEEKNO=54;BYDAY=MO'],
  ])('comes to an end with %s', async (_what, rule) => {
    cells = ownCells(SCRIPT);
    const began = Date.now();
    await told(cells.read('calendar', ask(calendar('DTSTART:19700101T000000Z', rule)), 'calendar'));
    expect(Date.now() - began).toBeLessThan(20_000);
    // And the next one is read.
    expect(await cells.read('json', { bytes: bytesOf([1]) }, '')).toEqual([1]);
  });

  it('is killed when it takes too long, and says so', async () => {
    cells = ownCells(SCRIPT, { ms: 1, megabytes: 256 });
    const rule = calendar('DTSTART:19700101T000000Z', 'RRULE:FREQ=SECONDLY');
    expect(await told(cells.read('calendar', ask(rule), 'calendar'))).toEqual({
      field: 'calendar',
      message: 'Reading this took longer than 0.001 seconds. It was stopped.',
    });
  });

  it('is killed when it takes too much memory, says so, and others go on', async () => {
    cells = ownCells(SCRIPT, { ms: 20_000, megabytes: 24 });
    const bytes = Buffer.from(`[${'{},'.repeat(1_900_000)}{}]`);
    const good = cells.read('json', { bytes: bytesOf({ a: 1 }) }, '');
    expect(await told(cells.read('json', { bytes }, 'calendar'))).toEqual({
      field: 'calendar',
      message: 'Reading this took more than 24 MB of memory. It was stopped.',
    });
    expect(await good).toEqual({ a: 1 });
  });

  it('is another one where the last was ended while nothing was read', async () => {
    cells = ownCells(SCRIPT);
    expect(await cells.read('json', { bytes: bytesOf([1]) }, '')).toEqual([1]);
    await cells.close();
    expect(await cells.read('json', { bytes: bytesOf([2]) }, '')).toEqual([2]);
  });

  it('has so many wait, and says to the others that it is too much for now', async () => {
    cells = ownCells(SCRIPT);
    const all = await Promise.allSettled(
      Array.from({ length: 60 }, (_, i) => cells.read('json', { bytes: bytesOf({ i }) }, '')),
    );
    const refused = all.flatMap((one) => (one.status === 'rejected' ? [one.reason] : []));
    expect(all.length - refused.length).toBe(42);
    expect(new Set(refused.map(({ status }: { status: number }) => status))).toEqual(
      new Set([503]),
    );
  });

  it('lets as many wait as two can read, in turn', async () => {
    cells = ownCells(SCRIPT);
    const all = Array.from({ length: 12 }, (_, i) =>
      cells.read('json', { bytes: bytesOf({ i }) }, ''),
    );
    expect(await Promise.all(all)).toEqual(Array.from({ length: 12 }, (_, i) => ({ i })));
  });
});
