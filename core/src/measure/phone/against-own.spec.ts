import { describe, expect, it } from 'vitest';
import { againstOwn, type OwnFigure } from './against-own.js';

const told = (...values: number[]) => values.map((value) => ({ value }));

describe('a phone’s figure against this machine’s own', () => {
  it.each<[OwnFigure, number, number[], object]>([
    ['spin-shake', 3.2, [2, 1.9, 2.4], { is: 'worse', own: 2, of: 3, change: 1.6 }],
    ['spin-shake', 2.5, [2, 1.9, 2.4], { is: 'as usual' }],
    ['spin-shake', 1, [2, 2.2], { is: 'better', own: 2.1 }],
    ['sound-level', -31, [-40, -39], { is: 'worse', change: 8.5 }],
    ['sound-level', -49, [-40], { is: 'better', change: -9 }],
    ['sound-level', -41, [-40], { is: 'as usual' }],
    // A screen is held against itself when it was washed, which is its best.
    ['screen-light', 20, [38, 25, 40], { is: 'worse', own: 40, change: 0.5 }],
    ['spin-speed', 600, [1200, 1180], { is: 'worse' }],
  ])('%s %f after %j', (figure, value, before, expected) => {
    const is = againstOwn(figure, value, told(...before))!;
    for (const [name, one] of Object.entries(expected)) {
      if (typeof one === 'number') expect(is[name as keyof typeof is]).toBeCloseTo(one, 9);
      else expect(is[name as keyof typeof is]).toBe(one);
    }
  });

  it('tells nothing where there is nothing to hold it against', () => {
    expect(againstOwn('spin-shake', 2, [])).toBeUndefined();
    expect(againstOwn('spin-shake', NaN, told(2))).toBeUndefined();
    expect(againstOwn('spin-shake', 2, told(0))).toBeUndefined();
  });
});
