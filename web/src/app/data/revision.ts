import { HttpResponse, type HttpEvent, type HttpInterceptorFn } from '@angular/common/http';
import { tap } from 'rxjs';

/*
 * Whether what this page read is still the newest when the stream of changes begins. What changed between the
 * reading and the stream's beginning nobody tells; what the worker had kept may be long past.
 */

/** The revision of the first answer since everything was read anew. */
let readAt: string | undefined;

/** Whether something was read at another revision than the server has now; what is read from then on counts anew. */
export function isBehind(revision: string): boolean {
  const behind = readAt !== undefined && readAt !== revision;
  if (behind) readAt = undefined;
  return behind;
}

/** Hears at which revision something was read. */
export const hearsRevision: HttpInterceptorFn = (request, next) =>
  next(request).pipe(
    tap((event: HttpEvent<unknown>) => {
      if (event instanceof HttpResponse) {
        readAt ??= event.headers.get('Needlecase-Revision') ?? undefined;
      }
    }),
  );
