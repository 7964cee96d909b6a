import { inject, Injectable } from '@angular/core';
import type { Entry, EntryDraft } from '@needlecase/core';
import type { Observable } from 'rxjs';
import { ApiService } from './api.service';

export interface LogPage {
  entries: Entry[];
  next?: string;
}

/** What happened: reading the log, correcting it, undoing. */
@Injectable({ providedIn: 'root' })
export class EntriesService {
  readonly #api = inject(ApiService);

  list(filter: Record<string, string | number | boolean>): Observable<LogPage> {
    return this.#api.get<LogPage>('entries', filter);
  }

  add(draft: EntryDraft, key: string): Observable<Entry> {
    return this.#api.send<Entry>('POST', 'entries', draft, { key });
  }

  correct(old: Entry, draft: EntryDraft, key: string): Observable<Entry> {
    return this.#api.send<Entry>('POST', `entries/${old.id}/revision`, draft, { key });
  }

  undo(id: string): Observable<Entry> {
    return this.#api.send<Entry>('POST', `entries/${id}/undo`, undefined, { key: `undo-${id}` });
  }

  restore(id: string, key: string): Observable<Entry> {
    return this.#api.send<Entry>('POST', `entries/${id}/restore`, undefined, { key });
  }
}
