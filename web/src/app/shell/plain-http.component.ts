import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { readLocal, writeLocal } from '../data/local';
import { isSecure } from '../data/platform';

const NAME = 'plain-http-said';

/** Says once on a device what a browser does not do over plain http. */
@Component({
  selector: 'nc-plain-http',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (shown()) {
      <section class="notice" role="status">
        <p>
          <strong>Opened over plain http.</strong> Loads, visits, trouble and measuring work. This
          browser then keeps nothing for where there is no reception, lets the screen go dark during
          a visit, and shows no notice when a timer ends.
        </p>
        <button type="button" class="btn btn-plain" (click)="seen()">I see</button>
      </section>
    }
  `,
  styles: `
    @use 'mixins' as *;

    .notice {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 0.5rem 1rem;
      padding: 0.5rem clamp(0.75rem, 3vw, 1.5rem);
      @include seam(bottom);
    }

    p {
      flex: 1 1 20rem;
      max-width: 70ch;
      margin: 0;
    }

    .btn {
      @include touch;
    }
  `,
})
export class PlainHttpComponent {
  protected readonly shown = signal(!isSecure() && readLocal<boolean>(NAME) !== true);

  protected seen(): void {
    writeLocal(NAME, true);
    this.shown.set(false);
  }
}
