import { describe, expect, it } from 'vitest';
import { gather, type Fact } from '../care/record/history.js';
import { Usage } from '../care/record/load-counts.js';
import type { Entry, Machine } from '../model/schemas.js';
import { household, machine } from '../model/testing.js';
import { lifeView, sumOf } from './life.js';

const NOW = Date.parse('2026-06-01T10:00:00Z');
const DAY = 86_400_000;
const at = (ago: number) => new Date(NOW - ago * DAY).toISOString();
const entry = (kind: Entry['kind'], ago: number, more: object = {}): Entry =>
  ({
    ...{ id: `${kind}${ago}`, kind, at: at(ago), zone: 'UTC', author: 'ann', machineId: 'w' },
    ...more,
  }) as Entry;
const load = (ago: number, minutes: number): Entry =>
  entry('load', ago, {
    cycle: { to: new Date(NOW - ago * DAY + minutes * 60_000).toISOString(), wattHours: 900 },
  });
const view = (of: Machine, entries: Entry[] = [], metered: Entry[] = []) => {
  const facts = entries.map((one): Fact => ({
    ...{ entryId: one.id, kind: one.kind, at: Date.parse(one.at), day: one.at.slice(0, 10) },
    ...(one.station ? { station: one.station } : {}),
    ...(one.part ? { part: one.part } : {}),
  }));
  const { taps: _taps, ...past } = gather(facts);
  const taps = metered.map((one) => ({ at: Date.parse(one.at), count: 1 }));
  const history = { ...past, usage: new Usage(taps, of.loadsPerWeek) };
  return lifeView({ machine: of, household: household(), history, entries, metered, now: NOW });
};
const washer = (boughtOn?: string, more: object = {}) =>
  machine('front-load-washer', {
    loadsPerWeek: 5,
    identity: boughtOn ? { boughtOn } : {},
    ...more,
  });

describe('a machine along its life', () => {
  it('has its hours from its loads, those before counting by the usual ones', () => {
    // By hand: 200 days at 5 a week are 142.9 loads, at 110 min each 262 hours.
    const usual = view(washer('2025-11-13'));
    expect(usual.loads.estimated).toBeCloseTo((5 * 200.4) / 7, 0);
    expect(usual.hours).toBeCloseTo((usual.loads.estimated * 110) / 60, 9);
    expect(usual.minutes).toEqual({ each: 110, metered: 0 });
    const metered = view(
      washer(),
      [],
      [9, 8, 7, 6, 5].map((ago) => load(ago, 90)),
    );
    expect(metered.minutes).toEqual({ each: 90, metered: 5 });
    expect(metered.loads.counted).toBe(5);
    expect(metered.loads.estimated).toBeCloseTo(0, 6);
    expect(metered.hours).toBeCloseTo(7.5, 6);
    // Of four nobody can tell.
    expect(
      view(
        washer(),
        [],
        [8, 7, 6, 5].map((ago) => load(ago, 90)),
      ).minutes.metered,
    ).toBe(0);
  });

  it('tells each replacement once: at its part, or among the others', () => {
    const euros = (amount: number) => ({ amount, currency: 'EUR' });
    const life = view(washer('2020-01-01'), [
      entry('replaced', 400, { station: 'tap', cost: euros(12) }),
      entry('replaced', 300, {
        station: 'tub',
        part: 'bearings',
        note: 'It roared',
        cost: euros(190),
      }),
      entry('replaced', 200, { station: 'tub', note: 'Something' }),
      entry('called', 100, { note: 'Looked at', cost: { amount: 40, currency: 'CHF' } }),
    ]);
    const done = life.parts.flatMap(({ part, done: all }) =>
      all.map(({ entryId }) => [part, entryId]),
    );
    expect(done).toEqual([
      ['fill-hose', 'replaced400'],
      ['bearings', 'replaced300'],
    ]);
    expect(life.others.map(({ entryId, station }) => [entryId, station])).toEqual([
      ['replaced200', 'tub'],
    ]);
    expect(life.calls[0]).toMatchObject({ what: 'Looked at' });
    expect(life.spent).toEqual([euros(202), { amount: 40, currency: 'CHF' }]);
  });

  it('knows what it does not know, and is not younger than nothing', () => {
    const life = view(washer());
    expect([life.age, life.since, life.warranty]).toEqual([undefined, undefined, undefined]);
    expect(view(washer('2030-01-01')).age).toBeUndefined();
    expect(view(washer('2030-01-01')).loads).toEqual({ counted: 0, estimated: 0 });
  });

  it('adds money of one kind only, to the cent', () => {
    const one = (amount: number, currency: string) => ({ amount, currency });
    expect(sumOf([one(0.1, 'EUR'), one(0.2, 'EUR'), one(5, 'USD')])).toEqual([
      ...[one(0.3, 'EUR'), one(5, 'USD')],
    ]);
  });
});
