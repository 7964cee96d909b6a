import 'fake-indexeddb/auto';
import { provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { emptyProgress, type Visit } from '@needlecase/core';
import { IDBFactory } from 'fake-indexeddb';
import { forgetClock, hearsClock } from './clock';
import { openDevice } from './device';
import { VisitSender, type Kept } from './visit-sender.service';

const visit: Visit = {
  id: 'r1',
  version: 1,
  state: 'active',
  tasks: [{ machineId: 'm1', task: 'dispenser' }],
  progress: emptyProgress(),
  startedAt: '2026-06-15T08:00:00.000Z',
  changedAt: '2026-06-15T08:00:00.000Z',
};
/** All but what the shelves go by. */
const FAKED = { toFake: ['setTimeout', 'clearTimeout', 'Date'] } satisfies Parameters<
  typeof vi.useFakeTimers
>[0];
const left: Kept = { run: visit, base: 1, unsent: true, edits: 1 };

const really = globalThis.setTimeout;

/** Time goes by, and the shelves have done what they were asked. */
async function passed(ms = 0): Promise<void> {
  await vi.advanceTimersByTimeAsync(ms);
  await new Promise((done) => really(done, 20));
}

describe('a visit that another tab left unsent', () => {
  /** Whether the other tab still has it open. */
  let open: boolean;

  beforeEach(() => {
    vi.useFakeTimers(FAKED);
    globalThis.indexedDB = new IDBFactory();
    localStorage.clear();
    localStorage.setItem('needlecase.run.r1', JSON.stringify(left));
    open = true;
    const request = (_name: string, _how: object, then: (lock: unknown) => Promise<unknown>) =>
      Promise.resolve(then(open ? null : {}));
    vi.stubGlobal('navigator', { locks: { request } });
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting()],
    });
  });
  afterEach(() => {
    TestBed.resetTestingModule();
    vi.useRealTimers();
    vi.unstubAllGlobals();
    localStorage.clear();
  });

  const patches = () =>
    TestBed.inject(HttpTestingController).match(({ method }) => method === 'PATCH');

  it('is left to that tab while it is open, and sent once it is shut', async () => {
    const sender = TestBed.inject(VisitSender);
    for (let i = 0; i < 4; i++) await passed(3_100);
    expect(patches()).toEqual([]);
    expect(sender.waiting()).toHaveLength(1);

    open = false;
    await passed(3_100);
    const [sent] = patches();
    sent!.flush({ ...visit, version: 2 });
    await passed();
    expect(sender.waiting()).toEqual([]);
    expect(await (await openDevice()).get('visits', 'r1')).toMatchObject({ unsent: false });
  });

  it('is no longer told as waiting once that tab has sent it', async () => {
    const sender = TestBed.inject(VisitSender);
    await passed();
    expect(sender.waiting()).toHaveLength(1);
    await (await openDevice()).delete('visits', 'r1');
    await passed(3_100);
    expect(sender.waiting()).toEqual([]);
    expect(patches()).toEqual([]);
  });
});

