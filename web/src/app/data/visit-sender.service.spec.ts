import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { emptyProgress, type Visit } from '@needlecase/core';
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
const left: Kept = { run: visit, base: 1, unsent: true, edits: 1 };

describe('a visit that another tab left unsent', () => {
  /** Whether the other tab still has it open. */
  let open: boolean;

  beforeEach(() => {
    vi.useFakeTimers();
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
    await vi.advanceTimersByTimeAsync(10_000);
    expect(patches()).toEqual([]);
    expect(sender.waiting()).toHaveLength(1);

    open = false;
    await vi.advanceTimersByTimeAsync(3_100);
    const [sent] = patches();
    sent!.flush({ ...visit, version: 2 });
    await vi.advanceTimersByTimeAsync(0);
    expect(sender.waiting()).toEqual([]);
  });

  it('is no longer told as waiting once that tab has sent it', async () => {
    const sender = TestBed.inject(VisitSender);
    expect(sender.waiting()).toHaveLength(1);
    localStorage.removeItem('needlecase.run.r1');
    await vi.advanceTimersByTimeAsync(3_100);
    expect(sender.waiting()).toEqual([]);
    expect(patches()).toEqual([]);
  });
});
