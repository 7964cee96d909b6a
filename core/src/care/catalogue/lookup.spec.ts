import { quantityOf } from '../../model/quantities.js';
import Ajv from 'ajv/dist/2020.js';
import { describe, expect, it } from 'vitest';
import {
  WAYS,
  FEATURES,
  HABITS,
  MACHINE_KINDS,
  SCHOOLS,
  type FeatureId,
} from '../../model/vocabulary.js';
import { effectsOf } from '../../world/acts.js';
import { DISPUTES, disputeById } from './data/disputes.js';
import { loadCareOf } from './data/load-care.js';
import { ActsSchema } from '../../world/acts-schema.js';
import { FACTS } from '../../world/facts.js';
import { CIRCUMSTANCE_NAMES } from '../schedule/interval.js';
import { inDriver } from './interval-figure.js';
import {
  hazardById,
  holds,
  procedureById,
  setUpById,
  stationById,
  stationsOf,
  taskById,
  tasksOf,
} from './lookup.js';
import type { Step, When } from './types.js';
import { FEATURE_QUESTIONS, HABIT_QUESTIONS } from './data/features.js';
import { FIGURES, type FigureId } from './data/figures.js';
import { LOAD_HABITS } from './data/habits.js';
import { HAZARDS } from './data/hazards.js';
import { PROCEDURES } from './data/procedures/index.js';
import { SETUPS } from './data/setups.js';
import { STATIONS } from './data/stations.js';
import { SUPPLIES } from './data/supplies.js';
import { TASKS } from './data/tasks.js';

