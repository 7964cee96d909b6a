import 'fake-indexeddb/auto';
import { HttpClient, provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { IDBFactory } from 'fake-indexeddb';
import { ChangesService, type Change } from './changes.service';
import { clockAhead, forgetClock } from './clock';
import { openDevice } from './device';
import { hearsRevision } from './revision';

class Stream {
  static readonly open: Stream[] = [];
  onopen?: () => void;
  onerror?: () => void;
  onmessage?: (event: { data: string }) => void;
  clock?: (event: { data: string }) => void;
  release?: (event: { data: string }) => void;
  revision?: (event: { data: string }) => void;
  stopped?: (event: { data: string }) => void;
  closed = false;
  constructor(readonly address: string) {
    Stream.open.push(this);
  }
  addEventListener(
    name: 'clock' | 'release' | 'revision' | 'stopped',
    heard: (event: { data: string }) => void,
  ): void {
    this[name] = heard;
  }
  close(): void {
    this.closed = true;
  }
  tell(change: Change): void {
    this.onmessage?.({ data: JSON.stringify(change) });
  }
}

/** Tabs that hear each other at once. */
class Channel {
  static all = new Set<Channel>();
  onmessage?: (event: { data: unknown }) => void;
  constructor() {
    Channel.all.add(this);
  }
  postMessage(data: unknown): void {
    for (const other of Channel.all) if (other !== this) other.onmessage?.({ data });
  }
  close(): void {
    Channel.all.delete(this);
  }
}

/** Locks as browsers have them: one holder, the others in a queue. */
function locks() {
  let queue: Promise<unknown> = Promise.resolve();
  return {
    request: (_name: string, { signal }: { signal: AbortSignal }, work: () => Promise<void>) => {
      const turn = queue.then(() => {
        if (signal.aborted) throw new Error('aborted');
        return work();
      });
      queue = turn.catch(() => undefined);
      return turn;
    },
  };
}

const one = async (count = 1) =>
  vi.waitFor(() => {
    const open = Stream.open.filter(({ closed }) => !closed);
    expect(open).toHaveLength(count);
    return open[0]!;
  });

describe.each(['locks', 'a lease'])('changes, shared by tabs with %s', (how) => {
  let tabs: ChangesService[];
  let told: string[][];
  let leave: (() => void)[];

  beforeEach(() => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'setInterval', 'clearInterval', 'Date'] });
    globalThis.indexedDB = new IDBFactory();
    forgetClock();
    Stream.open.length = 0;
    Channel.all.clear();
    vi.stubGlobal('EventSource', Stream);
    vi.stubGlobal('BroadcastChannel', Channel);
    vi.stubGlobal('navigator', how === 'locks' ? { locks: locks() } : {});
    tabs = [0, 1, 2].map(() => TestBed.runInInjectionContext(() => new ChangesService()));
    told = tabs.map(() => []);
  });
  afterEach(() => {
    for (const one of leave) one();
    forgetClock();
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });
  const listen = () => {
    leave = tabs.map((tab, i) => {
      const listening = tab.all$.subscribe(({ topic }) => told[i]!.push(topic));
      return () => listening.unsubscribe();
    });
  };

  it('come by one stream, past the service worker, to all of them', async () => {
    listen();
    const stream = await one();
    expect(stream.address).toBe('/api/v1/changes?ngsw-bypass');
    stream.tell({ topic: 'entries', id: '1' });
    expect(told).toEqual([['entries'], ['entries'], ['entries']]);
  });

  it('go on from another tab when the one that holds the stream is shut, and all is read anew', async () => {
    listen();
    const first = await one();
    await vi.advanceTimersByTimeAsync(4000);
    leave[0]!();
    await vi.advanceTimersByTimeAsync(6000);
    expect(first.closed).toBe(true);
    const second = await one();
    expect(second).not.toBe(first);
    second.tell({ topic: 'runs' });
    expect(told[1]).toEqual(['gap', 'runs']);
    expect(told[2]).toEqual(['gap', 'runs']);
  });

  it('are heard at once by a page that is loaded anew, whatever the one before left behind', async () => {
    tabs = [tabs[0]!];
    listen();
    const first = await one();
    const device = await openDevice();
    const lease = await device.get('leases', 'needlecase-changes');
    window.dispatchEvent(new Event('pagehide'));
    // What was asked of the store at its end was not done any more, nor was anything else.
    await vi.advanceTimersByTimeAsync(50);
    if (lease) await device.put('leases', lease, 'needlecase-changes');
    first.closed = true;
    if (how === 'locks') leave[0]!();
    tabs = [TestBed.runInInjectionContext(() => new ChangesService())];
    listen();
    await vi.advanceTimersByTimeAsync(50);
    expect(await one()).not.toBe(first);
    // Another tab waits for its turn all the same.
    const [, ...others] = (tabs = [
      tabs[0]!,
      TestBed.runInInjectionContext(() => new ChangesService()),
    ]);
    const listening = others[0]!.all$.subscribe();
    await vi.advanceTimersByTimeAsync(6000);
    await one();
    listening.unsubscribe();
  });

  it('say while the server does not tell, and have everything read anew after', async () => {
    listen();
    const stream = await one();
    stream.onopen!();
    expect(told.flat()).toEqual([]);
    stream.onerror!();
    expect(tabs.map((tab) => tab.connected())).toEqual([false, false, false]);
    stream.onopen!();
    expect(tabs.map((tab) => tab.connected())).toEqual([true, true, true]);
    expect(told).toEqual([['gap'], ['gap'], ['gap']]);
  });

  it('tell of a newer program, and of none to a page that is of the same', async () => {
    document.head.innerHTML = '<script src="main-HERE0001.js" type="text/plain"></script>';
    listen();
    const stream = await one();
    stream.release!({ data: 'main-HERE0001.js' });
    expect(tabs.map((tab) => tab.newer())).toEqual([false, false, false]);
    stream.release!({ data: 'main-NEWER001.js' });
    expect(tabs.map((tab) => tab.newer())).toEqual([true, true, true]);
    document.head.innerHTML = '';
  });

  it('have everything read anew once, where something changed before the stream stood', async () => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [provideHttpClient(withInterceptors([hearsRevision])), provideHttpClientTesting()],
    });
    const answers = TestBed.inject(HttpTestingController);
    TestBed.inject(HttpClient).get('/api/v1/bench').subscribe();
    answers.expectOne('/api/v1/bench').flush({}, { headers: { 'Needlecase-Revision': 'a.1' } });
    listen();
    const stream = await one();
    stream.revision!({ data: 'a.1' });
    expect(told.flat()).toEqual([]);
    stream.revision!({ data: 'a.2' });
    expect(told.flat()).toEqual(['gap']);
    stream.revision!({ data: 'a.3' });
    expect(told.flat()).toEqual(['gap']);
  });

  it('say in every tab that nothing is stored, also in one that comes later, until it goes on', async () => {
    listen();
    const stream = await one();
    const stop = { title: 'The log was taken away.', detail: 'Restart the server.' };
    stream.stopped!({ data: JSON.stringify(stop) });
    expect(tabs.map((tab) => tab.stopped())).toEqual([stop, stop, stop]);
    const later = TestBed.runInInjectionContext(() => new ChangesService());
    const listening = later.all$.subscribe();
    expect(later.stopped()).toEqual(stop);
    listening.unsubscribe();
    stream.stopped!({ data: '{}' });
    expect(tabs.map((tab) => tab.stopped())).toEqual([undefined, undefined, undefined]);
    // A server that was started again says what there is to say after its stream stands.
    stream.stopped!({ data: JSON.stringify(stop) });
    stream.onerror!();
    stream.onopen!();
    expect(tabs.map((tab) => tab.stopped())).toEqual([undefined, undefined, undefined]);
  });

  it('tell the clock of the server', async () => {
    listen();
    const stream = await one();
    stream.clock!({ data: String(Date.now() + 60_000) });
    expect(clockAhead()).toBe(60_000);
  });
});

