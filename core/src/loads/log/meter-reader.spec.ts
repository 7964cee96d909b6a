import fc from 'fast-check';
import { randomLcg } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { findCycles } from '../cycles/cycles.js';
import { standInLog } from '../stand-in/log.js';
import { MeterReader } from './meter-reader.js';
import { guessShape } from './shape.js';

const FROM = Date.parse('2026-03-02T06:00:00Z');
const NOW = Date.parse('2026-12-01T00:00:00Z');
const MINUTE = 60_000;

/** Reads a file whole, in pieces of a size that parts lines anywhere. */
function read(text: string, { zone = 'UTC', piece = 4099, change = {} } = {}) {
  const guessed = guessShape(text.slice(0, 65_536))!;
  const shape = { ...guessed.shape, ...change };
  const { interval, newestFirst } = guessed;
  const reader = new MeterReader({ shape, interval, newestFirst, zone, now: NOW });
  const bytes = Uint8Array.from(text, (letter) => letter.charCodeAt(0) & 255);
  for (let i = 0; i < bytes.length; i += piece) reader.push(bytes.subarray(i, i + piece));
  reader.end();
  return { reader, guessed };
}
const cyclesOf = ({ series }: MeterReader) => findCycles(series.stretches(), series.bin);

const log = standInLog({
  ...{ kinds: ['cotton', 'soak'], loads: 8, from: FROM, every: 10, noise: 1 },
  random: randomLcg(0.42),
});
const iso = (at: number) => new Date(at).toISOString().slice(0, 19);
const two = (n: number) => String(n).padStart(2, '0');
const lines = (line: (at: number, watts: number) => string, header = '') =>
  header + log.samples.map(({ at, watts }) => line(at, watts)).join('\n');

/** A clock on the wall of a zone, as files show it. */
const wall = (zone: string) => {
  const parts = new Intl.DateTimeFormat('sv-SE', {
    ...{ timeZone: zone, year: 'numeric', month: '2-digit', day: '2-digit' },
    ...{ hour: '2-digit', minute: '2-digit', second: '2-digit' },
  });
  return (at: number) => parts.format(at);
};

const WRITTEN: Record<string, string> = {
  'seconds since 1970': lines((at, w) => `${at / 1000},${w.toFixed(1)}`),
  'milliseconds, with a header': lines((at, w) => `${at};${w.toFixed(2)}`, 'time;power\n'),
  'ISO with a zone': lines((at, w) => `${iso(at)}Z,${w.toFixed(1)}`, 'time,W\n'),
  'ISO with an offset': lines((at, w) => `${iso(at + 2 * 3_600_000)}+02:00,${w.toFixed(1)}`),
  'ISO without a zone': lines(
    (at, w) => `${iso(at).replace('T', ' ')},${w.toFixed(1)}`,
    'ts,watt\n',
  ),
  'day first, decimal comma': lines((at, w) => {
    const d = new Date(at);
    const day = `${two(d.getUTCDate())}.${two(d.getUTCMonth() + 1)}.${d.getUTCFullYear()}`;
    return `${day} ${iso(at).slice(11)};${w.toFixed(1).replace('.', ',')}`;
  }, 'Zeit;Leistung\n'),
  'date and time apart, kilowatts, quoted': lines(
    (at, w) => `"${iso(at).slice(0, 10)}","${iso(at).slice(11)}","${(w / 1000).toFixed(4)}"`,
    '"date","time","kW"\n',
  ),
  'tabs, other columns, Windows lines': lines(
    (at, w) => `plug 1\t${iso(at)}\t230.1\t${w.toFixed(1)}\tok\r`,
    'device\ttime\tvolts\tpower\tstate\r\n',
  ),
};

const HALF_DAYS = lines((at, w) => {
  const d = new Date(at);
  const hour = d.getUTCHours();
  const clock = `${hour % 12 || 12}:${two(d.getUTCMinutes())}:${two(d.getUTCSeconds())} ${hour < 12 ? 'AM' : 'PM'}`;
  return `${d.getUTCMonth() + 1}/${d.getUTCDate()}/${d.getUTCFullYear()},${clock},${w.toFixed(0)}`;
}, 'Date,Time,Power\n');

