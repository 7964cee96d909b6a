import { inject, Injectable } from '@angular/core';
import type { NotesKept, OldNotes } from '@needlecase/core';
import type { Observable } from 'rxjs';
import { ApiService } from './api.service';

/** Notes from before, kept together and taken back together. */
@Injectable({ providedIn: 'root' })
export class OldNotesService {
  readonly #api = inject(ApiService);

  keep(notes: OldNotes, key: string): Observable<NotesKept> {
    return this.#api.send<NotesKept>('POST', 'old-notes', notes, { key, patience: 60_000 });
  }

  undo(ids: readonly string[]): Observable<{ undone: number }> {
    return this.#api.send('POST', 'old-notes/undo', { ids });
  }
}
