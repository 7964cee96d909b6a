import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hazardById, isTask, stationById, taskById } from '../../care/catalogue/lookup.js';
import { MACHINE_KINDS } from '../../model/vocabulary.js';
import { costOf } from './advice.js';
import { Diagnosis, symptomsOf, type Answers } from './diagnosis.js';
import { STRENGTHS } from '../data/types.js';
import { CAUSES } from '../data/causes.js';
import { CHECKS } from '../data/checks.js';
import { HIDDEN_STATES } from '../data/states.js';
import { STOP_RULES } from '../data/stops.js';
import { SYMPTOMS } from '../data/symptoms.js';
import { priorOf, type Situation } from './priors.js';
import { assess } from './suspects.js';

const chances = (situation: Situation, answers: Answers) => {
  const { suspects, other, advice } = assess(new Diagnosis(situation), answers);
  const of = (...ids: string[]) =>
    suspects
      .filter(({ cause }) => ids.includes(cause.id))
      .reduce((sum, { chance }) => sum + chance, 0);
  return { suspects, other, advice: advice!, of };
};
const washer = { kind: 'front-load-washer', features: {} } as const;
const dryer = { kind: 'vented-dryer', features: {} } as const;

describe('the trouble catalogue is whole', () => {
  it('has no id twice, and none that is both a symptom and a check', () => {
    for (const all of [CAUSES, [...SYMPTOMS, ...CHECKS], STOP_RULES]) {
      expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
    }
  });

  it.each(CAUSES.map((cause) => [cause.id, cause] as const))(
    '%s has a place, a check that decides it, a fix, and links that resolve',
    (_id, cause) => {
      const station = stationById(cause.station);
      expect(cause.kinds.some((kind) => station.kinds.includes(kind))).toBe(true);
      if (cause.fouling) taskById(cause.fouling);
      if (cause.fix.task) expect(isTask(cause.fix.task)).toBe(true);
      expect(cause.fix.minutes).toBeGreaterThan(0);
      const checks = CHECKS.filter(({ id }) => cause.makes[id] !== undefined);
      expect(checks.length).toBeGreaterThan(0);
      for (const [finding, link] of Object.entries(cause.makes)) {
        const found = [...SYMPTOMS, ...CHECKS, ...HIDDEN_STATES].find(({ id }) => id === finding);
        expect(found, finding).toBeDefined();
        expect(
          cause.kinds.some((kind) => found!.kinds.includes(kind)),
          finding,
        ).toBe(true);
        expect(typeof link === 'number' ? link : STRENGTHS[link]).toBeGreaterThan(found!.leak);
      }
      const signs = [...SYMPTOMS, ...HIDDEN_STATES];
      expect(Object.keys(cause.makes).some((id) => signs.some((one) => one.id === id))).toBe(true);
    },
  );

  it('changes something by every check and every symptom', () => {
    const made = new Set([
      ...CAUSES.flatMap(({ makes }) => Object.keys(makes)),
      ...HIDDEN_STATES.flatMap(({ shows }) => Object.keys(shows)),
    ]);
    expect([...SYMPTOMS, ...CHECKS].map(({ id }) => id).filter((id) => !made.has(id))).toEqual([]);
  });

  it('reaches no cause by a dangerous step alone: never into heater, wiring, gas or refrigerant', () => {
    for (const { hazards = [], how, ask } of CHECKS) {
      for (const hazard of hazards) hazardById(hazard);
      expect(`${ask} ${how}`).not.toMatch(/heater|wiring|board|refrigerant|\blive\b/i);
    }
    const forbidden = [
      'heater-fault',
      'cut-out-tripped',
      'control-fault',
      'pump-failed',
      'sensor-faulty',
    ];
    for (const id of forbidden) {
      expect(CAUSES.find((cause) => cause.id === id)!.fix.who).toBe('professional');
    }
  });

  it('asks every question as one, and says what to do at each stop', () => {
    for (const { ask, how, id } of CHECKS) {
      expect(ask, id).toMatch(/\?$/);
      expect(how, id).toMatch(/\.$/);
    }
    for (const { now, call } of STOP_RULES) expect(`${now} ${call}`).toMatch(/\.$/);
  });

  it.each(MACHINE_KINDS)(
    'gives a %s causes and symptoms, all priors within their bounds',
    (kind) => {
      const one = new Diagnosis({ kind, features: {} });
      expect(one.causes.length).toBeGreaterThan(12);
      expect(symptomsOf(kind).length).toBeGreaterThan(12);
      for (const cause of one.causes) {
        for (const state of [0, 0.5, 1, 5]) {
          const prior = priorOf(cause, {
            kind,
            features: {},
            fouling: cause.fouling ? { [cause.fouling]: state } : {},
          });
          expect(prior > 0 && prior <= 0.7).toBe(true);
        }
      }
    },
  );
});

