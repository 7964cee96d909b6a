import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import type { CaseNews, Entry } from '@needlecase/core';
import { firstValueFrom, Subject, type Observable } from 'rxjs';
import { ApiService, ApiProblem, SOMETHING_ELSE } from './api.service';
import { askClock, isClockKnown, shifted, timed } from './clock';
import {
  leased,
  openDevice,
  type Aside,
  type Letter,
  type Outgoing,
  type Waiting,
  onShelvesLost,
} from './device';
import { Letters, type Kept } from './letters';
import { hasLocks, lockedIfFree, newChannel, newId } from './platform';
import { houseHere } from './tongue';

export type { CaseLetter, Outgoing, Picture, Undoing, Waiting } from './device';
export type { Kept } from './letters';

const RETRY_MS = 4000;
const NAME = 'needlecase-outbox';

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
  readonly #letters = new Letters();
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
  /** How many of them this device did not take: they are gone with the page. */
  readonly unkept = signal(0);
  /** Why what waits does not leave, where that is more than no connection. */
  readonly stuck = signal<string | undefined>(undefined);
  readonly sent$ = new Subject<Entry>();
  readonly refused$ = new Subject<{ entry: Outgoing; problem: ApiProblem }>();
  readonly refusedNews$ = new Subject<{ news: CaseNews; problem: ApiProblem }>();

  /** The browser emptied this device’s shelves; so many were put back by this page. */
  readonly cleared$ = new Subject<number>();

  constructor() {
    const heard = onShelvesLost(() => void this.#putBack());
    inject(DestroyRef).onDestroy(heard);
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

  /**
   * Keeps an entry and begins sending it.
   * @returns whether it is safe on the device; where that takes nothing, this page has it until it is sent
   */
  async add(what: Waiting): Promise<boolean> {
    const house = houseHere();
    const untimed = 'news' in what && !isClockKnown();
    const kept = await this.#letters.add({
      what,
      ...(house ? { house } : {}),
      ...(untimed ? { untimed } : {}),
    });
    await this.#changed();
    void this.send();
    return kept;
  }

  /** What waits, in order; what was refused is not among it. */
  async list(): Promise<Waiting[]> {
    return (await this.letters()).filter(({ aside }) => !aside).map(({ what }) => what);
  }

  /** Everything kept here, in order. */
  letters(): Promise<Kept[]> {
    return this.#letters.all();
  }

  /** A photo that was not sent yet, and what became of it. */
  async photo(id: string): Promise<{ picture: Blob; aside?: Aside } | undefined> {
    for (const { what, aside } of await this.letters()) {
      if ('photo' in what && what.photo === id) {
        return { picture: what.picture, ...(aside ? { aside } : {}) };
      }
    }
    return undefined;
  }

  /**
   * Takes an entry back: one that never left, or was refused, is gone; one that may have arrived is undone in
   * its turn.
   * @returns whether the server never had it
   */
  async undo(id: string): Promise<boolean> {
    const never = await this.#letters.withdraw(
      (what) => isEntry(what, id),
      ({ tried, aside }) => !tried || aside !== undefined,
      (letter) => {
        const house = letter?.house ?? houseHere();
        return { what: { undo: id }, ...(house ? { house } : {}) };
      },
    );
    await this.#changed();
    if (!never) void this.send();
    return never;
  }

  /** Puts something corrected in the place of what was refused, and sends it. */
  async correct(key: number, what: Waiting): Promise<void> {
    await this.#letters.change(key, ({ aside: _aside, tried: _tried, ...kept }) => ({
      ...kept,
      what,
    }));
    await this.#changed();
    void this.send();
  }

  /** Lets something go that was refused. */
  async letGo(key: number): Promise<void> {
    await this.#letters.remove(key);
    await this.#changed();
  }

  async send(): Promise<void> {
    this.#again = true;
    if (this.#sending || this.#gone) return;
    this.#sending = true;
    clearTimeout(this.#retry);
    try {
      await this.#letters.settle();
      const here = await this.#inTurn(() => this.#sendAll());
      // Another tab is at it; it may be shut before it is done.
      if (!here) this.#later();
      this.stuck.set(undefined);
    } catch (problem) {
      const why = problem instanceof ApiProblem ? problem.hindrance : '';
      this.stuck.set(why || undefined);
      this.#later();
    } finally {
      this.#sending = false;
      await this.#count();
    }
  }

  /** One tab at a time, where they can tell each other. @returns whether it was done here */
  async #inTurn(work: () => Promise<void>): Promise<boolean> {
    if (hasLocks()) return lockedIfFree(NAME, work);
    const device = await openDevice().catch(() => undefined);
    if (device) return leased(device, NAME, this.#me, work);
    await work();
    return true;
  }

  async #putBack(): Promise<void> {
    const count = await this.#letters.putBack().catch(() => 0);
    this.cleared$.next(count);
    await this.#changed();
    void this.send();
  }

  #later(): void {
    clearTimeout(this.#retry);
    if (!this.#gone) this.#retry = setTimeout(() => void this.send(), RETRY_MS);
  }

  async #sendAll(): Promise<void> {
    while (this.#again && !this.#gone) {
      this.#again = false;
      const next = () => this.#letters.next();
      for (let key = await next(); key !== undefined && !this.#gone; key = await next()) {
        await this.#sendOne(key);
      }
    }
  }

  /** @throws where it has to wait */
  async #sendOne(key: number): Promise<void> {
    if (!isClockKnown()) await this.#timeFor(key);
    // From now on the server may have it.
    const letter = await this.#letters.change(key, (one) =>
      one.aside ? undefined : { ...retimed(one), tried: true },
    );
    if (!letter) return;
    const { what } = letter;
    try {
      const answer = await firstValueFrom(this.#post(letter));
      if (!isAnswerTo(what, answer)) {
        throw new ApiProblem(0, SOMETHING_ELSE, '');
      }
      await this.#arrived(key, what, answer);
    } catch (problem) {
      if (!(problem instanceof ApiProblem)) throw problem;
      if (isThere(what, problem)) return this.#arrived(key, what, problem.current);
      // The clock was off and is known by now: it leaves again with the right time.
      if (problem.status === 422 && retimed(letter) !== letter) return;
      if (!isRefused(letter, problem)) throw problem;
      await this.#letters.change(key, (one) => ({ ...one, aside: asideOf(problem) }));
      if ('kind' in what) this.refused$.next({ entry: what, problem });
      if ('news' in what) this.refusedNews$.next({ news: what.news, problem });
      const { status, title, detail, errors } = problem;
      const refused = { problem: { status, title, detail, errors } };
      await this.#changed('kind' in what ? { refused: { entry: what, ...refused } } : {});
    }
  }

  /** A clock that is slow would be believed: it is held against the server's before a time leaves. */
  async #timeFor(key: number): Promise<void> {
    const letters = await this.letters();
    const letter = letters.find((one) => one.key === key);
    if (letter && isUntimed(letter)) {
      await askClock((path, params) => this.#api.get(path, params));
    }
  }

  async #arrived(key: number, what: Waiting, answer: unknown): Promise<void> {
    await this.#letters.remove(key);
    const sent = 'kind' in what ? (answer as Entry) : undefined;
    if (sent) this.sent$.next(sent);
    await this.#changed(sent ? { sent } : {});
  }

  async #changed(news: News = {}): Promise<void> {
    this.#tabs.tell(news);
    await this.#count();
  }

  /** What cannot be counted just now stays told as it was. */
  async #count(): Promise<void> {
    const letters = await this.letters().catch(() => undefined);
    if (!letters) return;
    const aside = letters.filter((letter) => letter.aside).length;
    this.aside.set(aside);
    this.waiting.set(letters.length - aside);
    this.unkept.set(this.#letters.loose);
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

function asideOf({ title, detail, errors: [first] }: ApiProblem): Aside {
  return {
    title,
    message: first?.message ?? detail,
    ...(first?.field ? { field: first.field } : {}),
  };
}

const isUntimed = ({ what, untimed }: Letter): boolean =>
  untimed === true || ('kind' in what && what.deviceAt !== undefined);

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
