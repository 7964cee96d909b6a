import { inject, Injectable } from '@angular/core';
import type { YearView } from '@needlecase/core/views/year';
import type { Observable } from 'rxjs';
import { ApiService } from './api.service';

/** A year of care as it was. */
@Injectable({ providedIn: 'root' })
export class YearService {
  readonly #api = inject(ApiService);

  view(): Observable<YearView> {
    return this.#api.get<YearView>('year');
  }
}
