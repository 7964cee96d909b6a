import { inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import type { Visit, VisitTask } from '@needlecase/core';
import { finalize } from 'rxjs';
import { Dialogs } from '../shared/dialogs';
import { ApiService, type ApiProblem } from './api.service';
import { newId } from './platform';
import { ToastsService } from './toasts.service';

/** Beginning a run. */
@Injectable({ providedIn: 'root' })
export class VisitsService {
  readonly #api = inject(ApiService);
  readonly #router = inject(Router);
  readonly #toasts = inject(ToastsService);
  readonly #dialogs = inject(Dialogs);

  /** While one is being begun: a second tap does nothing. */
  readonly starting = signal(false);

  /**
   * Begins a run of some tasks and goes to it; says so where it cannot.
   * @param begun told before the way leads there
   */
  start(tasks: readonly VisitTask[], begun?: (visit: Visit) => void): void {
    this.#start(tasks, true, begun);
  }

  #start(
    tasks: readonly VisitTask[],
    onlyIfNew: boolean,
    begun: ((visit: Visit) => void) | undefined,
  ): void {
    if (this.starting()) return;
    this.starting.set(true);
    const wanted = tasks.map(({ machineId, task }) => ({ machineId, task }));
    this.#api
      .send<Visit>('POST', 'runs', { tasks: wanted, onlyIfNew }, { key: newId() })
      .pipe(finalize(() => this.starting.set(false)))
      .subscribe({
        next: (visit) => {
          begun?.(visit);
          void this.#router.navigate(['/visit', visit.id]);
        },
        error: (problem: ApiProblem) => {
          if (problem.status === 409 && problem.current) {
            return void this.#ask(tasks, problem.current as Visit, begun);
          }
          this.#toasts.show(`${problem.title} ${problem.detail}`, { problem: true });
        },
      });
  }

  /** Some of the work is in a visit that is under way: go on there, or begin another all the same? */
  async #ask(
    tasks: readonly VisitTask[],
    underWay: Visit,
    begun: ((visit: Visit) => void) | undefined,
  ): Promise<void> {
    const { UnderWayComponent } = await import('../shell/under-way.component');
    const dialog = await this.#dialogs.open(UnderWayComponent, {
      ariaLabelledBy: 'under-way-title',
    });
    (dialog.componentInstance as InstanceType<typeof UnderWayComponent>).visit.set(underWay);
    const chosen = (await dialog.result.catch(() => undefined)) as 'go on' | 'another' | undefined;
    if (chosen === 'another') this.#start(tasks, false, begun);
    if (chosen === 'go on') void this.#router.navigate(['/visit', underWay.id]);
  }
}
