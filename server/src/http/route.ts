import { check, type FieldProblem, type ValidatedName } from '@needlecase/core';
import type { Express, Request, RequestHandler } from 'express';
import type { TSchema } from 'typebox';
import { VALIDATED } from '@needlecase/core/model/schemas';
import { createHash } from 'node:crypto';
import type { Store } from '../store/store.js';
import { invalid, ProblemError } from './problem.js';

/** What a route is told about a request, already checked. */
export interface Ask {
  params: { id: string };
  query: Record<string, unknown>;
  body: unknown;
  /** Version named in If-Match. */
  version: number;
}

/** What a route answers. */
export interface Answer {
  status?: number;
  body: unknown;
  /** Version for the ETag of a record. */
  version?: number;
  /** What a file is to be called when it is kept. */
  fileName?: string;
}

/** One address of the API; from it come the handler and its place in the OpenAPI document. */
export interface Route {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** With `{id}` where an id stands. */
  path: string;
  summary: string;
  query?: ValidatedName;
  body?: ValidatedName;
  /** Media type of a body that is no JSON. */
  takes?: string;
  /** Schema of a good answer. */
  answers: TSchema;
  /** Media type of an answer that is no JSON; it never changes once given where `forGood`. */
  gives?: string;
  forGood?: true;
  /** Only reckons: it makes nothing, and answers 200. */
  reckons?: true;
  /** Changes a record: If-Match is needed. */
  guarded?: true;
  handle(ask: Ask): Answer;
}

/** An address whose answer is a file that takes time to make. */
export interface FileRoute extends Omit<Route, 'method' | 'handle'> {
  method: 'get';
  gives: 'application/pdf';
  handle(ask: Ask): Promise<Answer>;
}

/** Mounts a route: checks what came in, answers, and keeps the answer for retries. */
export function mount(app: Express, route: Route | FileRoute, store: Store): void {
  const path = route.path.replaceAll(/\{(\w+)\}/g, ':$1');
  const handler: RequestHandler = async (request, response) => {
    const answer = isFile(route)
      ? await route.handle(read(route, request))
      : answerOnce(route, request, store, () => route.handle(read(route, request)));
    response.status(answer.status ?? 200);
    if (answer.version !== undefined) response.set('ETag', `"${answer.version}"`);
    response.set(
      'Cache-Control',
      route.forGood ? 'private, max-age=31536000, immutable' : 'no-store',
    );
    if (!route.gives) return void response.json(answer.body);
    if (answer.fileName) response.attachment(answer.fileName);
    response.type(route.gives).send(answer.body);
  };
  app[route.method](path, handler);
}

const isFile = (route: Route | FileRoute): route is FileRoute => route.gives === 'application/pdf';

function read(route: Route | FileRoute, request: Request): Ask {
  const params = request.params as { id: string };
  if (route.path.includes('{id}')) mustBeRight(check('IdParams', params));
  const query = route.query ? coerced(request.query, VALIDATED[route.query]) : {};
  if (route.query) mustBeRight(check(route.query, query));
  if (route.takes && !Buffer.isBuffer(request.body)) {
    throw new ProblemError(415, `Send the content type ${route.takes}.`, {
      detail: 'Nothing was stored.',
    });
  }
  if (route.body) {
    if (request.body === undefined) {
      throw new ProblemError(415, 'Send JSON, with the content type application/json.');
    }
    mustBeRight(check(route.body, request.body));
  }
  return {
    params,
    query,
    body: request.body as unknown,
    version: route.guarded ? versionOf(request) : 0,
  };
}

const mustBeRight = (problems: FieldProblem[]): void => {
  if (problems.length) throw invalid(problems);
};

function versionOf(request: Request): number {
  const match = /^"(\d+)"$/.exec(request.get('If-Match') ?? '');
  if (!match) {
    throw new ProblemError(428, 'Say which version you are changing.', {
      detail: 'Send its ETag as If-Match, so that nobody’s change is overwritten.',
    });
  }
  return Number(match[1]);
}

/** Query strings are text; numbers and truth values are read where the schema wants them. */
function coerced(query: Request['query'], schema: TSchema): Record<string, unknown> {
  const wanted = (schema as { properties?: Record<string, { type?: string }> }).properties ?? {};
  return Object.fromEntries(
    Object.entries(query).map(([name, value]: [string, unknown]): [string, unknown] => {
      const type = wanted[name]?.type;
      if (type === 'integer' && typeof value === 'string' && value.trim() !== '') {
        const number = Number(value);
        return [name, Number.isNaN(number) ? value : number];
      }
      if (type === 'boolean' && (value === 'true' || value === 'false'))
        return [name, value === 'true'];
      return [name, value];
    }),
  );
}

/**
 * Does the work of a request in one transaction. With an Idempotency-Key the answer is stored in the
 * same transaction: a retry gets the stored answer and does nothing, even after a crash in between.
 */
function answerOnce(route: Route, request: Request, store: Store, work: () => Answer): Answer {
  const key = request.get('Idempotency-Key');
  if (route.method === 'get') return work();
  if (key === undefined) return store.write(work);
  if (key.length < 8 || key.length > 100) {
    throw new ProblemError(400, 'An Idempotency-Key has 8 to 100 characters.');
  }
  const print = createHash('sha256')
    .update(`${request.method} ${request.path}\n${JSON.stringify(request.body ?? null)}`)
    .digest('hex');
  return store.write(() => {
    const kept = store.answers.find(key);
    if (kept && kept.request !== print) {
      throw new ProblemError(422, 'This Idempotency-Key was used for something else.');
    }
    if (kept) return kept.answer;
    const answer = work();
    store.answers.keep(key, print, answer);
    return answer;
  });
}
