import { Directive, effect, inject, TemplateRef, ViewContainerRef } from '@angular/core';
import { RoleService } from '../data/role.service';

/** Shows something only to who keeps the house: what changes how it is set up is nobody else's. */
@Directive({ selector: '[ncKeeper]' })
export class KeeperDirective {
  constructor() {
    const role = inject(RoleService);
    const what = inject<TemplateRef<unknown>>(TemplateRef);
    const place = inject(ViewContainerRef);
    effect(() => {
      const shown = role.may('keeper');
      if (shown && place.length === 0) place.createEmbeddedView(what);
      if (!shown) place.clear();
    });
  }
}
