import { inject, Injectable } from '@angular/core';
import type { MeterImport, MeterKept, MeterView } from '@needlecase/core';
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
}
