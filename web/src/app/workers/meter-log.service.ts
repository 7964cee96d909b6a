import { Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { askWorker } from './ask-worker';
import type { MeterLogAnswered, MeterLogAsked } from './meter-log.worker';

/** Reads a meter's file beside the page. */
@Injectable({ providedIn: 'root' })
export class MeterLogService {
  ask(asked: MeterLogAsked): Observable<MeterLogAnswered> {
    return askWorker<MeterLogAsked, MeterLogAnswered>(
      () => new Worker(new URL('./meter-log.worker', import.meta.url), { type: 'module' }),
      asked,
      ({ look, found }) => look !== undefined || found !== undefined,
    );
  }
}
