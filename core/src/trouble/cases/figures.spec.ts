import { describe, expect, it } from 'vitest';
import { gather, type Fact } from '../../care/record/history.js';
import { lastFigures } from './figures.js';

const heard = (day: number, value: number, device: string): Fact => ({
  ...{ entryId: `e${day}`, kind: 'reading', at: day, day: '2026-06-15' },
  ...{ quantity: 'sound-level', value, unit: 'dB', device, placement: 'on the lid' },
});

describe('the latest figures of a machine', () => {
  it('are those of the phone that measured last, where phones differ', () => {
    const past = gather([heard(1, 70, 'Odo’s'), heard(2, 40, 'Wren’s'), heard(3, 61, 'Odo’s')]);
    expect(lastFigures(past)).toEqual({
      'sound-level': [
        { value: 61, at: 3 },
        { value: 70, at: 1 },
      ],
    });
  });

  it('are told of what measures no task as well', () => {
    const fill: Fact = {
      ...{ entryId: 'f', kind: 'reading', at: 1, day: '2026-06-15' },
      ...{ quantity: 'fill-litres', value: 1.5, unit: 'L' },
    };
    expect(lastFigures(gather([fill]))).toEqual({ 'fill-litres': [{ value: 1.5, at: 1 }] });
  });
});
