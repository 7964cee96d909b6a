import { inject, Injectable } from '@angular/core';
import type { HindsightView } from '@needlecase/core/views/hindsight';
import type { Observable } from 'rxjs';
import { ApiService } from './api.service';

/** How well the program foretold what was found. */
@Injectable({ providedIn: 'root' })
export class HindsightService {
  readonly #api = inject(ApiService);

  view(): Observable<HindsightView> {
    return this.#api.get<HindsightView>('hindsight');
  }
}
