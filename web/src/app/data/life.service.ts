import { inject, Injectable } from '@angular/core';
import type { LifeView } from '@needlecase/core/views/life';
import type { Observable } from 'rxjs';
import { ApiService } from './api.service';

/** A machine along its life. */
@Injectable({ providedIn: 'root' })
export class LifeService {
  readonly #api = inject(ApiService);

  of(machineId: string): Observable<LifeView> {
    return this.#api.get<LifeView>(`machines/${machineId}/life`);
  }
}
