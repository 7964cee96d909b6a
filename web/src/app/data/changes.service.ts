import { Injectable } from '@angular/core';
import { filter, Observable, share } from 'rxjs';

export interface Change {
  topic: 'household' | 'machines' | 'entries' | 'runs' | 'supplies';
  id?: string;
}

/** What other screens changed, as the server tells it. One stream for the whole page. */
@Injectable({ providedIn: 'root' })
export class ChangesService {
  readonly all$ = new Observable<Change>((listener) => {
    if (typeof EventSource === 'undefined') return undefined;
    const source = new EventSource('/api/v1/changes');
    source.onmessage = (event: MessageEvent<string>) =>
      listener.next(JSON.parse(event.data) as Change);
    return () => source.close();
  }).pipe(share());

  of(...topics: Change['topic'][]): Observable<Change> {
    return this.all$.pipe(filter(({ topic }) => topics.includes(topic)));
  }
}
