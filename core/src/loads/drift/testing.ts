import { randomLcg, randomNormal } from 'd3-random';
import { findCycles } from '../cycles/cycles.js';
import { toldLoad } from '../cycles/told.js';
import { PowerSeries } from '../log/power-series.js';
import { standInLog } from '../stand-in/log.js';
import type { StandIn, WasherState } from '../stand-in/programmes.js';
import type { DriftFigure } from './drift.js';
import type { MeteredLoad } from './watched.js';

/* Houses whose figure of drying scatters and changes as it is said, for checks of what is signalled. */

const DAY = 86_400_000;
const FROM = Date.parse('2026-01-05T06:00:00Z');

/**
 * A load a day: a usual figure, scatter of a law that is not quite normal, and a factor as it goes.
 * @param seed 0 to 1 @param loads how many @param factor of load `i`, a number
 */
export function driftHouse(
  seed: number,
  loads: number,
  factor: (i: number) => number = () => 1,
): DriftFigure[] {
  const random = randomLcg(seed);
  const scatter = 0.05 + 0.07 * random();
  const usual = 20 + 20 * random();
  const noise = randomNormal.source(random)(0, scatter);
  return Array.from({ length: loads }, (_, i): DriftFigure => {
    const odd = random() < 0.03 ? 0.3 * (random() - 0.3) : 0;
    return { id: String(i), at: i * DAY, value: usual * factor(i) * Math.exp(noise() + odd) };
  });
}

/** A duct that closes within ten months, at four loads a week: a straight rise to half as long again. */
export const closing = (i: number): number => (i < 40 ? 1 : 1 + (0.5 * (i - 40)) / 170);

const WASHES: readonly StandIn[] = ['cotton', 'cotton', 'quick', 'hot', 'cold'];
/** Samples, s. */
const EVERY = 5;

/**
 * The loads of a made-up washer, as they are found in its meter's log: programmes as they come, and a heater of its own
 * that goes with the mains.
 * @param seed 0 to 1 @param loads how many @param state of load `i`
 */
export function washerHouse(
  seed: number,
  loads: number,
  state: (i: number) => WasherState = () => ({}),
): MeteredLoad[] {
  const random = randomLcg(seed);
  const heater = 1750 + 500 * random();
  const mains = randomNormal.source(randomLcg(1 - seed))(1, 0.02);
  const { samples } = standInLog({
    ...{ kinds: WASHES, loads, random, every: EVERY, from: FROM },
    noise: 1 + 2 * random(),
    apart: 0.5,
    state: (i) => ({
      heater: heater * mains() ** 2,
      // Now and then a load lies badly, and the drum tries once or twice more.
      tries: random() < 0.15 ? 1 + Math.floor(2 * random()) : 0,
      ...state(i),
    }),
  });
  const series = new PowerSeries(1000 * EVERY);
  for (const { at, watts } of samples) series.add(at, watts);
  series.end();
  return findCycles(series.stretches(), series.bin).map((cycle, i) => {
    const { from, ...told } = toldLoad(cycle);
    return { id: String(i), from: Date.parse(from), to: Date.parse(told.to), cycle: told };
  });
}
