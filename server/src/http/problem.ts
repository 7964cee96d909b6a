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

/** For now; what was sent can be sent again. */
export const heldBack = (
  why: string,
  detail = 'Nothing was stored. It can be sent again in a moment.',
): ProblemError => new ProblemError(503, why, { detail });

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

/** Whether a fault of the data file says that there is no more room. */
export const isFull = (code: unknown): boolean => typeof code === 'string' && FULL.test(code);

/**
 * Turns whatever went wrong into problem details; what is not meant for people is only logged.
 * @param told is told the codes of faults of the data file
 */
export const problemsOf =
  (told: (code: unknown) => void): ErrorRequestHandler =>
  (error, request, response, next) => {
    told((error as { code?: unknown }).code);
    problems(error, request, response, next);
  };

const problems: ErrorRequestHandler = (error, request, response, next) => {
  if (response.headersSent) return next(error);
  if (error instanceof ProblemError) return sendProblem(response, error);
  if (error instanceof URIError) return sendProblem(response, notFound('page'));
  const said = askew(error as Askew);
  if (said) {
    return sendProblem(
      response,
      new ProblemError(said[0], said[1], { detail: 'Nothing was stored.' }),
    );
  }
  // Logged with the request, in one line.
  response.err = error as Error;
  sendProblem(
    response,
    ofTheFile((error as { code?: unknown }).code) ??
      new ProblemError(500, 'Something went wrong here.', {
        detail: 'Nothing was stored. Try again; if it stays, the log of the server says more.',
      }),
  );
};

/** An error of what reads requests and gives out files. */
interface Askew {
  type?: string;
  status?: number;
  limit?: number;
}

/** What those say, by their kind, or else by their status. */
const SAID: Readonly<Record<string, [status: number, words: string]>> = {
  'entity.parse.failed': [400, 'This is not JSON that can be read.'],
  'encoding.unsupported': [415, 'This encoding is not read here.'],
  'charset.unsupported': [415, 'Send UTF-8.'],
  'request.aborted': [400, 'The request broke off.'],
  412: [412, 'This is not the file that you have.'],
  416: [416, 'The file does not have such a part.'],
};

/** What came in askew: its status and its words; nothing where it is our own fault. */
function askew({ type = '', status = 500, limit = 0 }: Askew): [number, string] | undefined {
  if (type === 'entity.too.large') return [413, `This is larger than ${limit / 1e6} MB.`];
  const said = SAID[type] ?? SAID[status];
  if (said || status < 400 || status >= 500) return said;
  return status === 404 ? [404, 'There is no such page.'] : [status, 'This cannot be read.'];
}

const FULL = /^SQLITE_FULL|^ENOSPC|^EDQUOT/;

/** What the data file's own faults are to whoever asked. */
const OF_THE_FILE: readonly [RegExp, number, string, string][] = [
  [
    FULL,
    507,
    'The disk of the server is full.',
    'Nothing was stored. What is there can be read. When there is room again, it can be sent again.',
  ],
  [
    /^SQLITE_(BUSY|LOCKED)/,
    503,
    'Another program holds the data file.',
    'Nothing was stored. It can be sent again in a moment.',
  ],
  [
    /^SQLITE_(READONLY|CANTOPEN|PERM)|^E(ACCES|PERM|ROFS)/,
    503,
    'The data file cannot be written.',
    'Nothing was stored. Look who may write where the server keeps its data, and that it was not moved.',
  ],
  [
    /^SQLITE_(CORRUPT|NOTADB|IOERR)|^EIO/,
    500,
    'The data file is damaged, or its disk is.',
    'Nothing was stored. Look at House > Backup: put the last good one back, on another disk.',
  ],
];

function ofTheFile(code: unknown): ProblemError | undefined {
  if (typeof code !== 'string') return undefined;
  const found = OF_THE_FILE.find(([which]) => which.test(code));
  return found && new ProblemError(found[1], found[2], { detail: found[3] });
}
