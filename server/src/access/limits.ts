import { rateLimit } from 'express-rate-limit';
import { ProblemError, sendProblem } from '../http/problem.js';

const QUARTER_MS = 15 * 60_000;
const FROM_ONE = 10;
const FROM_ALL = 60;

const limited = (limit: number, keyed: { keyGenerator?: () => string }) =>
  rateLimit({
    windowMs: QUARTER_MS,
    limit,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    validate: { xForwardedForHeader: false, forwardedHeader: false },
    ...keyed,
    handler: (_request, response) =>
      sendProblem(
        response,
        new ProblemError(429, 'That was tried too often.', {
          detail: 'Wait a quarter of an hour, then try again.',
        }),
      ),
  });

/** Keeps codes and pass phrases from being tried out: from one address, and from all together. */
export const fewTries = () => [
  limited(FROM_ALL, { keyGenerator: () => 'all' }),
  limited(FROM_ONE, {}),
];
