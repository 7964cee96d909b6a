import { InjectionToken } from '@angular/core';
import type { Visit } from '@needlecase/core';

/** Who is told how a visit went that is only walked through: nothing of it is recorded. */
export interface DryRun {
  /** Every step was passed. */
  finish(visit: Visit): void;
  /** It is left before its end. */
  leave(): void;
}

/** There where the visit on screen is a dry run. */
export const DRY_RUN = new InjectionToken<DryRun>('dry run');
