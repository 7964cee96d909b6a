import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import { readLocal, writeLocal } from '../data/local';

/** Set once it was taken, or not wanted. */
const OFFERED = 'practice.offered';

/** The guided first case, offered once to a household that has done nothing yet. */
@Component({
  selector: 'nc-practice-offer',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (offered()) {
      <aside aria-label="Practise first">
        <p>
          <b>Three minutes before the first time:</b> a machine with water in it that is only drawn,
          and each step tells you the next.
        </p>
        <button type="button" class="btn btn-plain" (click)="take()">Practise it</button>
        <button type="button" class="btn btn-link" (click)="turnDown()">Not now</button>
      </aside>
    }
  `,
  styles: `
    @use 'mixins' as *;

    aside {
      @include panel;
      margin-top: 1rem;
    }

    p {
      margin: 0 0 0.5rem;
    }
  `,
})
export class OfferComponent {
  readonly #router = inject(Router);
  protected readonly offered = signal(readLocal<boolean>(OFFERED) !== true);

  protected take(): void {
    this.turnDown();
    void this.#router.navigate(['/practice'], { queryParams: { first: 1 } });
  }

  protected turnDown(): void {
    writeLocal(OFFERED, true);
    this.offered.set(false);
  }
}
