import type { AnswerName, ApiAnswers, FieldProblem } from '@needlecase/core';
import { check } from '@needlecase/core';
import { checkQuery } from '@needlecase/core/model/check-asked';
import { keptForm, keptId } from '@needlecase/core/model/ids';
import { DRAFTS, QUERIES, type DraftName, type QueryName } from '@needlecase/core/model/schemas';
import type { Express, Request, RequestHandler, Response } from 'express';
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setImmediate as breathe } from 'node:timers/promises';
import type { Static, TSchema } from 'typebox';
import { isInPieces, isOnDisk, type Answer, type FileOnDisk, type InPieces } from './answer.js';
import type { Caller } from '../access/caller.js';
import { forgetSecret, keepSecret } from '../access/cookie.js';
import { isHere } from '../access/here.js';
import { isChecked } from './checked.js';
import { arrivedAt } from './lanes.js';
import type { LoopWatch } from './loop-watch.js';
import { sendWritten } from './packed.js';
import { mustBeRight, ProblemError } from './problem.js';

/** What a route is told about a request, already checked. */
export interface Ask<Body = unknown, Query = unknown> {
  params: { id: string };
  query: Query;
  body: Body;
  /** What `looks` of the route found. */
  looked?: unknown;
  /** Version named in If-Match. */
  version: number;
  /** Who asks. */
  caller: Caller;
  /** Nobody reads on the way: over https, or at the server's own computer. */
  safe: boolean;
  /** The address that was asked, without a path. */
  host: string;
  /** When it came in, by `performance.now()`: what is answered may be of any moment since. */
  arrived: number;
}

/** One address of the API; from it come the handler and its place in the OpenAPI document. */
export interface Route {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** With `{id}` where an id stands. */
  path: string;
  summary: string;
  query?: QueryName;
  body?: DraftName;
  /** A body that has no draft: its schema, and what is wrong with it. */
  reads?: { schema: object; check: (body: unknown) => FieldProblem[] };
  /** Media type of a body that is no JSON. */
  takes?: string;
  /** Also takes a value a line of JSON. */
  lines?: true;
  /** The largest body, bytes; where nothing is said, as much as is usual, and of a file as much as comes. */
  most?: number;
  /** Looks at what came in, in a cell and before anything is stored; its answer is handed on. */
  looks?(ask: Ask): Promise<unknown>;
  /** Schema of a good answer: of a record, by itself; of what is worked out, by its name. */
  answers: TSchema | AnswerName | { derived: object };
  /** Media type of an answer that is no JSON; it never changes once given where `forGood`. */
  gives?: string;
  forGood?: true;
  /** Only reckons: it makes nothing, answers 200, and may take its time. */
  reckons?: true;
  /** Changes a record: If-Match is needed. */
  guarded?: true;
  /** Long work with a transaction of its own. */
  apart?: true;
  handle(ask: Ask): Answer | Promise<Answer>;
}

type BodyOf<B> = B extends DraftName
  ? Static<(typeof DRAFTS)[B]>
  : B extends 'image/jpeg'
    ? Buffer
    : undefined;
type QueryOf<Q> = Q extends QueryName ? Static<(typeof QUERIES)[Q]> : undefined;
type AnswerOf<A> = A extends AnswerName ? ApiAnswers[A] : A extends TSchema ? Static<A> : never;

/**
 * A route whose handler gets what its schemas say, and must answer what they say.
 *
 * @example
 *   route({
 *     method: 'post', path: '/api/v1/supplies', summary: 'Keep a supply',
 *     body: 'SupplyDraft', answers: schemas.Supply,
 *     handle: ({ body }) => ({ status: 201, body: store.supplies.create(body) }),
 *   })
 */
export function route<
  A extends TSchema | AnswerName,
  B extends DraftName | undefined = undefined,
  Q extends QueryName | undefined = undefined,
>(
  spec: Omit<Route, 'answers' | 'body' | 'query' | 'handle' | 'takes' | 'gives' | 'reads'> & {
    answers: A;
    body?: B;
    query?: Q;
    handle(ask: Ask<BodyOf<B>, QueryOf<Q>>): Answer<AnswerOf<A>>;
  },
): Route {
  return spec as Route;
}

/** A route that takes a picture in. */
export const pictureRoute = <A extends TSchema>(
  spec: Omit<Route, 'answers' | 'handle' | 'takes' | 'gives' | 'body' | 'query' | 'reads'> & {
    answers: A;
    handle(ask: Ask<Buffer>): Answer<Static<A>>;
  },
): Route => ({ ...spec, takes: 'image/jpeg' });

/** A route that takes a file in, with what is told of it in its address. */
export const bytesRoute = <A extends TSchema, Q extends QueryName>(
  spec: Omit<Route, 'answers' | 'handle' | 'takes' | 'gives' | 'body' | 'query' | 'reads'> & {
    answers: A;
    query: Q;
    handle(ask: Ask<Buffer, QueryOf<Q>>): Answer<Static<A>>;
  },
): Route => ({ ...spec, takes: 'application/octet-stream' });

type FileBody = Buffer | FileOnDisk | InPieces;

