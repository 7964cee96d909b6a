import type { RequestHandler, Response } from 'express';
import { notFound, ProblemError, sendProblem } from './problem.js';
import { patternOf, type Route } from './route.js';

/** An address that answers, and how it is asked. */
type Answers = Pick<Route, 'method' | 'path'>;

/** Answers what no route does: the address is not there, or not asked in this way. */
export function notDone(routes: readonly Answers[]): RequestHandler {
  const known = routes.map(({ method, path }) => ({
    method: method.toUpperCase(),
    path: patternOf(path),
  }));
  return (request, response) => {
    const path = `/api${request.path}`;
    const here = known.filter((one) => one.path.test(path)).map(({ method }) => method);
    if (here.length === 0) return sendProblem(response, notFound('address'));
    notThisWay(
      response,
      here.flatMap((method) => (method === 'GET' ? ['GET', 'HEAD'] : [method])),
    );
  };
}

export function notThisWay(response: Response, ways: readonly string[]): void {
  response.set('Allow', ways.join(', '));
  sendProblem(response, new ProblemError(405, 'This cannot be done here.'));
}
