import express, { type Request, type RequestHandler, type Response } from 'express';
import type { IncomingMessage } from 'node:http';
import type { Access } from './access.js';
import { isSound, noteChecked } from '../http/checked.js';
import { ProblemError, sendProblem } from '../http/problem.js';
import { isStreamed, keyOf, patternOf, type Route } from '../http/route.js';
import { SMALL, USUAL } from '../http/sizes.js';
import { soundOnly } from '../http/sound.js';
import type { Cells } from '../threads/cells.js';

/** Bytes on their way at once, in all, of one device, and of all that nobody knows. */
const CEILINGS = { all: 160_000_000, device: 60_000_000, unknown: 2_000_000 };
/** Requests that are being answered at once, of one device, and of all that nobody knows. */
export const UNDER_WAY = { device: 200, unknown: 60 };
/** A body of which nothing more comes for so long is let go, ms. */
const STILL_MS = 30_000;

/** What is on its way, by whom. */
class InFlight {
  #all = 0;
  readonly #by = new Map<string, number>();

  constructor(private readonly most: { all: number; device: number; unknown: number }) {}

  /** @returns what gives it back, or nothing where it is too much at once */
  take(who: string, amount: number): (() => void) | undefined {
    const own = (this.#by.get(who) ?? 0) + amount;
    const most = who === UNKNOWN ? this.most.unknown : this.most.device;
    if (own > most || this.#all + amount > this.most.all) return undefined;
    this.#by.set(who, own);
    this.#all += amount;
    return () => {
      this.#all -= amount;
      const left = this.#by.get(who)! - amount;
      if (left > 0) this.#by.set(who, left);
      else this.#by.delete(who);
    };
  }
}
const UNKNOWN = 'unknown';

/** A route with the addresses that it answers. */
interface Known {
  route: Route;
  path: RegExp;
}

const methodOf = ({ method }: Request): string =>
  method === 'HEAD' ? 'get' : method.toLowerCase();

/** The bytes that a request says it has; nothing where it has a body and does not say. */
function lengthOf(request: Request): number | undefined {
  const said = request.headers['content-length'];
  if (said !== undefined) return Number(said);
  return request.headers['transfer-encoding'] === undefined ? 0 : undefined;
}

/**
 * Decides from what stands before a body whether it is read at all: whether there is such an address, who asks and what
 * they may, how large it is, and how much is on its way already. Then it is read: what is large, beside the loop.
 */
export function admission(
  routes: readonly Route[],
  { access, cells, notDone }: { access: Access; cells: Cells; notDone: RequestHandler },
): RequestHandler {
  const known: Known[] = routes.map((route) => ({
    route,
    path: patternOf(route.path),
  }));
  const bytes = new InFlight(CEILINGS);
  const underWay = new InFlight({ all: Infinity, ...UNDER_WAY });

  return (request, response, next) => {
    const path = request.baseUrl + request.path;
    const here = known.filter((one) => one.path.test(path));
    const route = here.find((one) => one.route.method === methodOf(request))?.route;
    // Nothing is read of what nobody answers.
    if (!route) return notDone(request, response, next);
    const who = whoOf(access, request);
    if (!isForLife(route)) {
      const done = underWay.take(who, 1);
      if (!done) return tooMuch(response);
      response.once('close', done);
    }
    const length = lengthOf(request);
    if (route.method === 'get' || length === 0) {
      access.knock(keyOf(route), request);
      return next();
    }
    const most = access.knock(keyOf(route), request) ? (route.most ?? USUAL) : SMALL;
    if (length !== undefined && length > most) throw tooLarge(most);
    const streams = isStreamed(route);
    // What is streamed to the disk is never whole in memory.
    const free = bytes.take(who, streams ? SMALL : (length ?? most));
    if (!free) return tooMuch(response);
    response.once('close', free);
    endsWhenStill(request);
    if (streams) return next();
    parsed(
      route,
      length,
      most,
      cells,
    )(request, response, (error?: unknown) => {
      if (error) return next(error);
      if (isSound(request.body)) return next();
      soundOnly(request, response, next);
    });
  };
}

const TOO_MUCH = new ProblemError(503, 'Too much is on its way at once.', {
  detail: 'Nothing was stored. It can be sent again in a moment.',
});

/** Whether the server lives is answered however many ask. */
const isForLife = ({ path }: Route): boolean => /\/(health|ready)$/.test(path);

function tooMuch(response: Response): void {
  response.set({ 'Retry-After': '5', Connection: 'close' });
  sendProblem(response, TOO_MUCH);
}

const tooLarge = (most: number): ProblemError =>
  new ProblemError(
    413,
    `This is larger than ${most >= 1_000_000 ? `${most / 1e6} MB` : `${most / 1000} kB`}.`,
    { detail: 'Nothing was stored.' },
  );

function whoOf(access: Access, request: Request): string {
  const caller = access.callerOf(request);
  if (caller.by === 'device') return `device ${caller.device.id}`;
  return caller.by === 'here' || caller.by === 'token' ? caller.by : UNKNOWN;
}

/**
 * Ends a request of which nothing more comes; not one whose answer takes its time.
 * @param after so long without a byte, ms
 */
export function endsWhenStill(request: IncomingMessage, after = STILL_MS): void {
  const { socket } = request;
  const end = (): void => void socket.destroy();
  socket.setTimeout(after, end);
  // Once: from the end of the answer on the socket waits as long as the server says.
  request.once('end', () => {
    socket.removeListener('timeout', end);
    socket.setTimeout(0);
  });
}

/** What reads a body of a route: small JSON at once, what is larger in a cell. */
function parsed(
  { takes, lines, body: draft }: Route,
  length: number | undefined,
  most: number,
  cells: Cells,
): RequestHandler {
  const limit = { limit: most, inflate: false };
  if (takes) return express.raw({ type: takes, ...limit });
  const inCell = cellJson(draft, limit, cells);
  const small = express.json({ strict: true, ...limit });
  const json = length !== undefined && length <= SMALL ? small : inCell;
  if (!lines) return json;
  const text = express.text({ type: LINES, ...limit });
  return (request, response, next) => (request.is(LINES) ? text : json)(request, response, next);
}

/** A value a line of JSON. */
const LINES = 'application/x-ndjson';

const cellJson =
  (
    draft: Route['body'],
    limit: { limit: number; inflate: boolean },
    cells: Cells,
  ): RequestHandler =>
  (request, response, next) => {
    express.raw({ type: 'application/json', ...limit })(request, response, (error?: unknown) => {
      const bytes: unknown = request.body;
      if (error || !Buffer.isBuffer(bytes)) return next(error);
      cells
        .read('json', { bytes, ...(draft ? { draft } : {}) }, '')
        .then((value) => {
          request.body = value;
          noteChecked(value as object, draft);
          next();
        })
        .catch(next);
    });
  };
