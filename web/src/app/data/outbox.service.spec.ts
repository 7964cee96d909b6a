import 'fake-indexeddb/auto';
import { TestBed } from '@angular/core/testing';
import type { CaseNews } from '@needlecase/core';
import { IDBFactory } from 'fake-indexeddb';
import type { Observable } from 'rxjs';
import { of, Subject, throwError } from 'rxjs';
import { ApiProblem, ApiService } from './api.service';
import { OutboxService, type Outgoing } from './outbox.service';

const tap = (id: string): Outgoing => ({
  id,
  kind: 'load',
  machineId: 'm1',
  at: '2026-06-01T10:00:00Z',
  count: 1,
});
const news: CaseNews = {
  id: 'case',
  machineId: 'm1',
  events: [{ id: 'event', at: '2026-06-01T10:00:00Z', kind: 'no-stop' }],
};
const away = () => new ApiProblem(0, 'The server cannot be reached.', '');
const refused = () => new ApiProblem(422, 'Something here needs another look.', '');

describe('OutboxService', () => {
  let sent: { method: string; path: string; key: string | undefined; body: unknown }[];
  let answer: (path: string) => Observable<unknown>;

  beforeEach(() => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    globalThis.indexedDB = new IDBFactory();
    sent = [];
    answer = () => of({});
  });
  afterEach(() => vi.useRealTimers());

  function make(): OutboxService {
    TestBed.resetTestingModule();
    const send = (method: string, path: string, body: unknown, { key }: { key?: string } = {}) => {
      sent.push({ method, path, key, body });
      return answer(path);
    };
    TestBed.configureTestingModule({ providers: [{ provide: ApiService, useValue: { send } }] });
    return TestBed.inject(OutboxService);
  }
  const settled = async (outbox: OutboxService, waiting: number) => {
    await vi.waitFor(() => expect(outbox.waiting()).toBe(waiting));
  };
  const paths = () => sent.map(({ path }) => path);

  it('sends what is kept once and in order, each under its own key', async () => {
    const outbox = make();
    for (const id of ['a', 'b', 'c']) await outbox.add(tap(id));
    await settled(outbox, 0);
    expect(sent.map(({ key }) => key)).toEqual(['a', 'b', 'c']);
    expect(await outbox.list()).toEqual([]);
  });

  it('keeps what cannot be sent, tries again, and tells what arrived', async () => {
    answer = () => throwError(away);
    const outbox = make();
    const arrived: string[] = [];
    outbox.sent$.subscribe(({ id }) => arrived.push(id));
    await outbox.add(tap('a'));
    await outbox.add(tap('b'));
    await settled(outbox, 2);
    expect(new Set(sent.map(({ key }) => key))).toEqual(new Set(['a']));
    answer = (path) => of({ id: path });
    await vi.advanceTimersByTimeAsync(5000);
    await settled(outbox, 0);
    expect(sent.at(-1)!.key).toBe('b');
    expect(arrived).toHaveLength(2);
  });

  it('keeps it while the server itself is in trouble', async () => {
    answer = () => throwError(() => new ApiProblem(503, 'Not now.', ''));
    const outbox = make();
    await outbox.add(tap('a'));
    await settled(outbox, 1);
  });

  it('goes on after a reload with what waited', async () => {
    answer = () => throwError(away);
    const before = make();
    await before.add(tap('a'));
    await settled(before, 1);
    answer = () => of({});
    sent = [];
    const after = make();
    await vi.waitFor(() => expect(sent.map(({ key }) => key)).toEqual(['a']));
    await settled(after, 0);
  });

  it('tells what was refused, of entries and of cases, and goes on with the rest', async () => {
    answer = (path) => (path === 'entries' || path === 'cases' ? throwError(refused) : of({}));
    const outbox = make();
    const told: string[] = [];
    outbox.refused$.subscribe(({ entry }) => told.push(entry.id));
    outbox.refusedNews$.subscribe((one) => told.push(one.news.id));
    await outbox.add(tap('a'));
    await outbox.add({ news });
    await outbox.add({ undo: 'x' });
    await settled(outbox, 0);
    expect(told).toEqual(['a', 'case']);
    expect(sent.at(-1)).toMatchObject({ path: 'entries/x/undo', key: 'undo-x' });
    expect(sent.find(({ path }) => path === 'cases')!.key).toBe('case-event');
  });

  it('takes back what has not left, and undoes what has, in its turn', async () => {
    answer = () => throwError(away);
    const outbox = make();
    await outbox.add(tap('a'));
    await vi.waitFor(async () => expect(await outbox.takeBack('a')).toBe(true));
    expect(await outbox.list()).toEqual([]);
    await outbox.undo('gone');
    expect(await outbox.list()).toEqual([{ undo: 'gone' }]);
  });

  it('does not take back what is just being sent', async () => {
    const under = new Subject<unknown>();
    answer = () => under;
    const outbox = make();
    await outbox.add(tap('a'));
    await vi.waitFor(() => expect(paths()).toEqual(['entries']));
    expect(await outbox.takeBack('a')).toBe(false);
    under.next({});
    under.complete();
    await settled(outbox, 0);
  });

  it('shows a photo from the device until it is sent', async () => {
    answer = () => throwError(away);
    const outbox = make();
    const picture = new Blob(['jpeg'], { type: 'image/jpeg' });
    await outbox.add({ photo: 'p', picture });
    await settled(outbox, 1);
    expect(await outbox.photo('p')).toBeDefined();
    expect(await outbox.photo('q')).toBeUndefined();
    expect(sent[0]).toMatchObject({ method: 'PUT', path: 'photos/p' });
  });
});
