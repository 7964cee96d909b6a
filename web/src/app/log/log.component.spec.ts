import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { ENTRY_KINDS, kindOfEntry, type Entry, type Machine } from '@needlecase/core';
import { of, Subject, throwError, type Observable } from 'rxjs';
import { ApiProblem } from '../data/api.service';
import { ChangesService } from '../data/changes.service';
import { EntriesService } from '../data/entries.service';
import { HouseholdService } from '../data/household.service';
import { ToastsService } from '../data/toasts.service';
import { LogComponent } from './log.component';

const washer: Machine = {
  id: 'm1',
  version: 1,
  name: 'Cellar washer',
  kind: 'front-load-washer',
  place: 'Cellar',
  features: {},
  habits: [],
  loadsPerWeek: 5,
};
const entry = (id: string, change: Partial<Entry> = {}): Entry => ({
  id,
  machineId: 'm1',
  kind: 'done',
  task: 'pump-filter',
  station: 'pump-filter',
  at: '2026-06-14T10:00:00Z',
  author: 'Ida',
  source: 'log',
  zone: 'Europe/Vienna',
  recordedAt: '2026-06-14T10:00:00Z',
  ...change,
});
type Page = { entries: Entry[]; next?: string };
type Asked = Record<string, unknown>;

async function draw(
  answers: (asked: Asked) => Observable<Page>,
  address: Record<string, string> = {},
) {
  const asked: Asked[] = [];
  const undone: string[] = [];
  const restored: string[] = [];
  const changes = new Subject<void>();
  const service = {
    list: (filter: Asked) => (asked.push(filter), answers(filter)),
    undo: (id: string): Observable<unknown> => (undone.push(id), of({})),
    restore: (id: string) => (restored.push(id), of({})),
  };
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      { provide: EntriesService, useValue: service },
      {
        provide: HouseholdService,
        useValue: { machines: () => of([washer]), household: () => of({ zone: 'Europe/Vienna' }) },
      },
      { provide: ChangesService, useValue: { of: () => changes } },
    ],
  });
  const fixture = TestBed.createComponent(LogComponent);
  for (const [name, value] of Object.entries(address)) fixture.componentRef.setInput(name, value);
  const host = fixture.nativeElement as HTMLElement;
  // Readings are gathered for 60 ms.
  const settle = async () => {
    fixture.detectChanges();
    await vi.advanceTimersByTimeAsync(90);
    fixture.detectChanges();
  };
  await settle();
  return {
    asked,
    undone,
    restored,
    changes,
    service,
    settle,
    text: () => host.textContent.replaceAll(/\s+/g, ' ').trim(),
    rows: () => [...host.querySelectorAll('li')].map((row) => row.textContent.trim()),
    days: () => [...host.querySelectorAll('h2')].map((day) => day.textContent.trim()),
    choose: (label: string, words: string) => {
      const select = host.querySelector<HTMLSelectElement>(`select[aria-label="${label}"]`)!;
      select.selectedIndex = [...select.options].findIndex((one) => one.text.trim() === words);
      select.dispatchEvent(new Event('change'));
    },
    options: (label: string) =>
      [...host.querySelectorAll<HTMLOptionElement>(`select[aria-label="${label}"] option`)].map(
        (one) => one.text.trim(),
      ),
    press: (words: string) => {
      [...host.querySelectorAll('button')].find((one) => one.textContent.trim() === words)!.click();
      fixture.detectChanges();
    },
  };
}
const page =
  (...entries: Entry[]) =>
  () =>
    of({ entries });

