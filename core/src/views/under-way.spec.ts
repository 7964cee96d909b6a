import { describe, expect, it } from 'vitest';
import { planVisit } from '../care/visit/plan.js';
import { emptyProgress } from '../care/visit/progress.js';
import { machine } from '../model/testing.js';
import type { Visit } from '../model/schemas.js';
import { underWay } from './under-way.js';

const washer = machine('front-load-washer', { id: 'w', place: 'Cellar' });
const tasks = [{ machineId: 'w', task: 'pump-filter' }];
const { steps, minutes } = planVisit(tasks, [washer]);
const visit = (progress: Partial<Visit['progress']>): Visit => ({
  id: 'v',
  version: 1,
  state: 'active',
  tasks,
  startedAt: '2026-06-15T10:00:00Z',
  changedAt: '2026-06-15T10:00:00Z',
  progress: { ...emptyProgress(), ...progress },
});
const ticked = (n: number) =>
  Object.fromEntries(steps.slice(0, n).map(({ key }) => [key, '2026-06-15T10:05:00Z']));

describe('a visit under way', () => {
  it('is at no step before the first, with all of it to do', () => {
    expect(underWay(visit({}), [washer])).toMatchObject({
      ...{ place: 'Cellar', step: 0, steps: steps.length, say: '', left: minutes.hands, open: 0 },
    });
  });

  it('is where it was left, with less to do and what has to be put back', () => {
    const half = Math.floor(steps.length / 2);
    const here = underWay(visit({ at: steps[half]!.key, ticked: ticked(half) }), [washer]);
    expect(here).toMatchObject({ step: half + 1, say: steps[half]!.step.do });
    expect(here.left).toBeLessThan(minutes.hands);
    expect(here.open).toBeGreaterThan(0);
  });

  it('tells what runs, until when', () => {
    const timed = steps.find(({ step }) => step.timer)!;
    const timers = { [timed.key]: { startedAt: '2026-06-15T10:00:00Z', seconds: 60 } };
    expect(underWay(visit({ timers }), [washer]).timers).toEqual([
      { label: timed.step.timer!.label, until: Date.parse('2026-06-15T10:01:00Z') },
    ]);
  });

  it('stands where a machine is gone', () => {
    expect(underWay(visit({}), [])).toMatchObject({ place: '', step: 0, steps: 0, left: 0 });
  });
});
