import { randomLcg, randomNormal } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { decibels, heardIn, LOUDEST, type Heard } from './sound.js';

const RATE = 48_000;
const sound = (seconds: number, of: (t: number) => number): Float32Array =>
  Float32Array.from({ length: seconds * RATE }, (_, i) => of(i / RATE));
const heard = (samples: Float32Array): Heard => {
  const found = heardIn(samples, RATE);
  if (typeof found === 'string') throw new Error(found);
  return found;
};
const sine = (hz: number, amplitude: number) => (t: number) =>
  amplitude * Math.sin(2 * Math.PI * hz * t);

describe('a sound', () => {
  it.each([
    [0.5, -9.03],
    [0.1, -23.01],
    [0.01, -43.01],
  ])(
    'of a sine of %d is as loud as reckoned by hand, %d dB, within half a decibel',
    (amplitude, level) => {
      // 20 log10(amplitude / √2)
      expect(
        Math.abs(heard(sound(3, sine(440, amplitude))).level - (LOUDEST + level)),
      ).toBeLessThan(0.5);
      expect(decibels(amplitude / Math.SQRT2)).toBeCloseTo(level, 1);
    },
  );

  it('tells how much quieter it became', () => {
    const noise = randomNormal.source(randomLcg(0.1))(0, 0.05);
    const before = heard(sound(3, () => noise()));
    const after = heard(sound(3, () => noise() / 2.818));
    expect(after.level - before.level).toBeCloseTo(-9, 0);
  });

  it.each([49.2, 120, 998, 3150])('has a tone of %d Hz within 1 % in noise', (hz) => {
    const noise = randomNormal.source(randomLcg(0.6))(0, 0.02);
    const { tones } = heard(sound(4, (t) => sine(hz, 0.1)(t) + noise()));
    expect(Math.abs(tones[0]!.hz / hz - 1)).toBeLessThan(hz < 100 ? 0.05 : 0.01);
    expect(tones[0]!.over).toBeGreaterThan(10);
  });

  it('tells multiples of a motor from tones that are none', () => {
    const { tones } = heard(
      sound(
        4,
        (t) => sine(150, 0.2)(t) + sine(300, 0.1)(t) + sine(450, 0.05)(t) + sine(713, 0.08)(t),
      ),
    );
    const near = (hz: number) => tones.find((one) => Math.abs(one.hz - hz) < 6)!;
    expect([
      near(150).multiple,
      near(300).multiple,
      near(450).multiple,
      near(713).multiple,
    ]).toEqual([undefined, 2, 3, undefined]);
  });

  it('roars where it is broad, and not where it is one tone', () => {
    const noise = randomNormal.source(randomLcg(0.9))(0, 0.1);
    expect(heard(sound(3, sine(800, 0.3))).roar).toBeLessThan(0.05);
    expect(heard(sound(3, () => noise())).roar).toBeGreaterThan(0.1);
  });

  it('counts thumps of a drum, 50 a minute, and none of a hum', () => {
    const noise = randomNormal.source(randomLcg(0.5))(0, 0.01);
    const thumping = heard(
      sound(
        10,
        (t) =>
          noise() + 0.4 * Math.exp(-((t * (50 / 60)) % 1) * 12) * Math.sin(2 * Math.PI * 90 * t),
      ),
    );
    expect(thumping.thumps! * 60).toBeCloseTo(50, -0.3);
    expect(Math.abs((thumping.thumps! * 60) / 50 - 1)).toBeLessThan(0.03);
    expect(heard(sound(6, sine(100, 0.2))).thumps).toBeUndefined();
  });

  it('says why it tells nothing', () => {
    expect(heardIn(sound(1, sine(100, 0.1)), RATE)).toBe('too short');
    expect(
      heardIn(
        sound(3, () => 0),
        RATE,
      ),
    ).toBe('silent');
    expect(
      heardIn(
        sound(3, (t) => Math.sign(sine(100, 1)(t))),
        RATE,
      ),
    ).toBe('too loud');
  });
});
