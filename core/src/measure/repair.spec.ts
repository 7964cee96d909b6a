import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MeasureProblem } from './input/fields.js';
import { moreAfter, repairOrReplace, spread } from './repair.js';

describe('an amount over years', () => {
  it('is the equivalent annual cost of the textbook', () => {
    // Brealey, Myers, Allen, Principles of Corporate Finance, equivalent annual cash flow (from memory): a cost with a
    // present value of 28.37 over three years at 6 % is 10.61 a year, one of 21.00 over two years 11.45.
    expect(spread(28.37, 3, 0.06)).toBeCloseTo(10.61, 2);
    expect(spread(21, 2, 0.06)).toBeCloseTo(11.45, 2);
  });

  it('brings its own worth back: yearly payments, each worth less the later it comes', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 5000, noNaN: true }),
        fc.integer({ min: 1, max: 30 }),
        fc.double({ min: 0.001, max: 0.2, noNaN: true }),
        (amount, years, rate) => {
          const yearly = spread(amount, years, rate);
          let worth = 0;
          for (let year = 1; year <= years; year++) worth += yearly / (1 + rate) ** year;
          expect(worth / amount).toBeCloseTo(1, 9);
        },
      ),
    );
  });
});

describe('repair or replace', () => {
  it('goes by what either costs a year', () => {
    // By hand: 180 over (11 - 5)/2 = 3 years is 60 a year; 660 over 11 years is 60 a year.
    const even = repairOrReplace({ bill: 180, price: 660, age: 5 });
    expect(even).toMatchObject({ repair: 60, replace: 60, paysUpTo: 180, better: 'even' });
    expect(repairOrReplace({ bill: 120, price: 660, age: 5 }).better).toBe('repair');
    expect(repairOrReplace({ bill: 300, price: 660, age: 5 }).better).toBe('replace');
    // 100 kWh a year at 0.3 make the new one 30 cheaper a year, so that half the bill pays.
    expect(
      repairOrReplace({ bill: 90, price: 660, age: 5, saves: 100, kWhPrice: 0.3 }),
    ).toMatchObject({ replace: 30, paysUpTo: 90 });
  });

  it('turns at the bill that it names, whatever is asked', () => {
    const money = fc.double({ min: 1, max: 3000, noNaN: true });
    fc.assert(
      fc.property(
        money,
        fc.integer({ min: 0, max: 20 }),
        fc.integer({ min: 0, max: 10 }),
        (price, age, interest) => {
          const { paysUpTo } = repairOrReplace({ bill: 0, price, age, interest });
          fc.pre(paysUpTo <= 100_000);
          const at = repairOrReplace({ bill: paysUpTo, price, age, interest });
          expect(at.repair).toBeCloseTo(at.replace, 6);
          expect(at.better).toBe('even');
        },
      ),
    );
  });

  it('gives an old machine little time', () => {
    expect(moreAfter(5)).toBe(3);
    expect(moreAfter(11)).toBe(0.5);
    expect(moreAfter(40)).toBe(0.5);
  });

  it('names every figure that is out of its range', () => {
    const wrong = () =>
      repairOrReplace({ bill: -1, price: 0, age: NaN, lasts: 1e9, interest: Infinity });
    expect(wrong).toThrow(MeasureProblem);
    try {
      wrong();
    } catch (error) {
      const fields = (error as MeasureProblem).problems.map(({ field }) => field);
      expect(fields).toEqual(['bill', 'price', 'age', 'lasts', 'interest']);
    }
  });
});
