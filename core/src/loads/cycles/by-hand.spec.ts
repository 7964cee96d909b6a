import { randomLcg } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { LiveLog } from '../live/live-log.js';
import { PowerSeries } from '../log/power-series.js';
import { standInLog } from '../stand-in/log.js';
import { findCycles, USUAL_WAYS } from './cycles.js';
import { joined, parted, waysOf, type KeptLoad } from './by-hand.js';
import { programmeNames } from './named.js';
import { toldLoad } from './told.js';

const FROM = Date.parse('2026-03-02T06:00:00Z');
const MINUTE = 60_000;
const iso = (minute: number): string => new Date(FROM + minute * MINUTE).toISOString();
const load = (from: number, to: number, more: Partial<KeptLoad['cycle']> = {}): KeptLoad => ({
  from: iso(from),
  cycle: {
    ...{ to: iso(to), wattHours: 500, peak: 2000, heating: 10, motor: to - from - 10 },
    ...{ idle: 0, unread: 0 },
    ...more,
  },
});

describe('loads put right by hand', () => {
  it('that were one are joined with all they had, and their pause is learned', () => {
    const both = joined(load(0, 40), load(60, 90, { peak: 2100 }));
    expect(both).toMatchObject({
      from: iso(0),
      cycle: { to: iso(90), wattHours: 1000, peak: 2100, heating: 20, idle: 20, joined: 20 },
    });
    expect(waysOf([both.cycle]).pause).toBe(20.5 * MINUTE);
    expect(() => joined(load(0, 40), load(200, 220))).toThrow(RangeError);
    expect(() => joined(load(100, 140), load(0, 20))).toThrow(RangeError);
  });

  it('that was two is parted in its longest pause, with the energy of each', () => {
    const watts = [
      ...Array<number>(30).fill(600),
      ...Array<number>(8).fill(2),
      ...Array<number>(20).fill(1200),
    ];
    watts[10] = 1;
    const [first, second] = parted(load(0, 58), watts)!;
    expect(first).toMatchObject({
      from: iso(0),
      cycle: { to: iso(30), wattHours: 290, heating: 0 },
    });
    expect(second).toMatchObject({
      from: iso(38),
      cycle: { to: iso(58), wattHours: 400, heating: 20, parted: 8 },
    });
    expect(waysOf([first.cycle, second.cycle]).pause).toBe(7.5 * MINUTE);
    expect(parted(load(0, 30), Array<number>(30).fill(600))).toBeUndefined();
  });

  it('teach the finder: a soak of twenty minutes is one load from then on', () => {
    const series = new PowerSeries(10_000);
    const soaks = (at: number): void => {
      for (let m = 0; m < 130; m += 1 / 6) {
        const runs = m < 40 || (m >= 60 && m < 100);
        const heats = m >= 5 && m < 20;
        const spins = m >= 92 && m < 100;
        series.add(at + m * MINUTE, runs ? (heats ? 2000 : spins ? 450 : 130) : 1);
      }
    };
    for (let i = 0; i < 3; i++) soaks(FROM + i * 6 * 60 * MINUTE);
    series.end();
    const found = findCycles(series.stretches(), series.bin);
    expect(found).toHaveLength(6);
    const [a, b] = found.map(toldLoad).map(({ from, ...cycle }) => ({ from, cycle }));
    const ways = waysOf([joined(a!, b!).cycle]);
    expect(ways.pause).toBeGreaterThan(USUAL_WAYS.pause);
    expect(findCycles(series.stretches(), series.bin, ways)).toHaveLength(3);
  });
});

describe('names of programmes', () => {
  it('go from one load to those that are like it, and to no other', () => {
    const right: boolean[] = [];
    for (const seed of [0.2, 0.5, 0.8]) {
      const { samples, loads } = standInLog({
        ...{ kinds: ['quick', 'hot'], every: 10, noise: 1, loads: 10, from: FROM },
        random: randomLcg(seed),
      });
      const log = new LiveLog();
      log.take(samples);
      const found = log.loads(samples.at(-1)!.at).map((cycle, i) => {
        const { from: _from, ...told } = toldLoad(cycle);
        return { id: `${i}`, from: cycle.from, cycle: told };
      });
      const kindOf = (from: number) =>
        loads.find((one) => Math.abs(one.from - from) < 10 * MINUTE)?.kind;
      for (const kind of ['quick', 'hot']) {
        const one = found.find(({ from }) => kindOf(from) === kind);
        if (one) one.cycle = { ...one.cycle, name: kind };
      }
      const names = programmeNames(found);
      for (const { id, from } of found) {
        const name = names.get(id);
        if (name !== undefined) right.push(name === kindOf(from));
      }
    }
    expect(right.length).toBeGreaterThan(10);
    expect(right).not.toContain(false);
  });
});
