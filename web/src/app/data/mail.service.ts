import { inject, Injectable } from '@angular/core';
import type {
  MailRecipient,
  MailRecipientDraft,
  MailServerDraft,
  MailState,
} from '@needlecase/core/model/mail';
import type { Observable } from 'rxjs';
import { ApiService } from './api.service';

/** A mail server may take its time. */
const LONG_MS = 60_000;

/** Letters of the year ahead. */
@Injectable({ providedIn: 'root' })
export class MailService {
  readonly #api = inject(ApiService);

  state(): Observable<MailState> {
    return this.#api.get<MailState>('mail');
  }

  say(draft: MailServerDraft): Observable<MailState> {
    return this.#api.send<MailState>('PUT', 'mail/server', draft);
  }

  forget(): Observable<MailState> {
    return this.#api.send<MailState>('DELETE', 'mail/server', undefined);
  }

  add(draft: MailRecipientDraft): Observable<MailRecipient> {
    return this.#api.send<MailRecipient>('POST', 'mail/recipients', draft);
  }

  remove({ id }: MailRecipient): Observable<MailState> {
    return this.#api.send<MailState>('DELETE', `mail/recipients/${id}`, undefined);
  }

  sendNow({ id }: MailRecipient): Observable<MailRecipient> {
    return this.#api.send<MailRecipient>('POST', `mail/recipients/${id}/letter`, undefined, {
      patience: LONG_MS,
    });
  }
}
