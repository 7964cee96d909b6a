import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import {
  benchView,
  gather,
  Usage,
  type BenchView,
  type CaseRecord,
  type Machine,
  type Visit,
} from '@needlecase/core';
import { BehaviorSubject, Subject } from 'rxjs';
import { ApiProblem } from '../data/api.service';
import { BenchService, type Loaded } from '../data/bench.service';
import { LoadsService } from '../data/loads.service';
import { VisitsService } from '../data/visits.service';
import { handsOn } from '../measure/parts/testing';
import { BenchComponent } from './bench.component';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const DAY = 86_400_000;
const HOUSEHOLD = {
  id: 'h',
  version: 1,
  name: 'House',
  zone: 'UTC',
  units: 'metric',
  school: 'steady',
  risk: 0.1,
} as const;
const WASHER: Machine = {
  id: 'm1',
  version: 1,
  name: 'Cellar washer',
  kind: 'front-load-washer',
  place: 'Cellar',
  features: {},
  habits: [],
  loadsPerWeek: 5,
};

/** The bench of a house with a washer, as the core makes it. */
function benchOf(kept: { visits?: Visit[]; cases?: CaseRecord[] } = {}): BenchView {
  const at = NOW - 60 * DAY;
  const { taps, ...past } = gather([
    { entryId: 'a', kind: 'done', at, day: '2026-04-16', task: 'pump-filter', grade: 3 },
    { entryId: 'b', kind: 'load', at: NOW - 1000, day: '2026-06-15', count: 2 },
  ]);
  const histories = [{ ...past, usage: new Usage(taps, 5) }];
  return benchView(
    { household: HOUSEHOLD, machines: [WASHER], histories, now: NOW },
    { visits: kept.visits ?? [], cases: kept.cases ?? [], supplies: [], stockEvents: () => [] },
  );
}

describe('BenchComponent', () => {
  let bench$: BehaviorSubject<Loaded<BenchView>>;
  let counted: string[];
  let started: number[];
  let refreshed: number;
  const pending = signal(new Map<string, number>());
  const settled$ = new Subject<void>();

  beforeEach(async () => {
    bench$ = new BehaviorSubject<Loaded<BenchView>>({ value: benchOf() });
    counted = [];
    started = [];
    refreshed = 0;
    pending.set(new Map());
    const visits = {
      starting: signal(false),
      start: (tasks: readonly unknown[]) => started.push(tasks.length),
    };
    const loads = {
      pending,
      settled$,
      count: ({ id }: Machine) => Promise.resolve(void counted.push(id)),
    };
    TestBed.configureTestingModule({
      imports: [BenchComponent],
      providers: [
        provideRouter([]),
        { provide: BenchService, useValue: { bench$, refresh: () => refreshed++ } },
        { provide: LoadsService, useValue: loads },
        { provide: VisitsService, useValue: visits },
      ],
    });
    await TestBed.compileComponents();
  });

  function show() {
    const fixture = TestBed.createComponent(BenchComponent);
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    return { host, fixture, ...handsOn(host, () => fixture.detectChanges()) };
  }

  it('proposes the next visit and begins it with its tasks', () => {
    const { host, press } = show();
    expect(host.querySelector('h1')!.textContent).toContain('Next visit: Cellar');
    press('Start this visit');
    expect(started).toEqual([bench$.value.value!.visit!.tasks.length]);
  });

  it('counts a load with one tap, and shows those on their way at once', () => {
    const { press, text, fixture } = show();
    expect(text()).toContain('2 today');
    press('Count a load of the Cellar washer');
    expect(counted).toEqual(['m1']);
    pending.set(new Map([['m1', 1]]));
    fixture.detectChanges();
    expect(text()).toContain('3 today');
  });

  it('reads anew once a tap has arrived', () => {
    show();
    settled$.next();
    expect(refreshed).toBe(1);
  });

  it('shows a visit under way first', () => {
    const visit = {
      id: 'v',
      version: 1,
      state: 'paused',
      tasks: [{ machineId: 'm1', task: 'dispenser' }],
      startedAt: '2026-06-15T09:00:00Z',
      changedAt: '2026-06-15T09:00:00Z',
      progress: { ticked: {}, tasks: {}, readings: {}, timers: {}, fetched: [] },
    } as unknown as Visit;
    bench$.next({ value: benchOf({ visits: [visit] }) });
    const { host, text } = show();
    expect(host.querySelector('h1')!.textContent).toContain('Under way: Cellar');
    expect(text()).toContain('1 task, about');
    expect(host.querySelector('a[href="/visit/v"]')).not.toBeNull();
  });

  it('has one label for all cases, and says what one was stopped for', () => {
    const at = new Date(NOW - DAY).toISOString();
    const slow = [
      { id: '1', at, kind: 'answer', finding: 'drains-slowly', answer: 'yes' } as const,
    ];
    const stopped = [{ id: '2', at, kind: 'stop', stop: 'water-socket' } as const];
    const cases: CaseRecord[] = ['a', 'b', 'c', 'd', 'e'].map((id) => ({
      id,
      machineId: 'm1',
      events: slow,
    }));
    bench$.next({
      value: benchOf({ cases: [...cases, { id: 'f', machineId: 'm1', events: stopped }] }),
    });
    const { host, text } = show();
    expect(host.querySelectorAll('nc-case-card')).toHaveLength(1);
    expect(host.querySelector('nc-case-card h2')!.textContent).toContain('water near a socket');
    expect(text()).toContain('and 2 more');
  });

  it('says of what is due and does not fit why it waits, and makes it a visit of its own', () => {
    const value = benchOf();
    const [task] = value.visit!.tasks;
    value.visit!.waits = [
      {
        ...task!,
        task: 'drain-hose',
        name: 'Clear the drain hose',
        minutes: 48,
        because: 'with it 107 min, more than your 90',
      },
    ];
    bench$.next({ value });
    const { text, press } = show();
    expect(text()).toContain('waits: with it 107 min, more than your 90');
    press('A visit of its own, 48 min');
    expect(started).toEqual([1]);
  });

  it('shows cases that are open', () => {
    const at = new Date(NOW - DAY).toISOString();
    const events = [
      { id: '1', at, kind: 'answer', finding: 'drains-slowly', answer: 'yes' } as const,
    ];
    bench$.next({ value: benchOf({ cases: [{ id: 'c', machineId: 'm1', events }] }) });
    const { text } = show();
    expect(text()).toContain('It drains slowly');
    expect(text()).toContain('Cellar washer, since 14 June');
  });

  it('says what is wrong, keeps what was read last, and tries again when asked', () => {
    const problem = new ApiProblem(0, 'The server cannot be reached.', 'It is still here.');
    bench$.next({ value: benchOf(), problem });
    const { text, press } = show();
    expect(text()).toContain('You see what was read last.');
    expect(text()).toContain('Next visit: Cellar');
    press('Try again');
    expect(refreshed).toBe(1);
  });

  it('says so where nothing was ever read', () => {
    bench$.next({ problem: new ApiProblem(0, 'The server cannot be reached.', 'Later.') });
    expect(show().host.querySelector('h1')!.textContent).toBe('The server cannot be reached.');
  });
});
