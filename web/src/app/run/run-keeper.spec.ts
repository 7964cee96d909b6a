import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { emptyProgress, type Run } from '@needlecase/core';
import { EMPTY } from 'rxjs';
import { ChangesService } from '../data/changes.service';
import { RunKeeper } from './run-keeper';

const run = (change: Partial<Run> = {}): Run => ({
  id: 'r1',
  version: 1,
  state: 'active',
  tasks: [{ machineId: 'm1', task: 'dispenser' }],
  progress: emptyProgress(),
  startedAt: '2026-06-15T08:00:00.000Z',
  changedAt: '2026-06-15T08:00:00.000Z',
  ...change,
});
const at = (step: string) => ({ ...emptyProgress(), at: step });
const settled = () => new Promise((done) => setTimeout(done));

describe('RunKeeper', () => {
  let keeper: RunKeeper;
  let http: HttpTestingController;

  beforeEach(() => {
    localStorage.clear();
    TestBed.configureTestingModule({
      providers: [
        provideHttpClient(),
        provideHttpClientTesting(),
        { provide: ChangesService, useValue: { of: () => EMPTY } },
        RunKeeper,
      ],
    });
    keeper = TestBed.inject(RunKeeper);
    http = TestBed.inject(HttpTestingController);
  });

  async function opened(stored = run()): Promise<void> {
    const opening = keeper.open('r1');
    http.expectOne('/api/v1/runs/r1').flush(stored);
    await opening;
  }
  const patch = () => http.expectOne(({ method }) => method === 'PATCH');

  it('keeps a change on the device at once and takes it off when the server has it', async () => {
    await opened();
    keeper.change(() => at('a'));
    expect(localStorage.getItem('needlecase.run.r1')).toContain('"at":"a"');
    const request = patch();
    expect(request.request.headers.get('If-Match')).toBe('"1"');
    request.flush(run({ version: 2, progress: at('a') }));
    await settled();
    expect(localStorage.getItem('needlecase.run.r1')).toBeNull();
    expect(keeper.saving()).toBe('saved');
    expect(keeper.run()!.version).toBe(2);
  });

  it('sends the newest after the one under way, one at a time', async () => {
    await opened();
    keeper.change(() => at('a'));
    keeper.change(() => at('b'));
    keeper.change(() => at('c'));
    patch().flush(run({ version: 2, progress: at('a') }));
    await settled();
    const second = patch();
    expect((second.request.body as Run).progress.at).toBe('c');
    expect(second.request.headers.get('If-Match')).toBe('"2"');
    second.flush(run({ version: 3, progress: at('c') }));
    await settled();
    http.verify();
    expect(keeper.run()).toMatchObject({ version: 3, progress: { at: 'c' } });
  });

  it('says that it is kept here when the server cannot be reached, and sends on return', async () => {
    await opened();
    keeper.change(() => at('a'));
    patch().error(new ProgressEvent('error'));
    await settled();
    expect(keeper.saving()).toBe('kept here');
    window.dispatchEvent(new Event('online'));
    patch().flush(run({ version: 2, progress: at('a') }));
    await settled();
    expect(keeper.saving()).toBe('saved');
  });

  it('brings back after a reload what had not been sent', async () => {
    const kept = run({ progress: at('b') });
    localStorage.setItem('needlecase.run.r1', JSON.stringify({ run: kept, base: 1 }));
    await opened();
    expect(keeper.progress()!.at).toBe('b');
    expect((patch().request.body as Run).progress.at).toBe('b');
  });

  it('opens from the device when there is no server at all', async () => {
    const kept = run({ progress: at('b') });
    localStorage.setItem('needlecase.run.r1', JSON.stringify({ run: kept, base: 1 }));
    const opening = keeper.open('r1');
    http.expectOne('/api/v1/runs/r1').error(new ProgressEvent('error'));
    await opening;
    expect(keeper.progress()!.at).toBe('b');
    expect(keeper.problem()).toBeUndefined();
  });

  it('takes a lost answer for what it is: no conflict', async () => {
    await opened();
    keeper.change(() => at('a'));
    const current = run({ version: 2, progress: at('a') });
    patch().flush({ title: 'stale', current }, { status: 409, statusText: 'Conflict' });
    await settled();
    expect(keeper.other()).toBeUndefined();
    expect(keeper.run()!.version).toBe(2);
  });

  it.each(['mine', 'theirs'] as const)(
    'asks when another screen went on, and keeps %s',
    async (which) => {
      await opened();
      keeper.change(() => at('a'));
      const current = run({ version: 5, progress: at('z') });
      patch().flush({ title: 'stale', current }, { status: 409, statusText: 'Conflict' });
      await settled();
      expect(keeper.other()).toEqual(current);
      keeper.choose(which);
      if (which === 'mine') {
        const again = patch();
        expect(again.request.headers.get('If-Match')).toBe('"5"');
        again.flush(run({ version: 6, progress: at('a') }));
        await settled();
      }
      expect(keeper.progress()!.at).toBe(which === 'mine' ? 'a' : 'z');
      expect(localStorage.getItem('needlecase.run.r1')).toBeNull();
      http.verify();
    },
  );

  it('does not finish while something is unsent', async () => {
    await opened();
    keeper.change(() => at('a'));
    const finishing = keeper.finish();
    patch().error(new ProgressEvent('error'));
    await expect(finishing).rejects.toThrow('cannot be reached');
    http.expectNone('/api/v1/runs/r1/finish');
  });
});
