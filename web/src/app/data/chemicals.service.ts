import { inject, Injectable } from '@angular/core';
import type { EntryDraft } from '@needlecase/core';
import { OutboxService } from './outbox.service';
import { newId } from './platform';

/** Noting cleaning products used and rinses: kept on the device until the server has them. */
@Injectable({ providedIn: 'root' })
export class ChemicalsService {
  readonly #outbox = inject(OutboxService);

  /** @returns the id of the entry */
  add(draft: EntryDraft): string {
    const id = newId();
    void this.#outbox.add({ ...draft, id });
    return id;
  }

  /** Takes back what was not used after all. */
  remove(id: string): void {
    void this.#outbox.undo(id);
  }
}
