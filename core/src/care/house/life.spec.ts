import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS } from '../../model/vocabulary.js';
import { machine } from '../../model/testing.js';
import { PARTS } from '../catalogue/data/parts.js';
import { isStation, partsOf, stationById } from '../catalogue/lookup.js';
import type { Replaced } from '../record/history.js';
import { ageNotices, partLives, sayWarranty } from './life.js';

const TODAY = '2026-06-01';
const washer = (identity: object = {}, more: object = {}) =>
  machine('front-load-washer', { identity, ...more });
const was = (day: string, more: object = {}): Replaced => ({
  ...{ entryId: day, at: Date.parse(day), day, station: 'tap' },
  ...more,
});
const hose = (...asked: Parameters<typeof partLives>) =>
  partLives(...asked).find(({ part }) => part === 'fill-hose')!;

describe('parts', () => {
  it('stand at stations that are there, once each, for every kind of machine', () => {
    expect(new Set(PARTS.map(({ id }) => id)).size).toBe(PARTS.length);
    for (const { station, or, kinds, id } of PARTS) {
      const at = [station, ...(or === undefined ? [] : [or])];
      expect(at.every(isStation), id).toBe(true);
      for (const kind of kinds) {
        expect(
          at.some((one) => stationById(one).kinds.includes(kind)),
          id,
        ).toBe(true);
      }
    }
    for (const kind of MACHINE_KINDS) {
      expect(partsOf(machine(kind)).length, kind).toBeGreaterThan(4);
    }
  });
});

describe('a part along its life', () => {
  it('is as old as the machine, until something says otherwise', () => {
    expect(hose(washer(), [], TODAY)).toMatchObject({ state: 'unknown', from: 'unknown' });
    expect(hose(washer({ boughtOn: '2023-01-01' }), [], TODAY)).toMatchObject({
      ...{ since: '2023-01-01', from: 'machine', on: '2028-01-01', state: 'fine' },
    });
    const entered = { boughtOn: '2015-01-01', hosesSince: '2022-01-01' };
    expect(hose(washer(entered), [], TODAY)).toMatchObject({
      since: '2022-01-01',
      from: 'entered',
    });
    expect(hose(washer(entered), [was('2024-05-05')], TODAY)).toMatchObject({
      ...{ since: '2024-05-05', from: 'replaced', on: '2029-05-05', replaced: ['2024-05-05'] },
    });
  });

  it('that is named is not mistaken for another at its station', () => {
    const bearing = was('2025-02-02', { station: 'tub', part: 'bearings' });
    const lives = partLives(washer({ boughtOn: '2015-01-01' }), [bearing], TODAY);
    const of = (id: string) => lives.find(({ part }) => part === id)!;
    expect(of('bearings').since).toBe('2025-02-02');
    expect(of('wash-heater').since).toBe('2015-01-01');
    // Something of the tub: nobody knows what.
    const any = partLives(washer({}), [was('2025-02-02', { station: 'tub' })], TODAY);
    expect(any.filter(({ replaced }) => replaced.length)).toEqual([]);
  });

  it('is due by its age five years on, and told two months before', () => {
    const said = (boughtOn: string, today = TODAY) =>
      ageNotices(washer({ boughtOn }), [], today).map(({ part, said, due }) => [part, said, due]);
    expect(said('2021-06-02')).toEqual([['fill-hose', 'due 2 June', false]]);
    expect(said('2021-06-01')).toEqual([['fill-hose', 'due since 1 June', true]]);
    expect(said('2021-09-01')).toEqual([]);
    const gone = washer({ boughtOn: '2010-01-01' }, { retired: { on: TODAY, why: 'broken' } });
    expect(ageNotices(gone, [], TODAY)).toEqual([]);
  });

  it('never gets older by being replaced, and never is due in its first five years', () => {
    const day = fc
      .integer({ min: 0, max: 4000 })
      .map((n) => new Date(Date.UTC(2015, 0, 1 + n)).toISOString().slice(0, 10));
    fc.assert(
      fc.property(day, fc.array(day, { maxLength: 5 }), (boughtOn, days) => {
        const past = days.sort().map((one) => was(one));
        const life = hose(washer({ boughtOn }), past, TODAY);
        const alone = hose(washer({ boughtOn }), [], TODAY);
        if (past.length) expect(life.since).toBe(days.at(-1));
        else expect(life).toEqual(alone);
        if (life.state === 'due') expect(life.since! <= '2021-06-01').toBe(true);
      }),
    );
  });

  it('tells that a warranty ends while there is time', () => {
    const ends = (warrantyUntil: string) => ageNotices(washer({ warrantyUntil }), [], TODAY);
    expect(ends('2026-07-01')[0]).toMatchObject({ name: 'Warranty', due: false });
    expect(ends('2026-07-01')[0]!.said).toMatch(/^ends on 1 July, in 30 days/);
    expect([...ends('2026-05-31'), ...ends('2026-12-31')]).toEqual([]);
    expect(sayWarranty(TODAY, TODAY)).toContain('today');
    expect(sayWarranty('2024-03-01', TODAY)).toBe('ended on 1 March 2024');
  });
});
