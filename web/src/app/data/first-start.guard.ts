import { inject, Injector, runInInjectionContext } from '@angular/core';
import { Router, type CanActivateFn, type UrlTree } from '@angular/router';
import type { Observable } from 'rxjs';
import { catchError, first, map, of, switchMap } from 'rxjs';
import { type ApiProblem } from './api.service';
import { BenchService } from './bench.service';
import { HouseholdService } from './household.service';

/** The device is not paired, or was taken out. */
const NOT_IN = 401;

/** Sends an empty file to the first start. */
export const hasHousehold: CanActivateFn = () => {
  const router = inject(Router);
  return inject(HouseholdService)
    .exists()
    .pipe(
      map((there) => there || router.createUrlTree(['/start'])),
      catchError((problem: ApiProblem) =>
        of(
          problem.status === NOT_IN
            ? router.createUrlTree(['/pair'])
            : problem.unreachable || problem.status >= 500,
        ),
      ),
    );
};

/**
 * The same for the Bench, by what it shows anyway: nothing else is asked first. That there is no
 * household may have been read before one was begun or put back, so it is asked anew.
 */
export const hasBench: CanActivateFn = (route, state) => {
  const router = inject(Router);
  const injector = inject(Injector);
  const bench = inject(BenchService);
  return bench.bench$.pipe(
    first(),
    switchMap(({ value, problem }) => {
      if (value || !problem) return of(true);
      if (problem.status === NOT_IN) return of(router.createUrlTree(['/pair']));
      if (problem.status !== 404) return of(true);
      bench.refresh();
      return runInInjectionContext(injector, () => hasHousehold(route, state)) as Observable<
        boolean | UrlTree
      >;
    }),
  );
};

export const hasNoHousehold: CanActivateFn = () => {
  const router = inject(Router);
  return inject(HouseholdService)
    .exists()
    .pipe(
      map((there) => !there || router.createUrlTree(['/'])),
      catchError((problem: ApiProblem) =>
        of(problem.status === NOT_IN ? router.createUrlTree(['/pair']) : true),
      ),
    );
};
