import { inject, Injectable } from '@angular/core';
import type { ChartsView } from '@needlecase/core/views/charts';
import type { Observable } from 'rxjs';
import { ApiService } from './api.service';

/** Machines' figures along time. */
@Injectable({ providedIn: 'root' })
export class ChartsService {
  readonly #api = inject(ApiService);

  of(machineId: string): Observable<ChartsView> {
    return this.#api.get<ChartsView>(`machines/${machineId}/charts`);
  }
}