describe('changes without a channel', () => {
  beforeEach(() => {
    Stream.open.length = 0;
    vi.stubGlobal('EventSource', Stream);
    vi.stubGlobal('BroadcastChannel', undefined);
  });
  afterEach(() => vi.unstubAllGlobals());
  const see = (hidden: boolean) => {
    Object.defineProperty(document, 'hidden', { value: hidden, configurable: true });
    document.dispatchEvent(new Event('visibilitychange'));
  };

  it('come by a stream of its own while the page is seen', async () => {
    const changes = TestBed.runInInjectionContext(() => new ChangesService());
    const told: string[] = [];
    const listening = changes.of('runs').subscribe(({ topic }) => told.push(topic));
    const first = await one();
    see(true);
    expect(first.closed).toBe(true);
    see(false);
    const second = await one();
    second.tell({ topic: 'runs' });
    second.tell({ topic: 'supplies' });
    expect(told).toEqual(['gap', 'runs']);
    listening.unsubscribe();
    expect(second.closed).toBe(true);
  });

  it('are quiet in a browser without streams', () => {
    vi.stubGlobal('EventSource', undefined);
    const changes = TestBed.runInInjectionContext(() => new ChangesService());
    expect(() => changes.all$.subscribe()).not.toThrow();
  });
});
