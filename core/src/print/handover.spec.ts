import { describe, expect, it } from 'vitest';
import type { Entry, Visit } from '../model/schemas.js';
import { stateOf } from '../care/house/machine-state.js';
import { gather } from '../care/record/history.js';
import { emptyProgress } from '../care/visit/progress.js';
import { planVisit } from '../care/visit/plan.js';
import { household, machine } from '../model/testing.js';
import { Usage } from '../care/record/load-counts.js';
import { machineSheet, visitSheet } from './handover.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const house = household({ hardness: 250 });
const washer = machine('front-load-washer', {
  name: 'Cellar washer',
  features: { filterAccess: 'front-left' },
});
const { taps: _taps, ...past } = gather([
  {
    entryId: 'c1',
    kind: 'chemical',
    at: NOW,
    day: '2026-06-15',
    product: 'mould-bleach',
    actives: ['hypochlorite'],
  },
  {
    entryId: 'p1',
    kind: 'proof',
    at: NOW,
    day: '2026-06-15',
    task: 'pump-filter',
    step: 'drips',
    result: 'bad',
  },
]);
const state = stateOf(washer, { ...past, usage: new Usage([], 5) }, house, NOW);

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

describe('a machine’s record to hand over', () => {
  const sheet = machineSheet(
    washer,
    house,
    state,
    [
      entry({ task: 'pump-filter', grade: 3, found: [{ what: 'coin', count: 2 }], trays: 4 }),
      entry({ kind: 'load', count: 1 }),
      entry({ task: 'gasket-wipe' }),
      entry({ kind: 'code', code: 'HEM18', note: 'twice' }),
    ],
    NOW,
  );
  const rows = (heading: string) => sheet.sections.find((one) => one.heading === heading)!.rows;

  it('says how the machine is built, and what is not known of it', () => {
    expect(sheet.title).toBe('Cellar washer');
    expect(sheet.facts).toContainEqual({ name: 'Pump filter', value: 'Flap at the bottom left' });
    expect(sheet.facts).toContainEqual({ name: 'Drain-down hose', value: 'not known' });
    expect(sheet.facts).toContainEqual({ name: 'Water hardness', value: '250 mg/L as CaCO3' });
  });

  it('tells what is open first: what did not hold, what was not rinsed out', () => {
    expect(rows('Open').map(([what]) => what)).toEqual(['Did not hold', 'Not rinsed out']);
    expect(rows('Open')[1]![1]).toContain('mould remover with chlorine');
  });

  it('lists what was done, found and read, without the loads', () => {
    expect(rows('What was done, found and read').map(([, ...rest]) => rest)).toEqual([
      ['Clean the pump filter', 'heavy; 2 × coin; 4 trays of water'],
      ['Code on the display: HEM18', 'twice'],
    ]);
    expect(rows('Care').length).toBe(state.dues.length);
  });
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
    expect(photos).toEqual([washer.id]);
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