/** A route that gives a file out; one that takes time to make is promised. */
export const fileRoute = <Q extends QueryName | undefined = undefined>(
  spec: Omit<Route, 'method' | 'answers' | 'body' | 'query' | 'reads' | 'handle'> & {
    query?: Q;
    gives:
      | 'application/pdf'
      | 'application/zip'
      | 'application/json'
      | 'application/schema+json'
      | 'application/octet-stream'
      | 'image/jpeg'
      | 'text/calendar'
      | 'text/csv';
    handle(ask: Ask<unknown, QueryOf<Q>>): Answer<FileBody> | Promise<Answer<FileBody>>;
  },
): Route => ({ ...spec, method: 'get', answers: FILE }) as Route;

/** A route that takes time: it may be given a stream, checks its body itself, and is in no transaction. */
export const longRoute = <A extends TSchema>(
  spec: Omit<Route, 'answers' | 'handle' | 'gives' | 'body' | 'query' | 'apart'> & {
    answers: A;
    handle(ask: Ask): Answer<Static<A>> | Promise<Answer<Static<A>>>;
  },
): Route => ({ ...spec, apart: true });

/** Something that is worked out in a thread of its own, or a little at a time. */
export const workedRoute = <A extends AnswerName, Q extends QueryName | undefined = undefined>(
  spec: Omit<Route, 'method' | 'answers' | 'handle' | 'gives' | 'body' | 'query' | 'reads'> & {
    answers: A;
    query?: Q;
    handle(ask: Ask<unknown, QueryOf<Q>>): Promise<Answer<ApiAnswers[A]>>;
  },
): Route => ({ ...spec, method: 'get' }) as Route;

const FILE = { derived: { type: 'string', format: 'binary' } };

/** What keeps answers for retries, and the transactions around a route's work. */
export interface Keeper {
  write<T>(work: () => T): T;
  answers: {
    find(key: string): { request: string; answer: Answer } | undefined;
    keep(key: string, request: string, answer: Answer): void;
  };
}

/** Knows who asks, and what they may. */
export interface Admits {
  /** @throws 401 or 403 */
  admit(key: string, request: Request): Caller;
}

/** The name of a route in the table of who may ask for what. */
export const keyOf = ({ method, path }: Pick<Route, 'method' | 'path'>): string =>
  `${method} ${path}`;

/** What an address of the API looks like; where an id stands is a group. It is read as Express reads it. */
export const patternOf = (path: string): RegExp =>
  new RegExp(`^${path.replaceAll(/\{\w+\}/g, '([^/]+)')}/?$`, 'i');

/** Whether a route is handed its body as it comes: a file that goes to the disk. */
export const isStreamed = ({ takes, most }: Route): boolean =>
  takes !== undefined && most === undefined;

/** Mounts a route: lets in who may, checks what came in, answers, and keeps the answer for retries. */
export function mount(
  app: Express,
  route: Route,
  keeper: Keeper,
  access: Admits,
  loop: Pick<LoopWatch, 'during'>,
): void {
  const path = route.path.replaceAll(/\{(\w+)\}/g, ':$1');
  const key = keyOf(route);
  const handler: RequestHandler = async (request, response) => {
    const caller = access.admit(key, request);
    const ask = read(route, request, caller);
    if (route.looks) ask.looked = await route.looks(ask);
    const work = () => loop.during(key, () => route.handle(ask));
    const answer =
      route.method === 'get' || route.reckons || route.apart
        ? await work()
        : answerOnce(request, keeper, work as () => Answer);
    response.status(answer.status ?? 200);
    if (answer.secret === null) forgetSecret(request, response);
    else if (answer.secret !== undefined) keepSecret(request, response, answer.secret);
    if (answer.version !== undefined) response.set('ETag', `"${answer.version}"`);
    response.set(
      'Cache-Control',
      route.forGood ? 'private, max-age=31536000, immutable' : 'no-store',
    );
    if (answer.written !== undefined) {
      return sendWritten(request, response, answer, answer.written);
    }
    if (!route.gives) {
      return loop.during(`${key}, written`, () => void response.json(answer.body));
    }
    if (answer.fileName) response.attachment(answer.fileName);
    if (answer.shown) {
      response.attachment(answer.shown);
      response.set('Content-Disposition', inline(response.get('Content-Disposition')));
    }
    response.type(answer.type ?? route.gives);
    if (isInPieces(answer.body)) return void (await streamed(response, answer.body));
    if (!isOnDisk(answer.body)) return void response.send(answer.body);
    await sent(response, answer.body);
  };
  app[route.method](path, handler);
}

/** To be shown, and to be called so where it is kept. */
const inline = (disposition = ''): string => disposition.replace(/^attachment/, 'inline');

/** Sends what is made on the way; whoever else asks meanwhile is answered between two pieces. */
async function streamed(response: Response, { pieces, done }: InPieces): Promise<void> {
  async function* breathing(): AsyncGenerator<string> {
    for (const piece of pieces) {
      yield piece;
      await breathe();
    }
  }
  try {
    await pipeline(Readable.from(breathing(), { objectMode: true, highWaterMark: 1 }), response);
  } catch (error) {
    // Cut off rather than ended: nobody takes a part of it for the whole.
    if (!response.headersSent) throw error;
    const { code } = error as { code?: string };
    // Whoever asked may have gone away; anything else is for the log.
    if (code !== 'ERR_STREAM_PREMATURE_CLOSE') response.err = error as Error;
    response.destroy();
  } finally {
    done?.();
  }
}

