import { inject } from '@angular/core';
import { Router, type CanActivateFn } from '@angular/router';
import { catchError, map, of } from 'rxjs';
import { type ApiProblem } from './api.service';
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
