import { expect, it } from 'vitest';
import { airOfBag, bagSeconds, bestOf, drainSeconds, fillLitres, flowOfDrain } from './readings.js';

it('keeps 113 L in 2 s as 2 s, and reads it back', () => {
  expect(bagSeconds(0.0565)).toBe(2);
  expect(airOfBag(2)).toBeCloseTo(0.0565, 9);
});

it('keeps 15 L/min as the minute that 15 L take, and 12 L/min as 2 L in ten seconds', () => {
  expect(drainSeconds(15 / 60_000)).toBe(60);
  expect(flowOfDrain(60) * 60_000).toBeCloseTo(15, 9);
  expect(fillLitres(12 / 60_000)).toBe(2);
});

it('takes the shortest time for the best flow, and none where nothing was kept', () => {
  expect(bestOf([{ value: 3 }, { value: 2 }, { value: 4 }], airOfBag)).toBeCloseTo(0.0565, 9);
  expect(bestOf([], airOfBag)).toBeUndefined();
  expect(bestOf(undefined, airOfBag)).toBeUndefined();
});
