import 'fake-indexeddb/auto';
import { TestBed } from '@angular/core/testing';
import type { CaseNews, Entry } from '@needlecase/core';
import { IDBFactory } from 'fake-indexeddb';
import { openDB } from 'idb';
import type { Observable } from 'rxjs';
import { of, Subject, throwError } from 'rxjs';
import { ApiProblem, ApiService } from './api.service';
import { writeLocal } from './local';
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
const FIELD = { field: 'at', message: 'This is in the future. Give a time up to now.' };
const refused = (status = 422) =>
  new ApiProblem(status, 'Something here needs another look.', 'Nothing was stored.', [FIELD]);

interface Sending {
  method: string;
  path: string;
  key: string | undefined;
  house: string | undefined;
  body: unknown;
}

/** The server's answer to a letter that it takes. */
function taken({ path, body }: Pick<Sending, 'path' | 'body'>): object {
  const [, undone] = /^entries\/(.+)\/undo$/.exec(path) ?? [];
  if (undone) return { id: 'new', kind: 'undone', revises: undone };
  if (path.startsWith('photos/')) return { id: path.slice(7) };
  return { id: (body as { id: string }).id };
}

describe('OutboxService', () => {
  let sent: Sending[];
  let answer: (sending: Sending) => Observable<unknown>;

  beforeEach(() => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval'] });
    globalThis.indexedDB = new IDBFactory();
    localStorage.clear();
    sent = [];
    answer = (sending) => of(taken(sending));
  });
  afterEach(() => {
    TestBed.resetTestingModule();
    vi.useRealTimers();
  });

  /** The outbox of a tab that was just opened. */
  function make(): OutboxService {
    const send = (
      method: string,
      path: string,
      body: unknown,
      { key, house }: { key?: string; house?: string } = {},
    ) => {
      const sending = { method, path, key, house, body };
      sent.push(sending);
      return answer(sending);
    };
    TestBed.resetTestingModule();
    const get = () => of({ at: new Date().toISOString() });
    TestBed.configureTestingModule({
      providers: [{ provide: ApiService, useValue: { send, get } }],
    });
    return TestBed.inject(OutboxService);
  }
  /** That of another tab beside it. */
  const beside = () => TestBed.runInInjectionContext(() => new OutboxService());
  const settled = async (outbox: OutboxService, waiting: number, aside = 0) => {
    await vi.waitFor(() => {
      expect([outbox.waiting(), outbox.aside()]).toEqual([waiting, aside]);
    });
  };
  const keys = () => sent.map(({ key }) => key);

  it('sends what is kept once and in order, each under its own key, for its household', async () => {
    writeLocal('house', 'kiln-lane');
    const outbox = make();
    for (const id of ['a', 'b', 'c']) await outbox.add(tap(id));
    await settled(outbox, 0);
    expect(keys()).toEqual(['a', 'b', 'c']);
    expect(sent.map(({ house }) => house)).toEqual(['kiln-lane', 'kiln-lane', 'kiln-lane']);
    expect(await outbox.letters()).toEqual([]);
  });

  it('keeps what cannot be sent, tries again, and tells what arrived', async () => {
    answer = () => throwError(away);
    const outbox = make();
    const arrived: string[] = [];
    outbox.sent$.subscribe(({ id }) => arrived.push(id));
    await outbox.add(tap('a'));
    await outbox.add(tap('b'));
    await settled(outbox, 2);
    await vi.waitFor(() => expect(new Set(keys())).toEqual(new Set(['a'])));
    expect(outbox.stuck()).toBeUndefined();
    answer = (sending) => of(taken(sending));
    await vi.advanceTimersByTimeAsync(5000);
    await settled(outbox, 0);
    expect(arrived).toEqual(['a', 'b']);
  });

  it.each([400, 401, 403, 404, 405, 408, 412, 413, 415, 421, 425, 429, 500, 502, 503, 507])(
    'waits where the server, or what stands before it, answers %i, and says so',
    async (status) => {
      answer = () => throwError(() => new ApiProblem(status, 'Not now.', 'Later.'));
      const outbox = make();
      await outbox.add(tap('a'));
      await outbox.add({ news });
      await vi.waitFor(() => expect(outbox.stuck()).toBe('Not now. Later.'));
      await settled(outbox, 2);
      answer = (sending) => of(taken(sending));
      await outbox.send();
      await settled(outbox, 0);
      expect(outbox.stuck()).toBeUndefined();
    },
  );

  it.each([[{}], [null], ['<!doctype html>'], [{ id: 'another' }], [{ token: 'x' }], [[]]])(
    'takes nothing but an answer to that very letter for one: %j',
    async (other) => {
      answer = () => of(other);
      const outbox = make();
      for (const what of [tap('a'), { undo: 'x' }, { photo: 'p', picture: new Blob() }, { news }]) {
        await outbox.add(what);
      }
      await vi.waitFor(() => expect(outbox.stuck()).toContain('Something else answered'));
      await settled(outbox, 4);
    },
  );

  it.each([409, 422])(
    'keeps what is refused with %i aside, with the reason, and goes on',
    async (status) => {
      answer = (sending) =>
        sending.key === 'a' || sending.path === 'cases'
          ? throwError(() => refused(status))
          : of(taken(sending));
      const outbox = make();
      const told: string[] = [];
      outbox.refused$.subscribe(({ entry }) => told.push(entry.id));
      outbox.refusedNews$.subscribe((one) => told.push(one.news.id));
      await outbox.add(tap('a'));
      await outbox.add({ news });
      await outbox.add(tap('b'));
      await settled(outbox, 0, 2);
      expect(told).toEqual(['a', 'case']);
      expect(keys()).toEqual(['a', 'case-event', 'b']);
      const [first, second] = await outbox.letters();
      expect(first!.aside).toEqual({
        title: 'Something here needs another look.',
        message: FIELD.message,
        field: 'at',
      });
      answer = (sending) => of(taken(sending));
      await outbox.correct(first!.key, { ...tap('a'), at: '2026-05-31T10:00:00Z' });
      await vi.waitFor(() =>
        expect(sent.at(-1)!.body).toMatchObject({ at: '2026-05-31T10:00:00Z' }),
      );
      await settled(outbox, 0, 1);
      await outbox.letGo(second!.key);
      await settled(outbox, 0);
    },
  );

  it('keeps aside across a reload', async () => {
    answer = () => throwError(() => refused());
    const before = make();
    await before.add(tap('a'));
    await settled(before, 0, 1);
    sent = [];
    const after = make();
    await settled(after, 0, 1);
    expect(sent).toEqual([]);
  });

  it('takes a refusal that says it is there already for an arrival', async () => {
    answer = ({ path }) =>
      throwError(
        () =>
          new ApiProblem(409, 'There is an entry with this id.', '', [], {
            ...(path === 'entries' ? { id: 'a' } : { kind: 'undone' }),
          }),
      );
    const outbox = make();
    const arrived: string[] = [];
    outbox.sent$.subscribe(({ id }) => arrived.push(id));
    await outbox.add(tap('a'));
    await outbox.add({ undo: 'b' });
    await settled(outbox, 0);
    expect(arrived).toEqual(['a']);
  });

  it('takes back what never left', async () => {
    answer = () => throwError(away);
    const outbox = make();
    await outbox.add(tap('a'));
    await outbox.add(tap('b'));
    await settled(outbox, 2);
    // The first was tried; the second has to wait for it.
    expect(await outbox.undo('b')).toBe(true);
    expect(await outbox.list()).toEqual([tap('a')]);
  });

  it('undoes in its turn what was tried even once: its answer may have been lost', async () => {
    answer = () => throwError(away);
    const outbox = make();
    await outbox.add(tap('a'));
    await vi.waitFor(() => expect(keys()).toEqual(['a']));
    expect(await outbox.undo('a')).toBe(false);
    expect(await outbox.list()).toEqual([tap('a'), { undo: 'a' }]);
    answer = (sending) => of(taken(sending));
    await outbox.send();
    await settled(outbox, 0);
    expect(keys().slice(-2)).toEqual(['a', 'undo-a']);
  });

  it('undoes while it is just being sent, however slowly', async () => {
    const under = new Subject<unknown>();
    answer = (sending) => (sending.path === 'entries' ? under : of(taken(sending)));
    const outbox = make();
    await outbox.add(tap('a'));
    await vi.waitFor(() => expect(keys()).toEqual(['a']));
    expect(await outbox.undo('a')).toBe(false);
    under.next({ id: 'a' });
    under.complete();
    await settled(outbox, 0);
    expect(keys()).toEqual(['a', 'undo-a']);
  });

  it('lets go what was refused when it is undone, and undoes what has long arrived', async () => {
    answer = (sending) =>
      sending.path === 'entries' ? throwError(() => refused()) : of(taken(sending));
    const outbox = make();
    await outbox.add(tap('a'));
    await settled(outbox, 0, 1);
    expect(await outbox.undo('a')).toBe(true);
    await settled(outbox, 0);
    expect(await outbox.undo('long-ago')).toBe(false);
    await settled(outbox, 0);
    expect(keys()).toEqual(['a', 'undo-long-ago']);
  });

  it('is sent by one tab at a time, and the others learn of it', async () => {
    const under = new Subject<unknown>();
    answer = () => under;
    const [one, other] = [make(), beside()];
    const arrived: Entry[] = [];
    other.sent$.subscribe((entry) => arrived.push(entry));
    await one.add(tap('a'));
    await vi.waitFor(() => expect(keys()).toEqual(['a']));
    await other.send();
    await vi.advanceTimersByTimeAsync(4000);
    expect(keys()).toEqual(['a']);
    under.next({ id: 'a' });
    under.complete();
    await settled(one, 0);
    await vi.advanceTimersByTimeAsync(5000);
    await settled(other, 0);
    expect(keys()).toEqual(['a']);
  });

  it('takes over what an older program left', async () => {
    const old = await openDB('needlecase', 1, {
      upgrade: (database) => {
        database.createObjectStore('outbox', { autoIncrement: true });
      },
    });
    await old.add('outbox', tap('a'));
    await old.add('outbox', { undo: 'x' });
    old.close();
    const outbox = make();
    await vi.waitFor(() => expect(keys()).toEqual(['a', 'undo-x']));
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

  describe('on a device that takes nothing', () => {
    const full = () => {
      const refuse = () => {
        throw new DOMException('full', 'QuotaExceededError');
      };
      vi.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(refuse);
      vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(refuse);
    };
    afterEach(() => void vi.restoreAllMocks());

    it('sends straight from the page, once and in order', async () => {
      full();
      const outbox = make();
      for (const id of ['a', 'b', 'c']) expect(await outbox.add(tap(id))).toBe(false);
      await settled(outbox, 0);
      expect(keys()).toEqual(['a', 'b', 'c']);
      expect(outbox.unkept()).toBe(0);
    });

    it('never says that it is kept, and keeps it as soon as there is room', async () => {
      full();
      answer = () => throwError(away);
      const outbox = make();
      await outbox.add(tap('a'));
      await outbox.add(tap('b'));
      await settled(outbox, 2);
      expect(outbox.unkept()).toBe(2);
      vi.restoreAllMocks();
      expect(await outbox.add(tap('c'))).toBe(true);
      await vi.waitFor(() => expect(outbox.unkept()).toBe(0));
      answer = (sending) => of(taken(sending));
      make();
      // The tab before may still have its turn.
      await vi.waitFor(() => expect(keys().slice(-3)).toEqual(['a', 'b', 'c']), {
        interval: 500,
        timeout: 10_000,
      });
    });

    it('takes back what never left, and undoes what may have', async () => {
      full();
      const slow = new Subject<unknown>();
      answer = (sending) => (sending.key === 'a' ? slow : of(taken(sending)));
      const outbox = make();
      await outbox.add(tap('a'));
      await outbox.add(tap('b'));
      await vi.waitFor(() => expect(keys()).toEqual(['a']));
      expect(await outbox.undo('b')).toBe(true);
      expect(await outbox.undo('a')).toBe(false);
      slow.next({ id: 'a' });
      slow.complete();
      await settled(outbox, 0);
      expect(keys()).toEqual(['a', 'undo-a']);
    });

    it('sends what was kept while there was room, and says what was refused', async () => {
      answer = () => throwError(away);
      const outbox = make();
      await outbox.add(tap('a'));
      await settled(outbox, 1);
      full();
      answer = () => throwError(() => refused());
      await vi.advanceTimersByTimeAsync(5000);
      await settled(outbox, 0, 1);
      expect(outbox.unkept()).toBe(0);
      const [letter] = await outbox.letters();
      await outbox.letGo(letter!.key);
      expect(await outbox.letters()).toEqual([]);
    });

    it('tries again where what is kept cannot be read just now', async () => {
      const reading = vi.spyOn(IDBObjectStore.prototype, 'getAllKeys').mockImplementation(() => {
        throw new DOMException('not now', 'UnknownError');
      });
      const outbox = make();
      expect(await outbox.add(tap('a'))).toBe(true);
      await vi.waitFor(() => expect(reading.mock.calls.length).toBeGreaterThan(1));
      expect(keys()).toEqual([]);
      vi.restoreAllMocks();
      await vi.waitFor(() => expect(keys()).toEqual(['a']), { interval: 500, timeout: 10_000 });
      await settled(outbox, 0);
    });

    it('goes on in a browser that keeps nothing at all', async () => {
      vi.spyOn(IDBFactory.prototype, 'open').mockImplementation(() => {
        throw new DOMException('no', 'SecurityError');
      });
      const outbox = make();
      expect(await outbox.add(tap('a'))).toBe(false);
      await settled(outbox, 0);
      expect(keys()).toEqual(['a']);
    });
  });
});
