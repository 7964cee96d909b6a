import type { Request, RequestHandler } from 'express';
import { mayAs, type Person } from '@needlecase/core/model/access';
import { keptId } from '@needlecase/core/model/ids';
import type { Db } from '../db/open.js';
import { ProblemError } from '../http/problem.js';
import type { Store } from '../store/store.js';
import { SetAside } from './aside.js';
import { personOf, type Caller } from './caller.js';
import { ChosenHost } from './chosen-host.js';
import { keepSecret, secretOf } from './cookie.js';
import { Devices } from './devices.js';
import { AccessEvents } from './events.js';
import { Feeds } from './feeds.js';
import { Links, Tokens } from './given.js';
import { isHere } from './here.js';
import { Passkeys } from './passkeys.js';
import { ROWS, type Row } from './rows.js';

/** Knows who asks, and what they may. */
export class Access {
  readonly devices: Devices;
  readonly tokens: Tokens;
  readonly links: Links;
  readonly feeds: Feeds;
  readonly passkeys: Passkeys;
  readonly events: AccessEvents;
  readonly aside: SetAside;
  readonly host: ChosenHost;
  readonly #callers = new WeakMap<Request, Caller>();

  constructor(
    db: Db,
    private readonly store: Store,
  ) {
    this.devices = new Devices(db);
    this.tokens = new Tokens(db);
    this.links = new Links(db);
    this.feeds = new Feeds(db);
    this.passkeys = new Passkeys(db);
    this.events = new AccessEvents(db);
    this.aside = new SetAside(db);
    this.host = new ChosenHost(db);
  }

  callerOf(request: Request): Caller {
    let caller = this.#callers.get(request);
    if (!caller) this.#callers.set(request, (caller = this.#callerOf(request)));
    return caller;
  }

  #callerOf(request: Request): Caller {
    const [scheme, token] = (request.get('Authorization') ?? '').split(' ');
    if (scheme?.toLowerCase() === 'bearer' && token) {
      const known = this.tokens.bySecret(token);
      if (!known) return { by: 'nobody', token: true };
      const { scopes, meterId } = known;
      return { by: 'token', scopes, ...(meterId === undefined ? {} : { meterId }) };
    }
    const secret = secretOf(request);
    const device = secret === undefined ? undefined : this.devices.bySecret(secret);
    if (device) {
      const person = this.store.persons.get(device.personId);
      if (device.revokedAt !== null || !person) return { by: 'revoked', device };
      return { by: 'device', role: person.role, person, device };
    }
    const persons = this.store.persons.list();
    if (persons.length > 1 || !isHere(request)) return { by: 'nobody' };
    return { by: 'here', role: 'keeper', ...(persons[0] ? { person: persons[0] } : {}) };
  }

  /**
   * @param key of a row, such as `get /api/v1/bench`
   * @returns who asks
   * @throws 401 where it is not known who asks, 403 where they may not
   */
  admit(key: string, request: Request): Caller {
    const row = ROWS[key];
    if (!row) throw new Error(`Nobody has said who may ask for ${key}.`);
    const caller = this.callerOf(request);
    if (row.from === 'everybody' || this.#may(row, caller, request)) return caller;
    throw refusedTo(caller, this.aside.keep(key, request, caller));
  }

  /**
   * Decides from what stands before a body whether it is worth reading; `admit` decides again, with the body.
   * @returns whether they may send a large one
   * @throws 401 or 403
   */
  knock(key: string, request: Request): boolean {
    const row = ROWS[key];
    if (!row) throw new Error(`Nobody has said who may ask for ${key}.`);
    const caller = this.callerOf(request);
    if (row.from === 'everybody') return false;
    if (this.#mayAsRole(row, caller)) return true;
    if (this.#hasScope(row, caller)) return true;
    // What they send decides, or is set aside: it is read as far as it is small.
    const known = caller.by === 'here' || caller.by === 'device';
    if (known && row.besides) return false;
    if (caller.by === 'revoked' && this.aside.takes(key)) return false;
    throw refusedTo(caller, false);
  }

  #hasScope({ scope }: Row, caller: Caller): boolean {
    return caller.by === 'token' && scope !== undefined && caller.scopes.includes(scope);
  }

  #mayAsRole(row: Row, caller: Caller): boolean {
    const known = caller.by === 'here' || caller.by === 'device';
    return known && row.from !== 'everybody' && mayAs(caller.role, row.from);
  }

  #may(row: Row, caller: Caller, request: Request): boolean {
    const { id } = request.params as { id?: string };
    if (caller.by === 'token') {
      const { meterId } = caller;
      const isOf = meterId === undefined || meterId === (id && keptId(id));
      return this.#hasScope(row, caller) && isOf;
    }
    if (caller.by !== 'here' && caller.by !== 'device') return false;
    if (this.#mayAsRole(row, caller)) return true;
    const asked = {
      store: this.store,
      id: id === undefined ? undefined : keptId(id),
      body: request.body as unknown,
      personId: personOf(caller)?.id,
      role: caller.role,
    };
    return row.besides?.(asked) ?? false;
  }

  /** The first person, where none was named yet: one alone sees nothing of it. */
  firstKeeper(): Person {
    return this.store.persons.create({ name: 'Keeper', thread: 'indigo', role: 'keeper' });
  }

  /** A device that is used lives on: it is noted, and its cookie made to last anew. */
  livesOn: RequestHandler = (request, response, next) => {
    const caller = this.callerOf(request);
    if (caller.by === 'device' && this.devices.seen(caller.device)) {
      keepSecret(request, response, secretOf(request)!);
    }
    next();
  };

  forgetOld(): void {
    this.devices.forgetOld();
    this.links.forgetOld();
    this.events.forgetOld();
    this.aside.forgetOld();
  }
}

function refusedTo(caller: Caller, isAside: boolean): ProblemError {
  if (caller.by === 'nobody' || caller.by === 'revoked') return notIn(caller, isAside);
  return new ProblemError(403, 'This is not yours to do.', {
    detail:
      caller.by === 'token'
        ? 'The token was made for something else.'
        : 'Nothing was stored. An owner can do it, or let you.',
  });
}

const notIn = (
  caller: Extract<Caller, { by: 'nobody' | 'revoked' }>,
  isAside: boolean,
): ProblemError =>
  caller.by === 'nobody' && caller.token
    ? new ProblemError(401, 'This token is not known here, or was taken back.', {
        detail: 'Nothing was stored.',
      })
    : caller.by === 'revoked'
      ? new ProblemError(401, 'This device was taken out of the list.', {
          detail: isAside
            ? 'What it sent waits for the yes of somebody who keeps this house. It stays here, too.'
            : 'What you noted stays on it. Somebody who keeps this house can let it in again.',
        })
      : new ProblemError(401, 'This device is not paired yet.', {
          detail: 'What you noted stays on it. Pair it with a code from House > Phones.',
        });
