import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { AccessService } from '../data/access.service';
import { readLocal, writeLocal } from '../data/local';
import { inAddress } from '../data/moving';
import { OutboxService } from '../data/outbox.service';
import { isSecure } from '../data/platform';

const NAME = 'plain-http-said';
const TRIED = 'https-tried';
const LOOPBACK = /^(localhost|127\..*|\[::1\])$/;
const AGAIN_MS = 10 * 60_000;

/**
 * Says once on a device what a browser does not do over plain http; and leads to the address that is to be used, where
 * that works on this device: the safe one, or the one that the house has laid down since.
 */
@Component({
  selector: 'nc-better-address',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (better(); as origin) {
      <section class="notice" role="status">
        @if (secure) {
          <p>
            <strong>This house is at {{ origin }} now.</strong> Go there once, with all that this
            device has not sent yet; then install it from there.
          </p>
        } @else {
          <p>
            <strong>The safe address works on this device.</strong> There it also works without
            reception. What is not sent yet goes along.
          </p>
        }
        <button type="button" class="btn btn-thread" [disabled]="going()" (click)="go(origin)">
          Go there
        </button>
      </section>
    } @else if (shown()) {
      <section class="notice" role="status">
        <p>
          <strong>Opened over plain http.</strong> Loads, visits, trouble and measuring work. This
          browser then keeps nothing for where there is no reception, lets the screen go dark during
          a visit, and shows no notice when a timer ends.
        </p>
        @if (certificate()) {
          <a class="btn btn-plain" href="/phone">What can be done</a>
        }
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
      display: inline-flex;
      align-items: center;
    }
  `,
})
export class BetterAddressComponent {
  readonly #access = inject(AccessService);
  readonly #outbox = inject(OutboxService);
  protected readonly shown = signal(!isSecure() && readLocal<boolean>(NAME) !== true);
  protected readonly secure = isSecure();
  /** The address to go over to, where this device reaches it and trusts it. */
  protected readonly better = signal<string | undefined>(undefined);
  protected readonly certificate = signal(false);
  protected readonly going = signal(false);

  constructor() {
    if (!this.secure || !LOOPBACK.test(location.hostname)) void this.#look();
  }

  async #look(): Promise<void> {
    let tried = false;
    try {
      const { origin, settled, by } = await firstValueFrom(this.#access.me());
      if (!origin?.startsWith('https:') || origin === location.origin) return;
      if (this.secure && !(settled && by === 'device')) return;
      this.certificate.set(true);
      // Each try in vain is a complaint in the browser's console.
      if (!this.secure && Date.now() - (readLocal<number>(TRIED) ?? 0) < AGAIN_MS) return;
      tried = true;
      await fetch(`${origin}/api/v1/health`, { mode: 'no-cors', cache: 'no-store' });
      this.better.set(origin);
    } catch {
      // Not trusted here, or not reached just now.
      if (tried) writeLocal(TRIED, Date.now());
    }
  }

  /** A device that is in takes its right along; another one has to be let in there. */
  protected async go(origin: string): Promise<void> {
    this.going.set(true);
    const waiting = await this.#outbox.list().catch(() => []);
    const code = await firstValueFrom(this.#access.moveOver()).catch(() => undefined);
    location.assign(`${origin}/pair#${code?.code ?? ''}&${inAddress(waiting)}`);
  }

  protected seen(): void {
    writeLocal(NAME, true);
    this.shown.set(false);
  }
}
