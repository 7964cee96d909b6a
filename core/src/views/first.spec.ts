import { describe, expect, it } from 'vitest';
import { FEATURES, MACHINE_KINDS, isWasher } from '../model/vocabulary.js';
import { hazardById } from '../care/catalogue/lookup.js';

import { troubleView } from './trouble.js';
import { DOOR_RUNGS, type Rung } from '../trouble/data/door-ladder.js';
import { STOP_RULES } from '../trouble/data/stops.js';
import { isFinding, symptomsOf, type Answers } from '../trouble/diagnosis/diagnosis.js';
import {
  doorLadder,
  firstThings,
  waterLevel,
  type WaterLevel,
} from '../trouble/diagnosis/first.js';
import type { Situation } from '../trouble/diagnosis/priors.js';

const front: Situation = { kind: 'front-load-washer', features: {} };
const vented: Situation = { kind: 'vented-dryer', features: {} };
const ids = (situation: Situation, answers: Answers, air = 0) =>
  firstThings(situation, answers, air).map(({ id }) => id);

const CLEAN = { 'duct-run': 0.2, hood: 0.2, 'transition-hose': 0.1, 'screen-well': 0.2 };

describe('before any look', () => {
  it('the water of a full machine is measured, whatever else was told', () => {
    for (const kind of MACHINE_KINDS.filter(isWasher)) {
      for (const { id } of symptomsOf(kind)) {
        const { first } = troubleView({ kind, features: {} }, { 'wont-drain': 'yes', [id]: 'yes' });
        expect(first[0], `${kind} ${id}`).toMatchObject({ id: 'water', instrument: 'tub-water' });
        expect(first[0]!.do.join(' ')).toMatch(/raise its end/);
      }
    }
    expect(ids(front, { 'drains-slowly': 'yes' })).toEqual([]);
  });

  it.each(['overheats', 'hot-laundry', 'burning-smell'])(
    'a dryer with “%s” is not used until its air line was cleaned, where that is suspected or overdue',
    (sign) => {
      expect(ids(vented, { [sign]: 'yes' }, 0.5)).toEqual(['not-used']);
      expect(ids({ ...vented, fouling: { 'duct-run': 1.1 } }, { [sign]: 'yes' })).toEqual([
        'not-used',
      ]);
      // Nobody has looked into it: that is no clean way.
      expect(ids(vented, { [sign]: 'yes' }, 0)).toEqual(['not-used']);
      expect(ids({ ...vented, fouling: CLEAN }, { [sign]: 'yes' }, 0.05)).toEqual([]);
      expect(ids(vented, { [sign]: 'no' }, 0.9)).toEqual([]);
    },
  );

  it('says it in the case as well: hotter than it used to be, slow, the duct overdue', () => {
    const { first } = troubleView(
      { ...vented, fouling: { 'duct-run': 1.2 } },
      { overheats: 'yes', 'burning-smell': 'yes', 'long-drying': 'yes' },
    );
    expect(first[0]!.title).toContain('Do not use this dryer');
  });

  it('leads on from water above the sill, once power and tap are off', () => {
    const rule = STOP_RULES.find(({ id }) => id === 'over-sill')!;
    expect(rule.now).toMatch(/plug.*breaker.*scald/s);
    expect(isFinding(rule.then!.finding, 'front-load-washer')).toBe(true);
    expect(ids(front, { [rule.then!.finding]: 'yes' })).toEqual(['water']);
  });
});

describe('the ladder of a locked door', () => {
  const levels: WaterLevel[] = ['unknown', 'none', 'water'];

  it('has no rung that can free the door before the level is known, nor over water', () => {
    for (const filterAccess of FEATURES.filterAccess) {
      for (const level of levels) {
        const rungs = doorLadder({ features: { filterAccess } }, level);
        const freeing = rungs.findIndex(({ frees }) => frees);
        if (level === 'unknown') expect(rungs.map(({ id }) => id)).toEqual(['level']);
        if (level === 'none') expect(freeing).toBe(0);
        if (level !== 'water') continue;
        expect(rungs.findIndex(({ drains }) => drains)).toBeLessThan(freeing);
        expect(rungs.slice(0, freeing).map(({ id }) => id)).toContain('cool');
        expect(rungs[0]!.id).toBe('cut');
      }
    }
  });

  it('offers the way out that the machine has, ends at somebody to call, and forces nothing', () => {
    const at = (filterAccess: 'front-left' | 'behind') =>
      doorLadder({ features: { filterAccess } }, 'water').map(({ id }) => id);
    expect(at('front-left')).toContain('drain-front');
    expect(at('behind')).toContain('drain-behind');
    for (const level of ['none', 'water'] as const) {
      const rungs = doorLadder({ features: {} }, level);
      expect(rungs.at(-1)!.id).toBe('call');
      expect(rungs.at(-1)!.do).toContain('Never force');
    }
    for (const { hazards = [], minutes } of Object.values<Rung>(DOOR_RUNGS)) {
      for (const hazard of hazards) hazardById(hazard);
      expect(minutes).toBeGreaterThan(0);
    }
  });

  it('knows the water by what was told', () => {
    const level = (answers: Answers, situation = front) => waterLevel(situation, answers);
    expect(level({ 'door-locked': 'yes' })).toBe('unknown');
    expect(level({ 'door-locked': 'yes', 'locked-empty': 'yes' })).toBe('none');
    expect(level({ 'door-locked': 'yes', 'locked-empty': 'no' })).toBe('water');
    expect(level({ 'door-locked': 'yes', 'wont-drain': 'yes' })).toBe('water');
    expect(level({ 'door-locked': 'yes', 'code-drain': 'yes' })).toBe('water');
  });

  it('shows in the case where the door was told to stay locked, and only there', () => {
    expect(troubleView(front, { 'door-locked': 'yes' }).ladder!.map(({ id }) => id)).toEqual([
      'level',
    ]);
    expect(troubleView(front, { 'wont-spin': 'yes' }).ladder).toBeUndefined();
  });
});
