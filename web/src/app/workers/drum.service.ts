import { inject, Injectable, DestroyRef } from '@angular/core';
import type { DrumLoad, DrumResult } from '@needlecase/core';
import { Observable } from 'rxjs';
import type { DrumAnswered, DrumAsked } from './drum.worker';

/** The drum model, in a worker of its own. Asked again before it answered, it drops the first answer. */
@Injectable({ providedIn: 'root' })
export class DrumService {
  #worker: Worker | undefined;
  #next = 1;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.#worker?.terminate());
  }

  /** Dries some loads, and tells the results in order. */
  dry(loads: DrumLoad[]): Observable<DrumResult[]> {
    return new Observable((listener) => {
      this.#worker ??= new Worker(new URL('./drum.worker', import.meta.url), { type: 'module' });
      const worker = this.#worker;
      const id = this.#next++;
      const answered = ({ data }: MessageEvent<DrumAnswered>) => {
        if (data.id !== id) return;
        if (data.problem) listener.error(new Error(data.problem));
        else listener.next(data.results);
        listener.complete();
      };
      worker.addEventListener('message', answered);
      worker.postMessage({ id, loads } satisfies DrumAsked);
      return () => worker.removeEventListener('message', answered);
    });
  }
}
