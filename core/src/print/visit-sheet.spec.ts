import { describe, expect, it } from 'vitest';
import type { Entry, Visit } from '../model/schemas.js';
import { emptyProgress } from '../care/visit/progress.js';
import { planVisit } from '../care/visit/plan.js';
import { household, machine } from '../model/testing.js';
import { visitSheet } from './visit-sheet.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const house = household({ hardness: 250 });
const washer = machine('front-load-washer', {
  name: 'Cellar washer',
  features: { filterAccess: 'front-left' },
});

const entry = (change: Partial<Entry>): Entry => ({
  id: washer.id,
  machineId: washer.id,
  kind: 'done',
  at: '2026-06-14T10:00:00Z',
  author: 'household',
  source: 'run',
  zone: 'Europe/Vienna',
  recordedAt: '2026-06-14T10:00:00Z',
  ...change,
});

describe('a visit to hand over', () => {
  const tasks = [{ machineId: washer.id, task: 'dispenser' }];
  const plan = planVisit(tasks, [washer]);
  const visit: Visit = {
    id: washer.id,
    version: 1,
    state: 'paused',
    tasks,
    progress: {
      ...emptyProgress(),
      ticked: { [plan.steps[0]!.key]: '2026-06-15T09:00:00Z' },
      tasks: { [`${washer.id}/dispenser`]: { grade: 1, photos: [washer.id] } },
    },
    startedAt: '2026-06-15T08:00:00Z',
    changedAt: '2026-06-15T09:00:00Z',
  };

  it('is a list of steps to tick while it is open, each caution with its step', () => {
    const { sections, photos } = visitSheet(visit, [washer], house, [], NOW);
    const steps = sections.find(({ heading }) => heading === 'Steps')!.rows;
    expect(steps).toHaveLength(plan.steps.length);
    expect(steps[0]![0]).toBe('x');
    expect(steps[1]![0]).toBe('');
    const cautions = plan.steps.flatMap((step) => step.cautions);
    for (const caution of cautions) {
      expect(steps.some(([, , , text]) => text!.includes(`CAUTION: ${caution}`))).toBe(true);
    }
    expect(photos.map(({ id }) => id)).toEqual([washer.id]);
  });

  it('is what came of it when it is finished', () => {
    const done = visitSheet(
      { ...visit, state: 'finished' },
      [washer],
      house,
      [entry({ task: 'dispenser', grade: 1 })],
      NOW,
    );
    expect(done.lead).toContain('Finished.');
    expect(done.sections.map(({ heading }) => heading)).toEqual(['Tasks', 'Recorded']);
    expect(done.sections[1]!.rows[0]![1]).toBe('Clean the dispenser and its cavity');
  });
});
