import type { RequestHandler } from 'express';

const AT_ONCE = /^\/api\/v1\/(health|ready)$/;

/**
 * Has reads answered one a turn of the loop, so that whatever is to be stored never waits behind a row of them: what
 * comes in meanwhile is taken up between two reads.
 *
 * ```
 *   reads    r1  r2  r3  r4          one a turn
 *   loop     r1 | w | r2 | r3 | r4   a write that comes in during r1 is next
 * ```
 */
export function writesFirst(): RequestHandler {
  const waiting: { next: () => void; isGone: () => boolean }[] = [];
  let turning = false;
  const turn = (): void => {
    let one = waiting.shift();
    // Who has gone away meanwhile is not answered.
    while (one?.isGone()) one = waiting.shift();
    if (!one) {
      turning = false;
      return;
    }
    setImmediate(turn);
    one.next();
  };
  return (request, response, next) => {
    const reads = request.method === 'GET' || request.method === 'HEAD';
    // Whether the server lives is not asked behind a row of others.
    if (!reads || AT_ONCE.test(request.path)) return next();
    waiting.push({ next: () => next(), isGone: () => response.destroyed });
    if (turning) return;
    turning = true;
    setImmediate(turn);
  };
}
