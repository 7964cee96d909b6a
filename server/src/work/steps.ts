import { setImmediate as breathe } from 'node:timers/promises';
import type { Answer } from '../http/answer.js';
import type { Store } from '../store/store.js';

/** So long nobody else is answered while something is worked out in steps, ms. */
const STRETCH_MS = 15;

/** Works something out, and leaves time for others between its steps. */
export async function inSteps<T>(steps: Generator<unknown, T>): Promise<T> {
  let since = performance.now();
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
    if (performance.now() - since < STRETCH_MS) continue;
    await breathe();
    since = performance.now();
  }
}

/** So much is remembered, at most: names can be asked for that nobody has. */
const MOST_REMEMBERED = 200;

/**
 * What was worked out last under each name, as long as what it was worked out from is the very same. May be dropped at
 * any time.
 */
export class Remember<T> {
  readonly #known = new Map<string, { of: readonly unknown[]; value: T }>();

  /** @param of what it is worked out from, each compared as the very same */
  get(name: string, of: readonly unknown[]): T | undefined {
    const known = this.#known.get(name);
    const isSame =
      known?.of.length === of.length && known.of.every((one, i) => Object.is(one, of[i]));
    return isSame ? known.value : undefined;
  }

  set(name: string, of: readonly unknown[], value: T): T {
    this.#known.delete(name);
    this.#known.set(name, { of, value });
    const [oldest] = this.#known.keys();
    if (this.#known.size > MOST_REMEMBERED) this.#known.delete(oldest!);
    return value;
  }

  getOr(name: string, of: readonly unknown[], make: () => T): T {
    return this.get(name, of) ?? this.set(name, of, make());
  }
}

const MINUTE_MS = 60_000;

/** Changes with each minute, and with whatever is written. */
export const momentOf = (store: Pick<Store, 'revision'>): string =>
  `${store.revision} ${Math.floor(Date.now() / MINUTE_MS)}`;

/** Answers that take their time: the same for a minute, unless something was written; who asks meanwhile waits along. */
export class Answered<T> {
  #last: { at: string; answer: Promise<Answer<T>> } | undefined;

  constructor(
    private readonly store: Pick<Store, 'revision'>,
    private readonly make: () => Promise<T>,
  ) {}

  get(): Promise<Answer<T>> {
    const at = momentOf(this.store);
    if (this.#last?.at === at) return this.#last.answer;
    const answer = this.make().then((body) => ({ body, written: JSON.stringify(body) }));
    this.#last = { at, answer };
    // What went wrong is tried again.
    answer.catch(() => (this.#last = undefined));
    return answer;
  }
}