const stepsIn = (id: string): Step[] => {
  const { steps, putBack, proof } = procedureById(id);
  return [...steps, ...putBack, ...proof];
};
const allSteps = [
  ...TASKS.flatMap(({ id }) => stepsIn(id)),
  ...SETUPS.flatMap(({ steps, undo }) => [...steps, ...undo]),
];
const readings = allSteps.flatMap(({ reading }) => reading ?? []);
const conditions: When[] = [
  ...allSteps.flatMap(({ when }) => when ?? []),
  ...STATIONS.flatMap(({ when }) => when ?? []),
  ...TASKS.flatMap(({ when, setups }) => [
    ...(when ? [when] : []),
    ...setups.flatMap((use) => (typeof use === 'string' ? [] : use.when)),
  ]),
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
      for (const use of task.setups) setUpById(typeof use === 'string' ? use : use.id);
      for (const name of Object.keys(task.speeds)) expect(CIRCUMSTANCE_NAMES).toHaveProperty(name);
      expect(task.reason.length).toBeGreaterThan(40);
      expect(task.basis).not.toBe('');
      const procedure = procedureById(task.id);
      expect(procedure.steps.length).toBeGreaterThan(2);
      expect(procedure.putBack.length).toBeGreaterThan(0);
      expect(procedure.proof.length).toBeGreaterThan(0);
      expect(stepsIn(task.id).some(({ note }) => note === 'grade')).toBe(!task.ungraded);
      for (const other of task.covers ?? []) taskById(other);
      for (const { quantity, limit } of task.measures ?? []) {
        expect(limit).toBeGreaterThan(1);
        if (!quantityOf(quantity)?.byMeter) expect(readings).toContain(quantity);
      }
      expect(task.minutes.hands).toBeGreaterThan(0);
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
    for (const { kinds, or, ...features } of [
      ...conditions,
      ...conditions.flatMap(({ or }) => or ?? []),
    ]) {
      expect(or?.or).toBeUndefined();
      for (const kind of kinds ?? []) expect(MACHINE_KINDS).toContain(kind);
      for (const [feature, values] of Object.entries(features)) {
        const known: readonly string[] = [...FEATURES[feature as FeatureId], 'unknown'];
        for (const value of values) expect(known).toContain(value);
      }
    }
  });

  it('has a question for every feature and habit', () => {
    // Whether the duct climbs is said by which way it goes.
    const asked = [...FEATURE_QUESTIONS.map(({ id }) => id), 'riser'].sort();
    expect(asked).toEqual(Object.keys(FEATURES).sort());
    expect(HABIT_QUESTIONS.map(({ id }) => id).sort()).toEqual([...HABITS].sort());
    for (const { id, answers } of FEATURE_QUESTIONS) {
      expect(answers.map(({ value }) => value).sort()).toEqual([...FEATURES[id]].sort());
    }
  });

  it('says of every step what it is to the machine, as the schema has it', () => {
    const isActs = new Ajv.default({ allErrors: true }).compile(ActsSchema);
    for (const { id, acts, timer } of allSteps) {
      isActs(acts);
      expect(isActs.errors ?? [], id).toEqual([]);
      // What soaks or dries has a timer of the same length.
      const waiting = acts.soaks ?? acts.dries;
      if (waiting) expect(timer?.minutes, id).toBe(waiting.minutes);
    }
    for (const wrong of [
      undefined,
      {},
      { at: 'moon' },
      { at: 'drum', does: { filter: 'lost' } },
      { at: 'drum', needs: { filter: ['lost'] } },
      { at: 'drum', needs: { filter: [] } },
      { at: 'drum', does: { roof: 'on' } },
      { at: 'drum', soaks: { part: 'filter', minutes: 0 } },
      { at: 'drum', runs: 'spin' },
      { at: 'drum', more: true },
    ]) {
      expect(isActs(wrong), JSON.stringify(wrong)).toBe(false);
    }
  });

  it('leaves no fact of the world that no step changes, needs or proves', () => {
    const told = allSteps.flatMap(({ acts }) => [
      ...Object.keys(acts.needs ?? {}),
      ...Object.keys(effectsOf(acts)),
    ]);
    expect(Object.keys(FACTS).filter((fact) => !told.includes(fact))).toEqual([]);
  });

  it('says at a step what practitioners disagree on, each side with its reason, and what we choose', () => {
    const shown = new Set(allSteps.flatMap(({ dispute }) => dispute ?? []));
    for (const { id, sides, ours } of DISPUTES) {
      expect(shown, id).toContain(id);
      expect(sides.length).toBeGreaterThan(1);
      for (const { because } of sides) expect(because).toMatch(/\.$/);
      expect(ours).toMatch(/\.$/);
      expect(disputeById(id).question).toMatch(/\?$/);
    }
  });

  it('has care for loads on every kind of machine, each with its reason', () => {
    for (const kind of MACHINE_KINDS) {
      const care = loadCareOf(kind);
      expect(care.length, kind).toBeGreaterThan(2);
      for (const { before, after, why, load } of care) {
        expect(before ?? after, load).toMatch(/\.$/);
        expect(why, load).toMatch(/\.$/);
      }
    }
  });

  it('asks for every own way of a machine at some step, save the reset of a door', () => {
    const asked = new Set(allSteps.flatMap(({ way }) => way ?? []));
    expect(WAYS.filter((id) => !asked.has(id))).toEqual(['door-reset']);
  });

  it('leaves no hazard without a step', () => {
    const used = new Set(allSteps.flatMap(({ hazards }) => hazards ?? []));
    expect(HAZARDS.map(({ id }) => id).filter((id) => !used.has(id))).toEqual([]);
  });

  it('has no figure that no step shows', () => {
    const shown = new Set([
      ...allSteps.flatMap(({ figure }) => figure ?? []),
      ...FEATURE_QUESTIONS.map(({ figure }) => figure),
      // Beside the count of elbows and the heater's watts.
      ...['elbows', 'type-plate'],
    ]);
    expect(Object.keys(FIGURES).filter((id) => !shown.has(id as FigureId))).toEqual([]);
  });

  it('names every supply that is used up, and uses each or keeps it as a part', () => {
    const uses = PROCEDURES.flatMap(({ fetch }) => fetch.flatMap(({ uses: one }) => one ?? []));
    for (const { supply, amount, share = 1 } of uses) {
      expect(SUPPLIES.map(({ id }) => id)).toContain(supply);
      expect(amount > 0 && share > 0 && share <= 1).toBe(true);
    }
    const parts = ['gloves', 'lint-screen', 'pump-filter', 'gasket'];
    const used = new Set(uses.map(({ supply }) => supply));
    expect(SUPPLIES.map(({ id }) => id).filter((id) => !used.has(id))).toEqual(parts);
  });

  it('has a habit for every task that is done with each load, on every kind that has the task', () => {
    const everyLoad = TASKS.filter(({ habit }) => habit);
    expect(everyLoad.map(({ id }) => id).sort()).toEqual([
      'gasket-wipe',
      'lint-screen-brush',
      'tank-empty',
    ]);
    for (const { id, kinds } of everyLoad) {
      const habit = LOAD_HABITS.find(({ task }) => task === id)!;
      expect([...habit.kinds].sort()).toEqual([...kinds].sort());
    }
  });

  it('gives each school what common practice asks, task by task', () => {
    const said = Object.fromEntries(
      TASKS.map(({ id, intervals }) => [
        id,
        SCHOOLS.map((school) => {
          const { loads, days, months, everyLoad, sign, byScale } = intervals[school];
          if (everyLoad) return 'load';
          if (byScale) return 'scale';
          const sum = [months && `${months}m`, days && `${days}d`, loads && `${loads}l`];
          return (sign ? ['sign', sum[0]] : sum).filter(Boolean).join('+');
        }).join(' '),
      ]),
    );
    expect(said).toEqual({
      'drain-stale': '14d 21d 6m 12l',
      'pump-filter': '30d 2m 6m 50l',
      'gasket-wipe': 'load load 7d load',
      'gasket-folds': '14d 1m 3m 25l',
      dispenser: '14d 1m 3m 25l',
      'dispenser-jets': '1m 3m 6m 60l',
      'softener-cup': '1m 1m 3m 25l',
      'drum-clean': '1m 3m+30l 6m 55l',
      descale: '2m 3m 6m scale',
      'inlet-screen': '3m 3m 12m 150l',
      'fill-hose': '3m 6m 12m 6m',
      'drain-hose': '6m 12m sign+24m 250l',
      level: '6m 12m sign+24m 12m',
      'lint-screen-brush': 'load load load load',
      'screen-well': '3l 1m 2m 3l',
      'lint-screen-wash': '1m 2m 6m 40l',
      'drum-seal': '7d 1m 3m 20l',
      'moisture-sensor': '2m 3m 6m 60l',
      'blower-wheel': '4m 6m 12m 120l',
      cabinet: '12m 12m 12m 12m',
      'transition-hose': '1m 3m 6m 3m',
      'duct-run': '3m 6m 12m 150l',
      hood: '1m 3m 6m 3m',
      'heat-exchanger': '14d 1m 3m 25l',
      'fine-filter': '7d 14d 1m 10l',
      'tank-empty': 'load load load load',
      'condensate-sump': '6m 12m sign+24m 200l',
      'belt-rollers': '3m 12m 12m 12m',
      service: '12m 12m 24m 12m',
      'fluff-rinse': '5l 10l 20l 10l',
    });
  });

  it('caps what must never wait longer', () => {
    const caps = TASKS.flatMap(({ id, cap }) => (cap ? [[id, cap]] : []));
    expect(Object.fromEntries(caps)).toMatchObject({
      'lint-screen-brush': { everyLoad: true },
      'duct-run': { months: 12 },
      'heat-exchanger': { months: 6 },
      'pump-filter': { months: 6 },
    });
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