describe('a visit whose answer was lost on the way', () => {
  beforeEach(() => {
    vi.useFakeTimers(FAKED);
    globalThis.indexedDB = new IDBFactory();
    localStorage.clear();
    localStorage.setItem('needlecase.house', JSON.stringify('kiln-lane'));
    forgetClock();
    vi.stubGlobal('navigator', {});
    TestBed.configureTestingModule({
      providers: [provideHttpClient(withInterceptors([hearsClock])), provideHttpClientTesting()],
    });
  });
  afterEach(() => {
    TestBed.resetTestingModule();
    forgetClock();
    vi.useRealTimers();
    vi.unstubAllGlobals();
    localStorage.clear();
  });

  const next = async () => {
    await passed();
    await passed(3_100);
    const [request] = TestBed.inject(HttpTestingController).match(() => true);
    return request!;
  };
  const ticked = (...keys: string[]) => ({
    ...emptyProgress(),
    ticked: Object.fromEntries(keys.map((key) => [key, '2026-06-15T08:01:00.000Z'])),
  });
  const problem = (status: number) => ({
    status,
    statusText: 'No',
    headers: {
      'Content-Type': 'application/problem+json',
      'Needlecase-Household': 'kiln-lane',
      Date: new Date().toUTCString(),
    },
  });

  it('goes on over its own earlier state, and asks nobody', async () => {
    const sender = TestBed.inject(VisitSender);
    const conflicts: unknown[] = [];
    sender.sent$.subscribe(({ what }) => what === 'conflict' && conflicts.push(what));
    const tell = (edits: number, ...keys: string[]) => {
      const run = { ...visit, progress: ticked(...keys) };
      sender.keep({ ...(sender.read('r1') ?? left), run, base: 1, unsent: true, edits });
      void sender.send('r1');
    };
    tell(1, 'a');
    const first = await next();
    expect(first.request.headers.get('Needlecase-Household')).toBe('kiln-lane');
    first.error(new ProgressEvent('gone'));
    tell(2, 'a', 'b');
    (await next()).error(new ProgressEvent('gone'));
    tell(3, 'a', 'b', 'c');
    // The server has the first; both answers were lost.
    const current = { ...visit, version: 2, progress: ticked('a') };
    (await next()).flush({ title: 'Stale', current }, problem(409));
    const again = await next();
    expect(again.request.headers.get('If-Match')).toBe('"2"');
    expect(again.request.body.progress.ticked).toHaveProperty('c');
    again.flush({ ...visit, version: 3, progress: ticked('a', 'b', 'c') });
    await passed();
    expect(sender.waiting()).toEqual([]);
    expect(conflicts).toEqual([]);
  });

  it('goes on over its own earlier state also when the next try is lost on its way', async () => {
    const sender = TestBed.inject(VisitSender);
    const conflicts: unknown[] = [];
    sender.sent$.subscribe(({ what }) => what === 'conflict' && conflicts.push(what));
    const tell = (edits: number, ...keys: string[]) => {
      const run = { ...visit, progress: ticked(...keys) };
      sender.keep({ ...(sender.read('r1') ?? left), run, base: 1, unsent: true, edits });
      void sender.send('r1');
    };
    tell(1, 'a');
    (await next()).error(new ProgressEvent('gone'));
    tell(2, 'a', 'b');
    // The first is there; the second, sent over it, never arrives.
    const current = { ...visit, version: 2, progress: ticked('a') };
    (await next()).flush({ title: 'Stale', current }, problem(409));
    (await next()).error(new ProgressEvent('gone'));
    tell(3, 'a', 'b', 'c');
    (await next()).flush({ title: 'Stale', current }, problem(409));
    const again = await next();
    expect(again.request.headers.get('If-Match')).toBe('"2"');
    again.flush({ ...visit, version: 3, progress: ticked('a', 'b', 'c') });
    await passed();
    expect(conflicts).toEqual([]);
    expect(sender.waiting()).toEqual([]);
  });

  it('asks where another screen went on', async () => {
    const sender = TestBed.inject(VisitSender);
    const said: string[] = [];
    sender.sent$.subscribe(({ what }) => said.push(what));
    sender.keep({ ...left, run: { ...visit, progress: ticked('a') } });
    void sender.send('r1');
    const current = { ...visit, version: 2, progress: ticked('z') };
    (await next()).flush({ title: 'Stale', current }, problem(409));
    await passed();
    expect(said).toEqual(['conflict']);
  });

  it.each([401, 403, 404, 408, 421, 429, 500, 503])(
    'waits where it is answered %i',
    async (status) => {
      const sender = TestBed.inject(VisitSender);
      sender.keep({ ...left, run: { ...visit, progress: ticked('a') } });
      void sender.send('r1');
      (await next()).flush({ title: 'Not now' }, problem(status));
      const again = await next();
      again.flush({ ...visit, version: 2, progress: ticked('a') });
      await passed();
      expect(sender.waiting()).toEqual([]);
    },
  );

  it('is sent with the right times once the clock was found fast', async () => {
    const sender = TestBed.inject(VisitSender);
    const real = Date.now();
    vi.setSystemTime(real + 18 * 60_000);
    const at = new Date().toISOString();
    const progress = { ...emptyProgress(), ticked: { a: at } };
    sender.keep({ ...left, run: { ...visit, progress } });
    void sender.send('r1');
    const refused = { ...problem(422) };
    refused.headers.Date = new Date(real).toUTCString();
    (await next()).flush({ title: 'Something here needs another look.' }, refused);
    const again = await next();
    const told = Date.parse(again.request.body.progress.ticked.a as string);
    expect(Math.abs(told - real)).toBeLessThan(10_000);
    again.flush({ ...visit, version: 2, progress: again.request.body.progress });
    await passed();
    expect(sender.waiting()).toEqual([]);
  });
});
