import {
  HttpErrorResponse,
  HttpHeaders,
  HttpResponse,
  type HttpInterceptorFn,
} from '@angular/common/http';
import { catchError, from, switchMap, throwError } from 'rxjs';

/** Requests that the page's head sent off before the program was there, by their path; see `theme.js`. */
const early = (globalThis as { needlecaseEarly?: Record<string, Promise<Response>> })
  .needlecaseEarly;

/** Gives the answer to what was asked already, once; where it went wrong on the way it is asked again. */
export const askedEarly: HttpInterceptorFn = (request, next) => {
  const asked = request.method === 'GET' ? early?.[request.urlWithParams] : undefined;
  if (!early || !asked) return next(request);
  delete early[request.urlWithParams];
  return from(asked.then(async (response) => ({ response, body: await response.text() }))).pipe(
    switchMap(({ response: { ok, status, statusText, headers, url }, body }) => {
      const told = { status, statusText, url, headers: new HttpHeaders(headers) };
      if (ok) return [new HttpResponse({ ...told, body: JSON.parse(body) as unknown })];
      return throwError(() => new HttpErrorResponse({ ...told, error: body }));
    }),
    catchError((problem: unknown) =>
      problem instanceof HttpErrorResponse ? throwError(() => problem) : next(request),
    ),
  );
};