describe('LogComponent', () => {
  beforeEach(() => void vi.useFakeTimers({ now: Date.now() }));
  afterEach(() => vi.useRealTimers());

  it('gathers entries by their day, in the zone they were entered in', async () => {
    const log = await draw(
      page(
        entry('a', { at: '2025-06-14T22:30:00Z' }),
        entry('b', { at: '2025-06-14T12:00:00Z' }),
        entry('c', { at: '2025-06-14T22:30:00Z', zone: 'UTC' }),
      ),
    );
    // 22:30 in UTC is half past midnight in Vienna.
    expect(log.days()).toEqual(['15 June 2025', '14 June 2025']);
    expect(log.rows()[0]).toContain('00:30');
    expect(log.rows()).toHaveLength(3);
  });

  it('says what was done, at which machine, by whom, with what was found', async () => {
    const log = await draw(
      page(entry('a', { grade: 3, found: [{ what: 'coin', count: 2 }], note: 'A 50 cent piece' })),
    );
    const [row] = log.rows();
    for (const part of ['Cellar washer', '2 coin', 'A 50 cent piece', 'Ida']) {
      expect(row).toContain(part);
    }
  });

  it('shows what was asked last, however late the answer before comes', async () => {
    const answers: Subject<Page>[] = [];
    const log = await draw(() => {
      answers.push(new Subject());
      return answers.at(-1)!;
    });
    log.changes.next();
    await log.settle();
    expect(answers).toHaveLength(2);
    answers[1]!.next({ entries: [entry('new')] });
    answers[0]!.next({ entries: [entry('old'), entry('older')] });
    await log.settle();
    expect(log.rows()).toHaveLength(1);
  });

  it('tells an empty log from one where nothing fits the filter', async () => {
    expect((await draw(page())).text()).toContain('Nothing has happened yet.');
    TestBed.resetTestingModule();
    expect((await draw(page(), { kind: 'load' })).text()).toContain('Nothing like that');
  });

  it('says what is wrong when it cannot be read, and not that nothing happened', async () => {
    const log = await draw(() =>
      throwError(
        () => new ApiProblem(502, 'The server did not answer as it should.', 'Try again.'),
      ),
    );
    expect(log.text()).toContain('The server did not answer as it should.');
    expect(log.text()).not.toContain('Nothing has happened yet');
  });

  it('asks for what the address says, and puts a choice into the address', async () => {
    const log = await draw(page(), { machine: 'm1', kind: 'load', undone: 'yes' });
    expect(log.asked[0]).toMatchObject({ machine: 'm1', kind: 'load', all: true });
    const navigate = vi.spyOn(TestBed.inject(Router), 'navigate').mockResolvedValue(true);
    log.choose('Kind of entry', kindOfEntry('stock').label);
    log.choose('Machine', 'All machines');
    expect(navigate.mock.calls.map(([, extras]) => extras?.queryParams)).toEqual([
      { kind: 'stock' },
      { machine: null, station: null },
    ]);
  });

  it('offers every kind of entry by its name, save the undoing', async () => {
    const log = await draw(page());
    expect(log.options('Kind of entry')).toEqual([
      'Everything',
      ...ENTRY_KINDS.filter((kind) => kind !== 'undone').map((kind) => kindOfEntry(kind).label),
    ]);
    expect(log.options('Machine')).toEqual(['All machines', 'Cellar washer']);
  });

  it('goes on below what is shown, and does not read it twice', async () => {
    const log = await draw(({ before }) =>
      before ? of({ entries: [entry('old')] }) : of({ entries: [entry('new')], next: 'cursor' }),
    );
    log.press('Show older entries');
    expect(log.asked.at(-1)).toMatchObject({ before: 'cursor' });
    expect(log.rows()).toHaveLength(2);
    expect(log.text()).not.toContain('Show older entries');
  });

  it('reads again when something changed elsewhere', async () => {
    const log = await draw(page(entry('a')));
    const before = log.asked.length;
    log.changes.next();
    log.changes.next();
    await log.settle();
    expect(log.asked.length).toBe(before + 1);
  });

  it('undoes an entry and offers to bring it back', async () => {
    const log = await draw(page(entry('a')));
    log.press('Undo');
    expect(log.undone).toEqual(['a']);
    const toast = TestBed.inject(ToastsService).shown().at(-1)!;
    expect(toast.text).toContain('Undone:');
    toast.action!.do();
    expect(log.restored).toEqual(['a']);
  });

  it('complains when an undoing is refused, and reads what is true', async () => {
    const log = await draw(page(entry('a')));
    log.service.undo = () =>
      throwError(() => new ApiProblem(409, 'It was corrected meanwhile.', 'Look again.'));
    const before = log.asked.length;
    log.press('Undo');
    expect(TestBed.inject(ToastsService).shown().at(-1)!.text).toContain('corrected meanwhile');
    expect(log.asked.length).toBe(before + 1);
  });

  it('tells what became of an entry: undone, corrected, or brought back', async () => {
    const log = await draw(
      page(
        entry('u', { kind: 'undone', revises: 'a' }),
        entry('a', { revisedBy: 'u' }),
        entry('c2', { revises: 'c1' }),
        entry('c1', { revisedBy: 'c2' }),
      ),
      { undone: 'yes' },
    );
    const [undone, correction, corrected] = log.rows();
    expect(undone).toMatch(/undone.*Bring back/s);
    expect(correction).toMatch(/Correct.*Undo/s);
    expect(corrected).toContain('corrected');
    expect(corrected).not.toContain('Bring back');
  });
});
