import { inject, Injectable, Injector, type Type } from '@angular/core';
import type { NgbModalOptions, NgbModalRef } from '@ng-bootstrap/ng-bootstrap';

/** Dialogs, whose machinery is fetched when the first one is opened. */
@Injectable({ providedIn: 'root' })
export class Dialogs {
  readonly #injector = inject(Injector);

  async open(component: Type<unknown>, options: NgbModalOptions): Promise<NgbModalRef> {
    const { NgbModal } = await import('@ng-bootstrap/ng-bootstrap');
    return this.#injector.get(NgbModal).open(component, options);
  }
}
