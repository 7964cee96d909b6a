import { inject, Injectable } from '@angular/core';
import type {
  About,
  AccessEvent,
  Aside,
  Device,
  HouseAddress,
  Link,
  LinkDraft,
  Me,
  PairDraft,
  PairingCode,
  Person,
  PersonDraft,
  Shared,
  SignInDraft,
  Token,
  TokenDraft,
} from '@needlecase/core/model/access';
import {
  debounceTime,
  merge,
  shareReplay,
  startWith,
  Subject,
  switchMap,
  tap,
  type Observable,
} from 'rxjs';
import { ApiService } from './api.service';
import { ChangesService } from './changes.service';

/** Who is here, who else there is, and what lets them in. */
@Injectable({ providedIn: 'root' })
export class AccessService {
  readonly #api = inject(ApiService);
  readonly #changes = inject(ChangesService);
  /** By this page, which does not wait until it is told of it. */
  readonly #changed = new Subject<void>();

  /** Who this device is to the server. */
  me(): Observable<Me> {
    return this.#api.get<Me>('me');
  }

  about(): Observable<About> {
    return this.#api.get<About>('about');
  }

  /** The people of the household, read anew when one changes. */
  readonly persons$: Observable<Person[]> = merge(
    this.#changed,
    this.#changes.of('household'),
  ).pipe(
    debounceTime(60),
    startWith(undefined),
    switchMap(() => this.#api.get<Person[]>('persons')),
    shareReplay({ bufferSize: 1, refCount: true }),
  );

  pair(draft: PairDraft): Observable<Me> {
    return this.#api.send<Me>('POST', 'pair', draft);
  }

  signIn(draft: SignInDraft): Observable<Me> {
    return this.#api.send<Me>('POST', 'sign-in', draft);
  }

  signOut(): Observable<Me> {
    return this.#api.send<Me>('POST', 'sign-out', {});
  }

  /** @param personId whose device is to be paired; one's own where nobody is named */
  newCode(personId?: string): Observable<PairingCode> {
    return this.#api.send<PairingCode>('POST', 'codes', personId ? { personId } : {});
  }

  /** A code for this very person, to go over to the safe address with. */
  moveOver(): Observable<PairingCode> {
    return this.#api.send<PairingCode>('POST', 'move', {});
  }

  /** By what the house's network may know the server. */
  addresses(): Observable<HouseAddress[]> {
    return this.#api.get<HouseAddress[]>('addresses');
  }

  /** Lays down the one that devices use. */
  useAddress({ host }: HouseAddress): Observable<HouseAddress[]> {
    return this.#api.send<HouseAddress[]>('PUT', 'address', { host });
  }

  devices(): Observable<Device[]> {
    return this.#api.get<Device[]>('devices');
  }

  takeOut({ id }: Device): Observable<Device[]> {
    return this.#api.send<Device[]>('DELETE', `devices/${id}`, undefined);
  }

  /** How the work of the last three months was shared. */
  shares(): Observable<Shared> {
    return this.#api.get<Shared>('shares');
  }

  addPerson(draft: PersonDraft): Observable<Person> {
    return this.#api.send<Person>('POST', 'persons', draft).pipe(tap(() => this.#changed.next()));
  }

  changePerson({ id, version }: Person, draft: PersonDraft): Observable<Person> {
    return this.#api
      .send<Person>('PUT', `persons/${id}`, draft, { version })
      .pipe(tap(() => this.#changed.next()));
  }

  removePerson({ id }: Person): Observable<Person[]> {
    return this.#api
      .send<Person[]>('DELETE', `persons/${id}`, undefined)
      .pipe(tap(() => this.#changed.next()));
  }

  setPassphrase({ id }: Person, passphrase: string): Observable<Person> {
    return this.#api
      .send<Person>('PUT', `persons/${id}/passphrase`, { passphrase })
      .pipe(tap(() => this.#changed.next()));
  }

  links(): Observable<Link[]> {
    return this.#api.get<Link[]>('links');
  }

  makeLink(draft: LinkDraft): Observable<Link> {
    return this.#api.send<Link>('POST', 'links', draft);
  }

  takeLinkBack({ id }: Link): Observable<Link[]> {
    return this.#api.send<Link[]>('DELETE', `links/${id}`, undefined);
  }

  tokens(): Observable<Token[]> {
    return this.#api.get<Token[]>('tokens');
  }

  makeToken(draft: TokenDraft): Observable<Token> {
    return this.#api.send<Token>('POST', 'tokens', draft);
  }

  takeTokenBack({ id }: Token): Observable<Token[]> {
    return this.#api.send<Token[]>('DELETE', `tokens/${id}`, undefined);
  }

  /** What devices sent after they were taken out. */
  setAside(): Observable<Aside[]> {
    return this.#api.get<Aside[]>('set-aside');
  }

  takeIn({ id }: Aside): Observable<Aside[]> {
    return this.#api.send<Aside[]>('POST', `set-aside/${id}/take`, {});
  }

  letGo({ id }: Aside): Observable<Aside[]> {
    return this.#api.send<Aside[]>('DELETE', `set-aside/${id}`, undefined);
  }

  events(): Observable<AccessEvent[]> {
    return this.#api.get<AccessEvent[]>('access-events');
  }
}
