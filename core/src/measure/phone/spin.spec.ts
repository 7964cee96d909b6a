import { randomLcg, randomNormal } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { spinOf, type Felt } from './spin.js';

interface Making {
  seconds: number;
  rate: number;
  /** Hz of the drum at a time, s, and m/s² that it shakes with. */
  hz: (t: number) => number;
  shakes: (t: number) => number;
  round?: number;
  jitter?: number;
  gap?: [from: number, to: number];
  second?: number;
}

/** What a phone would feel of a drum that turns so. */
function felt({
  seconds,
  rate,
  hz,
  shakes,
  round = 0,
  jitter = 0,
  gap,
  second = 0,
}: Making): Felt[] {
  const random = randomLcg(0.4);
  const noise = randomNormal.source(randomLcg(0.2))(0, 0.05);
  const rounded = (value: number) => (round ? Math.round(value / round) * round : value);
  const all: Felt[] = [];
  let phase = 0;
  for (let t = 0; t < seconds; t += 1 / rate) {
    phase += (2 * Math.PI * hz(t)) / rate;
    if (gap && t > gap[0] && t < gap[1]) continue;
    const a = shakes(t);
    all.push({
      at: 1000 * t + jitter * (random() - 0.5),
      x: rounded(a * Math.sin(phase) + noise()),
      y: rounded(0.4 * a * Math.cos(phase) + second * a * Math.sin(2 * phase) + noise()),
      z: rounded(9.81 + 0.2 * a * Math.sin(phase + 1) + noise()),
    });
  }
  return all;
}

const told = (making: Making) => {
  const spin = spinOf(felt(making));
  if (typeof spin === 'string') throw new Error(spin);
  return spin;
};

describe('a spin under a phone', () => {
  it.each([
    [800, 100],
    [1200, 100],
    [1400, 60],
    [1000, 60],
  ])(
    'of %d turns a minute is told within 1 % at %d samples a second, rounded, with jitter',
    (rpm, rate) => {
      const { speed } = told({
        ...{ seconds: 14, rate, hz: () => rpm / 60, shakes: () => 1.5 },
        ...{ round: 0.1, jitter: 4 },
      });
      expect(Math.abs(speed!.rpm / rpm - 1)).toBeLessThan(0.01);
      expect(speed!.give).toBeGreaterThan(0);
    },
  );

  it('is not taken for one twice as fast where it shakes twice a turn', () => {
    const { speed } = told({ seconds: 14, rate: 100, hz: () => 13.3, shakes: () => 1, second: 2 });
    expect(Math.abs(speed!.rpm / 798 - 1)).toBeLessThan(0.01);
  });

  it('has the strength that was made, by axis and together, within half a decibel', () => {
    const { rms, peak } = told({ seconds: 12, rate: 100, hz: () => 16, shakes: () => 2 });
    expect(Math.abs(20 * Math.log10(rms.x / (2 / Math.SQRT2)))).toBeLessThan(0.5);
    expect(rms.all).toBeGreaterThan(rms.x);
    expect(peak).toBeGreaterThan(1.9);
  });

  it('shows where the tub swings by itself on the way up', () => {
    const spin = told({
      ...{ seconds: 40, rate: 100 },
      hz: (t) => (t < 20 ? 4 + (t / 20) * 14 : 18),
      shakes: (t) => (t < 20 ? 1 + 5 * Math.exp(-(((4 + (t / 20) * 14 - 5) / 1.2) ** 2)) : 1),
    });
    expect(spin.resonance!.rpm!).toBeGreaterThan(230);
    expect(spin.resonance!.rpm!).toBeLessThan(420);
    expect(spin.course.at(-1)!.rpm! / 1080).toBeCloseTo(1, 1);
    // What is held against other spins is the steady part, not the way up.
    const steady = told({ seconds: 14, rate: 100, hz: () => 18, shakes: () => 1 }).rms.all;
    expect(spin.steady! / steady).toBeGreaterThan(0.9);
    expect(spin.steady! / steady).toBeLessThan(1.1);
    expect(spin.rms.all / steady).toBeGreaterThan(1.3);
  });

  it('goes on with the longest stretch where something broke it off', () => {
    const { speed } = told({ seconds: 24, rate: 60, hz: () => 20, shakes: () => 1, gap: [5, 8] });
    expect(Math.abs(speed!.rpm / 1200 - 1)).toBeLessThan(0.01);
  });

  it('says when there is too little to tell from, and tells no speed of a machine that stands', () => {
    expect(spinOf([])).toBe('too short');
    expect(spinOf(felt({ seconds: 3, rate: 60, hz: () => 20, shakes: () => 1 }))).toBe('too short');
    expect(spinOf(felt({ seconds: 20, rate: 10, hz: () => 4, shakes: () => 1 }))).toBe('too slow');
    const falls = felt({ seconds: 14, rate: 60, hz: () => 20, shakes: () => 1 });
    falls[400] = { ...falls[400]!, z: 60 };
    expect(spinOf(falls)).toBe('fell');
    const noughts = falls.map(({ at }) => ({ at, x: 0, y: 0, z: 0 }));
    expect(spinOf(noughts)).toBe('still');
    expect(spinOf(noughts.map((one) => ({ ...one, x: 1e308, z: -1e308 })))).toBeTypeOf('string');
    const still = told({ seconds: 14, rate: 60, hz: () => 0, shakes: () => 0 });
    expect(still.speed).toBeUndefined();
    expect(still.rms.all).toBeLessThan(0.15);
  });
});
