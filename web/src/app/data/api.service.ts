import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type { FieldProblem } from '@needlecase/core';
import { catchError, throwError, type Observable } from 'rxjs';

/** What went wrong with a request, in words that can be shown. */
export class ApiProblem extends Error {
  constructor(
    /** 0 when the server could not be reached. */
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
}

/** A request to change something. */
interface Change {
  /** The version being changed, for records. */
  version?: number;
  /** The same key for each try of the same deed. */
  key?: string;
}

/** The one way to the server. */
@Injectable({ providedIn: 'root' })
export class ApiService {
  readonly #http = inject(HttpClient);

  get<T>(path: string, params: Record<string, string | number | boolean> = {}): Observable<T> {
    return this.#http.get<T>(`/api/v1/${path}`, { params }).pipe(catchError(asProblem));
  }

  send<T>(
    method: 'POST' | 'PUT' | 'PATCH' | 'DELETE',
    path: string,
    body: unknown,
    { version, key }: Change = {},
  ): Observable<T> {
    const headers = {
      ...(version === undefined ? {} : { 'If-Match': `"${version}"` }),
      ...(key === undefined ? {} : { 'Idempotency-Key': key }),
    };
    return this.#http
      .request<T>(method, `/api/v1/${path}`, { body, headers })
      .pipe(catchError(asProblem));
  }
}

function asProblem(error: unknown): Observable<never> {
  return throwError(() => (error instanceof HttpErrorResponse ? read(error) : error));
}

function read({ status, error }: HttpErrorResponse): ApiProblem {
  // The service worker answers 504 where there is no connection and nothing is kept.
  if (status === 0 || status === 504) {
    return new ApiProblem(
      0,
      'The server cannot be reached.',
      'What you entered is still here. Try again when the connection is back.',
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
