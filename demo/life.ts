import { plusDays, plusMonths, type Day, type MachineDraft } from '@needlecase/core';
import type { DemoMachine } from './household.js';

type Identity = NonNullable<MachineDraft['identity']>;

/** What the papers of the machines say. */
export const identitiesFrom = (today: Day): Partial<Record<DemoMachine, Identity>> => ({
  'cellar-washer': {
    ...{ boughtOn: plusMonths(today, -77), price: 649, model: 'FW 71' },
    hosesSince: plusMonths(today, -59),
  },
  'cellar-dryer': { boughtOn: plusMonths(today, -112), price: 420 },
  'top-dryer': {
    ...{ boughtOn: plusMonths(today, -23), price: 529, model: 'OC 8' },
    warrantyUntil: plusDays(plusMonths(today, 1), 6),
  },
});

/** What was replaced, and who was called in. */
export const REPAIRS: readonly {
  machine: DemoMachine;
  kind: 'replaced' | 'called';
  daysAgo: number;
  part?: string;
  note: string;
  euros?: number;
}[] = [
  {
    ...{ machine: 'cellar-dryer', kind: 'replaced', daysAgo: 431, part: 'drum-belt' },
    ...{ note: 'Torn after nine years.', euros: 24.5 },
  },
  {
    ...{ machine: 'cellar-washer', kind: 'replaced', daysAgo: 252, part: 'filter-seal' },
    ...{ note: 'It dripped though it was screwed in to its mark.', euros: 11.9 },
  },
  {
    ...{ machine: 'cellar-dryer', kind: 'called', daysAgo: 158, euros: 75 },
    note: 'Service from Reedmoor: rollers looked at, cabinet cleaned of lint.',
  },
];
