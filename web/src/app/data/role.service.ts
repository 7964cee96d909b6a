import { inject, Injectable, signal } from '@angular/core';
import type { Me, Role } from '@needlecase/core/model/access';
import { mayAs } from '@needlecase/core/model/people';
import { EMPTY, catchError } from 'rxjs';
import { AccessService } from './access.service';
import { readLocal, writeLocal } from './local';

const ROLE = 'role';

/** What this device may do, by the person it is for; as it was the last time where nobody can be asked. */
@Injectable({ providedIn: 'root' })
export class RoleService {
  readonly #service = inject(AccessService);
  readonly #role = signal(readLocal<Role>(ROLE) ?? 'keeper');
  readonly #me = signal<Me | undefined>(undefined);
  /** Who this device is to the server, once that was heard. */
  readonly me = this.#me.asReadonly();

  /** Asks the server, at the start and where it may have changed. */
  ask(): void {
    this.#service
      .me()
      .pipe(catchError(() => EMPTY))
      .subscribe((me) => {
        this.#me.set(me);
        if (!me.role) return;
        writeLocal(ROLE, me.role);
        this.#role.set(me.role);
      });
  }

  /** Whether its person may do what a role may; the server has the last word. */
  may(least: Role): boolean {
    return mayAs(this.#role(), least);
  }
}
