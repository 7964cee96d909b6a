import { inject } from '@angular/core';
import { Router, type CanActivateFn } from '@angular/router';
import { catchError, first, map, of } from 'rxjs';
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

/** The same for the Bench, by what it shows anyway: nothing else is asked first. */
export const hasBench: CanActivateFn = () => {
  const router = inject(Router);
  return inject(BenchService).bench$.pipe(
    first(),
    map(({ value, problem }) => {
      if (value || !problem) return true;
      if (problem.status === NOT_IN) return router.createUrlTree(['/pair']);
      return problem.status === 404 ? router.createUrlTree(['/start']) : true;
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
