import { inject, Injectable } from '@angular/core';
import type { EntryDraft } from '@needlecase/core';
import { OutboxService } from './outbox.service';
import { newId } from './platform';
import { ToastsService } from './toasts.service';

/** Noting cleaning products used and rinses: kept on the device until the server has them. */
@Injectable({ providedIn: 'root' })
export class ChemicalsService {
  readonly #outbox = inject(OutboxService);
  readonly #toasts = inject(ToastsService);

  /** @returns the id of the entry, also where the device has no room and says so */
  add(draft: EntryDraft): string {
    const id = newId();
    this.#outbox.add({ ...draft, id }).catch(() => this.#noRoom());
    return id;
  }

  /** Takes back what was not used after all. */
  remove(id: string): void {
    this.#outbox.undo(id).catch(() => this.#noRoom());
  }

  #noRoom(): void {
    this.#toasts.show('This device has no room to keep it. Free some space, then note it again.', {
      problem: true,
    });
  }
}
