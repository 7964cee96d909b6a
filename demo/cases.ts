import type { Happening } from '@needlecase/core';
import { seenOf } from '@needlecase/core';
import { CODE_SHEETS } from './code-sheets.js';
import type { DemoMachine } from './household.js';

/** Something that happened in a case of the demo. */
export type DemoEvent = Happening & { daysAgo: number; hour: number };

export interface DemoCase {
  machine: DemoMachine;
  events: DemoEvent[];
}

const HEM_18 = CODE_SHEETS[0]!.rows.find(({ code }) => code === 'HEM-18')!;

/** One trouble that was solved a year ago, and one that is open today. */
export const CASES: readonly DemoCase[] = [
  {
    machine: 'cellar-washer',
    events: [
      { daysAgo: 384, hour: 20, kind: 'no-stop' },
      { daysAgo: 384, hour: 20, kind: 'answer', finding: 'drains-slowly', answer: 'yes' },
      { daysAgo: 384, hour: 20, kind: 'answer', finding: 'gurgle', answer: 'yes' },
      {
        daysAgo: 384,
        hour: 21,
        kind: 'measure',
        quantity: 'drain-time',
        value: 118,
        unit: 's',
      },
      { daysAgo: 384, hour: 21, kind: 'rest' },
      { daysAgo: 353, hour: 18, kind: 'wake' },
      { daysAgo: 353, hour: 18, kind: 'code', code: seenOf(HEM_18) },
      { daysAgo: 353, hour: 18, kind: 'answer', finding: 'wont-drain', answer: 'yes' },
      { daysAgo: 353, hour: 19, kind: 'answer', finding: 'hose-kinked', answer: 'no' },
      {
        daysAgo: 353,
        hour: 19,
        kind: 'note',
        note: 'Stood full to the glass with the towels in it. Let the water out below, nine trays.',
      },
      { daysAgo: 352, hour: 8, kind: 'looked', cause: 'filter-clogged' },
      { daysAgo: 352, hour: 8, kind: 'fix', cause: 'filter-clogged', task: 'pump-filter' },
      { daysAgo: 352, hour: 11, kind: 'measure', quantity: 'drain-time', value: 64, unit: 's' },
      { daysAgo: 352, hour: 11, kind: 'gone', finding: 'wont-drain', gone: true },
      { daysAgo: 352, hour: 11, kind: 'gone', finding: 'drains-slowly', gone: true },
      { daysAgo: 350, hour: 9, kind: 'gone', finding: 'gurgle', gone: true },
      { daysAgo: 350, hour: 9, kind: 'close', ending: 'fixed', returnDays: 60 },
    ],
  },
  {
    machine: 'cellar-dryer',
    events: [
      { daysAgo: 4, hour: 21, kind: 'no-stop' },
      { daysAgo: 4, hour: 21, kind: 'answer', finding: 'long-drying', answer: 'yes' },
      {
        daysAgo: 4,
        hour: 21,
        kind: 'note',
        note: 'The towels come out hot and still damp, and the cellar window is wet.',
      },
      { daysAgo: 3, hour: 8, kind: 'answer', finding: 'look-screen', answer: 'no' },
    ],
  },
];
