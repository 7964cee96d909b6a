import { inject, Injectable, signal } from '@angular/core';
import type { Entry, EntryDraft } from '@needlecase/core';
import { openDB, type IDBPDatabase } from 'idb';
import { firstValueFrom, Subject } from 'rxjs';
import { ApiService, ApiProblem } from './api.service';

/** An entry on its way; its id is also the key that keeps retries from doubling it. */
export type Outgoing = EntryDraft & { id: string };

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

  constructor() {
    if (typeof window !== 'undefined') window.addEventListener('online', () => void this.send());
    void this.send();
  }

  /** Keeps an entry and begins sending it. Resolves once it is safe on the device. */
  async add(entry: Outgoing): Promise<void> {
    const device = await this.#device;
    await device.add('outbox', entry);
    this.waiting.set(await device.count('outbox'));
    void this.send();
  }

  /** Takes an entry back that has not left yet; false when the server may have it. */
  async takeBack(id: string): Promise<boolean> {
    if (this.#sending) return false;
    const device = await this.#device;
    for (const key of await device.getAllKeys('outbox')) {
      const entry = (await device.get('outbox', key)) as Outgoing | undefined;
      if (entry?.id !== id) continue;
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
    const entry = (await device.get('outbox', key)) as Outgoing;
    try {
      const sent = await firstValueFrom(
        this.#api.send<Entry>('POST', 'entries', entry, { key: entry.id }),
      );
      await device.delete('outbox', key);
      this.sent$.next(sent);
    } catch (problem) {
      if (!(problem instanceof ApiProblem) || problem.unreachable || problem.status >= 500) {
        throw problem;
      }
      await device.delete('outbox', key);
      this.refused$.next({ entry, problem });
    }
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
