import { Health } from '@needlecase/core/model/health';
import Type from 'typebox';
import type { Caller } from '../access/caller.js';
import type { ProblemError } from '../http/problem.js';
import { route, type Route } from '../http/route.js';
import type { HouseWatch } from '../work/house-watch.js';

const isOwner = (caller: Caller): boolean =>
  (caller.by === 'here' || caller.by === 'device') && caller.role === 'keeper';

/**
 * How the server is: that it lives, how what it relies on is, and whether it can take anything in now.
 * @param stopped why nothing can be stored now
 */
export const healthRoutes = (
  watch: HouseWatch,
  stopped: () => ProblemError | undefined,
): Route[] => [
  route({
    method: 'get',
    path: '/api/v1/health',
    summary:
      'That the server is there, what time it has, and whether all is well; for owners, what is not',
    answers: Health,
    handle: ({ caller }) => {
      const { troubles } = watch;
      return {
        body: {
          at: new Date().toISOString(),
          ok: troubles.length === 0,
          ...(isOwner(caller) ? { troubles } : {}),
        },
      };
    },
  }),
  route({
    method: 'get',
    path: '/api/v1/ready',
    summary: 'Whether the server can take anything in now; 503 while it cannot',
    answers: Type.Object({ ready: Type.Boolean() }, { additionalProperties: false }),
    handle: () => {
      const problem = stopped();
      if (problem) throw problem;
      return { body: { ready: true } };
    },
  }),
];
