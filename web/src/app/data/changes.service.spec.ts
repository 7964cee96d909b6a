import { TestBed } from '@angular/core/testing';
import { ChangesService, type Change } from './changes.service';

class Stream {
  static readonly open: Stream[] = [];
  onopen?: () => void;
  onerror?: () => void;
  onmessage?: (event: { data: string }) => void;
  closed = false;
  constructor(readonly address: string) {
    Stream.open.push(this);
  }
  close(): void {
    this.closed = true;
  }
  tell(change: Change): void {
    this.onmessage?.({ data: JSON.stringify(change) });
  }
}

describe('ChangesService', () => {
  let changes: ChangesService;

  beforeEach(() => {
    Stream.open.length = 0;
    vi.stubGlobal('EventSource', Stream);
    changes = TestBed.inject(ChangesService);
  });
  afterEach(() => vi.unstubAllGlobals());

  it('has one stream for all who listen, past the service worker, and none for nobody', () => {
    expect(Stream.open).toHaveLength(0);
    const both = [changes.all$.subscribe(), changes.of('runs').subscribe()];
    expect(Stream.open.map(({ address }) => address)).toEqual(['/api/v1/changes?ngsw-bypass']);
    both[0]!.unsubscribe();
    expect(Stream.open[0]!.closed).toBe(false);
    both[1]!.unsubscribe();
    expect(Stream.open[0]!.closed).toBe(true);
  });

  it('tells each what it asked for', () => {
    const told: string[] = [];
    changes.of('entries', 'runs').subscribe(({ topic, id }) => told.push(`${topic} ${id}`));
    for (const topic of ['household', 'entries', 'supplies', 'runs'] as const) {
      Stream.open[0]!.tell({ topic, id: '1' });
    }
    expect(told).toEqual(['entries 1', 'runs 1']);
  });

  it('says while the server does not tell, and that nobody asks is no fault', () => {
    const listening = changes.all$.subscribe();
    Stream.open[0]!.onerror!();
    expect(changes.connected()).toBe(false);
    Stream.open[0]!.onopen!();
    expect(changes.connected()).toBe(true);
    Stream.open[0]!.onerror!();
    listening.unsubscribe();
    expect(changes.connected()).toBe(true);
  });

  it('is quiet in a browser without streams', () => {
    vi.stubGlobal('EventSource', undefined);
    expect(() => changes.all$.subscribe()).not.toThrow();
  });
});