describe('calibration (common practice)', () => {
  it('1: drains slower from week to week, then stands full with a drain code: the pump filter', () => {
    const { of, suspects, advice } = chances(washer, {
      'drains-slowly': 'yes',
      'getting-worse': 'yes',
      'wont-drain': 'yes',
      'code-drain': 'yes',
    });
    expect(suspects[0]!.cause.id).toBe('filter-clogged');
    expect(of('filter-clogged')).toBeGreaterThanOrEqual(0.6);
    const next = advice.next!;
    const opens =
      ('check' in next && next.check.check.id === 'open-filter') ||
      ('fix' in next && next.fix.cause.id === 'filter-clogged');
    expect(opens).toBe(true);
  });

  it('2: a vented dryer heats and tumbles but takes long: the air line, screen and hood first', () => {
    const { of, advice } = chances(dryer, {
      'long-drying': 'yes',
      'no-heat': 'no',
      'drum-still': 'no',
    });
    const line = [
      'screen-loaded',
      'screen-coated',
      'well-matted',
      'blower-packed',
      'hose-crushed',
      'duct-lined',
      'low-point',
      'hood-stuck',
      'run-too-long',
    ];
    const any =
      1 - noneOf(dryer, { 'long-drying': 'yes', 'no-heat': 'no', 'drum-still': 'no' }, line);
    expect(any).toBeGreaterThanOrEqual(0.9);
    expect(of('heater-fault')).toBeLessThan(0.05);
    expect(
      advice.checks
        .slice(0, 2)
        .map(({ check }) => check.id)
        .sort(),
    ).toEqual(['go-outside', 'look-screen']);
  });

  it('3: a condenser dryer stops after minutes with a drain code, but pumps out and bubbles', () => {
    const { of, suspects } = chances(
      { kind: 'condenser-dryer', features: {} },
      { 'stops-minutes': 'yes', 'code-drain': 'yes', 'pour-stays': 'no', 'line-silent': 'no' },
    );
    expect(
      suspects
        .slice(0, 2)
        .map(({ cause }) => cause.id)
        .sort(),
    ).toEqual(['exchanger-matted', 'fine-filter-clogged']);
    expect(of('condensate-blocked')).toBeLessThan(0.1);
  });

  it('4: a pool at the front the day after filter work: not seated', () => {
    const { of } = chances({ ...washer, circumstances: ['filter-work'] }, { 'pool-front': 'yes' });
    expect(of('filter-not-seated')).toBeGreaterThanOrEqual(0.8);
  });

  it('5: the wash smells though taken out at once, the filter never opened: sump and filter', () => {
    const situation: Situation = { ...washer, fouling: { 'pump-filter': 1.2, 'drain-stale': 1.2 } };
    const { of } = chances(situation, { 'wash-sour': 'yes', 'smell-one-load': 'no' });
    expect(of('stale-water', 'filter-clogged')).toBeGreaterThanOrEqual(0.6);
  });

  it('6: the automatic programme ends damp, a timed one dries well: the strips', () => {
    const { suspects } = chances(dryer, { 'auto-damp': 'yes', 'timed-dries': 'yes' });
    expect(suspects[0]!.cause.id).toBe('strips-coated');
  });

  /** Chance that none of some causes is there. */
  function noneOf(situation: Situation, answers: Answers, ids: string[]): number {
    const trouble = new Diagnosis(situation);
    return trouble.network.without(
      trouble.believe(answers),
      trouble.causes.map(({ id }) => ids.includes(id)),
    );
  }
});

describe('suspects', () => {
  it('are not shown where a stop rule holds', () => {
    const { stops, suspects, advice } = assess(new Diagnosis(dryer), { 'long-drying': 'yes' }, [
      'smoke',
    ]);
    expect(stops.map(({ id }) => id)).toEqual(['smoke']);
    expect(suspects).toEqual([]);
    expect(advice).toBeUndefined();
  });

  it('move with what the record says of their station', () => {
    const clean = chances({ ...washer, fouling: { 'pump-filter': 0 } }, { 'drains-slowly': 'yes' });
    const fouled = chances(
      { ...washer, fouling: { 'pump-filter': 1 } },
      { 'drains-slowly': 'yes' },
    );
    expect(fouled.of('filter-clogged')).toBeGreaterThan(2 * clean.of('filter-clogged'));
    const moved = chances({ ...washer, circumstances: ['moved'] }, { 'drains-slowly': 'yes' });
    expect(moved.suspects[0]!.cause.id).toBe('drain-hose-closed');
  });

  it('say what speaks for them and against, and what the record knows', () => {
    const { suspects } = assess(
      new Diagnosis(washer),
      { 'drains-slowly': 'yes', 'code-drain': 'yes', 'backs-up': 'no' },
      [],
      { 'pump-filter': 'done 14 months ago, 300 loads since' },
    );
    const filter = suspects.find(({ cause }) => cause.id === 'filter-clogged')!;
    expect(filter.because).toEqual([
      '“The display shows a code about draining or water”',
      '“It drains slowly”',
      'done 14 months ago, 300 loads since',
    ]);
    expect(filter.against).toEqual([]);
    const stands = assess(new Diagnosis(washer), { 'drains-slowly': 'yes', 'wont-drain': 'no' });
    expect(stands.suspects[0]!.against).toEqual([
      'not: “It does not drain: water stands in the drum”',
    ]);
  });

  it('come to the same whatever was answered and taken back in between', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...MACHINE_KINDS).chain((kind) => {
          const ids = symptomsOf(kind).map(({ id }) => id);
          const answer = fc.tuple(
            fc.constantFrom(...ids),
            fc.constantFrom('yes' as const, 'no' as const, 'partly' as const, 'unknown' as const),
          );
          return fc.tuple(
            fc.constant(kind),
            fc.uniqueArray(answer, { maxLength: 8, selector: ([id]) => id }),
          );
        }),
        ([kind, answers]) => {
          const trouble = new Diagnosis({ kind, features: {} });
          const forward = trouble.believe(Object.fromEntries(answers));
          const backward = trouble.believe(Object.fromEntries([...answers].reverse()));
          forward.causes.forEach((chance, i) => {
            expect(backward.causes[i]).toBeCloseTo(chance, 12);
            expect(chance >= 0 && chance <= 1).toBe(true);
          });
        },
      ),
      { numRuns: 60 },
    );
  });

  it('cost a check its minutes, its mess and its hazards', () => {
    const open = CHECKS.find(({ id }) => id === 'open-filter')!;
    expect(costOf(open)).toBe(12 + 6 + 2 * 3);
  });
});
