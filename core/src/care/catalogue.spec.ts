import { describe, expect, it } from 'vitest';
import { FEATURES, HABITS, MACHINE_KINDS, SCHOOLS, type FeatureId } from '../model/vocabulary.js';
import { CIRCUMSTANCE_NAMES, inDriver } from './interval.js';
import {
  hazardById,
  holds,
  procedureOf,
  setUpById,
  stationById,
  stationsOf,
  taskById,
  tasksOf,
  type Step,
  type When,
} from './catalogue.js';
import { FEATURE_QUESTIONS, HABIT_QUESTIONS } from './data/features.js';
import { HAZARDS } from './data/hazards.js';
import { PROCEDURES } from './data/procedures/index.js';
import { SETUPS } from './data/setups.js';
import { STATIONS } from './data/stations.js';
import { TASKS } from './data/tasks.js';

const stepsIn = (id: string): Step[] => {
  const { steps, putBack, proof } = procedureOf(id);
  return [...steps, ...putBack, ...proof];
};
const allSteps = [
  ...TASKS.flatMap(({ id }) => stepsIn(id)),
  ...SETUPS.flatMap(({ steps, undo }) => [...steps, ...undo]),
];
const conditions: When[] = [
  ...allSteps.flatMap(({ when }) => when ?? []),
  ...STATIONS.flatMap(({ when }) => when ?? []),
  ...TASKS.flatMap(({ when }) => when ?? []),
  ...PROCEDURES.flatMap(({ fetch }) => fetch.flatMap(({ when }) => when ?? [])),
];

describe('the care catalogue is whole', () => {
  it.each([
    ['stations', STATIONS],
    ['tasks', TASKS],
    ['set-ups', SETUPS],
    ['hazards', HAZARDS],
  ])('has no id twice among %s', (_what, all) => {
    expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
  });

  it.each(MACHINE_KINDS)('gives a %s a line of stations and at least one task', (kind) => {
    const machine = { kind, features: {} };
    expect(stationsOf(machine).length).toBeGreaterThanOrEqual(7);
    expect(tasksOf(machine).length).toBeGreaterThan(0);
  });

  it.each(TASKS.map((task) => [task.id, task] as const))(
    '%s has a station of its kinds, intervals, reason, set-ups, procedure and proof',
    (_id, task) => {
      const station = stationById(task.station);
      for (const kind of task.kinds) expect(station.kinds).toContain(kind);
      for (const school of SCHOOLS) {
        expect(inDriver(task.intervals[school], task.driver)).toBeGreaterThan(0);
        expect(inDriver(task.intervals[school], task.driver)).toBeLessThan(Infinity);
      }
      expect(inDriver(task.intervals.often, 'loads')).toBeLessThanOrEqual(
        inDriver(task.intervals.stretch, 'loads'),
      );
      for (const setup of task.setups) setUpById(setup);
      for (const name of Object.keys(task.speeds)) expect(CIRCUMSTANCE_NAMES).toHaveProperty(name);
      expect(task.reason.length).toBeGreaterThan(40);
      expect(task.basis).not.toBe('');
      const procedure = procedureOf(task.id);
      expect(procedure.steps.length).toBeGreaterThan(2);
      expect(procedure.putBack.length).toBeGreaterThan(0);
      expect(procedure.proof.length).toBeGreaterThan(0);
      expect(stepsIn(task.id).some(({ note }) => note === 'grade')).toBe(true);
    },
  );

  it('has a procedure only for tasks that exist', () => {
    for (const { task } of PROCEDURES) taskById(task);
  });

  it('writes every step as one action with its reason', () => {
    for (const step of allSteps) {
      expect(step.do, step.id).toMatch(/[.?]$/);
      expect(step.why, step.id).toMatch(/[.]$/);
      expect(step.do + step.why + (step.look ?? ''), step.id).not.toContain('!');
      for (const hazard of step.hazards ?? []) hazardById(hazard);
    }
  });

  it('has no step id twice within a procedure', () => {
    for (const { id } of TASKS) {
      const ids = stepsIn(id).map((step) => step.id);
      expect(new Set(ids).size, id).toBe(ids.length);
    }
  });

  it('asks only for features and answers that exist', () => {
    for (const { kinds, ...features } of conditions) {
      for (const kind of kinds ?? []) expect(MACHINE_KINDS).toContain(kind);
      for (const [feature, values] of Object.entries(features)) {
        const known: readonly string[] = [...FEATURES[feature as FeatureId], 'unknown'];
        for (const value of values) expect(known).toContain(value);
      }
    }
  });

  it('has a question for every feature and habit', () => {
    expect(FEATURE_QUESTIONS.map(({ id }) => id).sort()).toEqual(Object.keys(FEATURES).sort());
    expect(HABIT_QUESTIONS.map(({ id }) => id).sort()).toEqual([...HABITS].sort());
    for (const { id, answers } of FEATURE_QUESTIONS) {
      expect(answers.map(({ value }) => value).sort()).toEqual([...FEATURES[id]].sort());
    }
  });

  it('leaves no hazard without a step', () => {
    const used = new Set(allSteps.flatMap(({ hazards }) => hazards ?? []));
    expect(HAZARDS.map(({ id }) => id).filter((id) => !used.has(id))).toEqual([]);
  });

  it('counts a feature that was not told as unknown', () => {
    const machine = { kind: 'front-load-washer', features: {} } as const;
    expect(holds({ drainDownHose: ['unknown'] }, machine)).toBe(true);
    expect(holds({ drainDownHose: ['yes'] }, machine)).toBe(false);
    expect(holds({ kinds: ['vented-dryer'] }, machine)).toBe(false);
    expect(holds(undefined, machine)).toBe(true);
  });

  it('says which name it does not know', () => {
    expect(() => taskById('polish-the-knob')).toThrow('polish-the-knob');
  });
});
