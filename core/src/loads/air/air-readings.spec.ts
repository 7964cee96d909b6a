import { describe, expect, it } from 'vitest';
import { airReadings, type AiredLoad } from './air-readings.js';

const DAY = 86_400_000;
const loads = (...duties: number[]): AiredLoad[] =>
  duties.map((duty, i) => ({ id: `${i}`, at: i * DAY, duty, heater: 5200 }));

describe('readings of the air', () => {
  it('are of three loads each, and longer the less the heater was on', () => {
    const [first, second, ...more] = airReadings(loads(0.9, 0.88, 0.91, 0.5, 0.52, 0.49, 0.9), []);
    expect(more).toEqual([]);
    expect(first).toMatchObject({ of: ['0', '1', '2'], at: DAY, atMost: false });
    expect(second!.seconds).toBeGreaterThan(1.5 * first!.seconds);
  });

  it('where the limit does not cut, are there after a clean alone, as what it had at least', () => {
    const open = loads(1, 1, 1, 1, 1, 1, 1, 1, 1);
    expect(airReadings(open, [])).toEqual([]);
    const [one, ...more] = airReadings(open, [3 * DAY - 1]);
    expect(more).toEqual([]);
    expect(one).toMatchObject({ of: ['3', '4', '5'], atMost: true });
  });

  it('begin anew with each clean, and are none where loads tell two things', () => {
    const readings = airReadings(loads(0.5, 0.5, 0.9, 0.9, 0.9, 0.9), [2 * DAY - 1]);
    expect(readings.map(({ of }) => of)).toEqual([['2', '3', '4']]);
    expect(airReadings(loads(1, 0.7, 1), [])).toEqual([]);
  });
});
