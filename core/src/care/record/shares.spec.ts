import { describe, expect, it } from 'vitest';
import type { Machine } from '../../model/schemas.js';
import { taskById } from '../catalogue/lookup.js';
import { sharesOf } from './shares.js';

const washer = {
  id: 'w',
  version: 1,
  name: 'Washer',
  kind: 'front-load-washer',
  place: 'Cellar',
  features: {},
  habits: [],
  loadsPerWeek: 5,
  ownTasks: [
    {
      id: 'own-trap',
      name: 'Empty the trap',
      station: 'standpipe',
      every: 2,
      unit: 'months',
      minutes: 15,
      unplugged: false,
      steps: ['Empty it.'],
    },
  ],
} satisfies Machine;
const did = (author: string, task: string, machineId = 'w') => ({ author, task, machineId });

describe('how the work was shared', () => {
  it('is minutes at work by the catalogue and by the household’s own tasks, and the tasks', () => {
    const done = [did('ilse', 'pump-filter'), did('jon', 'own-trap'), did('ilse', 'dispenser')];
    const minutes = taskById('pump-filter').minutes.hands + taskById('dispenser').minutes.hands;
    expect(sharesOf(done, [washer])).toEqual([
      { author: 'ilse', minutes, tasks: 2 },
      { author: 'jon', minutes: 15, tasks: 1 },
    ]);
  });

  it('counts without minutes what is no longer known', () => {
    const done = [did('jon', 'own-gone'), did('jon', 'pump-filter', 'sold')];
    expect(sharesOf(done, [washer])).toEqual([{ author: 'jon', minutes: 0, tasks: 2 }]);
    expect(sharesOf([], [washer])).toEqual([]);
  });
});
