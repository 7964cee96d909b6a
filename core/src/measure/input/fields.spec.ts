import { describe, expect, it } from 'vitest';
import { exampleIn, sayByHand, type Fields } from './fields.js';

const FIELDS = {
  bag: { label: 'Bag', dimension: 'volume', least: 0, most: 1 },
  height: { label: 'Height', dimension: 'length', least: 0, most: 1, metric: 'cm', us: 'in' },
} as const satisfies Fields;
const FIRST = { bag: { value: 113, unit: 'L' }, height: { value: 80, unit: 'cm' } };

describe('a figure taken by hand', () => {
  it('is told no finer than it is known', () => {
    expect(sayByHand(0.0378, 'flow')).toBe('38 L/s, give or take 4');
    expect(sayByHand(0.000251, 'flow', 'metric', 'L/min')).toBe('15 L/min, give or take 2');
    expect(sayByHand(0.0378, 'flow', 'us')).toBe('80 ft³/min, give or take 8');
  });
});

describe('an example', () => {
  it('stands as it was thought of in the metric system', () => {
    expect(exampleIn(FIRST, FIELDS, 'metric')).toEqual(FIRST);
  });

  it('is rounded to two figures in the units of the other', () => {
    // 113 L is 29.85 US gallons of 3.785411784 L, 80 cm is 31.5 in of 2.54 cm.
    expect(exampleIn(FIRST, FIELDS, 'us')).toEqual({
      bag: { value: 30, unit: 'gal' },
      height: { value: 31, unit: 'in' },
    });
  });

  it('leaves alone what the fields do not know', () => {
    const other = { speed: { value: 3, unit: 'm/s' } };
    expect(exampleIn(other, FIELDS, 'us')).toEqual(other);
  });
});
