import { randomLcg } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { PowerSeries } from '../log/power-series.js';
import { standInLog } from '../stand-in/log.js';
import type { StandIn, WasherState } from '../stand-in/programmes.js';
import { findCycles } from './cycles.js';
import { programmesOf } from './programmes.js';
import { toldLoad } from './told.js';
import { washFigures, type WashFigures } from './wash.js';

/* What is wrong with a made-up washer against what its log tells; the log comes of programmes, not of the finder. */

const FROM = Date.parse('2026-03-02T06:00:00Z');
const mean = (values: readonly (number | undefined)[]): number =>
  values.reduce<number>((sum, value) => sum + (value ?? NaN), 0) / values.length;

function washes(state: WasherState, kinds: readonly StandIn[] = ['cotton'], every = 5) {
  const random = randomLcg(0.37);
  const log = standInLog({
    ...{ kinds, every, random, loads: 20, from: FROM, noise: 2 },
    state: () => ({ heater: 2000, ...state }),
  });
  const series = new PowerSeries(1000 * every);
  for (const { at, watts } of log.samples) series.add(at, watts);
  series.end();
  return { loads: log.loads, cycles: findCycles(series.stretches(), series.bin) };
}
const figures = (...asked: Parameters<typeof washes>): WashFigures[] =>
  washes(...asked).cycles.map(({ wash }) => wash!);

describe('a wash', () => {
  const sound = figures({});

  it('tells how long heating takes for its energy: 60 minutes by the heater’s kW', () => {
    for (const { perKwh } of sound) expect(Math.abs(perKwh! - 30)).toBeLessThan(1.5);
    // On for two thirds of the time.
    const scaled = figures({ on: 0.67 });
    expect(mean(scaled.map(({ perKwh }) => perKwh)) / 30).toBeGreaterThan(1.3);
    expect(mean(scaled.map(({ perKwh }) => perKwh)) / 30).toBeLessThan(1.6);
  });

  it('tells when it had water enough to heat', () => {
    const usual = mean(sound.map(({ toHeat }) => toHeat));
    const slow = mean(figures({ filling: 4 }).map(({ toHeat }) => toHeat));
    // A fill of 1.4 minutes in the middle takes 4.2 more.
    expect(Math.abs(slow - usual - 4.2)).toBeLessThan(0.8);
    for (const { toHeat } of figures({}, ['cold'])) expect(toHeat).toBeUndefined();
  });

  it('tells how often it spins up: between the rinses, and at the end', () => {
    for (const { spins } of sound) expect(spins).toBe(3);
    for (const { spins } of figures({ tries: 4 })) expect(spins).toBe(7);
    for (const { spins } of figures({}, ['quick'])) expect(spins).toBe(2);
  });

  it('tells that it ended with the pump running, and of no other', () => {
    for (const { pumped } of sound) expect(pumped).toBeUndefined();
    const { loads, cycles } = washes({ blocked: true });
    expect(cycles).toHaveLength(loads.length);
    for (const { wash } of cycles) expect(wash!.pumped).toBeGreaterThanOrEqual(3);
  });

  it('tells nothing of spins where the meter speaks once a minute', () => {
    for (const one of figures({ tries: 4 }, ['cotton'], 60)) expect(one.spins).toBeUndefined();
    expect(washFigures(new Float32Array(0), 5000, 900, 6)).toEqual({ spins: 0 });
  });

  it('is kept to a tenth, and only where it tells something', () => {
    const { cycles } = washes({});
    const { wash } = toldLoad(cycles[0]!);
    expect(wash!.perKwh).toBe(Math.round(10 * cycles[0]!.wash!.perKwh!) / 10);
    const { wash: _wash, ...dried } = cycles[0]!;
    expect(toldLoad(dried)).not.toHaveProperty('wash');
  });
});

describe('programmes', () => {
  it('are told apart by what their loads take', () => {
    const { loads, cycles } = washes({}, ['hot', 'quick']);
    const named = cycles.map((cycle, i) => ({
      ...{ id: String(i), from: cycle.from },
      cycle: { to: new Date(cycle.to).toISOString(), wattHours: cycle.wattHours },
    }));
    const groups = programmesOf(named);
    for (const { ids } of groups) {
      expect(new Set(ids.map((id) => loads[Number(id)]!.kind)).size).toBe(1);
    }
    expect(groups.flatMap(({ ids }) => ids)).toHaveLength(loads.length);
    expect(groups.length).toBeLessThan(8);
    const [first] = groups;
    const called = programmesOf(
      named.map((load) =>
        load.id === first!.ids[0] ? { ...load, cycle: { ...load.cycle, name: 'Towels' } } : load,
      ),
    );
    expect(called[0]!.name).toBe('Towels');
  });

  it('follow what changes slowly', () => {
    // The water gets colder: half as much energy again within sixty loads.
    const loads = Array.from({ length: 60 }, (_, i) => ({
      ...{ id: String(i), from: FROM + i * 86_400_000 },
      cycle: {
        to: new Date(FROM + i * 86_400_000 + 5_400_000).toISOString(),
        wattHours: 600 * (1 + i / 120),
      },
    }));
    expect(programmesOf(loads)).toMatchObject([{ minutes: 90 }]);
  });
});
