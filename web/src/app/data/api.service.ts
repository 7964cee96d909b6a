import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type { FieldProblem } from '@needlecase/core';
import { catchError, throwError, timeout, TimeoutError, type Observable } from 'rxjs';

/** A page that lets one sign in, say. */
export const SOMETHING_ELSE = 'Something else answered than the Needlecase server.';

/** What went wrong with a request, in words that can be shown. */
export class ApiProblem extends Error {
  constructor(
    /** 0 when the server could not be reached, or what answered was not the server. */
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly errors: FieldProblem[] = [],
    readonly current?: unknown,
  ) {
    super(title);
  }

  get unreachable(): boolean {
    return this.status === 0;
  }

  /** What keeps something from leaving, in words; nothing where there is only no connection. */
  get hindrance(): string {
    if (this.unreachable && this.title !== SOMETHING_ELSE) return '';
    return `${this.title} ${this.detail}`.trim();
  }
}

/** What is said of a problem where it has no field to stand beside. */
export const wordsOf = ({ errors: [first], title, detail }: ApiProblem): string =>
  first?.message ?? `${title} ${detail}`;

/** A request to change something. */
interface Change {
  /** The version being changed, for records. */
  version?: number;
  /** The same key for each try of the same deed. */
  key?: string;
  /** The household it is for: the server of another one refuses it. */
  house?: string;
  /** How long an answer is waited for, ms, where it may take its time. */
  patience?: number;
}

/** After so long nobody answers any more, ms: a connection can die without a word. */
const PATIENCE = { read: 20_000, change: 12_000, picture: 120_000 } as const;

/** The one way to the server. */
@Injectable({ providedIn: 'root' })
export class ApiService {
  readonly #http = inject(HttpClient);

  get<T>(path: string, params: Record<string, string | number | boolean> = {}): Observable<T> {
    return this.#http
      .get<T>(`/api/v1/${path}`, { params })
      .pipe(timeout(PATIENCE.read), catchError(asProblem));
  }

  send<T>(
    method: 'POST' | 'PUT' | 'PATCH' | 'DELETE',
    path: string,
    body: unknown,
    { version, key, house, patience }: Change = {},
  ): Observable<T> {
    const headers = {
      ...(version === undefined ? {} : { 'If-Match': `"${version}"` }),
      ...(key === undefined ? {} : { 'Idempotency-Key': key }),
      ...(house === undefined ? {} : { 'Needlecase-Household': house }),
    };
    return this.#http
      .request<T>(method, `/api/v1/${path}`, { body, headers })
      .pipe(
        timeout(patience ?? (body instanceof Blob ? PATIENCE.picture : PATIENCE.change)),
        catchError(asProblem),
      );
  }
}

const STILL_HERE = 'What you entered is still here. Try again when the connection is back.';

const asProblem = (error: unknown): Observable<never> => throwError(() => problemOf(error));

function problemOf(error: unknown): unknown {
  if (error instanceof TimeoutError) {
    return new ApiProblem(0, 'The server does not answer.', STILL_HERE);
  }
  return error instanceof HttpErrorResponse ? read(error) : error;
}

function read({ status, error, headers }: HttpErrorResponse): ApiProblem {
  // The service worker answers 504 where there is no connection and nothing is kept.
  if (status === 0 || status === 504) {
    return new ApiProblem(0, 'The server cannot be reached.', STILL_HERE);
  }
  // Whatever the server refuses, it says in problem details (RFC 9457); a login page does not.
  if (!headers.get('Content-Type')?.includes('problem+json')) {
    return new ApiProblem(
      0,
      SOMETHING_ELSE,
      `${STILL_HERE} A network that wants you to sign in first does this.`,
    );
  }
  const problem = parsed(error);
  return new ApiProblem(
    status,
    problem.title ?? 'Something went wrong.',
    problem.detail ?? '',
    problem.errors ?? [],
    problem.current,
  );
}

interface ProblemBody {
  title?: string;
  detail?: string;
  errors?: FieldProblem[];
  current?: unknown;
}

function parsed(body: unknown): ProblemBody {
  if (typeof body !== 'string') return body ?? {};
  try {
    return JSON.parse(body) as ProblemBody;
  } catch {
    return {};
  }
}
