import { Injectable, signal } from '@angular/core';
import { filter, Observable, share } from 'rxjs';

export interface Change {
  topic:
    | 'household'
    | 'machines'
    | 'entries'
    | 'runs'
    | 'supplies'
    | 'cases'
    | 'code-sheets'
    | 'vent-runs';
  id?: string;
}

/** What other screens changed, as the server tells it. One stream for the whole page. */
@Injectable({ providedIn: 'root' })
export class ChangesService {
  /** Whether the server tells us of changes: false while it cannot be reached. */
  readonly connected = signal(true);

  readonly all$ = new Observable<Change>((listener) => {
    if (typeof EventSource === 'undefined') return undefined;
    // Past the service worker: a stream is not for keeping.
    const source = new EventSource('/api/v1/changes?ngsw-bypass');
    source.onopen = () => this.connected.set(true);
    source.onerror = () => this.connected.set(false);
    source.onmessage = (event: MessageEvent<string>) =>
      listener.next(JSON.parse(event.data) as Change);
    return () => {
      source.close();
      this.connected.set(true);
    };
  }).pipe(share());

  of(...topics: Change['topic'][]): Observable<Change> {
    return this.all$.pipe(filter(({ topic }) => topics.includes(topic)));
  }
}
