import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import type { CaseNews, Entry } from '@needlecase/core';
import { firstValueFrom, Subject, type Observable } from 'rxjs';
import { ApiService, ApiProblem } from './api.service';
import { isClockKnown, shifted, timed } from './clock';
import {
  leased,
  openDevice,
  type Aside,
  type Device,
  type Letter,
  type Outgoing,
  type Waiting,
} from './device';
import { hasLocks, lockedIfFree, newChannel, newId } from './platform';
import { houseHere } from './tongue';

export type { CaseLetter, Outgoing, Picture, Undoing, Waiting } from './device';

const RETRY_MS = 4000;
const NAME = 'needlecase-outbox';

/** A letter with its place in the outbox. */
export type Kept = Letter & { key: number };

/** What tabs tell each other: something arrived, or the outbox is another. */
type News = { sent?: Entry; refused?: { entry: Outgoing; problem: PlainProblem } };
type PlainProblem = Pick<ApiProblem, 'status' | 'title' | 'detail' | 'errors'>;

/**
 * Entries made here, kept on the device until the server has them, sent once and in order, by one tab at a
 * time.
 *
 * ```
 *   tap -> add(): device -> send(): server -> an answer for that very entry: taken off the device
 *                   |           refused (409, 422): kept aside with the reason, until it is corrected or let go
 *                   |           anything else: it waits, and says why
 * ```
 */
