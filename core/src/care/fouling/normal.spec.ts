import { describe, expect, it } from 'vitest';
import { normalCdf, normalQuantile } from './normal.js';

describe('normal distribution, against scipy.stats.norm (SciPy 1.10.1)', () => {
  it.each([
    [-8, 6.22096057427174e-16],
    [-6.5, 4.016000583859088e-11],
    [-3, 0.0013498980316300933],
    [-0.1, 0.460172162722971],
    [0, 0.5],
    [0.7, 0.758036347776927],
    [2.5, 0.9937903346742238],
    [6.2, 0.9999999997176842],
  ])('cdf(%d) is %d', (z, expected) => {
    expect(Math.abs(normalCdf(z) / expected - 1)).toBeLessThan(1e-9);
  });

  it.each([
    [0.02, -2.053748910631823],
    [0.1, -1.2815515655446004],
    [0.3, -0.5244005127080409],
    [0.5, 0],
    [0.975, 1.959963984540054],
  ])('quantile(%d) is %d', (p, expected) => {
    expect(normalQuantile(p)).toBeCloseTo(expected, 10);
  });

  it('has no quantile of 0, 1 or what is no probability', () => {
    for (const p of [0, 1, -0.1, 1.1, NaN]) expect(() => normalQuantile(p)).toThrow(RangeError);
  });
});
