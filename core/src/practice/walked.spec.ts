import { describe, expect, it } from 'vitest';
import { planVisit } from '../care/visit/plan.js';
import type { Machine } from '../model/schemas.js';
import { cameOf, worldAfter } from './walked.js';

const washer = {
  ...{ id: 'w', version: 1, name: 'Washer', kind: 'front-load-washer', place: 'Cellar' },
  ...{
    habits: [],
    loadsPerWeek: 4,
    features: { filterAccess: 'front-left', drainDownHose: 'yes' },
  },
} as unknown as Machine;
const { steps } = planVisit([{ machineId: 'w', task: 'pump-filter' }], [washer]);

describe('a visit that is walked with gaps', () => {
  it('breaks nothing where nothing was left out', () => {
    expect(cameOf(steps, washer)).toEqual([]);
  });

  it('leaves the machine as it is used', () => {
    const { facts, floor } = worldAfter(steps, washer);
    expect(facts).toMatchObject({ power: 'on', filter: 'in', flap: 'shut' });
    expect(floor).toBe(0);
  });

  it.each(steps.map(({ key }, i) => [key, i] as const))(
    'up to "%s" is the world of the steps before it',
    (_key, i) => {
      const before = worldAfter(steps.slice(0, i), washer);
      const after = worldAfter(steps.slice(0, i + 1), washer);
      expect(after.clock).toBeGreaterThanOrEqual(before.clock);
      expect(after.floor).toBe(0);
    },
  );

  it('tells what comes only of a machine that stands full, as that', () => {
    const hose = planVisit([{ machineId: 'w', task: 'drain-hose' }], [washer]).steps;
    const blind = hose.filter(({ step }) => !step.acts.stopsIfFull);
    expect(blind.length).toBeLessThan(hose.length);
    const came = cameOf(blind, washer);
    expect(came).toContainEqual(expect.objectContaining({ law: 'too heavy alone', ifFull: true }));
    expect(came.filter(({ ifFull }) => !ifFull)).toEqual([]);
  });

  it('floods where the water was not let out, full or not, and tells it once', () => {
    const walked = steps.filter(({ step }) => !step.acts.drains);
    const floods = cameOf(walked, washer).filter(({ law }) => law === 'flood');
    expect(floods).toEqual([expect.objectContaining({ ifFull: false })]);
  });
});
