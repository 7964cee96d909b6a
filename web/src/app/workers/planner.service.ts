import { DestroyRef, inject, Injectable } from '@angular/core';
import { Observable } from 'rxjs';
import type { CurveMade, PlanAnswered, PlanAsked, YearMade } from './plan.worker';

type Deed<D> = D extends { id: number } ? Omit<D, 'id'> : never;
type Ask = Exclude<Deed<PlanAsked>, { do: 'drop' }>;

/** Plans beside the page: a first answer at once, then better ones; whoever goes drops the rest. */
@Injectable({ providedIn: 'root' })
export class PlannerService {
  #worker: Worker | undefined;
  #next = 1;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.#worker?.terminate());
  }

  /** A year, better from answer to answer. */
  year(ask: Extract<Ask, { do: 'solve' | 'replan' }>): Observable<YearMade> {
    return this.#ask(ask, ({ made }) => made);
  }

  curve(ask: Extract<Ask, { do: 'curve' }>): Observable<CurveMade> {
    return this.#ask(ask, ({ curve }) => curve);
  }

  #ask<T>(ask: Ask, answerIn: (answer: PlanAnswered) => T | undefined): Observable<T> {
    return new Observable((listener) => {
      this.#worker ??= new Worker(new URL('./plan.worker', import.meta.url), { type: 'module' });
      const worker = this.#worker;
      const id = this.#next++;
      let over = false;
      const answered = ({ data }: MessageEvent<PlanAnswered>) => {
        if (data.id !== id) return;
        const answer = answerIn(data);
        if (answer !== undefined) listener.next(answer);
        if (!data.done) return;
        over = true;
        if (data.problem) listener.error(new Error(data.problem));
        else listener.complete();
      };
      worker.addEventListener('message', answered);
      worker.postMessage({ id, ...ask } satisfies PlanAsked);
      return () => {
        worker.removeEventListener('message', answered);
        if (!over) worker.postMessage({ id, do: 'drop' } satisfies PlanAsked);
      };
    });
  }
}