describe('a meter’s file', () => {
  const truth = log.loads.length;

  it.each(Object.entries(WRITTEN))('is read as it is written: %s', (_, text) => {
    const { reader } = read(text);
    expect(reader.problems).toEqual([]);
    expect(reader.taken).toBe(log.samples.length);
    expect(reader.first).toBe(log.samples[0]!.at);
    const cycles = cyclesOf(reader);
    expect(cycles).toHaveLength(truth);
    cycles.forEach(({ from }, i) =>
      expect(Math.abs(from - log.loads[i]!.from)).toBeLessThan(MINUTE),
    );
  });

  it('whose days may be months says so, and is read as it is told', () => {
    expect(guessShape(HALF_DAYS.slice(0, 65_536))).toMatchObject({ unsure: true });
    const { reader } = read(HALF_DAYS, { change: { timeKind: 'month-first' } });
    expect(reader.first).toBe(log.samples[0]!.at);
    expect(cyclesOf(reader)).toHaveLength(truth);
  });

  it.each([1, 7, 64, 100_003])('is the same in pieces of %s bytes', (piece) => {
    const text = WRITTEN['ISO without a zone']!.slice(0, 30_000);
    const [whole, parted] = [read(text), read(text, { piece })];
    expect(parted.reader.taken).toBe(whole.reader.taken);
    expect([...parted.reader.series.stretches()[0]!.watts]).toEqual([
      ...whole.reader.series.stretches()[0]!.watts,
    ]);
  });

  it.each([
    ['kWh', 1000, 3],
    ['Wh', 1, 0],
  ] as const)('of a counter in %s gives the same loads and energy', (unit, per, digits) => {
    let wattHours = 41_000;
    const text = lines((at, w) => {
      wattHours += (w * 10) / 3600;
      return `${at / 1000},${(wattHours / per).toFixed(digits)}`;
    }, `time,${unit}\n`);
    const { reader, guessed } = read(text);
    expect(guessed.shape.unit).toBe(unit);
    const cycles = cyclesOf(reader);
    expect(cycles).toHaveLength(truth);
    cycles.forEach((cycle, i) => {
      expect(cycle.wattHours / log.loads[i]!.wattHours).toBeGreaterThan(0.93);
      expect(cycle.wattHours / log.loads[i]!.wattHours).toBeLessThan(1.07);
    });
  });

  it('read twice makes no load and no second twice', () => {
    const text = WRITTEN['seconds since 1970']!;
    const once = cyclesOf(read(text).reader);
    const twice = cyclesOf(read(`${text}\n${text}`).reader);
    expect(twice).toHaveLength(once.length);
    twice.forEach(({ from, wattHours }, i) => {
      expect(Math.abs(from - once[i]!.from)).toBeLessThanOrEqual(10_000);
      expect(wattHours).toBeCloseTo(once[i]!.wattHours, 0);
    });
  });

  it('with its newest line first gives the same loads', () => {
    const rows = WRITTEN['seconds since 1970']!.split('\n').toReversed();
    const cycles = cyclesOf(read(rows.join('\n')).reader);
    expect(cycles).toHaveLength(truth);
    cycles.forEach(({ from }, i) =>
      expect(Math.abs(from - log.loads[i]!.from)).toBeLessThan(MINUTE),
    );
  });

  it('that tells a change only when there is one gives the same loads', () => {
    let told = NaN;
    const rows = log.samples.flatMap(({ at, watts }) => {
      const rounded = Math.round(watts / 5) * 5;
      if (rounded === told && at % 300_000 !== 0) return [];
      told = rounded;
      return [`${at},${rounded}`];
    });
    expect(rows.length).toBeLessThan(0.7 * log.samples.length);
    expect(cyclesOf(read(rows.join('\n')).reader)).toHaveLength(truth);
  });

  it('with thousandths of seconds is read', () => {
    const text = lines((at, w) => `${new Date(at + 123).toISOString()},${w.toFixed(1)}`);
    const { reader } = read(text);
    expect(reader.first).toBe(log.samples[0]!.at + 123);
    expect(cyclesOf(reader)).toHaveLength(truth);
  });

  it('with lines out of their order loses and doubles nothing', () => {
    const rows = WRITTEN['seconds since 1970']!.split('\n');
    for (let i = 50; i + 3 < rows.length; i += 97)
      [rows[i], rows[i + 3]] = [rows[i + 3]!, rows[i]!];
    expect(cyclesOf(read(rows.join('\n')).reader)).toHaveLength(truth);
  });

  it.each([
    ['put back by 7 minutes', -7 * MINUTE],
    ['put forward by 40 minutes', 40 * MINUTE],
    ['put back by an hour', -60 * MINUTE],
  ])('whose clock is %s in the middle of a load loses and doubles no load', (_, jump) => {
    const middle = log.loads[3]!.from + 25 * MINUTE;
    const text = lines((at, w) => `${(at > middle ? at + jump : at) / 1000},${w.toFixed(1)}`);
    expect(cyclesOf(read(text).reader)).toHaveLength(truth);
  });

  it('with a gap in a load is one load, and says how much of it was not read', () => {
    const { from } = log.loads[2]!;
    const text = log.samples
      .filter(({ at }) => at < from + 15 * MINUTE || at > from + 40 * MINUTE)
      .map(({ at, watts }) => `${at / 1000},${watts.toFixed(1)}`)
      .join('\n');
    const cycles = cyclesOf(read(text).reader);
    expect(cycles).toHaveLength(truth);
    expect(cycles[2]!.unread).toBeGreaterThan(20);
  });

  it.each([
    ['in spring', '2026-03-28T20:00:00Z', false],
    ['in autumn', '2026-10-24T20:00:00Z', false],
    ['in spring, the newest line first', '2026-03-28T20:00:00Z', true],
    ['in autumn, the newest line first', '2026-10-24T20:00:00Z', true],
  ])('by the wall’s clock over the night in which it is changed, %s', (_, from, newestFirst) => {
    const night = standInLog({
      ...{ kinds: ['quick'], loads: 6, from: Date.parse(from), every: 10, noise: 1 },
      ...{ backToBack: 1, random: randomLcg(0.7) },
    });
    const shown = wall('Europe/Vienna');
    const rows = night.samples.map(({ at, watts }) => `${shown(at)},${watts.toFixed(1)}`);
    const text = (newestFirst ? rows.toReversed() : rows).join('\n');
    const { reader } = read(`time,power\n${text}`, { zone: 'Europe/Vienna' });
    const cycles = cyclesOf(reader);
    expect(cycles).toHaveLength(night.loads.length);
    cycles.forEach(({ from: begun }, i) =>
      expect(Math.abs(begun - night.loads[i]!.from)).toBeLessThan(MINUTE),
    );
  });
});

