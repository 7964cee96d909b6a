import { Injectable } from '@angular/core';
import { Observable } from 'rxjs';
import type { MeterLogAnswered, MeterLogAsked } from './meter-log.worker';

/** Reads a meter's file beside the page. Whoever goes ends it at once, with its worker. */
@Injectable({ providedIn: 'root' })
export class MeterLogService {
  ask(asked: MeterLogAsked): Observable<MeterLogAnswered> {
    return new Observable((listener) => {
      const worker = new Worker(new URL('./meter-log.worker', import.meta.url), { type: 'module' });
      worker.addEventListener('message', ({ data }: MessageEvent<MeterLogAnswered>) => {
        if (data.problem !== undefined) return listener.error(new Error(data.problem));
        listener.next(data);
        if (data.look || data.found) listener.complete();
      });
      worker.addEventListener('error', ({ message }) =>
        listener.error(
          new Error(message || 'what reads it did not load. Try again with the connection.'),
        ),
      );
      worker.postMessage(asked);
      return () => worker.terminate();
    });
  }
}
