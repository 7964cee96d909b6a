import { randomLcg } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { PowerSeries } from '../log/power-series.js';
import type { StandIn } from '../stand-in/programmes.js';
import { standInLog, type RunLoad, type StandInOptions } from '../stand-in/log.js';
import { findCycles, type Cycle } from './cycles.js';

/* Loads found in made-up logs against the loads that were run; the logs come from programmes, not from the finder. */

const FROM = Date.parse('2026-03-02T06:00:00Z');
const MINUTE = 60_000;
const WASHES: readonly StandIn[] = ['cotton', 'hot', 'cold', 'quick', 'soak'];
const FLEETS: readonly (readonly StandIn[])[] = [
  WASHES,
  ['vented'],
  ['condenser'],
  ['heat-pump'],
  ['wash-and-dry', 'cotton'],
  ['cold', 'cotton'],
];

function found({ samples }: { samples: readonly { at: number; watts: number }[] }, every: number) {
  const series = new PowerSeries(1000 * every);
  for (const { at, watts } of samples) series.add(at, watts);
  series.end();
  return findCycles(series.stretches(), series.bin);
}

/** How many loads were found, once each, how many more than there were, and each with what was found. */
function against(loads: readonly RunLoad[], cycles: readonly Cycle[]) {
  const pairs: [RunLoad, Cycle][] = [];
  for (const load of loads) {
    const over = cycles.filter(({ from, to }) => from < load.to && to > load.from);
    if (over.length === 1 && !pairs.some(([, one]) => one === over[0]))
      pairs.push([load, over[0]!]);
  }
  return { hit: pairs.length, extra: cycles.length - pairs.length, pairs };
}

const logOf = (i: number): { options: StandInOptions; every: number } => {
  const random = randomLcg((i + 1) / 97);
  const every = [1, 2, 5, 10, 30, 60][i % 6]!;
  const noise = [1, 2, 5, 10][Math.floor(i / 6) % 4]!;
  const kinds = FLEETS[(i * 7 + Math.floor(i / 6)) % FLEETS.length]!;
  const dries = !WASHES.includes(kinds[0]!);
  return {
    every,
    options: {
      ...{ kinds, every, noise, random, loads: 12, from: FROM },
      ...{ tails: dries && i % 2 === 0, backToBack: i % 3 === 0 ? 0.3 : 0 },
    },
  };
};

describe('loads in sixty logs of made-up machines', () => {
  const tried = Array.from({ length: 60 }, (_, i) => {
    const { options, every } = logOf(i);
    const log = standInLog(options);
    const name = `log ${i}: ${options.kinds.join()}, each ${every} s, noise ${options.noise} W`;
    return {
      name,
      every,
      noise: options.noise,
      of: log.loads.length,
      ...against(log.loads, found(log, every)),
    };
  });

  it('are found, 99 in 100 of them, and none twice', () => {
    const sum = (what: 'hit' | 'of') => tried.reduce((all, one) => all + one[what], 0);
    expect(sum('of')).toBe(720);
    expect(sum('hit') / sum('of')).toBeGreaterThanOrEqual(0.99);
    expect(tried.filter(({ extra }) => extra > 0)).toEqual([]);
  });

  it('begin within a sample or a minute; where the meter’s noise hides the valves, by the first turn of the drum', () => {
    for (const { name, every, noise, pairs } of tried) {
      // A drum that stands every third sample is met by the second one.
      const near = Math.max(MINUTE, 2000 * every) + new PowerSeries(1000 * every).bin;
      for (const [{ from, moves }, cycle] of pairs) {
        expect(cycle.from, name).toBeGreaterThanOrEqual(from - near);
        expect(cycle.from, name).toBeLessThanOrEqual((noise >= 5 ? moves : from) + near);
      }
    }
  });

  it('have their energy, within a tenth', () => {
    for (const { name, every, noise, pairs } of tried) {
      // A drum that turns for a few seconds at a time is not met by a sample a minute.
      if (every > 10 || noise > 5) continue;
      for (const [{ wattHours }, cycle] of pairs) {
        expect(cycle.wattHours / wattHours, name).toBeGreaterThan(0.9);
        expect(cycle.wattHours / wattHours, name).toBeLessThan(1.1);
      }
    }
  });
});

describe('the heater’s duty', () => {
  const of = (kinds: readonly StandIn[]) => {
    const random = randomLcg(0.6);
    const from = FROM;
    return found(standInLog({ kinds, loads: 8, from, every: 10, noise: 1, random }), 10);
  };

  it('is told of a dryer that heats all along, and of no washer', () => {
    const dried = of(['condenser']);
    expect(dried).toHaveLength(8);
    for (const { duty, heater } of dried) {
      expect(duty).toBeGreaterThan(0.95);
      expect(heater).toBeGreaterThan(1800);
    }
    for (const { duty } of of(['cotton', 'hot', 'cold'])) expect(duty).toBeUndefined();
  });
});
