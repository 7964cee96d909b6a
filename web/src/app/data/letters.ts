import { openDevice, type Letter, type Waiting } from './device';

/** A letter with its place in the outbox; one that only this page has is at a negative one. */
export type Kept = Letter & { key: number };

const isLoose = (key: number): boolean => key < 0;

/**
 * What waits to be sent, in order: on the device's shelves, or, where they take nothing (full, or a browser
 * that keeps nothing), in this page alone until they do.
 */
export class Letters {
  /** What the shelves did not take: new letters, and what became of letters that are on them. */
  readonly #page = new Map<number, Letter>();
  #next = -1;
  /** What stood there when it was looked at last, by whichever tab it was put there. */
  #known: Kept[] = [];
  #turn: Promise<unknown> = Promise.resolve();

  /** How many this page alone has. */
  get loose(): number {
    return [...this.#page.keys()].filter(isLoose).length;
  }

  /** Puts a letter behind all others. @returns whether it is safe on the device */
  add(letter: Letter): Promise<boolean> {
    return this.#shelve(letter);
  }

  /** Puts on the shelves what only this page has, where they take it by now. */
  async settle(): Promise<void> {
    if (this.loose > 0) await this.#shelve();
  }

  /** One at a time, so that nothing is put there twice. @returns whether it is on the shelves */
  #shelve(letter?: Letter): Promise<boolean> {
    const shelved = this.#turn.then(async () => {
      const loose = [...this.#page].filter(([key]) => isLoose(key));
      const letters = [...loose.map(([, one]) => one), ...(letter ? [letter] : [])];
      try {
        const device = await openDevice();
        const { store, done } = device.transaction('outbox', 'readwrite');
        await Promise.all([...letters.map((one) => store.add(one)), done]);
      } catch {
        if (letter) this.#page.set(this.#next--, letter);
        return false;
      }
      for (const [key] of loose) this.#page.delete(key);
      return true;
    });
    this.#turn = shelved;
    return shelved;
  }

  /** All of them, in order. @throws where the shelves are there and cannot be read just now */
  async all(): Promise<Kept[]> {
    const found: Kept[] = [];
    const device = await openDevice().catch(() => undefined);
    if (device) {
      const { store } = device.transaction('outbox');
      const [keys, letters] = await Promise.all([store.getAllKeys(), store.getAll()]);
      keys.forEach((key, i) => found.push({ ...(this.#page.get(key) ?? letters[i]!), key }));
    }
    for (const [key, letter] of this.#page) if (isLoose(key)) found.push({ ...letter, key });
    this.#known = found;
    return found;
  }

  /**
   * Puts back what this page knows of, where the shelves were emptied under it. What was sent meanwhile by another
   * tab leaves again, under the same id.
   * @returns how many
   */
  async putBack(): Promise<number> {
    const known = this.#known.filter(({ key }) => !isLoose(key));
    const there = new Set((await this.all()).map(({ key }) => key));
    const gone = known.filter(({ key }) => !there.has(key));
    for (const { key: _key, ...letter } of gone) await this.add(letter);
    return gone.length;
  }

  /** The place of the first that waits. */
  async next(): Promise<number | undefined> {
    return (await this.all()).find(({ aside }) => !aside)?.key;
  }

  /**
   * Puts another letter in the place of one, if it is still there.
   * @param edit nothing leaves it as it is
   * @returns the other one
   */
  async change(
    key: number,
    edit: (letter: Letter) => Letter | undefined,
  ): Promise<Letter | undefined> {
    if (isLoose(key)) {
      const letter = this.#page.get(key);
      const other = letter && edit(letter);
      if (other) this.#page.set(key, other);
      return other;
    }
    const device = await openDevice();
    let other: Letter | undefined;
    try {
      const { store, done } = device.transaction('outbox', 'readwrite');
      const held = await store.get(key);
      other = held && edit(this.#page.get(key) ?? held);
      await Promise.all([other && store.put(other, key), done]);
      if (other || !held) this.#page.delete(key);
    } catch (problem) {
      if (!other) throw problem;
      this.#page.set(key, other);
    }
    return other;
  }

  /**
   * Takes a letter away, or adds one that takes it back.
   * @param mayGo whether it can simply be gone
   * @param instead what is added where it cannot, or is not there
   * @returns whether it is gone
   */
  async withdraw(
    isIt: (what: Waiting) => boolean,
    mayGo: (letter: Letter) => boolean,
    instead: (letter: Letter | undefined) => Letter,
  ): Promise<boolean> {
    const [place, loose] =
      [...this.#page].find(([key, { what }]) => isLoose(key) && isIt(what)) ?? [];
    if (loose) {
      if (mayGo(loose)) return this.#page.delete(place!);
      await this.add(instead(loose));
      return false;
    }
    let found: Letter | undefined;
    try {
      const device = await openDevice();
      const { store, done } = device.transaction('outbox', 'readwrite');
      let cursor = await store.openCursor();
      while (cursor && !isIt(cursor.value.what)) cursor = await cursor.continue();
      found = cursor ? (this.#page.get(cursor.primaryKey) ?? cursor.value) : undefined;
      const gone = found !== undefined && mayGo(found);
      await Promise.all([gone ? cursor!.delete() : store.add(instead(found)), done]);
      return gone;
    } catch {
      await this.add(instead(found));
      return false;
    }
  }

  async remove(key: number): Promise<void> {
    this.#page.delete(key);
    if (isLoose(key)) return;
    const device = await openDevice();
    await device.delete('outbox', key);
  }
}
