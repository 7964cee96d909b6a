import { describe, expect, it } from 'vitest';
import { SIGNAL_FIGURES, type MachineKind, type SignalFigure } from '../../model/vocabulary.js';
import { signalsOf } from './signal.js';
import type { MeteredLoad } from './watched.js';
import { sayChange, sayWas } from './words.js';

const drying = (id: string, loads: readonly MeteredLoad[], anew: readonly number[], zone: string) =>
  signalsOf({ id, kind: 'vented-dryer' }, loads, () => anew, zone);
const slowDrying = (...asked: Parameters<typeof drying>) => drying(...asked).now[0];

const DAY = 86_400_000;
const FROM = Date.parse('2026-03-01T08:00:00Z');
/** A load every other day, an hour for 2 kWh, a few per cent up and down; longer by a factor from a load on. */
const loads = (count: number, factor: (i: number) => number = () => 1): MeteredLoad[] =>
  Array.from({ length: count }, (_, i) => {
    const from = FROM + 2 * i * DAY;
    const minutes = 60 * factor(i) * (1 + 0.05 * Math.sin(7 * i));
    const to = from + minutes * 60_000;
    const cycle = { to: new Date(to).toISOString(), wattHours: 2000, unread: 0, peak: 2600 };
    return { id: String(i), from, to, cycle };
  });

describe('slow drying', () => {
  it('tells since when, how much, and what waiting costs', () => {
    const signal = slowDrying(
      'dryer',
      loads(60, (i) => (i < 40 ? 1 : 1.3)),
      [],
      'Europe/Vienna',
    )!;
    expect(signal).toMatchObject({ machineId: 'dryer', figure: 'drying', finding: 'slow-drift' });
    const change = signal.change!;
    expect(Math.abs(change.percent - 30)).toBeLessThanOrEqual(6);
    expect(change.low).toBeLessThan(30);
    expect(change.high).toBeGreaterThan(30);
    expect(Math.abs(Date.parse(signal.day) - (FROM + 80 * DAY))).toBeLessThan(7 * DAY);
    expect(Math.abs(change.now - 78)).toBeLessThanOrEqual(3);
    // Fifteen loads in thirty days, eighteen minutes each.
    expect(Math.abs(signal.hours! - 4.5)).toBeLessThan(1.2);
  });

  it('tells nothing where nothing changed, of a small change, of little loads, and when it is back', () => {
    expect(slowDrying('d', loads(60), [], 'UTC')).toBeUndefined();
    expect(
      slowDrying(
        'd',
        loads(60, (i) => (i < 40 ? 1 : 1.05)),
        [],
        'UTC',
      ),
    ).toBeUndefined();
    const short = loads(60, (i) => (i < 40 ? 0.1 : 0.2));
    expect(slowDrying('d', short, [], 'UTC')).toBeUndefined();
    const back = loads(60, (i) => (i >= 30 && i < 45 ? 1.4 : 1));
    expect(slowDrying('d', back, [], 'UTC')).toBeUndefined();
  });

  it('ends with a clean that was proved', () => {
    const slow = loads(60, (i) => (i < 40 ? 1 : 1.3));
    expect(slowDrying('d', slow, [FROM + 100 * DAY], 'UTC')).toBeUndefined();
  });

  it('says how many loads are missing until it can be told, also after a clean', () => {
    expect(drying('d', loads(3), [], 'UTC').short).toBe(2);
    expect(drying('d', loads(30), [], 'UTC').short).toBe(0);
    expect(drying('d', loads(30), [FROM + 55 * DAY], 'UTC').short).toBe(3);
  });

  it('is told once, ends where somebody knows why, and stays in what was', () => {
    const slow = loads(90, (i) => (i < 40 ? 1 : 1.3));
    const knew = FROM + 110 * DAY;
    const { now, all } = drying('d', slow, [knew], 'UTC');
    // What is usual is another since: the same is not told again.
    expect(now).toEqual([]);
    expect(all).toHaveLength(1);
    expect(all[0]!.until).toBe(new Date(knew).toISOString().slice(0, 10));
    const worse = loads(120, (i) => (i < 40 ? 1 : i < 90 ? 1.3 : 1.8));
    const again = drying('d', worse, [knew], 'UTC');
    expect(again.all).toHaveLength(2);
    expect(again.now[0]!.seen).not.toBe(again.all[0]!.seen);
    expect(again.all[1]).not.toHaveProperty('until');
  });
});

describe('a heat pump that works harder', () => {
  const of = (factor: (i: number) => number, slower = 1) =>
    loads(60).map((load, i): MeteredLoad => ({
      ...load,
      to: load.from + (load.to - load.from) * (factor(i) > 1 ? slower : 1),
      cycle: { ...load.cycle, peak: 600 * factor(i) * (1 + 0.02 * Math.cos(5 * i)) },
    }));
  const kind = 'heat-pump-dryer';
  const told = (all: readonly MeteredLoad[], machine: MachineKind = kind) =>
    signalsOf({ id: 'd', kind: machine }, all, () => [], 'UTC');
  const rises = (i: number): number => (i < 40 ? 1 : 1.2);

  it('tells that it draws more', () => {
    const [signal] = told(of(rises)).now;
    expect(signal).toMatchObject({ figure: 'power', finding: 'slow-drift' });
    expect(Math.abs(signal!.change!.percent - 20)).toBeLessThanOrEqual(4);
    expect(Math.abs(signal!.change!.usual - 600)).toBeLessThan(20);
    expect(told(of(() => 1)).now).toEqual([]);
    expect(told(of(rises), 'vented-dryer').now).toEqual([]);
  });

  it('is told once where drying is slower as well', () => {
    expect(told(of(rises, 1.4)).now.map(({ figure }) => figure)).toEqual(['drying']);
  });
});

