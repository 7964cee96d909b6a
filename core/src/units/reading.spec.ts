import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { QUANTITIES, QUANTITY_IDS, quantityOf } from '../model/quantities.js';
import { convert, DIMENSIONS, unitsOf } from './quantity.js';
import { readReading } from './reading.js';

describe('a reading', () => {
  it('is kept in the unit of its quantity, whatever it was told in', () => {
    // Definitions: a minute is 60 s, a US gallon 3.785411784 L, an inch 2.54 cm.
    expect(readReading({ quantity: 'drain-time', value: 2, unit: 'min' })).toEqual({
      value: 120,
      unit: 's',
    });
    expect(readReading({ quantity: 'fill-litres', value: 1, unit: 'gal' })).toEqual({
      value: expect.closeTo(3.785411784, 6) as number,
      unit: 'L',
    });
    expect(readReading({ quantity: 'hose-top', value: 30, unit: 'in' })).toEqual({
      value: 76.2,
      unit: 'cm',
    });
  });

  it.each([
    [{ quantity: 'no-such-quantity', value: -5, unit: 'furlong' }, 'quantity'],
    [{ quantity: 'toString', value: 5, unit: 's' }, 'quantity'],
    [{ value: 5, unit: 's' }, 'quantity'],
    [{ quantity: 'drain-time', value: 40, unit: 'L' }, 'unit'],
    [{ quantity: 'drain-time', value: 40, unit: 'toString' }, 'unit'],
    [{ quantity: 'drain-time', value: 40 }, 'unit'],
    [{ quantity: 'drain-time', value: -40, unit: 's' }, 'value'],
    [{ quantity: 'drain-time', value: 1e308, unit: 'h' }, 'value'],
    [{ quantity: 'drain-time', value: NaN, unit: 's' }, 'value'],
    [{ quantity: 'drain-time', unit: 's' }, 'value'],
  ])('%o is refused at its %s', (told, field) => {
    expect(readReading(told)).toMatchObject({ field });
  });

  it('says the range in the unit that was used', () => {
    const wrong = readReading({ quantity: 'drying-minutes', value: 30, unit: 'h' });
    expect(wrong).toEqual({ field: 'value', message: 'Give a number from 0.0167 to 24 h.' });
  });

  it('of any quantity says the same in each unit of its dimension', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...QUANTITY_IDS),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (id, share) => {
          const { dimension, unit, least, most } = quantityOf(id)!;
          const value = least + share * (most - least);
          for (const other of unitsOf(dimension)) {
            const told = convert(value, dimension, unit, other);
            const read = readReading({ quantity: id, value: told, unit: other });
            expect(read).toEqual({ unit, value: expect.closeTo(value, 6) as number });
          }
        },
      ),
    );
  });
});

it.each(QUANTITY_IDS)('%s has a unit of its dimension, a range, and words', (id) => {
  const { dimension, unit, least, most, logged, asked } = QUANTITIES[id];
  expect(Object.keys(DIMENSIONS[dimension].units)).toContain(unit);
  expect(least).toBeLessThan(most);
  expect(logged.length * asked.length).toBeGreaterThan(0);
});
