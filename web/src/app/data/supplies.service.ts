import { inject, Injectable } from '@angular/core';
import type { Entry, SuppliesView, Supply, SupplyDraft } from '@needlecase/core';
import type { Observable } from 'rxjs';
import { ApiService } from './api.service';
import { EntriesService } from './entries.service';
import { stamp } from './clock';

/** Supplies: what is kept, what is left, what was bought. */
@Injectable({ providedIn: 'root' })
export class SuppliesService {
  readonly #api = inject(ApiService);
  readonly #entries = inject(EntriesService);

  all(): Observable<SuppliesView> {
    return this.#api.get<SuppliesView>('supplies');
  }

  keep(draft: SupplyDraft, key: string): Observable<Supply> {
    return this.#api.send<Supply>('POST', 'supplies', draft, { key });
  }

  change({ id, version }: Supply, draft: SupplyDraft): Observable<Supply> {
    return this.#api.send<Supply>('PUT', `supplies/${id}`, draft, { version });
  }

  /** `bought`: so much came in; `stock`: so much is there. */
  note(kind: 'bought' | 'stock', supply: Supply, value: number, key: string): Observable<Entry> {
    const { item, unit } = supply;
    return this.#entries.add({ kind, supply: item, value, unit, ...stamp(), source: 'bench' }, key);
  }
}