describe('a washer', () => {
  interface Wash {
    perKwh?: number;
    toHeat?: number;
    spins?: number;
    pumped?: number;
  }
  /** Two programmes by turns, a long one that heats long and a short one. */
  const washes = (count: number, of: (i: number) => Wash): MeteredLoad[] =>
    Array.from({ length: count }, (_, i) => {
      const from = FROM + i * DAY;
      const long = i % 3 > 0;
      const to = from + (long ? 120 : 35) * 60_000;
      const usual = {
        perKwh: 30 * (1 + 0.02 * Math.sin(3 * i)),
        toHeat: (long ? 6 : 4) * (1 + 0.1 * Math.cos(5 * i)),
        spins: long ? 4 : 2,
      };
      return {
        ...{ id: String(i), from, to },
        cycle: {
          ...{ to: new Date(to).toISOString(), wattHours: long ? 900 : 250, unread: 0, peak: 2100 },
          wash: { ...usual, ...of(i) },
        },
      };
    });
  const told = (
    loads: readonly MeteredLoad[],
    anew: (figure: SignalFigure) => number[] = () => [],
  ) => signalsOf({ id: 'w', kind: 'front-load-washer' }, loads, anew, 'UTC');

  it('tells nothing of two programmes that differ, and of one odd load', () => {
    expect(told(washes(90, () => ({}))).all).toEqual([]);
    expect(told(washes(90, (i) => (i === 60 ? { spins: 12, toHeat: 20 } : {}))).all).toEqual([]);
  });

  it('tells that heating takes longer for the same energy, until it was descaled', () => {
    const scaled = washes(90, (i) => (i < 60 ? {} : { perKwh: 38 }));
    const [signal] = told(scaled).now;
    expect(signal).toMatchObject({ figure: 'heating', finding: 'long-heating' });
    expect(Math.abs(signal!.change!.percent - 27)).toBeLessThanOrEqual(6);
    const descaled = (figure: SignalFigure): number[] =>
      figure === 'heating' ? [FROM + 95 * DAY] : [];
    expect(told(scaled, descaled).now).toEqual([]);
    expect(told(scaled, descaled).all).toHaveLength(1);
  });

  it('tells that it takes longer until it heats, in each of its programmes', () => {
    const slow = washes(90, (i) => (i < 60 ? {} : { toHeat: (i % 3 > 0 ? 6 : 4) * 1.8 }));
    const [signal] = told(slow).now;
    expect(signal).toMatchObject({ figure: 'filling', finding: 'slow-fill' });
    expect(Math.abs(signal!.change!.percent - 80)).toBeLessThanOrEqual(15);
  });

  it('tells that it tries to spin again and again', () => {
    const tries = washes(90, (i) => (i < 70 ? {} : { spins: i % 3 > 0 ? 8 : 6 }));
    expect(told(tries).now).toMatchObject([{ figure: 'spins', finding: 'spin-tries' }]);
  });

  it('tells of two loads of three that ended with the pump running, until three did not', () => {
    const once = washes(30, (i) => (i === 20 ? { pumped: 5 } : {}));
    expect(told(once).all).toEqual([]);
    const twice = washes(23, (i) => (i === 20 || i === 22 ? { pumped: 5 } : {}));
    expect(told(twice).now).toMatchObject([
      { figure: 'drain', finding: 'code-drain', seen: '22', day: '2026-03-21', loads: 2 },
    ]);
    const over = told(washes(30, (i) => (i === 20 || i === 22 ? { pumped: 5 } : {})));
    expect(over.now).toEqual([]);
    expect(over.all).toEqual([
      { figure: 'drain', seen: '22', day: '2026-03-21', until: '2026-03-24' },
    ]);
    const cleaned = (figure: SignalFigure): number[] =>
      figure === 'drain' ? [FROM + 22.5 * DAY] : [];
    expect(told(twice, cleaned).now).toEqual([]);
  });

  it('holds reasons and cleans of one figure apart from those of another', () => {
    const both = washes(90, (i) =>
      i < 60 ? {} : { perKwh: 38, toHeat: (i % 3 > 0 ? 6 : 4) * 1.8 },
    );
    const known = (figure: SignalFigure): number[] =>
      figure === 'filling' ? [FROM + 95 * DAY] : [];
    expect(told(both).now.map(({ figure }) => figure)).toEqual(['heating', 'filling']);
    expect(told(both, known).now.map(({ figure }) => figure)).toEqual(['heating']);
  });
});

describe('words', () => {
  it('of every figure say what changed, with its numbers where it has some', () => {
    for (const figure of SIGNAL_FIGURES) {
      const change = figure === 'drain' ? {} : { change: { percent: 18, low: 12, high: 25 } };
      const said = sayWas({ figure, seen: 'a', day: '2026-03-01', ...change });
      expect(said.includes('12 to 25 %')).toBe(figure !== 'drain');
      expect(sayChange({ figure })).not.toMatch(/undefined|NaN/);
    }
  });
});
