import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { troubleStart, type CaseRecord, type Machine } from '@needlecase/core';
import { NEVER, of, throwError } from 'rxjs';
import { ApiService } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import type { Happening } from '@needlecase/core';
import { CasesService } from '../data/cases.service';
import { ToastsService } from '../data/toasts.service';
import { CaseOnScreen } from './case-on-screen';

const WASHER: Machine = {
  id: 'w',
  version: 1,
  name: 'Washer',
  kind: 'front-load-washer',
  place: 'Cellar',
  features: {},
  habits: [],
  loadsPerWeek: 5,
};
const DAY = 86_400_000;
let ids = 0;
const record = (id: string, ...told: [daysAgo: number, happening: Happening][]): CaseRecord => ({
  id,
  machineId: 'w',
  events: told.map(([daysAgo, happening]) => ({
    id: `e${ids++}`,
    at: new Date(Date.now() - daysAgo * DAY).toISOString(),
    ...happening,
  })),
});

function show({
  id,
  machine,
  cases = [],
  records = true,
}: {
  id?: string;
  machine?: string;
  cases?: CaseRecord[];
  records?: boolean | 'awaited';
}) {
  const all = signal(cases);
  const told: unknown[][] = [];
  const went: unknown[] = [];
  const start = {
    ...troubleStart('front-load-washer'),
    situation: { kind: 'front-load-washer', features: {}, fouling: { 'pump-filter': 1.1 } },
    said: { 'pump-filter': 'not opened for 14 months' },
    figures: {},
  };
  TestBed.configureTestingModule({
    providers: [
      CaseOnScreen,
      {
        provide: ApiService,
        useValue: {
          get: () => {
            if (records === 'awaited') return NEVER;
            return records ? of(start) : throwError(() => new Error('gone'));
          },
        },
      },
      { provide: Router, useValue: { navigate: (to: unknown[]) => went.push(to) } },
      {
        provide: CasesService,
        useValue: {
          all,
          loaded: signal(true),
          asked: signal(true),
          tell: (...call: unknown[]) => told.push(call),
        },
      },
      { provide: ToastsService, useValue: { show: () => undefined } },
      {
        provide: BenchService,
        useValue: {
          bench$: of({
            value: {
              machines: [WASHER],
              states: [],
              today: '2026-06-15',
              household: { zone: 'UTC' },
            },
          }),
        },
      },
    ],
  });
  const on = TestBed.inject(CaseOnScreen);
  on.asked.set({ id: signal(id), machine: signal(machine) });
  TestBed.tick();
  return { on, told, went, all };
}

describe('the case on screen', () => {
  it('is opened by the first thing told, and asks what belongs to it before any look', () => {
    const { on, told, went, all } = show({ machine: 'w' });
    expect(on.toAsk()).toEqual([]);
    const answer: Happening = { kind: 'answer', finding: 'wont-drain', answer: 'yes' };
    on.tell(answer);
    expect(told).toEqual([[on.caseId(), 'w', answer]]);
    expect(went).toEqual([['/trouble', on.caseId()]]);
    all.set([record(on.caseId(), [0, answer])]);
    const asked = on.toAsk().map(({ id }) => id);
    expect(asked).toContain('water-socket');
    expect(asked).not.toContain('carbon-monoxide');
    on.noStop();
    expect(told.at(-1)).toEqual([on.caseId(), 'w', { kind: 'no-stop', asked }]);
    all.set([record(on.caseId(), [0, answer], [0, { kind: 'no-stop', asked }])]);
    expect(on.toAsk()).toEqual([]);
    // Something else told later is asked about as well, and nothing twice.
    const roar: Happening = { kind: 'answer', finding: 'roar', answer: 'yes' };
    all.set([record(on.caseId(), [0, answer], [0, { kind: 'no-stop', asked }], [0, roar])]);
    expect(on.toAsk().map(({ id }) => id)).toEqual(['smoke']);
  });

  it('tells nothing where no machine is known', () => {
    const { on, told } = show({});
    on.tell({ kind: 'answer', finding: 'wont-drain', answer: 'yes' });
    expect(told).toEqual([]);
  });

  it('reasons from what was told, with what the records say', () => {
    const known = record('c', [1, { kind: 'answer', finding: 'wont-drain', answer: 'yes' }]);
    const { on } = show({ id: 'c', cases: [known] });
    const [first] = on.view()!.suspects;
    expect(first!.cause).toBe('filter-clogged');
    expect(first!.because).toContain('not opened for 14 months');
    expect(on.next().check ?? on.next().fix).toBeDefined();
    expect(on.missing()).toBe(false);
  });

  it('reasons from how the machine is built where its records cannot be read', () => {
    const known = record('c', [1, { kind: 'answer', finding: 'wont-drain', answer: 'yes' }]);
    const { on } = show({ id: 'c', cases: [known], records: false });
    expect(on.view()!.suspects.length).toBeGreaterThan(2);
    expect(on.start()!.said).toEqual({});
  });

  it('asks the stop rules, and tells what one says, before the server has answered', () => {
    const known = record('c', [0, { kind: 'stop', stop: 'fumes' }]);
    const { on } = show({ id: 'c', cases: [known], records: 'awaited' });
    expect(on.start()).toBeUndefined();
    expect(on.holding().map(({ id }) => id)).toEqual(['fumes']);
    expect(on.holding()[0]!.now).toMatch(/fresh air/);
  });

  it('says nothing before anything was told, and knows when a case is not there', () => {
    expect(show({ machine: 'w' }).on.view()).toBeUndefined();
    TestBed.resetTestingModule();
    expect(show({ id: 'gone' }).on.missing()).toBe(true);
  });

  it('goes on with a case that was closed within its time, and not with an older one', () => {
    const closed = (daysAgo: number) =>
      record(
        'before',
        [daysAgo + 1, { kind: 'answer', finding: 'wont-drain', answer: 'yes' }],
        [daysAgo, { kind: 'close', ending: 'fixed' }],
      );
    const { on, told, went } = show({ machine: 'w', cases: [closed(5)] });
    expect(on.reopened({ finding: 'wont-drain' })).toBe(true);
    expect(told).toEqual([['before', 'w', { kind: 'reopen' }]]);
    expect(went).toEqual([['/trouble', 'before']]);
    expect(on.reopened({ finding: 'musty-smell' })).toBe(false);
    TestBed.resetTestingModule();
    const older = show({ machine: 'w', cases: [closed(90)] });
    expect(older.on.reopened({ finding: 'wont-drain' })).toBe(false);
    expect(older.told).toEqual([]);
  });
});
