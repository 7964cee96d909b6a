import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS } from '../../model/vocabulary.js';
import { symptomsOf } from './diagnosis.js';
import { likelySymptoms } from './likely.js';
import { looksLeft, sureness } from './sureness.js';

describe('how sure a chance is', () => {
  it('lies round it, wider without a record', () => {
    for (const chance of [0.001, 0.05, 0.5, 0.98, 1]) {
      const known = sureness(chance, 2, true);
      const rough = sureness(chance, 2, false);
      expect(rough.low).toBeLessThan(known.low);
      expect(rough.high).toBeGreaterThan(known.high);
      expect(rough.low).toBeGreaterThan(0);
      expect(rough.high).toBeLessThan(1);
    }
  });

  it('says what it rests on', () => {
    expect(sureness(0.98, 2, false).say).toMatch(/^From 2 answers.*no record/);
    expect(sureness(0.98, 1, true).say).toMatch(/^From 1 answer and your own records/);
    // By hand: odds of 0.98 are 49; a third of them 16.3, which is 0.942.
    expect(sureness(0.98, 2, false).low).toBeCloseTo(0.942, 3);
  });
});

describe('looks left', () => {
  it('are one where one cause stands out, and more where many are alike', () => {
    expect(looksLeft([0.97, 0.01], 0.5)).toBe(1);
    expect(looksLeft([], 0.5)).toBe(1);
    // Eight alike are three bits (log2 8): six looks of half a bit each.
    expect(
      looksLeft(
        Array.from({ length: 8 }, () => 0.1),
        0.5,
      ),
    ).toBe(6);
    expect(
      looksLeft(
        Array.from({ length: 100 }, () => 0.01),
        0.001,
      ),
    ).toBe(9);
  });
});

describe('likely symptoms', () => {
  it('have a chance each, of every kind, higher where a station is fouled', () => {
    for (const kind of MACHINE_KINDS) {
      const chances = likelySymptoms({ kind, features: {} });
      expect([...chances.keys()]).toEqual(symptomsOf(kind).map(({ id }) => id));
      for (const chance of chances.values()) {
        expect(chance).toBeGreaterThanOrEqual(0);
        expect(chance).toBeLessThan(1);
      }
    }
    const at = (fouling: number) =>
      likelySymptoms({
        kind: 'front-load-washer',
        features: {},
        fouling: { 'pump-filter': fouling },
      }).get('wont-drain')!;
    expect(at(1.1)).toBeGreaterThan(at(0.1));
  });
});
