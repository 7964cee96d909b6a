import { randomLcg, randomNormal } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { dryerWatts, type HiddenDryer } from '../stand-in/dryer.js';
import { airFromDuty } from './air-from-duty.js';
import { heaterDuty } from '../cycles/duty.js';

/* The air told from the watts, against made-up dryers whose air, leaks, losses, limit and room nobody told. */

const BIN = 10;
function drawn(seed: number): HiddenDryer {
  const random = randomLcg(seed);
  const between = (from: number, to: number) => from + (to - from) * random();
  const normal = randomNormal.source(random)(0, 1);
  return {
    flow: between(0.008, 0.05),
    heater: between(2000, 5400),
    motor: between(170, 260),
    room: 18 + 5 * Math.max(-2, Math.min(2, normal())),
    limit: 135 + 10 * Math.max(-2, Math.min(2, normal())),
    hysteresis: 20 * between(0.8, 1.2),
    leak: 0.08 * between(0, 1),
    loss: 9 * between(0.9, 1.1),
    box: 2500 * between(0.9, 1.1),
    reach: between(0.78, 0.9),
    water: between(1.2, 2.4),
  };
}

/** Its meter's bins of ten seconds, with noise. */
function metered(dryer: HiddenDryer, seed: number): number[] {
  const noise = randomNormal.source(randomLcg(seed))(0, 3);
  const watts = dryerWatts(dryer);
  return Array.from({ length: Math.floor(watts.length / BIN) }, (_, i) => {
    const some = watts.slice(i * BIN, (i + 1) * BIN);
    return some.reduce((sum, value) => sum + value, 0) / BIN + noise();
  });
}

const CASES = 240;
const tried = Array.from({ length: CASES }, (_, i) => {
  const seed = (i + 0.5) / CASES;
  const dryer = drawn(seed);
  const duty = heaterDuty(metered(dryer, seed), 1000 * BIN)!;
  return { dryer, duty, told: airFromDuty(duty) };
});

describe('a dryer’s air from its watts', () => {
  const cut = tried.flatMap(({ dryer, told }) => ('flow' in told ? [{ dryer, told }] : []));

  it('knows the heater and the motor', () => {
    for (const { dryer, duty } of tried) {
      expect(Math.abs(duty.heater / dryer.heater - 1)).toBeLessThan(0.03);
      expect(Math.abs(duty.motor - dryer.motor)).toBeLessThan(8);
    }
  });

  it('is within 15 % for eight in ten where the limit cuts', () => {
    expect(cut.length).toBeGreaterThan(0.3 * CASES);
    const near = cut.filter(({ dryer, told }) => Math.abs(told.flow / dryer.flow - 1) <= 0.15);
    expect(near.length / cut.length).toBeGreaterThanOrEqual(0.8);
  });

  it('lies in the range that is told for 75 to 85 in a hundred', () => {
    const inside = cut.filter(
      ({ dryer, told }) => told.low <= dryer.flow && dryer.flow <= told.high,
    );
    expect(inside.length / cut.length).toBeLessThanOrEqual(0.85);
  });

  it('is “more than” so much where the limit does not cut, and so it is', () => {
    const free = tried.flatMap(({ dryer, told }) => ('more' in told ? [{ dryer, told }] : []));
    expect(free.length).toBeGreaterThan(20);
    const right = free.filter(({ dryer, told }) => dryer.flow >= 0.85 * told.more);
    expect(right.length / free.length).toBeGreaterThan(0.9);
  });

  it('is told by no machine without a heater, and by no short run', () => {
    expect(heaterDuty(new Array<number>(300).fill(420), 10_000)).toBeUndefined();
    expect(heaterDuty([2200, 2200, 200], 60_000)).toBeUndefined();
  });
});
