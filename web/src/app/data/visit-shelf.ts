import { onShelvesLost, openDevice, type KeptVisit } from './device';
import { localNames, readLocal, removeLocal } from './local';
import { newChannel } from './platform';

/** Visits stood there before the shelves had a place for them. */
const OLD_PREFIX = 'run.';

/**
 * What this device holds of visits, shared by its tabs: read at once from memory, written in turn; what the
 * shelves do not take lives with the page, and is tried again.
 */
export class VisitShelf {
  readonly #held = new Map<string, KeptVisit>();
  /** Not on the shelves as they are here: a write is to come, or has failed. */
  readonly #unwritten = new Set<string>();
  readonly #tabs = newChannel<string>('needlecase-visits');
  #failed = new Set<string>();
  #turn: Promise<void> = Promise.resolve();

  /** Something is other than it was. */
  changed: () => void = () => undefined;

  readonly #heard = onShelvesLost(() => {
    // What this page has of them goes back to where it was.
    for (const id of this.#held.keys()) this.#later(id);
  });

  constructor() {
    this.#tabs.heard = () => void this.read();
  }

  get(id: string): KeptVisit | undefined {
    return this.#held.get(id);
  }

  all(): KeptVisit[] {
    return [...this.#held.values()];
  }

  /** Whether the shelves have what is here. */
  has(id: string): boolean {
    return !this.#unwritten.has(id);
  }

  /** How many unsent ones the shelves did not take. */
  get loose(): number {
    return [...this.#failed].filter((id) => {
      const kept = this.#held.get(id);
      return kept && (kept.unsent || kept.finishing);
    }).length;
  }

  put(kept: KeptVisit): void {
    this.#held.set(kept.run.id, kept);
    this.#later(kept.run.id);
  }

  remove(id: string): void {
    this.#held.delete(id);
    this.#later(id);
  }

  /** Resolves when all that was put here was written, or could not be. */
  written(): Promise<void> {
    return this.#turn;
  }

  /** Reads anew what the device holds, and tries again what it did not take. */
  read(): Promise<void> {
    for (const id of this.#failed) this.#later(id);
    return this.#inTurn(async () => {
      const device = await openDevice();
      for (const id of localNames(OLD_PREFIX)) {
        const old = moved(readLocal<Partial<KeptVisit>>(OLD_PREFIX + id));
        if (old && !(await device.get('visits', id))) await device.put('visits', old, id);
        removeLocal(OLD_PREFIX + id);
      }
      const stored = await device.getAll('visits');
      const ids = new Set(stored.map(({ run }) => run.id));
      for (const id of this.#held.keys()) {
        if (!ids.has(id) && !this.#unwritten.has(id)) this.#held.delete(id);
      }
      for (const kept of stored) {
        if (!this.#unwritten.has(kept.run.id)) this.#held.set(kept.run.id, kept);
      }
    });
  }

  close(): void {
    this.#heard();
    this.#tabs.close();
    this.changed = () => undefined;
  }

  #later(id: string): void {
    // One that is to be written anyway is written as it is by then.
    if (this.#unwritten.has(id) && !this.#failed.has(id)) return;
    this.#unwritten.add(id);
    this.#failed.delete(id);
    void this.#inTurn(() => this.#write(id));
  }

  async #write(id: string): Promise<void> {
    const kept = this.#held.get(id);
    this.#unwritten.delete(id);
    try {
      const device = await openDevice();
      if (kept) await device.put('visits', kept, id);
      else await device.delete('visits', id);
      this.#tabs.tell(id);
    } catch {
      // Changed meanwhile, it is to be written again.
      if (this.#unwritten.has(id)) return;
      this.#unwritten.add(id);
      this.#failed.add(id);
    }
  }

  #inTurn(work: () => Promise<void>): Promise<void> {
    this.#turn = this.#turn
      .then(work)
      .catch(() => undefined)
      .then(() => this.changed());
    return this.#turn;
  }
}

/** A visit as older programs kept it. */
function moved(old: Partial<KeptVisit> | undefined): KeptVisit | undefined {
  if (!old?.run) return undefined;
  return { base: old.run.version, unsent: true, edits: 0, ...old, run: old.run };
}
