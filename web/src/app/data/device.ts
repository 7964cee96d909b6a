import type { CaseNews, EntryDraft, Visit } from '@needlecase/core';
import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction } from 'idb';

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

/** Why the server refused something: kept until somebody corrects it or lets it go. */
export interface Aside {
  title: string;
  /** Of the field that is wrong, where one is. */
  message: string;
  field?: string;
}

/** Something that waits, and what became of it so far. */
export interface Letter {
  what: Waiting;
  /** The household it is for; the server of another one refuses it. */
  house?: string;
  /** Of a case, told before this device's clock was held against the server's. */
  untimed?: true;
  /** It has left at least once: the server may have it. */
  tried?: true;
  aside?: Aside;
}

/** What is told of a visit. */
export type Told = Pick<Visit, 'progress' | 'state'>;

/** What this device knows of a visit. */
export interface KeptVisit {
  run: Visit;
  /** Version that the server is known to have. */
  base: number;
  /** Changes that the server does not have. */
  unsent: boolean;
  /** Counts the changes, so that one made while another is on its way is not lost. */
  edits: number;
  /** The household it is for. */
  house?: string;
  /** What was sent and never answered: where the server has one of them, its answer was lost. */
  tried?: readonly Told[];
  /** Finished here; the server is to record it. */
  finishing?: boolean;
}

interface Shelves extends DBSchema {
  outbox: { key: number; value: Letter };
  /** Visits, by their ids. */
  visits: { key: string; value: KeptVisit };
  /** Who of several tabs does something, where the browser has no locks. */
  leases: { key: string; value: { by: string; until: number } };
}

export type Device = IDBPDatabase<Shelves>;

let open: { factory: IDBFactory; device: Promise<Device> } | undefined;

/**
 * What this device keeps of what was noted, shared by its tabs.
 * @throws where the browser keeps nothing
 */
export async function openDevice(): Promise<Device> {
  if (open?.factory === indexedDB) return open.device;
  const device = openDB<Shelves>('needlecase', 3, {
    upgrade(database, before, _now, transaction) {
      if (before < 1) database.createObjectStore('outbox', { autoIncrement: true });
      if (before < 2) database.createObjectStore('leases');
      if (before < 3) database.createObjectStore('visits');
      if (before === 1) void enveloped(transaction);
    },
    // A tab of a newer program asks for the shelves: it gets them, and this one reads them anew.
    blocking(_current, _wanted, event) {
      (event.target as IDBDatabase).close();
      open = undefined;
    },
    // Cleared, or taken away by the browser.
    terminated: () => {
      open = undefined;
      for (const told of LOST) told();
    },
  });
  open = { factory: indexedDB, device };
  device.catch(() => (open = undefined));
  return device;
}

const LOST = new Set<() => void>();

/**
 * Tells when the browser took the shelves away under an open page: a person cleared them, or the disk is full.
 * @returns what ends it
 */
export function onShelvesLost(told: () => void): () => void {
  LOST.add(told);
  return () => LOST.delete(told);
}

/** In the first outbox a letter was nothing but what it says. */
async function enveloped(
  transaction: IDBPTransaction<Shelves, ('outbox' | 'visits' | 'leases')[], 'versionchange'>,
): Promise<void> {
  let cursor = await transaction.objectStore('outbox').openCursor();
  while (cursor) {
    await cursor.update({ what: cursor.value as unknown as Waiting });
    cursor = await cursor.continue();
  }
}

const LEASE_MS = 20_000;

/**
 * As `lockedIfFree`, for browsers without locks: whoever holds the lease does it, and renews it meanwhile.
 * @param by who asks, another in each tab
 * @returns whether it was done here
 */
export async function leased(
  device: Device,
  name: string,
  by: string,
  work: () => Promise<void>,
): Promise<boolean> {
  const take = async (): Promise<boolean> => {
    const { store, done } = device.transaction('leases', 'readwrite');
    const held = await store.get(name);
    const free = !held || held.by === by || held.until < Date.now();
    if (free) await store.put({ by, until: Date.now() + LEASE_MS }, name);
    await done;
    return free;
  };
  // Where it cannot be written down, each for itself: what is sent has its own id.
  if (!(await take().catch(() => true))) return false;
  // A page that is shut in the middle leaves it to the next at once.
  const letGo = () => void device.delete('leases', name).catch(() => undefined);
  window.addEventListener('pagehide', letGo);
  const renewing = setInterval(() => void take().catch(() => undefined), LEASE_MS / 4);
  try {
    await work();
  } finally {
    clearInterval(renewing);
    window.removeEventListener('pagehide', letGo);
    await device.delete('leases', name).catch(() => undefined);
  }
  return true;
}