/** Sends a file from its folder, and lets it go. */
async function sent(response: Response, { path, done }: FileOnDisk): Promise<void> {
  try {
    response.set('Content-Length', String((await stat(path)).size));
    await pipeline(createReadStream(path), response);
  } catch (error) {
    // Whoever asked may have gone away.
    if (!response.headersSent) throw error;
    response.destroy();
  } finally {
    await done();
  }
}

function read(route: Route, request: Request, caller: Caller): Ask {
  const params = request.params as { id: string };
  if (route.path.includes('{id}')) mustBeRight(checkQuery('IdParams', { ...params }));
  const query: object = { ...request.query };
  if (route.query) mustBeRight(checkQuery(route.query, query));
  const streams = isStreamed(route);
  if (streams ? !request.is(route.takes!) : route.takes && !Buffer.isBuffer(request.body)) {
    throw new ProblemError(415, `Send the content type ${route.takes}.`, {
      detail: 'Nothing was stored.',
    });
  }
  if (route.body ?? route.reads) {
    if (request.body === undefined) {
      throw new ProblemError(415, 'Send JSON, with the content type application/json.');
    }
    mustBeRight(
      route.body
        ? isChecked(request.body, route.body)
          ? []
          : check(route.body, request.body)
        : route.reads!.check(request.body as unknown),
    );
  }
  return {
    params: { ...params, ...(params.id === undefined ? {} : { id: keptId(params.id) }) },
    query: route.query ? keptForm(QUERIES[route.query], query) : query,
    body: bodyOf(route, request),
    version: route.guarded ? versionOf(request) : 0,
    caller,
    safe: request.secure || isHere(request),
    host: `${request.protocol}://${request.headers.host}`,
    arrived: arrivedAt(request),
  };
}

/** A body as it is kept: its instants, ids and texts by its schema. */
function bodyOf(route: Route, request: Request): unknown {
  if (isStreamed(route)) return request;
  const schema = route.body ? DRAFTS[route.body] : (route.reads?.schema as TSchema | undefined);
  const body = request.body as unknown;
  return schema && typeof body === 'object' ? keptForm(schema, body) : body;
}

function versionOf(request: Request): number {
  const match = /^"(\d+)"$/.exec(request.get('If-Match') ?? '');
  if (!match) {
    throw new ProblemError(428, 'Say which version you are changing.', {
      detail: 'Send its ETag as If-Match, so that nobody’s change is overwritten.',
    });
  }
  return Number(match[1]);
}

/**
 * Does the work of a request in one transaction. With an Idempotency-Key the answer is stored in the
 * same transaction: a retry gets the stored answer and does nothing, even after a crash in between.
 */
function answerOnce(request: Request, keeper: Keeper, work: () => Answer): Answer {
  const key = request.get('Idempotency-Key');
  if (key === undefined) return keeper.write(work);
  if (key.length < 8 || key.length > 100) {
    throw new ProblemError(400, 'An Idempotency-Key has 8 to 100 characters.');
  }
  return keptOnce(key, request, keeper, work);
}

/** A deed with its name, and what its answer is kept for. */
interface Deed {
  method: string;
  path: string;
  body: unknown;
}

function keptOnce(
  key: string,
  { method, path, body }: Deed,
  keeper: Keeper,
  work: () => Answer,
): Answer {
  const print = createHash('sha256')
    .update(`${method} ${path}\n${JSON.stringify(body ?? null)}`)
    .digest('hex');
  return keeper.write(() => {
    const kept = keeper.answers.find(key);
    if (kept && kept.request !== print) {
      throw new ProblemError(422, 'This Idempotency-Key was used for something else.');
    }
    if (kept) return kept.answer;
    const answer = work();
    keeper.answers.keep(key, print, answer);
    return answer;
  });
}

/**
 * Does later, for somebody else, what was asked of a route before; whoever asks again under the same key gets the
 * answer of this.
 * @throws what the route does
 */
export function doLater(
  route: Route,
  deed: { key: string; path: string; body: unknown },
  keeper: Keeper,
  caller: Caller,
): Answer {
  const { key, path, body } = deed;
  const [, id = ''] = patternOf(route.path).exec(path) ?? [];
  if (route.path.includes('{id}')) mustBeRight(checkQuery('IdParams', { id }));
  if (route.body) mustBeRight(check(route.body, body));
  const ask: Ask = {
    params: { id: keptId(id) },
    query: {},
    body: route.body ? keptForm(DRAFTS[route.body], body) : undefined,
    version: 0,
    caller,
    safe: true,
    host: '',
    arrived: performance.now(),
  };
  const method = route.method.toUpperCase();
  return keptOnce(key, { method, path, body }, keeper, () => route.handle(ask) as Answer);
}
