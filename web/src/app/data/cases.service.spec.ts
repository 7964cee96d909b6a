import { TestBed } from '@angular/core/testing';
import type { CaseEvent, CaseNews, CaseRecord } from '@needlecase/core';
import { of, Subject, throwError, type Observable } from 'rxjs';
import { ApiProblem, ApiService } from './api.service';
import { CasesService } from './cases.service';
import { ChangesService, type Change } from './changes.service';
import { OutboxService, type Waiting } from './outbox.service';
import { ToastsService } from './toasts.service';

const event = (id: string, at = '2026-06-01T10:00:00Z'): CaseEvent => ({ id, at, kind: 'wake' });
const record = (id: string, ...events: CaseEvent[]): CaseRecord => ({
  id,
  machineId: 'm1',
  events,
});

describe('CasesService', () => {
  const changes$ = new Subject<Change>();
  let answer: () => Observable<CaseRecord[]>;
  let kept: Waiting[];
  let refusedNews$: Subject<{ news: CaseNews; problem: ApiProblem }>;

  beforeEach(() => {
    vi.useFakeTimers();
    kept = [];
    answer = () => of([record('old', event('1'))]);
    refusedNews$ = new Subject();
  });
  afterEach(() => vi.useRealTimers());

  async function make(waiting: Waiting[] = []): Promise<CasesService> {
    const outbox = {
      refusedNews$,
      list: () => Promise.resolve(waiting),
      add: (one: Waiting) => Promise.resolve(kept.push(one) > 0),
    };
    TestBed.configureTestingModule({
      providers: [
        { provide: OutboxService, useValue: outbox },
        { provide: ApiService, useValue: { get: () => answer() } },
        { provide: ChangesService, useValue: { of: () => changes$ } },
      ],
    });
    const cases = TestBed.inject(CasesService);
    await vi.advanceTimersByTimeAsync(0);
    return cases;
  }
  const idsOf = (cases: CasesService, id: string) =>
    cases
      .all()
      .find((one) => one.id === id)
      ?.events.map((one) => one.id);

  it('shows what is told at once, and keeps it on the device', async () => {
    const cases = await make();
    cases.tell('new', 'm1', { kind: 'no-stop' }, { kind: 'rest' });
    expect(cases.all().map(({ id }) => id)).toEqual(['new', 'old']);
    expect(kept).toHaveLength(1);
    const { news } = kept[0] as { news: CaseNews };
    expect(news.events.map(({ kind }) => kind)).toEqual(['no-stop', 'rest']);
    expect(new Set(news.events.map(({ id }) => id)).size).toBe(2);
  });

  it('adds what waited when the page was opened, and each event once', async () => {
    const news = { id: 'old', machineId: 'm1', events: [event('1'), event('2')] };
    const cases = await make([{ news }, { undo: 'x' }]);
    expect(idsOf(cases, 'old')).toEqual(['1', '2']);
    answer = () => of([record('old', event('1'), event('2'))]);
    changes$.next({ topic: 'cases' });
    await vi.advanceTimersByTimeAsync(100);
    expect(idsOf(cases, 'old')).toEqual(['1', '2']);
  });

  it('keeps what was read last while the server is away', async () => {
    const cases = await make();
    answer = () => throwError(() => new ApiProblem(0, 'Away.', ''));
    changes$.next({ topic: 'cases' });
    await vi.advanceTimersByTimeAsync(100);
    expect(cases.loaded()).toBe(true);
    expect(idsOf(cases, 'old')).toEqual(['1']);
  });

  it('takes off the screen what was refused, and says why', async () => {
    const cases = await make();
    cases.tell('new', 'm1', { kind: 'no-stop' });
    const { news } = kept[0] as { news: CaseNews };
    const errors = [{ field: 'events.0.at', message: 'This is in the future.' }];
    refusedNews$.next({ news, problem: new ApiProblem(422, 'No.', '', errors) });
    expect(idsOf(cases, 'new')).toBeUndefined();
    const said = TestBed.inject(ToastsService).shown();
    expect(said.map(({ text }) => text)).toEqual(['Not kept: This is in the future.']);
  });
});
