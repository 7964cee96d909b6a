import { describe, expect, it } from 'vitest';
import type { OwnTask } from '../../model/schemas.js';
import { machine } from '../../model/testing.js';
import { MACHINE_KINDS, SCHOOLS } from '../../model/vocabulary.js';
import { planVisit } from '../visit/plan.js';
import { procedureOf, tasksOf } from './lookup.js';
import { ownProcedure, ownTask } from './own-task.js';

const felt: OwnTask = {
  id: 'own-felt',
  name: 'Oil the felt',
  station: 'drum',
  every: 90,
  unit: 'days',
  minutes: 10,
  unplugged: true,
  steps: ['Turn the drum by hand.', 'Put three drops on the felt.'],
};

describe('a household’s own task', () => {
  it.each(SCHOOLS)('has the one interval that it was given under the school "%s"', (school) => {
    expect(ownTask(felt, 'vented-dryer').intervals[school]).toEqual({ days: 90 });
    const byLoads = ownTask({ ...felt, unit: 'loads', every: 40 }, 'vented-dryer');
    expect(byLoads.intervals[school]).toEqual({ loads: 40 });
    expect(byLoads.driver).toBe('loads');
  });

  it('is never a safety task, and asks for the plug where it was said', () => {
    expect(ownTask(felt, 'vented-dryer')).toMatchObject({ safety: false, setups: ['unplugged'] });
    expect(ownTask({ ...felt, unplugged: false }, 'vented-dryer').setups).toEqual([]);
  });

  it('says why: what was written, or that it is their own', () => {
    expect(ownTask(felt, 'vented-dryer').reason).toBe('You added this task yourself.');
    expect(ownTask({ ...felt, reason: '  ' }, 'vented-dryer').reason).toContain('yourself');
    expect(ownTask({ ...felt, reason: ' It squeaks. ' }, 'vented-dryer').reason).toBe(
      'It squeaks.',
    );
  });
});

describe('its steps', () => {
  it('are the ones that were written, in order, between a look and a proof', () => {
    const { steps, putBack, proof, fetch } = ownProcedure(felt);
    expect(steps.map((step) => step.do)).toEqual([
      'Note how it looks before you begin.',
      ...felt.steps,
    ]);
    expect(steps[0]!.note).toBe('grade');
    expect(fetch[0]!.what).toContain(felt.name);
    expect([putBack.length, proof.length]).toEqual([1, 1]);
    expect(new Set([...steps, ...putBack].map(({ id }) => id)).size).toBe(felt.steps.length + 2);
    expect([...steps, ...putBack].every(({ why }) => why.length > 0)).toBe(true);
  });

  it.each(MACHINE_KINDS)('are walked through with the rest of a %s', (kind) => {
    const one = machine(kind, { ownTasks: [felt] });
    expect(tasksOf(one).map(({ id }) => id)).toContain(felt.id);
    expect(procedureOf(one, felt.id).task).toBe(felt.id);
    const alone = planVisit([{ machineId: one.id, task: felt.id }], [one]);
    const said = alone.steps.map(({ step }) => step.do);
    // Unplugged before the first of its own steps, plugged in again after the last.
    const at = (words: string) => said.findIndex((line) => line.toLowerCase().includes(words));
    expect(at('plug')).toBeGreaterThanOrEqual(0);
    expect(at('plug')).toBeLessThan(at('turn the drum'));
    expect(at('turn the drum')).toBeLessThan(at('three drops'));
  });
});
