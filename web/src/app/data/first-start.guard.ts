import { inject } from '@angular/core';
import { Router, type CanActivateFn } from '@angular/router';
import { catchError, map, of } from 'rxjs';
import { type ApiProblem } from './api.service';
import { HouseholdService } from './household.service';

/** Sends an empty file to the first start. */
export const hasHousehold: CanActivateFn = () => {
  const router = inject(Router);
  return inject(HouseholdService)
    .exists()
    .pipe(
      map((there) => there || router.createUrlTree(['/start'])),
      catchError((problem: ApiProblem) => of(problem.unreachable || problem.status >= 500)),
    );
};

export const hasNoHousehold: CanActivateFn = () => {
  const router = inject(Router);
  return inject(HouseholdService)
    .exists()
    .pipe(
      map((there) => !there || router.createUrlTree(['/'])),
      catchError(() => of(true)),
    );
};