@Injectable({ providedIn: 'root' })
export class OutboxService {
  readonly #api = inject(ApiService);
  get #device(): Promise<Device> {
    return openDevice();
  }
  readonly #tabs = newChannel<News>(NAME);
  readonly #me = newId();
  #sending = false;
  #again = false;
  #gone = false;
  #retry: ReturnType<typeof setTimeout> | undefined;

  /** How many are not sent yet. */
  readonly waiting = signal(0);
  /** How many the server refused. */
  readonly aside = signal(0);
  /** Why what waits does not leave, where that is more than no connection. */
  readonly stuck = signal<string | undefined>(undefined);
  readonly sent$ = new Subject<Entry>();
  readonly refused$ = new Subject<{ entry: Outgoing; problem: ApiProblem }>();
  readonly refusedNews$ = new Subject<{ news: CaseNews; problem: ApiProblem }>();

  constructor() {
    const online = () => void this.send();
    if (typeof window !== 'undefined') window.addEventListener('online', online);
    inject(DestroyRef).onDestroy(() => {
      window.removeEventListener('online', online);
      clearTimeout(this.#retry);
      this.#gone = true;
      this.#tabs.close();
    });
    this.#tabs.heard = ({ sent, refused }) => {
      if (sent) this.sent$.next(sent);
      if (refused) this.refused$.next({ ...refused, problem: again(refused.problem) });
      void this.#count();
    };
    void this.send();
  }

  /** Keeps an entry and begins sending it. Resolves once it is safe on the device. */
  async add(what: Waiting): Promise<void> {
    const device = await this.#device;
    const house = houseHere();
    const untimed = 'news' in what && !isClockKnown();
    await device.add('outbox', {
      what,
      ...(house ? { house } : {}),
      ...(untimed ? { untimed } : {}),
    });
    await this.#changed();
    void this.send();
  }

  /** What waits, in order; what was refused is not among it. */
  async list(): Promise<Waiting[]> {
    return (await this.letters()).filter(({ aside }) => !aside).map(({ what }) => what);
  }

  /** Everything kept here, in order. */
  async letters(): Promise<Kept[]> {
    const device = await this.#device;
    const found: Kept[] = [];
    let cursor = await device.transaction('outbox').store.openCursor();
    while (cursor) {
      found.push({ ...cursor.value, key: cursor.primaryKey });
      cursor = await cursor.continue();
    }
    return found;
  }

  /** A photo that was not sent yet. */
  async photo(id: string): Promise<Blob | undefined> {
    const waiting = (await this.letters()).find(({ what }) => 'photo' in what && what.photo === id);
    return waiting && 'photo' in waiting.what ? waiting.what.picture : undefined;
  }

  /**
   * Takes an entry back: one that never left, or was refused, is gone; one that may have arrived is undone in
   * its turn.
   * @returns whether the server never had it
   */
  async undo(id: string): Promise<boolean> {
    const device = await this.#device;
    const { store, done } = device.transaction('outbox', 'readwrite');
    let cursor = await store.openCursor();
    while (cursor && !isEntry(cursor.value.what, id)) cursor = await cursor.continue();
    const never = cursor !== null && (!cursor.value.tried || cursor.value.aside !== undefined);
    const house = cursor?.value.house ?? houseHere();
    if (never) await cursor!.delete();
    else await store.add({ what: { undo: id }, ...(house ? { house } : {}) });
    await done;
    await this.#changed();
    if (!never) void this.send();
    return never;
  }

  /** Puts something corrected in the place of what was refused, and sends it. */
  async correct(key: number, what: Waiting): Promise<void> {
    const device = await this.#device;
    const { store, done } = device.transaction('outbox', 'readwrite');
    const letter = await store.get(key);
    if (letter) {
      const { aside: _aside, tried: _tried, ...kept } = letter;
      await store.put({ ...kept, what }, key);
    }
    await done;
    await this.#changed();
    void this.send();
  }

  /** Lets something go that was refused. */
  async letGo(key: number): Promise<void> {
    const device = await this.#device;
    await device.delete('outbox', key);
    await this.#changed();
  }

  async send(): Promise<void> {
    this.#again = true;
    if (this.#sending || this.#gone) return;
    this.#sending = true;
    clearTimeout(this.#retry);
    try {
      const device = await this.#device;
      const work = () => this.#sendAll(device);
      const here = hasLocks()
        ? await lockedIfFree(NAME, work)
        : await leased(device, NAME, this.#me, work);
      // Another tab is at it; it may be shut before it is done.
      if (!here) this.#later();
      this.stuck.set(undefined);
    } catch (problem) {
      const told = problem instanceof ApiProblem && !isAway(problem);
      this.stuck.set(told ? `${problem.title} ${problem.detail}`.trim() : undefined);
      this.#later();
    } finally {
      this.#sending = false;
      await this.#count().catch(() => undefined);
    }
  }

  #later(): void {
    clearTimeout(this.#retry);
    if (!this.#gone) this.#retry = setTimeout(() => void this.send(), RETRY_MS);
  }

  async #sendAll(device: Device): Promise<void> {
    while (this.#again && !this.#gone) {
      this.#again = false;
      for (let key = await nextKey(device); key !== undefined; key = await nextKey(device)) {
        await this.#sendOne(device, key);
      }
    }
  }

  /** @throws where it has to wait */
  async #sendOne(device: Device, key: number): Promise<void> {
    const letter = await marked(device, key);
    if (!letter) return;
    const { what } = letter;
    try {
      const answer = await firstValueFrom(this.#post(letter));
      if (!isAnswerTo(what, answer)) {
        throw new ApiProblem(0, 'Something else answered than the Needlecase server.', '');
      }
      await this.#arrived(device, key, what, answer);
    } catch (problem) {
      if (!(problem instanceof ApiProblem)) throw problem;
      if (isThere(what, problem)) return this.#arrived(device, key, what, problem.current);
      // The clock was off and is known by now: it leaves again with the right time.
      if (problem.status === 422 && retimed(letter) !== letter) return;
      if (!isRefused(letter, problem)) throw problem;
      await device.put('outbox', { ...letter, aside: asideOf(problem) }, key);
      if ('kind' in what) this.refused$.next({ entry: what, problem });
      if ('news' in what) this.refusedNews$.next({ news: what.news, problem });
      const { status, title, detail, errors } = problem;
      const refused = { problem: { status, title, detail, errors } };
      await this.#changed('kind' in what ? { refused: { entry: what, ...refused } } : {});
    }
  }

  async #arrived(device: Device, key: number, what: Waiting, answer: unknown): Promise<void> {
    await device.delete('outbox', key);
    const sent = 'kind' in what ? (answer as Entry) : undefined;
    if (sent) this.sent$.next(sent);
    await this.#changed(sent ? { sent } : {});
  }

  async #changed(news: News = {}): Promise<void> {
    this.#tabs.tell(news);
    await this.#count();
  }

  async #count(): Promise<void> {
    const letters = await this.letters();
    const aside = letters.filter((letter) => letter.aside).length;
    this.aside.set(aside);
    this.waiting.set(letters.length - aside);
  }

  #post({ what, house }: Letter): Observable<unknown> {
    const to = house ? { house } : {};
    if ('undo' in what) {
      const { undo } = what;
      return this.#api.send('POST', `entries/${undo}/undo`, undefined, {
        key: `undo-${undo}`,
        ...to,
      });
    }
    if ('photo' in what) return this.#api.send('PUT', `photos/${what.photo}`, what.picture, to);
    if ('news' in what) {
      const key = `case-${what.news.events[0]!.id}`;
      return this.#api.send('POST', 'cases', what.news, { key, ...to });
    }
    return this.#api.send('POST', 'entries', what, { key: what.id, ...to });
  }
}

