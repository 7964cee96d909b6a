import 'fake-indexeddb/auto';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { emptyProgress, type Visit } from '@needlecase/core';
import { IDBFactory } from 'fake-indexeddb';
import { EMPTY } from 'rxjs';
import { vi } from 'vitest';
import { ChangesService } from '../data/changes.service';
import { openDevice } from '../data/device';
import { VisitSender, type Kept } from '../data/visit-sender.service';
import { VisitKeeper } from './visit-keeper';

const visit = (change: Partial<Visit> = {}): Visit => ({
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
const settled = () => new Promise((done) => setTimeout(done, 20));
/** As older programs kept a visit; it is moved when the page is opened. */
const leave = (kept: object) => localStorage.setItem('needlecase.run.r1', JSON.stringify(kept));

describe('VisitKeeper', () => {
  let keeper: VisitKeeper;
  let http: HttpTestingController;

  beforeEach(() => {
    localStorage.clear();
    globalThis.indexedDB = new IDBFactory();
    TestBed.configureTestingModule({
      providers: [
        provideHttpClient(),
        provideHttpClientTesting(),
        { provide: ChangesService, useValue: { of: () => EMPTY } },
        VisitKeeper,
      ],
    });
    keeper = TestBed.inject(VisitKeeper);
    http = TestBed.inject(HttpTestingController);
  });

  async function opened(stored = visit()): Promise<void> {
    const opening = keeper.open('r1');
    (await vi.waitFor(read)).flush(stored);
    await opening;
  }
  const kept = async () => {
    await settled();
    return (await openDevice()).get('visits', 'r1');
  };
  const read = () =>
    http.expectOne(({ method, url }) => method === 'GET' && url === '/api/v1/runs/r1');
  const finish = () => http.expectOne('/api/v1/runs/r1/finish');
  const patch = () => http.expectOne(({ method }) => method === 'PATCH');
  /** As the server refuses: in problem details. */
  const refuse = (status: number, problem: object) =>
    patch().flush(problem, {
      status,
      statusText: 'refused',
      headers: { 'Content-Type': 'application/problem+json' },
    });

  it('keeps a change on the device at once, and as sent when the server has it', async () => {
    await opened();
    keeper.change(() => at('a'));
    await settled();
    expect(await kept()).toMatchObject({ unsent: true, run: { progress: at('a') } });
    const request = patch();
    expect(request.request.headers.get('If-Match')).toBe('"1"');
    request.flush(visit({ version: 2, progress: at('a') }));
    await settled();
    expect(await kept()).toMatchObject({ unsent: false, base: 2 });
    expect(keeper.saving()).toBe('saved');
    expect(keeper.run()!.version).toBe(2);
  });

  it('sends the newest after the one under way, one at a time', async () => {
    await opened();
    keeper.change(() => at('a'));
    keeper.change(() => at('b'));
    keeper.change(() => at('c'));
    patch().flush(visit({ version: 2, progress: at('a') }));
    await settled();
    const second = patch();
    expect((second.request.body as Visit).progress.at).toBe('c');
    expect(second.request.headers.get('If-Match')).toBe('"2"');
    second.flush(visit({ version: 3, progress: at('c') }));
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
    await settled();
    patch().flush(visit({ version: 2, progress: at('a') }));
    await settled();
    expect(keeper.saving()).toBe('saved');
  });

  it('brings back after a reload what had not been sent', async () => {
    const kept = visit({ progress: at('b') });
    leave({ run: kept, base: 1 });
    await opened();
    expect(keeper.progress()!.at).toBe('b');
    expect((patch().request.body as Visit).progress.at).toBe('b');
  });

  it('opens from the device when there is no server at all', async () => {
    const kept = visit({ progress: at('b') });
    leave({ run: kept, base: 1 });
    const opening = keeper.open('r1');
    await settled();
    read().error(new ProgressEvent('error'));
    await opening;
    expect(keeper.progress()!.at).toBe('b');
    expect(keeper.problem()).toBeUndefined();
  });

  it('takes a lost answer for what it is: no conflict', async () => {
    await opened();
    keeper.change(() => at('a'));
    const current = visit({ version: 2, progress: at('a') });
    refuse(409, { title: 'stale', current });
    await settled();
    expect(keeper.other()).toBeUndefined();
    expect(keeper.run()!.version).toBe(2);
  });

  it.each(['mine', 'theirs'] as const)(
    'asks when another screen went on, and keeps %s',
    async (which) => {
      await opened();
      keeper.change(() => at('a'));
      const current = visit({ version: 5, progress: at('z') });
      refuse(409, { title: 'stale', current });
      await settled();
      expect(keeper.other()).toEqual(current);
      keeper.choose(which);
      if (which === 'mine') {
        const again = patch();
        expect(again.request.headers.get('If-Match')).toBe('"5"');
        again.flush(visit({ version: 6, progress: at('a') }));
        await settled();
      }
      expect(keeper.progress()!.at).toBe(which === 'mine' ? 'a' : 'z');
      expect(await kept()).toMatchObject({ unsent: false, base: which === 'mine' ? 6 : 5 });
      http.verify();
    },
  );

  it('finishes without a connection, and is recorded once when there is one', async () => {
    await opened();
    keeper.change(() => at('a'));
    patch().error(new ProgressEvent('error'));
    await settled();
    const finishing = keeper.finish();
    patch().error(new ProgressEvent('error'));
    await finishing;
    expect(keeper.later()).toBe(true);
    expect(await kept()).toMatchObject({ unsent: true, finishing: true });
    window.dispatchEvent(new Event('online'));
    await settled();
    patch().flush(visit({ version: 2, progress: at('a') }));
    await settled();
    const first = finish();
    const key = first.request.headers.get('Idempotency-Key');
    first.error(new ProgressEvent('error'));
    await settled();
    expect(keeper.later()).toBe(true);
    // The answer was lost: the same deed is asked for again, under the same key.
    window.dispatchEvent(new Event('online'));
    await settled();
    const again = finish();
    expect(again.request.headers.get('Idempotency-Key')).toBe(key);
    again.flush({ run: visit({ version: 3, state: 'finished' }), entries: [] });
    await settled();
    expect(keeper.entries()).toEqual([]);
    expect(keeper.later()).toBe(false);
    expect(await kept()).toBeUndefined();
    http.verify();
  });

  it('is recorded though its page is shut: the sender goes on alone', async () => {
    const held: Kept = { run: visit({ progress: at('z') }), base: 1, unsent: true, edits: 4 };
    TestBed.inject(VisitSender).keep({ ...held, finishing: true });
    expect(TestBed.inject(VisitSender).waiting()).toHaveLength(1);
    TestBed.inject(VisitSender).sendAll();
    await settled();
    patch().flush(visit({ version: 2, progress: at('z') }));
    await settled();
    finish().flush({ run: visit({ version: 3, state: 'finished' }), entries: [] });
    await settled();
    expect(await kept()).toBeUndefined();
    expect(TestBed.inject(VisitSender).waiting()).toEqual([]);
  });

  it('goes back into a visit that waits to be recorded', async () => {
    await opened();
    keeper.change(() => at('a'));
    patch().error(new ProgressEvent('error'));
    await settled();
    const finishing = keeper.finish();
    patch().error(new ProgressEvent('error'));
    await finishing;
    keeper.goOn();
    expect(keeper.later()).toBe(false);
    expect((await kept())!.finishing).toBe(false);
  });

  it('trusts what is on the device over an older answer that the browser kept', async () => {
    const held = {
      run: visit({ version: 7, progress: at('k') }),
      base: 7,
      unsent: false,
      edits: 2,
    };
    leave(held);
    await opened(visit({ version: 1 }));
    expect(keeper.progress()!.at).toBe('k');
    expect(keeper.other()).toBeUndefined();
    http.verify();
  });

  it('says what the server refused', async () => {
    await opened();
    keeper.change(() => at('a'));
    refuse(422, { title: 'Something here needs another look.' });
    await settled();
    expect(keeper.problem()!.title).toBe('Something here needs another look.');
    expect(keeper.saving()).toBe('kept here');
  });

  it('waits where what answers is not what it is for, and says why', async () => {
    await opened();
    keeper.change(() => at('a'));
    refuse(404, { title: 'There is no such run.' });
    await settled();
    expect(keeper.problem()).toBeUndefined();
    expect(keeper.saving()).toBe('kept here');
    expect(keeper.stuck()).toBe('There is no such run.');
  });

  it('shows what is only here, whatever the server answers', async () => {
    leave({ run: visit({ progress: at('b') }), base: 1 });
    const opening = keeper.open('r1');
    await settled();
    read().flush('gone', { status: 503, statusText: 'Service Unavailable' });
    await opening;
    expect(keeper.progress()!.at).toBe('b');
    expect(localStorage.getItem('needlecase.run.r1')).toBeNull();
  });

  it('never says that a full device keeps it, and sends it from the page', async () => {
    await opened();
    await settled();
    vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    keeper.change(() => at('a'));
    patch().error(new ProgressEvent('error'));
    await settled();
    expect(keeper.saving()).toBe('only here');
    expect(TestBed.inject(VisitSender).unkept()).toBe(1);
    expect(TestBed.inject(VisitSender).waiting()).toHaveLength(1);
    window.dispatchEvent(new Event('online'));
    await settled();
    patch().flush(visit({ version: 2, progress: at('a') }));
    await settled();
    expect(keeper.saving()).toBe('saved');
    expect(TestBed.inject(VisitSender).unkept()).toBe(0);
    vi.restoreAllMocks();
  });
});
