import { describe, expect, it } from 'vitest';
import { level } from '../water/level.js';
import { halfTurn, isWorthTurns, levelGiven, meanTilt, tiltOf, type Tilt } from './tilt.js';

/** Degrees of alpha, beta and gamma, and the last row of the rotation by SciPy 1.17 (`Rotation.from_euler('ZXY')`), once. */
const SCIPY = [
  [0, 0, 0, 0, 0, 1],
  [30, 10, -5, 0.085831651, 0.173648178, 0.981060262],
  [200, -3.2, 1.7, -0.029619987, -0.055821505, 0.998001311],
  [359, 0.7, -0.9, 0.015706145, 0.012217001, 0.999802011],
] as const;

const lies = (across: number, along: number, n = 20): Tilt[] =>
  Array.from({ length: n }, (_, i) => ({
    across: across + (i % 2 ? 0.4 : -0.4),
    along: along + (i % 3 ? 0.2 : -0.4),
  }));

describe('a phone that lies on a machine', () => {
  it.each(SCIPY)(
    'at %d, %d, %d degrees tilts as the rotation says',
    (_alpha, beta, gamma, x, y) => {
      const { across, along } = tiltOf({ beta, gamma });
      expect(across).toBeCloseTo((1000 * x) / Math.sqrt(1 - x * x), 4);
      expect(along).toBeCloseTo((1000 * y) / Math.sqrt(1 - y * y), 4);
    },
  );

  it('tells a millimetre on a metre for 0.0573 degrees, whichever way, reckoned by hand', () => {
    const degrees = (Math.atan(1 / 1000) * 180) / Math.PI;
    expect(degrees).toBeCloseTo(0.0573, 4);
    expect(tiltOf({ beta: degrees, gamma: 0 }).along).toBeCloseTo(1, 9);
    expect(tiltOf({ beta: 0, gamma: -degrees }).across).toBeCloseTo(1, 9);
    expect(tiltOf({ beta: 0, gamma: -45 }).across).toBeCloseTo(1000, 6);
  });

  it('turned half round gives its own error away, whatever it is', () => {
    for (const machine of [
      { across: 6, along: -3 },
      { across: 0, along: 0 },
    ]) {
      for (const own of [
        { across: 22, along: -9 },
        { across: -1, along: 4 },
      ]) {
        const plus = (sign: 1 | -1): Tilt => ({
          across: sign * machine.across + own.across,
          along: sign * machine.along + own.along,
        });
        const found = halfTurn(plus(1), plus(-1));
        expect(found.tilt.across).toBeCloseTo(machine.across, 9);
        expect(found.tilt.along).toBeCloseTo(machine.along, 9);
        expect(found.own).toEqual(own);
      }
    }
  });

  it('is good for 2 mm/m at best, and says why it tells nothing', () => {
    const mean = meanTilt(lies(7, -2), { across: 1, along: 1 });
    if (typeof mean === 'string') throw new Error(mean);
    expect(mean.tilt.across).toBeCloseTo(6, 1);
    expect(mean.tilt.along).toBeCloseTo(-3, 1);
    expect(mean.give).toBeGreaterThanOrEqual(2);
    expect(meanTilt(lies(0, 0, 3))).toBe('too few');
    expect(meanTilt(lies(400, 0))).toBe('not lying');
    expect(meanTilt([...lies(0, 0), ...lies(60, 0)])).toBe('moved');
    expect(meanTilt(Array.from({ length: 9 }, () => ({ across: NaN, along: 0 })))).toBe('too few');
  });

  it('goes into the level: which foot, which way', () => {
    const { given, higher } = levelGiven({ across: 4, along: 0 });
    const { feet } = level(
      { ...given, width: { value: 54, unit: 'cm' }, depth: { value: 50, unit: 'cm' } },
      'M10',
      higher,
    );
    expect(feet.find(({ foot }) => foot === 'front-left')!.turns).toBeCloseTo(1.44, 2);
    expect(feet.find(({ foot }) => foot === 'front-right')!.turns).toBe(0);
    const back = levelGiven({ across: 0, along: 5 });
    expect(
      level(
        { ...back.given, width: { value: 54, unit: 'cm' }, depth: { value: 50, unit: 'cm' } },
        'M10',
        back.higher,
      ).feet.find(({ foot }) => foot === 'front-left')!.raise,
    ).toBeGreaterThan(0);
    expect([
      isWorthTurns({ across: 3.9, along: -3 }),
      isWorthTurns({ across: 1, along: -4.1 }),
    ]).toEqual([false, true]);
  });
});
