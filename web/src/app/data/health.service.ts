import { inject, Injectable } from '@angular/core';
import type { Health } from '@needlecase/core/model/health';
import { catchError, debounceTime, map, of, startWith, switchMap, type Observable } from 'rxjs';
import { ApiService } from './api.service';
import { ChangesService } from './changes.service';

export type HouseTrouble = NonNullable<Health['troubles']>[number];

/** What is wrong with the server's own computer, its file or what it talks to: told to owners. */
@Injectable({ providedIn: 'root' })
export class HealthService {
  readonly #api = inject(ApiService);
  readonly #changes = inject(ChangesService);

  /** What there is now, and each time that it changes; nothing for whoever is no owner. */
  troubles(): Observable<HouseTrouble[]> {
    return this.#changes.of('health').pipe(
      debounceTime(200),
      startWith(undefined),
      // Past the service worker: what was wrong the last time tells nothing.
      switchMap(() =>
        this.#api
          .get<Health>('health', { 'ngsw-bypass': '' })
          .pipe(catchError(() => of(undefined))),
      ),
      map((health) => health?.troubles ?? []),
    );
  }
}
