import { inject, Injectable } from '@angular/core';
import type { Me, Passkey, PasskeyOptions } from '@needlecase/core/model/access';
import { from, switchMap, type Observable } from 'rxjs';
import { ApiService } from './api.service';
import { isSecure } from './platform';

const ceremony = () => import('@simplewebauthn/browser');

/** Keys that this device holds behind its lock. */
@Injectable({ providedIn: 'root' })
export class PasskeysService {
  readonly #api = inject(ApiService);

  /** Browsers have them over https alone, and where the address is a name. */
  readonly able =
    isSecure() &&
    'PublicKeyCredential' in globalThis &&
    !/^(\d+\.){3}\d+$|^\[/.test(location.hostname);

  list(): Observable<Passkey[]> {
    return this.#api.get<Passkey[]>('passkeys');
  }

  /** @param name of the device that holds it */
  make(name: string): Observable<Passkey> {
    return this.#api.send<PasskeyOptions>('POST', 'passkeys/options', {}).pipe(
      switchMap((options) =>
        from(ceremony().then((it) => it.startRegistration({ optionsJSON: options as never }))),
      ),
      switchMap((answer) => this.#api.send<Passkey>('POST', 'passkeys', { name, answer })),
    );
  }

  remove({ id }: Passkey): Observable<Passkey[]> {
    return this.#api.send<Passkey[]>('DELETE', `passkeys/${id}`, undefined);
  }

  /** @param device what this one is called in the list */
  signIn(device: string): Observable<Me> {
    return this.#api.send<PasskeyOptions>('POST', 'sign-in/options', {}).pipe(
      switchMap((options) =>
        from(ceremony().then((it) => it.startAuthentication({ optionsJSON: options as never }))),
      ),
      switchMap((answer) => this.#api.send<Me>('POST', 'sign-in/passkey', { device, answer })),
    );
  }
}

/** What went wrong, in words: the device's own lock says little, and nothing where somebody went back. */
export function saidOfPasskey(error: unknown): string {
  const { title, detail, errors } = (error ?? {}) as {
    title?: string;
    detail?: string;
    errors?: readonly { message: string }[];
  };
  if (title !== undefined) return errors?.[0]?.message ?? `${title} ${detail ?? ''}`;
  const { name, code } = (error ?? {}) as { name?: string; code?: string };
  if (code === 'ERROR_AUTHENTICATOR_PREVIOUSLY_REGISTERED' || name === 'InvalidStateError') {
    return 'This device has a passkey of yours already.';
  }
  if (name === 'NotAllowedError' || name === 'AbortError') {
    return 'Nothing was done: it was broken off, or this device has none for here.';
  }
  return 'This device does not do it. A code or a pass phrase lets you in.';
}
