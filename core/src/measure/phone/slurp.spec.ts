import { randomLcg, randomNormal } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { PumpListener } from './slurp.js';

const RATE = 16_000;

/** A pump: a hum of 100 Hz with its own noise; from `dry` on it is louder and softer by turns, unevenly. */
function pump(seconds: number, dry: number, seed: number, room = 0.002): Float32Array {
  const noise = randomNormal.source(randomLcg(seed))(0, 1);
  const turns = randomNormal.source(randomLcg(seed + 0.1))(0, 1);
  let gate = 1;
  return Float32Array.from({ length: seconds * RATE }, (_, i) => {
    const t = i / RATE;
    if (i % (RATE / 8) === 0) gate = t >= dry ? Math.max(0.05, 0.6 + 0.5 * turns()) : 1;
    const hum = 0.05 * Math.sin(2 * Math.PI * 100 * t) + 0.02 * noise();
    return gate * hum + room * noise();
  });
}

/** Listens as a browser gives sound, in pieces. */
function listened(samples: Float32Array): number | undefined {
  const listener = new PumpListener(RATE);
  let slurps: number | undefined;
  for (let i = 0; i < samples.length; i += 4096) {
    slurps ??= listener.hear(samples.subarray(i, i + 4096)).slurps;
  }
  return slurps;
}

describe('a pump that is listened to', () => {
  it.each([0.1, 0.2, 0.3, 0.4, 0.5, 0.6])(
    'is heard running dry within a second (seed %f)',
    (seed) => {
      const heard = listened(pump(50, 38, seed));
      expect(heard).toBeGreaterThan(37);
      expect(heard).toBeLessThan(39.5);
    },
  );

  it.each([0.15, 0.25, 0.35, 0.45])('is not heard running dry while it flows (seed %f)', (seed) => {
    expect(listened(pump(60, 1000, seed))).toBeUndefined();
  });

  it('is not taken for dry by a flow that gets slowly louder', () => {
    const flow = pump(60, 1000, 0.7).map((one, i) => one * (1 + i / (60 * RATE)));
    expect(listened(flow)).toBeUndefined();
  });

  it('is told from silence', () => {
    expect(new PumpListener(RATE).hear(new Float32Array(RATE)).runs).toBe(false);
    expect(new PumpListener(RATE).hear(pump(1, 10, 0.5)).runs).toBe(true);
    expect(listened(new Float32Array(20 * RATE))).toBeUndefined();
  });
});
