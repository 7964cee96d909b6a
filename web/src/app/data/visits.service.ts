import { inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import type { Visit, VisitTask } from '@needlecase/core';
import { finalize } from 'rxjs';
import { ApiService, type ApiProblem } from './api.service';
import { newId } from './platform';
import { ToastsService } from './toasts.service';

/** Beginning a run. */
@Injectable({ providedIn: 'root' })
export class VisitsService {
  readonly #api = inject(ApiService);
  readonly #router = inject(Router);
  readonly #toasts = inject(ToastsService);

  /** While one is being begun: a second tap does nothing. */
  readonly starting = signal(false);

  /**
   * Begins a run of some tasks and goes to it; says so where it cannot.
   * @param begun told before the way leads there
   */
  start(tasks: readonly VisitTask[], begun?: (visit: Visit) => void): void {
    if (this.starting()) return;
    this.starting.set(true);
    const wanted = tasks.map(({ machineId, task }) => ({ machineId, task }));
    this.#api
      .send<Visit>('POST', 'runs', { tasks: wanted }, { key: newId() })
      .pipe(finalize(() => this.starting.set(false)))
      .subscribe({
        next: (visit) => {
          begun?.(visit);
          void this.#router.navigate(['/visit', visit.id]);
        },
        error: (problem: ApiProblem) =>
          this.#toasts.show(`${problem.title} ${problem.detail}`, { problem: true }),
      });
  }
}
