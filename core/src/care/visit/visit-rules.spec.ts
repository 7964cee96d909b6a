import { emptyProgress } from './progress.js';
import type { VisitProgress } from '../../model/schemas.js';
import { describe, expect, it } from 'vitest';
import { QUANTITIES } from '../../model/quantities.js';
import type { Machine } from '../../model/schemas.js';
import { machine } from '../../model/testing.js';
import { MACHINE_KINDS, type MachineKind } from '../../model/vocabulary.js';
import { TASKS } from '../catalogue/data/tasks.js';
import { tasksOf } from '../catalogue/lookup.js';
import { planVisit } from './plan.js';
import { checkProgress, checkVisit, sharesTask } from './visit-rules.js';

const NOBODY = '00000000-0000-4000-8000-00000000dead';
const whole = (one: Machine) => tasksOf(one).map(({ id }) => ({ machineId: one.id, task: id }));

describe('a visit to be begun', () => {
  it.each(MACHINE_KINDS)('has any task that a %s has, and no task of another kind', (kind) => {
    const one = machine(kind);
    expect(checkVisit({ tasks: whole(one) }, [one])).toEqual([]);
    const own = new Set(tasksOf(one).map(({ id }) => id));
    const foreign = TASKS.filter(({ id }) => !own.has(id));
    expect(foreign.length).toBeGreaterThan(0);
    const problems = checkVisit(
      { tasks: foreign.map(({ id }) => ({ machineId: one.id, task: id })) },
      [one],
    );
    expect(problems.map(({ field }) => field)).toEqual(foreign.map((_, i) => `tasks.${i}.task`));
  });

  it('names the place of each machine that is not there, and leaves the others alone', () => {
    const one = machine('front-load-washer');
    const tasks = whole(one).slice(0, 3);
    tasks[1] = { ...tasks[1]!, machineId: NOBODY };
    expect(checkVisit({ tasks }, [one])).toEqual([
      { field: 'tasks.1.machineId', message: 'There is no such machine.' },
    ]);
    expect(checkVisit({ tasks }, []).map(({ field }) => field)).toEqual([
      'tasks.0.machineId',
      'tasks.1.machineId',
      'tasks.2.machineId',
    ]);
  });
});

/** Every step of a kind’s whole visit that asks for a figure. */
function asking(kind: MachineKind) {
  const one = machine(kind);
  const visit = { tasks: whole(one) };
  const steps = planVisit(visit.tasks, [one]).steps.flatMap(({ key, step }) =>
    step.reading ? [{ key, quantity: step.reading }] : [],
  );
  return { one, visit, steps };
}

const NOW = Date.parse('2026-06-15T10:00:00Z');
const noting = (readings: VisitProgress['readings']): VisitProgress => ({
  ...emptyProgress(),
  readings,
});

describe('the figures that a visit noted', () => {
  it('are asked for somewhere, or the law below has nothing to hold', () => {
    expect(MACHINE_KINDS.flatMap((kind) => asking(kind).steps).length).toBeGreaterThan(2);
  });

  it.each(MACHINE_KINDS)('of a %s are within what each quantity can be', (kind) => {
    const { one, visit, steps } = asking(kind);
    const fieldsOf = (key: string, value: number) =>
      checkProgress(visit, noting({ [key]: { value } }), [one], NOW).map(({ field }) => field);
    for (const { key, quantity } of steps) {
      const { least, most } = QUANTITIES[quantity];
      const refused = [`progress.readings.${key}.value`];
      for (const value of [least, most, (least + most) / 2]) {
        expect(fieldsOf(key, value), `${quantity} ${value}`).toEqual([]);
      }
      const span = most - least;
      for (const value of [least - span, most + span, 1e308, -1e308, NaN, Infinity]) {
        expect(fieldsOf(key, value), `${quantity} ${value}`).toEqual(refused);
      }
    }
  });

  it('of a step that is not in the visit, or that asks for none, are no concern of it', () => {
    const { one, visit } = asking('front-load-washer');
    const readings = { 'no-such-step': { value: 1e308 } };
    expect(checkProgress(visit, noting(readings), [one], NOW)).toEqual([]);
    expect(checkProgress(visit, noting({}), [], NOW)).toEqual([]);
  });
});

describe.each(MACHINE_KINDS)('two visits of a %s', (kind) => {
  const one = machine(kind);
  const tasks = whole(one);
  it('share a task only where machine and task are the same', () => {
    expect(tasks.length).toBeGreaterThan(1);
    const other = { ...one, id: NOBODY };
    expect(sharesTask({ tasks }, { tasks: whole(other) })).toBe(false);
    for (const task of tasks) {
      expect(sharesTask({ tasks }, { tasks: [task] })).toBe(true);
      const rest = tasks.filter((another) => another !== task);
      expect(sharesTask({ tasks: [task] }, { tasks: rest })).toBe(false);
    }
  });
});
