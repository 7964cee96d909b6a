import type { Stretch } from '../log/power-series.js';

/** Bins of the histogram of ln W, from 2 W to 20 kW. */
const CLASSES = 96;
/** Under this a meter tells hardly more than its noise, W. */
const LEAST = 2;
const [FROM, TO] = [Math.log(LEAST), Math.log(20_000)];
/** A machine that runs takes so many watts at least; what idles, at most. Common practice. */
const LEAST_RUNNING = 6;
const MOST_IDLE = 60;
/** Where a log never rests, or never runs, W. */
const USUAL = 12;
/** It goes off at this share of what it goes on at. */
const HYSTERESIS = 0.6;
/** Over stand-by, by so many of its own spreads. */
const OVER_NOISE = 4;

/** Where a machine is on and off, W, as its own log has it. */
export interface OnOff {
  on: number;
  off: number;
  /** What it takes while it rests: the mean, W; and how far its samples lie from it. */
  standby: number;
  spread: number;
}

/**
 * Splits a log into rest and work by its own figures: the two classes of ln W that lie furthest apart (Otsu 1979), and
 * well over what it takes at rest with the meter's noise.
 */
export function onAndOff(stretches: readonly Stretch[]): OnOff {
  const counts = new Float64Array(CLASSES);
  let all = 0;
  for (const { watts } of stretches) {
    for (const value of watts) {
      if (Number.isNaN(value)) continue;
      counts[classOf(value)]!++;
      all++;
    }
  }
  if (all === 0) return { on: USUAL, off: USUAL * HYSTERESIS, standby: 0, spread: 0 };
  const split = otsu(counts, all);
  // Once more with what noise there is: an edge within it would cut it off.
  const first = restOf(stretches, split);
  const { middle, mean, spread } = restOf(
    stretches,
    Math.max(split, Math.min(MOST_IDLE, first.middle + OVER_NOISE * first.spread)),
  );
  const noisy = middle + OVER_NOISE * spread;
  const on = Math.max(
    LEAST_RUNNING,
    Math.min(MOST_IDLE, split > MOST_IDLE && middle > MOST_IDLE ? USUAL : split),
    Math.min(MOST_IDLE, noisy),
  );
  return {
    on,
    off: Math.max(LEAST_RUNNING / 2, on * HYSTERESIS, middle + spread),
    standby: mean,
    spread,
  };
}

const classOf = (watts: number): number => {
  const share = (Math.log(Math.max(watts, LEAST)) - FROM) / (TO - FROM);
  return Math.min(CLASSES - 1, Math.max(0, Math.floor(share * CLASSES)));
};
const wattsAt = (at: number): number => Math.exp(FROM + (at / CLASSES) * (TO - FROM));

/** The edge between two classes that leaves the most of the spread between them, W. */
function otsu(counts: Float64Array, all: number): number {
  let total = 0;
  for (let i = 0; i < CLASSES; i++) total += i * counts[i]!;
  let [below, sum, best, edge, last] = [0, 0, -1, 0, 0];
  for (let i = 0; i < CLASSES - 1; i++) {
    below += counts[i]!;
    sum += i * counts[i]!;
    const above = all - below;
    if (below === 0 || above === 0) continue;
    const between = below * above * (sum / below - (total - sum) / above) ** 2;
    // Where nothing lies between two classes, their edge is in the middle of that.
    if (between > best * (1 + 1e-12)) [best, edge, last] = [between, i, i];
    else if (between > best * (1 - 1e-12)) last = i;
  }
  return wattsAt((edge + last) / 2 + 1);
}

interface Rest {
  middle: number;
  mean: number;
  spread: number;
}

/**
 * What is taken at rest: the middle below an edge, and the spread, by the upper side alone: a meter that tells no
 * less than 0 W has no lower one.
 */
function restOf(stretches: readonly Stretch[], edge: number): Rest {
  const below: number[] = [];
  for (const { watts } of stretches) {
    const step = Math.max(1, Math.floor(watts.length / 20_000));
    for (let i = 0; i < watts.length; i += step) if (watts[i]! < edge) below.push(watts[i]!);
  }
  if (!below.length) return { middle: 0, mean: 0, spread: 0 };
  below.sort((a, b) => a - b);
  const at = (share: number): number => below[Math.floor(share * (below.length - 1))]!;
  const middle = at(0.5);
  // Three in four lie within 0.6745 standard deviations above the middle, where the noise is normal.
  const spread = (at(0.75) - middle) / 0.6745;
  let [sum, n] = [0, 0];
  for (const watts of below) {
    if (watts > middle + OVER_NOISE * spread + 0.5) break;
    sum += watts;
    n++;
  }
  return { middle, mean: sum / n, spread };
}
