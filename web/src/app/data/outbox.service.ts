import { inject, Injectable, signal } from '@angular/core';
import type { CaseNews, Entry, EntryDraft } from '@needlecase/core';
import { openDB, type IDBPDatabase } from 'idb';
import { firstValueFrom, Subject, type Observable } from 'rxjs';
import { ApiService, ApiProblem } from './api.service';

/** An entry on its way; its id is also the key that keeps retries from doubling it. */
export type Outgoing = EntryDraft & { id: string };

/** An entry to be undone, by its id. */
export interface Undoing {
  undo: string;
}

/** A photo, under the id it will have. */
export interface Picture {
  photo: string;
  picture: Blob;
}

/** What happened in a case; its first event's id keeps retries from doubling it. */
export interface CaseLetter {
  news: CaseNews;
}

/** What may wait to be sent. */
export type Waiting = Outgoing | Undoing | Picture | CaseLetter;

const RETRY_MS = 4000;

/**
 * Entries made here, kept on the device until the server has them, sent once and in order.
 *
 * ```
 *   tap -> add(): device -> send(): server -> taken off the device
 *                   |           unreachable: tried again on return and every few seconds
 *                   |           refused: taken off, and told in `refused$`
 * ```
 */
@Injectable({ providedIn: 'root' })
export class OutboxService {
  readonly #api = inject(ApiService);
  readonly #device = openDevice();
  #sending = false;
  #retry: ReturnType<typeof setTimeout> | undefined;

  /** How many are not sent yet. */
  readonly waiting = signal(0);
  readonly sent$ = new Subject<Entry>();
  readonly refused$ = new Subject<{ entry: Outgoing; problem: ApiProblem }>();
  readonly refusedNews$ = new Subject<{ news: CaseNews; problem: ApiProblem }>();

  constructor() {
    if (typeof window !== 'undefined') window.addEventListener('online', () => void this.send());
    void this.send();
  }

  /** Keeps an entry and begins sending it. Resolves once it is safe on the device. */
  async add(entry: Waiting): Promise<void> {
    const device = await this.#device;
    await device.add('outbox', entry);
    this.waiting.set(await device.count('outbox'));
    void this.send();
  }

  /** What waits, in order. */
  async list(): Promise<Waiting[]> {
    const device = await this.#device;
    const keys = await device.getAllKeys('outbox');
    const all = await Promise.all(keys.map((key) => device.get('outbox', key)));
    return all.filter((one) => one !== undefined) as Waiting[];
  }

  /** A photo that was not sent yet. */
  async photo(id: string): Promise<Blob | undefined> {
    const waiting = (await this.list()).find((one) => 'photo' in one && one.photo === id);
    return waiting && 'photo' in waiting ? waiting.picture : undefined;
  }

  /** Takes an entry back whether it has left or not: one that has is undone, in its turn. */
  async undo(id: string): Promise<void> {
    if (!(await this.takeBack(id))) await this.add({ undo: id });
  }

  /** Takes an entry back that has not left yet; false when the server may have it. */
  async takeBack(id: string): Promise<boolean> {
    if (this.#sending) return false;
    const device = await this.#device;
    for (const key of await device.getAllKeys('outbox')) {
      const waiting = (await device.get('outbox', key)) as Waiting | undefined;
      if (!waiting || !('id' in waiting) || waiting.id !== id) continue;
      await device.delete('outbox', key);
      this.waiting.set(await device.count('outbox'));
      return true;
    }
    return false;
  }

  async send(): Promise<void> {
    if (this.#sending) return;
    this.#sending = true;
    clearTimeout(this.#retry);
    let device: Device | undefined;
    try {
      device = await this.#device;
      for (;;) {
        const [key] = await device.getAllKeys('outbox', null, 1);
        if (key === undefined) break;
        await this.#sendOne(device, key);
      }
    } catch {
      this.#retry = setTimeout(() => void this.send(), RETRY_MS);
    } finally {
      this.#sending = false;
      if (device) this.waiting.set(await device.count('outbox'));
    }
  }

  /** @throws when the server cannot be reached or is in trouble: the entry stays */
  async #sendOne(device: Device, key: IDBValidKey): Promise<void> {
    const waiting = (await device.get('outbox', key)) as Waiting;
    try {
      const sent = await firstValueFrom(this.#post(waiting));
      await device.delete('outbox', key);
      if ('kind' in waiting) this.sent$.next(sent as Entry);
    } catch (problem) {
      if (!(problem instanceof ApiProblem) || problem.unreachable || problem.status >= 500) {
        throw problem;
      }
      await device.delete('outbox', key);
      // An entry that is undone already, or never came to be, needs no undoing.
      if ('kind' in waiting) this.refused$.next({ entry: waiting, problem });
      if ('news' in waiting) this.refusedNews$.next({ news: waiting.news, problem });
    }
  }

  #post(waiting: Waiting): Observable<unknown> {
    if ('undo' in waiting) {
      const { undo } = waiting;
      return this.#api.send('POST', `entries/${undo}/undo`, undefined, { key: `undo-${undo}` });
    }
    if ('photo' in waiting) {
      return this.#api.send('PUT', `photos/${waiting.photo}`, waiting.picture);
    }
    if ('news' in waiting) {
      const key = `case-${waiting.news.events[0]!.id}`;
      return this.#api.send('POST', 'cases', waiting.news, { key });
    }
    return this.#api.send('POST', 'entries', waiting, { key: waiting.id });
  }
}

type Device = Pick<IDBPDatabase, 'add' | 'get' | 'delete' | 'count' | 'getAllKeys'>;

async function openDevice(): Promise<Device> {
  return openDB('needlecase', 1, {
    upgrade: (database) => {
      database.createObjectStore('outbox', { autoIncrement: true });
    },
  });
}
