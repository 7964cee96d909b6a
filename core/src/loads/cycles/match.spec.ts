import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { matchTaps, type TappedLoad } from './match.js';

const HOUR = 3_600_000;
const load = (from: number, hours = 1) => ({ from: from * HOUR, to: (from + hours) * HOUR });
const tap = (at: number, count = 1): TappedLoad => ({ id: `at ${at}`, at: at * HOUR, count });

describe('taps and the loads that a meter found', () => {
  it('belong together where a tap is near: when it is started, while it runs, when it is emptied', () => {
    const loads = [load(8), load(20), load(40)];
    expect(matchTaps(loads, [tap(7.8), tap(30), tap(40.5)])).toEqual([
      'at 7.8',
      'at 30',
      'at 40.5',
    ]);
  });

  it('are one to one, the nearest first', () => {
    expect(matchTaps([load(8), load(10)], [tap(11.2)])).toEqual([undefined, 'at 11.2']);
    expect(matchTaps([load(8), load(10)], [tap(11.2), tap(11.4)])).toEqual(['at 11.4', 'at 11.2']);
  });

  it('leave alone what is too early, or more than half a day late', () => {
    expect(matchTaps([load(8)], [tap(7.4), tap(21.1)])).toEqual([undefined]);
  });

  it('of several loads are of so many', () => {
    expect(matchTaps([load(8), load(10), load(12)], [tap(13.5, 2)])).toEqual([
      undefined,
      'at 13.5',
      'at 13.5',
    ]);
  });

  it('never use a tap more often than it counts, whatever the order', () => {
    const times = fc.array(fc.double({ min: 0, max: 200, noNaN: true }), { maxLength: 20 });
    fc.assert(
      fc.property(times, times, fc.integer({ min: 1, max: 3 }), (starts, at, count) => {
        const loads = starts.map((from) => load(from));
        const taps = at.map((one, i) => ({ ...tap(one, count), id: String(i) }));
        const matched = matchTaps(loads, taps);
        for (const { id } of taps) {
          expect(matched.filter((one) => one === id).length).toBeLessThanOrEqual(count);
        }
      }),
    );
  });
});
