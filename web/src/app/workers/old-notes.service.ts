import { Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { askWorker } from './ask-worker';
import type { OldNotesAnswered, OldNotesAsked } from './old-notes.worker';

/** Reads a table of old notes beside the page. */
@Injectable({ providedIn: 'root' })
export class OldNotesReader {
  ask(asked: OldNotesAsked): Observable<OldNotesAnswered> {
    return askWorker(
      () => new Worker(new URL('./old-notes.worker', import.meta.url), { type: 'module' }),
      asked,
      () => true,
    );
  }
}