const isEntry = (what: Waiting, id: string): boolean => 'kind' in what && what.id === id;

/** The first that waits. */
async function nextKey(device: Device): Promise<number | undefined> {
  let cursor = await device.transaction('outbox').store.openCursor();
  while (cursor?.value.aside) cursor = await cursor.continue();
  return cursor?.primaryKey;
}

/** Marks a letter as one that has left: from now on the server may have it. */
async function marked(device: Device, key: number): Promise<Letter | undefined> {
  const { store, done } = device.transaction('outbox', 'readwrite');
  const letter = await store.get(key);
  const leaving =
    letter && !letter.aside ? { ...retimed(letter), tried: true as const } : undefined;
  if (leaving) await store.put(leaving, key);
  await done;
  return leaving;
}

/** Whether an answer is one to that very letter: a page that lets one sign in is none. */
function isAnswerTo(what: Waiting, answer: unknown): boolean {
  const { id, revises } = (answer ?? {}) as { id?: unknown; revises?: unknown };
  if ('undo' in what) return revises === what.undo;
  if ('photo' in what) return id === what.photo;
  return id === ('news' in what ? what.news.id : what.id);
}

/** Whether a refusal says that it is there already: its answer was lost on the way. */
function isThere(what: Waiting, { status, current }: ApiProblem): boolean {
  if (status !== 409) return false;
  const { id, kind } = (current ?? {}) as { id?: unknown; kind?: unknown };
  if ('undo' in what) return kind === 'undone';
  return 'kind' in what && id === what.id;
}

/** Whether the server has read it and will not have it; an undo of what it never had among it. */
const isRefused = ({ what, house }: Letter, { status }: ApiProblem): boolean =>
  status === 409 || status === 422 || (status === 404 && 'undo' in what && house !== undefined);

const isAway = ({ status, title }: ApiProblem): boolean =>
  status === 0 && !title.startsWith('Something else');

function asideOf({ title, detail, errors: [first] }: ApiProblem): Aside {
  return {
    title,
    message: first?.message ?? detail,
    ...(first?.field ? { field: first.field } : {}),
  };
}

const again = ({ status, title, detail, errors }: PlainProblem): ApiProblem =>
  new ApiProblem(status, title, detail, errors);

/** A letter by what is known of the clock now; the same where nothing changes. */
function retimed(letter: Letter): Letter {
  const { untimed, ...rest } = letter;
  const { what } = letter;
  if ('kind' in what) {
    const right = timed(what);
    return right === what ? letter : { ...letter, what: right };
  }
  if (!untimed || !('news' in what) || !isClockKnown()) return letter;
  const events = what.news.events.map((event) => ({ ...event, at: shifted(event.at) }));
  return { ...rest, what: { news: { ...what.news, events } } };
}
