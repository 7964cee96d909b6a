import type { RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import { ProblemError, sendProblem } from '../http/problem.js';

const QUARTER_MS = 15 * 60_000;
const FROM_ONE = 10;
const FROM_ALL = 60;
/** Notes that links leave, good or not. */
const NOTES = 30;

const limited = (limit: number, keyed: { keyGenerator?: () => string; all?: true }) =>
  rateLimit({
    windowMs: QUARTER_MS,
    limit,
    skipSuccessfulRequests: !keyed.all,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    validate: { xForwardedForHeader: false, forwardedHeader: false },
    ...(keyed.keyGenerator ? { keyGenerator: keyed.keyGenerator } : {}),
    handler: (_request, response) => sendProblem(response, tooOften('a quarter of an hour')),
  });

const tooOften = (wait: string): ProblemError =>
  new ProblemError(429, 'That was tried too often.', { detail: `Wait ${wait}, then try again.` });

/** Whoever fails has so many tries at once, as fast as they like. */
const FREE = 5;
const FIRST_MS = 1000;
const LONGEST_MS = QUARTER_MS;
const FORGET_MS = 24 * 60 * 60_000;
const MOST_ADDRESSES = 2000;

/**
 * How long an address waits after so many failures in a row: each time twice as long.
 *
 * @example waitAfter(5) // 1000 (ms)
 */
export const waitAfter = (failures: number): number =>
  failures < FREE ? 0 : Math.min(LONGEST_MS, FIRST_MS * 2 ** (failures - FREE));

/** Lets an address that failed wait longer and longer; what is right at last ends it. */
export function growingWaits(now: () => number = () => Date.now()): RequestHandler {
  const known = new Map<string, { failures: number; at: number }>();
  return (request, response, next) => {
    const address = request.ip ?? '';
    const before = known.get(address);
    const wait = before ? waitAfter(before.failures) : 0;
    // A clock that was set back makes nobody wait longer.
    const left = before ? Math.min(wait, before.at + wait - now()) : 0;
    if (left > 0) {
      const seconds = Math.ceil(left / 1000);
      response.set('Retry-After', String(seconds));
      const words =
        seconds === 1
          ? 'a second'
          : seconds < 90
            ? `${seconds} seconds`
            : `${Math.ceil(seconds / 60)} minutes`;
      return sendProblem(response, tooOften(words));
    }
    response.on('finish', () => {
      const { statusCode } = response;
      if (statusCode < 400) return void known.delete(address);
      if (statusCode === 429 || statusCode >= 500) return;
      for (const [one, { at }] of known) if (now() - at > FORGET_MS) known.delete(one);
      const [oldest] = known.keys();
      if (known.size >= MOST_ADDRESSES) known.delete(oldest!);
      const { failures = 0 } = known.get(address) ?? {};
      known.delete(address);
      known.set(address, { failures: failures + 1, at: now() });
    });
    next();
  };
}

/**
 * Keeps codes, pass phrases and passkeys from being tried out: from one address, longer waited for each time, and
 * from all together.
 */
export const fewTries = (): RequestHandler[] => [
  growingWaits(),
  limited(FROM_ALL, { keyGenerator: () => 'all' }),
  limited(FROM_ONE, {}),
];

/** Keeps links from filling the house's file. */
export const fewNotes = (): RequestHandler => limited(NOTES, { all: true });