describe('a broken file', () => {
  const good = Array.from({ length: 100 }, (_, i) => `${FROM / 1000 + 10 * i},${i}.5`);
  const broken = (line: string) => [...good.slice(0, 60), line, ...good.slice(60)].join('\n');

  it.each([
    ['half a line', '17724', 'there is no figure in it'],
    ['no figure', `${FROM / 1000 + 605},unavailable`, 'there is no figure in it'],
    ['below nothing', `${FROM / 1000 + 605},-4`, 'its figure is below nothing'],
    ['NULs', '\0\0\0\0\0', 'there is no time in it'],
    ['a time to come', '4100000000,5', 'it is in the future'],
    ['another format', '2026-03-02 06:10:00;5,5', 'there is no time in it'],
    ['too much', `${FROM / 1000 + 605},1e9`, 'no socket gives so much'],
  ])('is told by its line: %s', (_, line, says) => {
    const { reader } = read(broken(line));
    expect(reader.problems).toEqual([{ line: 61, says }]);
    expect(reader.taken).toBe(100);
    expect(reader.left).toBe(1);
  });

  it('has many columns', () => {
    const wide = good.map((row) => `${row}${',x'.repeat(38)}`).join('\n');
    expect(read(wide).reader.taken).toBe(100);
  });

  it.each(['', 'hello', 'a,b,c\n1,2,3\n4,5,6\n', '\0'.repeat(500), '{"json": true}'])(
    'that is no meter’s is said to be none: %j',
    (text) => expect(guessShape(text)).toBeUndefined(),
  );

  it('of any letters never throws', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 400 }), (text) => {
        const guessed = guessShape(`time,W\n${good.slice(0, 5).join('\n')}\n${text}`);
        if (guessed) read(`time,W\n${good.slice(0, 5).join('\n')}\n${text}`);
      }),
    );
  });
});
