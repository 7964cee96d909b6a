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
 * Has reads answered a few a turn of the loop, so that whatever is to be stored never waits behind a row of them: what
 * comes in meanwhile is taken up between two turns. Reads of the same that are answered in one go cost little more than
 * one: nothing was written between them.
 *
 * ```
 *   reads    r1 r2 r3 r4              as many a turn as 25 ms take
 *   loop     r1 r2 | w | r3 r4        a write that comes in during r1 is next after r2
 * ```
 */
export function writesFirst(): RequestHandler {
  const waiting: { next: () => void; isGone: () => boolean }[] = [];
  let turning = false;
  const turn = async (): Promise<void> => {
    const until = performance.now() + GO_MS;
    do {
      let one = waiting.shift();
      // Who has gone away meanwhile is not answered.
      while (one?.isGone()) one = waiting.shift();
      if (!one) break;
      one.next();
      for (let i = 0; i < SMALL_TURNS; i++) await undefined;
    } while (performance.now() < until);
    turning = waiting.length > 0;
    if (turning) setImmediate(() => void turn());
  };
  return (request, response, next) => {
    const reads = request.method === 'GET' || request.method === 'HEAD';
    // Whether the server lives is not asked behind a row of others.
    if (!reads || AT_ONCE.test(request.path)) return next();
    arrivals.set(request, performance.now());
    waiting.push({ next: () => next(), isGone: () => response.destroyed });
    if (turning) return;
    turning = true;
    setImmediate(() => void turn());
  };
}
