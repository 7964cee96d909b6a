import type { RequestHandler } from 'express';

const AT_ONCE = /^\/api\/v1\/(health|ready)$/;

const arrivals = new WeakMap<object, number>();

/** When a request came in, by the clock of `performance.now()`: its answer may be of any moment since. */
export const arrivedAt = (request: object): number => arrivals.get(request) ?? performance.now();

/** Reads are answered in one go as long as they take no longer together than this, ms. */
const GO_MS = 25;
/** What is answered without waiting for anything is answered within so many small turns. */
const SMALL_TURNS = 24;

/**
 * Has reads answered a few a turn of the loop, so that whatever is to be stored never waits behind a row of them, and
 * writes one a turn, so that many of them do not starve the reads. Reads of the same that are answered in one go cost
 * little more than one: nothing was written between them.
 *
 * ```
 *   writes   w1 w2                    one a turn
 *   reads    r1 r2 r3 r4              as many a turn as 25 ms take
 *   loop     w1 | r1 r2 r3 | w2 | r4
 * ```
 */
export function writesFirst(): RequestHandler {
  const reads = new Lane();
  const writes = new Lane();
  let turning = false;
  const turn = async (): Promise<void> => {
    writes.next();
    const until = performance.now() + GO_MS;
    while (reads.next()) {
      for (let i = 0; i < SMALL_TURNS; i++) await Promise.resolve();
      if (performance.now() >= until) break;
    }
    turning = reads.isWaited || writes.isWaited;
    if (turning) setImmediate(() => void turn());
  };
  return (request, response, next) => {
    // Whether the server lives is not asked behind a row of others.
    if (AT_ONCE.test(request.path)) return next();
    const isRead = request.method === 'GET' || request.method === 'HEAD';
    if (isRead) arrivals.set(request, performance.now());
    (isRead ? reads : writes).wait({ next: () => next(), isGone: () => response.destroyed });
    if (turning) return;
    turning = true;
    setImmediate(() => void turn());
  };
}

interface Waiting {
  next: () => void;
  isGone: () => boolean;
}

class Lane {
  readonly #waiting: Waiting[] = [];

  get isWaited(): boolean {
    return this.#waiting.length > 0;
  }

  wait(one: Waiting): void {
    this.#waiting.push(one);
  }

  /** Has the next one go on; who has gone away meanwhile is left out. @returns whether there was one */
  next(): boolean {
    for (;;) {
      const one = this.#waiting.shift();
      if (!one) return false;
      if (one.isGone()) continue;
      one.next();
      return true;
    }
  }
}
