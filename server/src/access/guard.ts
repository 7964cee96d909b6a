import type { RequestHandler } from 'express';
import { ProblemError, sendProblem } from '../http/problem.js';
import { ownNames } from './names.js';

/** Answers only who asks for this server by one of its names: a page of another site can point its own name here. */
export function ownNamesOnly(origin?: string): RequestHandler {
  const isOwn = ownNames(origin);
  return (request, response, next) => {
    // Of two Host headers one is somebody's trick (RFC 9112, 3.2).
    const hosts = request.rawHeaders.filter((name, i) => i % 2 === 0 && /^host$/i.test(name));
    if (hosts.length === 1 && isOwn(request.headers.host)) return next();
    sendProblem(
      response,
      new ProblemError(421, 'This Needlecase does not go by that name.', {
        detail:
          'Use the address that it told at its start, or set NEEDLECASE_ORIGIN to the one you want.',
      }),
    );
  };
}

const READS = ['GET', 'HEAD', 'OPTIONS'];

/** Other sites' pages, and other programs' on the same host, may not write here, though they can reach the address. */
export const ownOriginOnly =
  (own?: string): RequestHandler =>
  (request, response, next) => {
    if (READS.includes(request.method)) {
      // What another site's page has a browser read costs work here, and tells it nothing. That we are there it may ask.
      const foreign = request.get('Sec-Fetch-Site') === 'cross-site';
      if (!foreign || request.baseUrl + request.path === '/api/v1/health') return next();
      return sendProblem(response, new ProblemError(403, 'This was asked from another site.'));
    }
    const origin = request.get('Origin');
    const site = request.get('Sec-Fetch-Site');
    const here = `${request.secure ? 'https' : 'http'}://${request.headers.host?.toLowerCase()}`;
    const fits =
      (origin === undefined || origin === here || origin === own) &&
      (site === undefined || site === 'same-origin' || site === 'none');
    if (fits) return next();
    sendProblem(response, new ProblemError(403, 'This was asked from another site.'));
  };
