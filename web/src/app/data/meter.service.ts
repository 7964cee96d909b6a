import { inject, Injectable } from '@angular/core';
import type { Entry, MeterImport, MeterKept, MeterView } from '@needlecase/core';
import type { Meter, MeterDraft, MetersView, StandInDraft } from '@needlecase/core/model/meters';
import type { Observable } from 'rxjs';
import { ApiService } from './api.service';

/** What a machine's meter read, and the loads that were found in it. */
@Injectable({ providedIn: 'root' })
export class MeterService {
  readonly #api = inject(ApiService);

  view(machineId: string, day: string | undefined): Observable<MeterView> {
    return this.#api.get<MeterView>(`machines/${machineId}/meter`, day ? { day } : {});
  }

  keep(machineId: string, found: MeterImport, key: string): Observable<MeterKept> {
    return this.#api.send<MeterKept>('POST', `machines/${machineId}/meter`, found, { key });
  }

  undo(machineId: string, ids: readonly string[]): Observable<{ undone: number }> {
    return this.#api.send('POST', `machines/${machineId}/meter/undo`, { ids });
  }

  /** Two loads that were one. */
  join(machineId: string, ids: readonly string[]): Observable<Entry[]> {
    return this.#api.send('POST', `machines/${machineId}/meter/join`, { ids });
  }

  /** A load that was two. */
  part(machineId: string, id: string): Observable<Entry[]> {
    return this.#api.send('POST', `machines/${machineId}/meter/part`, { id });
  }

  /** What a load's programme is called. */
  name(machineId: string, id: string, name: string): Observable<Entry[]> {
    return this.#api.send('POST', `machines/${machineId}/meter/name`, { id, name });
  }

  /** Meters that speak as they go on. */
  live(): Observable<MetersView> {
    return this.#api.get<MetersView>('meters');
  }

  /** @returns the meter with its token, where it sends by itself: told this once */
  setUp(draft: MeterDraft): Observable<Meter> {
    return this.#api.send<Meter>('POST', 'meters', draft);
  }

  change({ id, version }: Meter, draft: MeterDraft): Observable<Meter> {
    return this.#api.send<Meter>('PUT', `meters/${id}`, draft, { version });
  }

  newToken(id: string): Observable<Meter> {
    return this.#api.send<Meter>('POST', `meters/${id}/token`, {});
  }

  remove(id: string): Observable<unknown> {
    return this.#api.send('DELETE', `meters/${id}`, undefined);
  }

  standIn(id: string, draft: StandInDraft): Observable<Meter> {
    return this.#api.send<Meter>('POST', `meters/${id}/stand-in`, draft);
  }
}
