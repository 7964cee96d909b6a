import { randomLcg, randomNormal } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { evenly, peaksOf, powerBetween, powerOfTwo, spectrumOf } from './spectrum.js';

const RATE = 100;
const wave = (n: number): Float64Array =>
  Float64Array.from({ length: n }, (_, i) => {
    const t = i / RATE;
    return (
      0.8 * Math.sin(2 * Math.PI * 13.37 * t + 0.3) +
      0.2 * Math.sin(2 * Math.PI * 26.74 * t) +
      0.05 * t
    );
  });

describe('a spectrum', () => {
  // scipy.signal.welch 1.17, hann, 128 a stretch, half overlapping, constant detrend, density; computed once.
  it.each([
    [1, 0.00010686931],
    [10, 2.758355e-8],
    [16, 0.047233416],
    [17, 0.26855475],
    [18, 0.093589194],
    [34, 0.015963842],
    [35, 0.0076497279],
    [64, 1.4616017e-12],
  ])('has in bin %d what SciPy has', (bin, density) => {
    const spectrum = spectrumOf(wave(512), RATE, 128);
    expect(spectrum.step).toBe(RATE / 128);
    expect(spectrum.density[bin]! / density).toBeCloseTo(1, 4);
  });

  it('holds the power of a sine, half its amplitude squared, within half a decibel', () => {
    for (const [hz, amplitude] of [
      [13.37, 0.8],
      [7, 2],
      [31.2, 0.05],
    ] as const) {
      const sine = Float64Array.from(
        { length: 2048 },
        (_, i) => amplitude * Math.sin((2 * Math.PI * hz * i) / RATE),
      );
      const power = powerBetween(spectrumOf(sine, RATE, 1024), hz - 1, hz + 1);
      expect(Math.abs(10 * Math.log10(power / (amplitude ** 2 / 2)))).toBeLessThan(0.5);
    }
  });

  it('finds a tone between its bins, in noise, within 1 %', () => {
    const noise = randomNormal.source(randomLcg(0.3))(0, 0.5);
    for (const hz of [5.3, 13.37, 22.81]) {
      const samples = Float64Array.from(
        { length: 1024 },
        (_, i) => Math.sin((2 * Math.PI * hz * i) / RATE) + noise(),
      );
      const [first] = peaksOf(spectrumOf(samples, RATE, 512), 8, 2, 48);
      expect(Math.abs(first!.hz / hz - 1)).toBeLessThan(0.01);
    }
  });

  it('finds nothing where there is noise alone, and wants a stretch', () => {
    const noise = randomNormal.source(randomLcg(0.7))(0, 1);
    const samples = Float64Array.from({ length: 4096 }, () => noise());
    expect(peaksOf(spectrumOf(samples, RATE, 256), 8, 2, 48)).toEqual([]);
    expect(() => spectrumOf(new Float64Array(100), RATE, 128)).toThrow(RangeError);
    expect(() => spectrumOf(new Float64Array(400), RATE, 100)).toThrow(RangeError);
    expect([powerOfTwo(1), powerOfTwo(129), powerOfTwo(1024)]).toEqual([2, 128, 1024]);
  });
});

describe('samples that come unevenly', () => {
  it('are even after it, by straight lines', () => {
    const [even] = evenly(
      [
        { at: 0, value: 0 },
        { at: 15, value: 15 },
        { at: 40, value: 40 },
      ],
      100,
      100,
    );
    expect([...even!].map(Math.round)).toEqual([0, 10, 20, 30, 40]);
  });

  it('are parted by a gap; what is no number, twice there or out of order is put right', () => {
    const parts = evenly(
      [
        { at: 20, value: 2 },
        { at: 0, value: 0 },
        { at: 20, value: 9 },
        { at: NaN, value: 1 },
        { at: 900, value: 1 },
        { at: 920, value: 1 },
      ],
      100,
      300,
    );
    expect(parts.map(({ length }) => length)).toEqual([3, 3]);
  });
});
