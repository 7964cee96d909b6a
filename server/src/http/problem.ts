import type { FieldProblem } from '@needlecase/core';
import type { ErrorRequestHandler, Response } from 'express';

/** Something to tell the client, as RFC 9457 problem details. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly more: {
      detail?: string;
      errors?: FieldProblem[];
      current?: unknown;
      yours?: unknown;
    } = {},
  ) {
    super(title);
  }
}

export const invalid = (errors: FieldProblem[]): ProblemError =>
  new ProblemError(422, 'Something here needs another look.', {
    detail: 'Nothing was stored.',
    errors,
  });

/** @throws 422 where anything is wrong */
export function mustBeRight(problems: FieldProblem[]): void {
  if (problems.length) throw invalid(problems);
}

export const notFound = (what: string): ProblemError =>
  new ProblemError(404, `There is no such ${what}.`);

export const stale = (current: unknown, yours: unknown): ProblemError =>
  new ProblemError(409, 'This was changed elsewhere in the meantime.', {
    detail: 'Nothing was overwritten. Both versions are here; choose what holds.',
    current,
    yours,
  });

export function sendProblem(response: Response, problem: ProblemError): void {
  const { status, title, more } = problem;
  response
    .status(status)
    .type('application/problem+json')
    .send(JSON.stringify({ type: 'about:blank', title, status, ...more }));
}

/** Turns whatever went wrong into problem details; what is not meant for people is only logged. */
export const problems: ErrorRequestHandler = (error, request, response, next) => {
  if (response.headersSent) return next(error);
  if (error instanceof ProblemError) return sendProblem(response, error);
  const kind = (error as { type?: string }).type;
  const known: Record<string, [number, string]> = {
    'entity.parse.failed': [400, 'This is not JSON that can be read.'],
    'entity.too.large': [
      413,
      `This is larger than ${((error as { limit?: number }).limit ?? 0) / 1e6} MB.`,
    ],
    'encoding.unsupported': [415, 'This encoding is not read here.'],
    'charset.unsupported': [415, 'Send UTF-8.'],
    'request.aborted': [400, 'The request broke off.'],
  };
  const said = kind ? known[kind] : undefined;
  if (said) {
    return sendProblem(
      response,
      new ProblemError(said[0], said[1], { detail: 'Nothing was stored.' }),
    );
  }
  if (error instanceof URIError) return sendProblem(response, notFound('page'));
  request.log?.error(error);
  sendProblem(
    response,
    new ProblemError(500, 'Something went wrong here.', {
      detail: 'Nothing was stored. Try again; if it stays, the log of the server says more.',
    }),
  );
};
