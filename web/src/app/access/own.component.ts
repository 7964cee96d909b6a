import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { Passkey } from '@needlecase/core/model/access';
import { catchError, of, startWith, Subject, switchMap } from 'rxjs';
import { PasskeysService, saidOfPasskey } from '../data/passkeys.service';
import { RoleService } from '../data/role.service';
import { ToastsService } from '../data/toasts.service';
import { sayWhenLong } from '../shared/say-when';
import { SingleTaps } from '../shared/single-taps';
import { WhoComponent } from '../shared/who.component';
import { deviceName } from './device-name';
import { PhraseComponent } from './phrase.component';

/** What is one's own to set, whatever one's part: how one gets in at another device. */
@Component({
  selector: 'nc-own',
  imports: [PhraseComponent, WhoComponent],
  hostDirectives: [SingleTaps],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (person(); as me) {
      <h2>Yours</h2>
      <p class="me">
        <nc-who [person]="me" />
        <span class="soft">How you get in at another device, without asking anybody:</span>
      </p>
      @if (passkeys.able) {
        <ul class="rows">
          @for (one of mine(); track one.id) {
            <li>
              <span class="what">
                <strong>Passkey on {{ one.name }}</strong>
                <span class="soft">
                  made {{ when(one.madeAt) }}{{ one.usedAt ? ', used ' + when(one.usedAt) : '' }}
                </span>
              </span>
              <button
                type="button"
                class="btn btn-plain"
                [attr.aria-label]="'Take away the passkey on ' + one.name"
                (click)="remove(one)"
              >
                Take away
              </button>
            </li>
          }
        </ul>
      }
      @if (failed()) {
        <p class="field-problem" role="alert">{{ failed() }}</p>
      }
      <div class="acts">
        @if (passkeys.able) {
          <button type="button" class="btn btn-plain" [disabled]="busy()" (click)="make()">
            Make a passkey on this device
          </button>
        }
        <button type="button" class="btn btn-plain" (click)="phrasing.set(!phrasing())">
          {{ me.passphrase ? 'Another pass phrase' : 'Set a pass phrase' }}
        </button>
        @if (role.me()?.by === 'device') {
          <a class="btn btn-plain" href="/pair">Sign this device out</a>
        }
      </div>
      @if (phrasing()) {
        <nc-phrase [person]="me" (stored)="phrasing.set(false); role.ask()" />
      }
      @if (!passkeys.able) {
        <p class="soft">
          A passkey, which is your finger or face instead of a phrase, needs the https address with
          a name.
        </p>
      }
    }
  `,
  styleUrl: './phones.component.scss',
})
export class OwnComponent {
  protected readonly role = inject(RoleService);
  protected readonly passkeys = inject(PasskeysService);
  readonly #toasts = inject(ToastsService);
  readonly #again = new Subject<void>();

  /** One person alone sees nothing of persons. */
  protected readonly person = computed(() => {
    const me = this.role.me();
    return me && me.persons > 1 ? me.person : undefined;
  });
  readonly #all = toSignal(
    this.#again.pipe(
      startWith(undefined),
      switchMap(() => this.passkeys.list().pipe(catchError(() => of([] as Passkey[])))),
    ),
    { initialValue: [] },
  );
  protected readonly mine = computed(() =>
    this.#all().filter(({ personId }) => personId === this.person()?.id),
  );
  protected readonly phrasing = signal(false);
  protected readonly busy = signal(false);
  protected readonly failed = signal('');

  protected when(at: string): string {
    return sayWhenLong(Date.parse(at));
  }

  protected make(): void {
    this.busy.set(true);
    this.failed.set('');
    this.passkeys.make(deviceName(navigator.userAgent)).subscribe({
      next: () => {
        this.busy.set(false);
        this.#toasts.show('The passkey is made. It lets you in at this house’s address.');
        this.#again.next();
      },
      error: (error: unknown) => {
        this.busy.set(false);
        this.failed.set(saidOfPasskey(error));
      },
    });
  }

  protected remove(one: Passkey): void {
    this.failed.set('');
    this.passkeys.remove(one).subscribe({
      next: () => {
        this.#toasts.show('The passkey lets nobody in any more. Take it off the device, too.');
        this.#again.next();
      },
      error: (error: unknown) => this.failed.set(saidOfPasskey(error)),
    });
  }
}
