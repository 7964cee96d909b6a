import { describe, expect, it } from 'vitest';
import { setUpIdsOf, tasksOf } from '../../care/catalogue/lookup.js';
import { gather, type Fact } from '../../care/record/history.js';
import { household, machine } from '../../model/testing.js';
import { Usage } from '../../care/record/load-counts.js';
import { MACHINE_KINDS, TROUBLE_CIRCUMSTANCES } from '../../model/vocabulary.js';
import { dayOf, MS_PER_DAY } from '../../units/calendar.js';
import { Diagnosis } from './diagnosis.js';
import { CAUSES } from '../data/causes.js';
import { priorOf, raisedBy } from './priors.js';
import { situationOf } from './situation.js';
import { assess } from './suspects.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');
let ids = 0;
const fact = (daysAgo: number, rest: Omit<Fact, 'entryId' | 'at' | 'day'>): Fact => {
  const at = NOW - daysAgo * MS_PER_DAY;
  return { entryId: `e${ids++}`, at, day: dayOf(at, 'Europe/Vienna'), ...rest };
};
const read = (daysAgo: number, quantity: string, value: number) =>
  fact(daysAgo, { kind: 'reading', quantity, value });

function circumstances(...facts: Fact[]) {
  const { taps, ...past } = gather(facts);
  const usage = new Usage(taps, 5);
  const washer = machine('front-load-washer');
  return situationOf(washer, household(), { ...past, usage }, NOW).situation.circumstances ?? [];
}

describe('what a phone measured', () => {
  const shake = (daysAgo: number, value: number, device = 'Odo’s') =>
    fact(daysAgo, { kind: 'reading', quantity: 'spin-shake', value, device, placement: 'lid' });

  it('makes it likelier that it stands off level, until its feet are set or it is moved', () => {
    expect(circumstances(read(9, 'phone-tilt', 3.5))).toEqual([]);
    expect(circumstances(read(9, 'phone-tilt', 9))).toEqual(['tilted']);
    const set = fact(5, { kind: 'done', task: 'level', grade: 0 });
    expect(circumstances(read(9, 'phone-tilt', 9), set)).toEqual([]);
    expect(circumstances(read(300, 'phone-tilt', 9))).toEqual([]);
    const { causes } = new Diagnosis({ kind: 'front-load-washer', features: {} });
    const off = causes.find(({ id }) => id === 'off-level')!;
    expect(
      priorOf(off, { kind: 'front-load-washer', features: {}, circumstances: ['tilted'] }),
    ).toBe(0.5);
  });

  it('holds a spin against those of the same phone alone', () => {
    expect(circumstances(shake(9, 2), shake(5, 2.1), shake(1, 4))).toEqual(['shakes-more']);
    expect(circumstances(shake(9, 2), shake(5, 2.1), shake(1, 4, 'Wren’s'))).toEqual([]);
    expect(circumstances(shake(9, 2), shake(1, 2.4))).toEqual([]);
  });
});

describe('how the hose sits, by what was measured', () => {
  it('says nothing where nothing was measured, or all is right', () => {
    expect(circumstances()).toEqual([]);
    expect(circumstances(read(9, 'hose-top', 80), read(9, 'hose-inserted', 20))).toEqual([]);
  });

  it.each<[string, number, string[]]>([
    ['hose-top', 40, ['hose-siphons']],
    ['hose-inserted', 45, ['hose-siphons']],
    ['hose-inserted', 8, ['hose-loose']],
    // Too high only slows the pump.
    ['hose-top', 110, []],
  ])('%s of %d cm: %j', (quantity, value, wanted) => {
    expect(circumstances(read(9, quantity, value))).toEqual(wanted);
  });

  it('goes by the last figure, in whichever order they were entered', () => {
    const [bad, good] = [read(30, 'hose-inserted', 5), read(3, 'hose-inserted', 20)];
    expect(circumstances(good, bad)).toEqual([]);
    expect(circumstances(bad, good)).toEqual([]);
    expect(circumstances(good, read(1, 'hose-inserted', 5))).toEqual(['hose-loose']);
  });

  it('forgets what was measured before the machine was moved', () => {
    const measured = read(40, 'hose-inserted', 5);
    const moved = fact(30, { kind: 'done', task: 'drain-hose', grade: 0 });
    expect(circumstances(measured, moved)).toEqual([]);
    expect(circumstances(measured, fact(50, { kind: 'done', task: 'drain-hose' }))).toEqual([
      'hose-loose',
    ]);
  });
});

describe('whether a machine was moved lately', () => {
  it.each(MACHINE_KINDS)('follows from the set-up of what was done, on a %s', (kind) => {
    const one = machine(kind);
    for (const task of tasksOf(one)) {
      const { taps, ...past } = gather([fact(1, { kind: 'done', task: task.id, grade: 0 })]);
      const history = { ...past, usage: new Usage(taps, 5) };
      const { circumstances: all = [] } = situationOf(one, household(), history, NOW).situation;
      const moves = setUpIdsOf(task, one).includes('pulled-out');
      expect(all.includes('moved'), task.id).toBe(moves);
    }
  });
});

describe('the reason that a circumstance gives', () => {
  const situation = { kind: 'front-load-washer', features: {} } as const;

  it.each(TROUBLE_CIRCUMSTANCES)('%s is told where it sets a prior, and only there', (one) => {
    const raised = { ...situation, circumstances: [one] };
    for (const cause of CAUSES) {
      const by = raisedBy(cause, raised);
      const higher = priorOf(cause, raised) > priorOf(cause, situation);
      expect(by === one, cause.id).toBe(higher);
    }
  });

  it('stands among the reasons of the suspect', () => {
    const answers = { 'water-behind': 'yes' } as const;
    const of = (circumstances: 'hose-loose'[]) =>
      assess(new Diagnosis({ ...situation, circumstances }), answers).suspects.find(
        ({ cause }) => cause.id === 'hose-out-of-place',
      )!;
    const [without, having] = [of([]), of(['hose-loose'])];
    expect(having.chance).toBeGreaterThan(without.chance);
    expect(having.because.join()).toContain('too little of the hose');
    expect(without.because.join()).not.toContain('too little of the hose');
  });
});
