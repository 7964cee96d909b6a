import {
  AccessEvent,
  Aside,
  ACCESS_DRAFTS,
  Device,
  Link,
  Me,
  PairingCode,
  Person,
  Shared,
  Token,
  type AccessDraft,
  type CodeDraft,
  type LinkDraft,
  type PairDraft,
  type PassphraseDraft,
  type PersonDraft,
  type SignInDraft,
  type TokenDraft,
} from '@needlecase/core/model/access';
import { sharesOf } from '@needlecase/core';
import { checkAccess } from '@needlecase/core/model/check-access';
import Type from 'typebox';
import type { Access } from '../access/access.js';
import { personOf, type Caller } from '../access/caller.js';
import { toDevice, type DeviceRow } from '../access/devices.js';
import { digestOfPassphrase, isPassphrase } from '../access/passphrase.js';
import { inWords } from '../access/phone-page.js';
import { houseOrigin, phonePage, type Reach } from '../access/reach.js';
import type { Changes } from '../http/changes.js';
import { invalid, notFound, ProblemError } from '../http/problem.js';
import { doLater, keyOf, longRoute, type Ask, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { currentOf } from '../work/records.js';

const reads = (name: AccessDraft) => ({
  schema: ACCESS_DRAFTS[name],
  check: (body: unknown) => checkAccess(name, body),
});

const QUARTER_MS = 91 * 86_400_000;

/** So long one takes to go from one address to the other. */
const MOVE_MS = 2 * 60_000;

/** Persons, their devices, and whatever else lets in. None of it is kept for retries: it holds secrets. */
export function accessRoutes(
  store: Store,
  access: Access,
  changes: Changes,
  reach: () => Reach,
  routes: () => readonly Route[],
): Route[] {
  const personOr404 = (id: string): Person => {
    const person = store.persons.get(id);
    if (!person) throw notFound('person');
    return person;
  };
  const told = <T>(what: T): T => {
    store.changed({ topic: 'household' });
    return what;
  };
  const someone = (): Person => store.persons.list()[0] ?? access.firstKeeper();
  const byWhom = ({ caller }: Ask) => {
    const personId = personOf(caller)?.id;
    return {
      ...(personId ? { personId } : {}),
      ...(caller.by === 'device' ? { device: caller.device.name } : {}),
    };
  };
  /** @throws 422 where nobody could let anybody in any more */
  const mustLeaveAKeeper = (without: string, field: string): void => {
    const others = store.persons
      .list()
      .filter(({ id, role }) => id !== without && role === 'keeper');
    if (others.length === 0) {
      throw invalid([
        { field, message: 'Somebody has to keep this house: make another one keeper first.' },
      ]);
    }
  };
  /** @throws 422 for a name that another one has: people sign in by it */
  const mustBeOwnName = (draft: PersonDraft, id?: string): void => {
    const same = (one: Person) => one.name.trim().toLowerCase() === draft.name.trim().toLowerCase();
    if (store.persons.list().some((one) => one.id !== id && same(one))) {
      throw invalid([{ field: 'name', message: 'Somebody is called that already.' }]);
    }
  };
  const gone = (ids: readonly string[]): void => ids.forEach((id) => changes.end(id));

  return [
    longRoute({
      method: 'get',
      path: '/api/v1/me',
      summary: 'Who asks, as the server knows it',
      answers: Me,
      handle: ({ caller }) => ({ body: me(store, caller, reach()) }),
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/pair',
      summary: 'Pair a device by a code',
      reads: reads('PairDraft'),
      answers: Me,
      handle: ({ body, safe }) => {
        const { code, device: name } = body as PairDraft;
        return orRefused(
          store.write(() => {
            const personId = access.devices.useCode(code);
            const person = personId === undefined ? undefined : store.persons.get(personId);
            if (!person) {
              access.events.note('turned away', { device: name, more: 'by a code' });
              return {
                refused: invalid([
                  {
                    field: 'code',
                    message: 'This code is none, was used, or is too old. Ask for a new one.',
                  },
                ]),
              };
            }
            const { device, secret } = access.devices.pair(person.id, name, !safe);
            access.events.note('paired', { personId: person.id, device: name });
            return { answer: { body: me(store, asDevice(person, device), reach()), secret } };
          }),
        );
      },
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/sign-in',
      summary: 'Let a shared computer in by a person’s pass phrase; never over plain http',
      reads: reads('SignInDraft'),
      answers: Me,
      handle: async ({ body, safe }) => {
        mustBeSafe(safe);
        const { name, passphrase, device: called } = body as SignInDraft;
        const wanted = name.trim().toLowerCase();
        const person = store.persons.list().find((one) => one.name.trim().toLowerCase() === wanted);
        const digest = person && store.persons.passphraseOf(person.id);
        const right = await isPassphrase(passphrase, digest);
        return orRefused(
          store.write(() => {
            if (!right || !person) {
              access.events.note('turned away', { device: called, more: 'by a pass phrase' });
              return {
                refused: invalid([
                  { field: 'passphrase', message: 'Name and pass phrase do not go together.' },
                ]),
              };
            }
            const { device, secret } = access.devices.pair(person.id, called, false);
            access.events.note('signed in', { personId: person.id, device: called });
            return { answer: { body: me(store, asDevice(person, device), reach()), secret } };
          }),
        );
      },
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/sign-out',
      summary: 'Take this device out of the list',
      answers: Me,
      handle: (ask) => {
        const { caller } = ask;
        if (caller.by === 'device') {
          store.write(() => {
            access.devices.revoke(caller.device.id);
            access.events.note('signed out', byWhom(ask));
          });
          gone([caller.device.id]);
        }
        return { body: me(store, { by: 'nobody' }, reach()), secret: null };
      },
    }),

    longRoute({
      method: 'get',
      path: '/api/v1/persons',
      summary: 'The people of the household',
      answers: Type.Array(Person),
      handle: () => ({ body: store.persons.list() }),
    }),
    longRoute({
      method: 'get',
      path: '/api/v1/shares',
      summary: 'How the work of the last three months was shared by those who are here',
      answers: Shared,
      handle: () => {
        const done = store.entries.doneSince(Date.now() - QUARTER_MS);
        const shares = sharesOf(done, store.machines.list());
        return {
          body: store.persons.list().map(({ id }) => {
            const { minutes = 0, tasks = 0 } = shares.find(({ author }) => author === id) ?? {};
            return { personId: id, minutes, tasks };
          }),
        };
      },
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/persons',
      summary:
        'Add a person; from the second on, every device has to be paired, this one is at once',
      reads: reads('PersonDraft'),
      answers: Person,
      handle: (ask) => {
        const draft = ask.body as PersonDraft;
        return store.write(() => {
          mustBeOwnName(draft);
          const first = store.persons.list().length === 0 && ask.caller.by === 'here';
          const keeper = first ? someone() : personOf(ask.caller);
          mustBeOwnName(draft);
          const person = told(store.persons.create(draft));
          access.events.note('person added', { ...byWhom(ask), more: person.name });
          if (ask.caller.by !== 'here' || !keeper) return { status: 201, body: person };
          // Whoever else looked on at this computer has to be paired from now on.
          changes.end('here');
          const { secret } = access.devices.pair(keeper.id, 'The server’s own computer', !ask.safe);
          access.events.note('paired', {
            personId: keeper.id,
            device: 'The server’s own computer',
          });
          return { status: 201, body: person, secret };
        });
      },
    }),
    longRoute({
      method: 'put',
      path: '/api/v1/persons/{id}',
      summary: 'Change a person',
      reads: reads('PersonDraft'),
      guarded: true,
      answers: Person,
      handle: (ask) => {
        const draft = ask.body as PersonDraft;
        return store.write(() => {
          const { id, version } = currentOf('person', () => personOr404(ask.params.id), ask);
          mustBeOwnName(draft, id);
          if (draft.role !== 'keeper') mustLeaveAKeeper(id, 'role');
          const person = told(store.persons.replace(id, version, draft));
          access.events.note('person changed', { ...byWhom(ask), more: person.name });
          return { body: person, version: person.version };
        });
      },
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/persons/{id}',
      summary: 'Take a person out, and all their devices; what they did stays in the log',
      answers: Type.Array(Person),
      handle: (ask) => {
        const { id, name } = personOr404(ask.params.id);
        const revoked = store.write(() => {
          mustLeaveAKeeper(id, '');
          store.persons.remove(id);
          access.events.note('person taken out', { ...byWhom(ask), more: name });
          told(undefined);
          return access.devices.revokeAllOf(id);
        });
        gone(revoked);
        return { body: store.persons.list() };
      },
    }),
    longRoute({
      method: 'put',
      path: '/api/v1/persons/{id}/passphrase',
      summary: 'Give a person a pass phrase, for a shared computer; never over plain http',
      reads: reads('PassphraseDraft'),
      answers: Person,
      handle: async (ask) => {
        mustBeSafe(ask.safe);
        const { id } = personOr404(ask.params.id);
        const digest = await digestOfPassphrase((ask.body as PassphraseDraft).passphrase);
        return store.write(() => {
          store.persons.setPassphrase(id, digest);
          access.events.note('pass phrase set', { ...byWhom(ask), more: personOr404(id).name });
          return { body: told(personOr404(id)) };
        });
      },
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/persons/{id}/passphrase',
      summary: 'Take a person’s pass phrase away',
      answers: Person,
      handle: (ask) =>
        store.write(() => {
          const { id, name } = personOr404(ask.params.id);
          store.persons.setPassphrase(id, undefined);
          access.events.note('pass phrase taken away', { ...byWhom(ask), more: name });
          return { body: told(personOr404(id)) };
        }),
    }),

    longRoute({
      method: 'post',
      path: '/api/v1/codes',
      summary: 'Make a code that pairs one device, once, within ten minutes',
      reads: reads('CodeDraft'),
      answers: PairingCode,
      handle: (ask) => {
        const { personId } = ask.body as CodeDraft;
        return store.write(() => {
          const person = personId ? personOr404(personId) : (personOf(ask.caller) ?? someone());
          const { code, until } = access.devices.newCode(person.id);
          access.events.note('code made', { ...byWhom(ask), more: person.name });
          return { status: 201, body: toCode(code, until, person, reach(), ask.host) };
        });
      },
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/move',
      summary: 'A code for the same person’s same device, to go over to the safe address with',
      answers: PairingCode,
      handle: (ask) =>
        store.write(() => {
          const person = personOf(ask.caller) ?? someone();
          const { code, until } = access.devices.newCode(person.id, MOVE_MS);
          access.events.note('code made', { ...byWhom(ask), more: `${person.name}, to move over` });
          return { status: 201, body: toCode(code, until, person, reach(), ask.host) };
        }),
    }),
    longRoute({
      method: 'get',
      path: '/api/v1/devices',
      summary: 'Devices that are paired, and those that were taken out lately',
      answers: Type.Array(Device),
      handle: ({ caller }) => ({ body: devicesOf(access, caller) }),
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/devices/{id}',
      summary: 'Take a device out: it is shut out at once',
      answers: Type.Array(Device),
      handle: (ask) => {
        const device = access.devices.get(ask.params.id);
        if (!device) throw notFound('device');
        store.write(() => {
          access.devices.revoke(device.id);
          access.events.note('device taken out', { ...byWhom(ask), more: device.name });
        });
        gone([device.id]);
        return { body: devicesOf(access, ask.caller) };
      },
    }),

    longRoute({
      method: 'get',
      path: '/api/v1/tokens',
      summary: 'Tokens of meters and scripts',
      answers: Type.Array(Token),
      handle: () => ({ body: access.tokens.list() }),
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/tokens',
      summary: 'Make a token; it is told this once',
      reads: reads('TokenDraft'),
      answers: Token,
      handle: (ask) =>
        store.write(() => {
          const token = access.tokens.make(ask.body as TokenDraft);
          access.events.note('token made', { ...byWhom(ask), more: token.name });
          return { status: 201, body: token };
        }),
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/tokens/{id}',
      summary: 'Take a token back',
      answers: Type.Array(Token),
      handle: (ask) =>
        store.write(() => {
          const token = access.tokens.get(ask.params.id);
          if (!token) throw notFound('token');
          access.tokens.revoke(token.id);
          access.events.note('token taken back', { ...byWhom(ask), more: token.name });
          return { body: access.tokens.list() };
        }),
    }),

    longRoute({
      method: 'get',
      path: '/api/v1/links',
      summary: 'Links that show one machine’s record or one case',
      answers: Type.Array(Link),
      handle: () => ({ body: access.links.list() }),
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/links',
      summary:
        'Make a link that shows one machine’s record or one case for a fortnight; its address is told this once',
      reads: reads('LinkDraft'),
      answers: Link,
      handle: (ask) => {
        const draft = ask.body as LinkDraft;
        return store.write(() => {
          const there = draft.shows === 'machine' ? store.machines : store.cases;
          if (!there.get(draft.target)) {
            throw invalid([{ field: 'target', message: `There is no such ${draft.shows}.` }]);
          }
          const { link, secret } = access.links.make(draft);
          access.events.note('link made', { ...byWhom(ask), more: draft.forWhom });
          const address = `${houseOrigin(reach()) ?? ask.host}/shared/${secret}`;
          return { status: 201, body: { ...link, address } };
        });
      },
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/links/{id}',
      summary: 'Take a link back',
      answers: Type.Array(Link),
      handle: (ask) =>
        store.write(() => {
          const link = access.links.get(ask.params.id);
          if (!link) throw notFound('link');
          access.links.revoke(link.id);
          access.events.note('link taken back', { ...byWhom(ask), more: link.forWhom });
          return { body: access.links.list() };
        }),
    }),
    longRoute({
      method: 'get',
      path: '/api/v1/set-aside',
      summary: 'What devices sent after they were taken out, until somebody says whether it holds',
      answers: Type.Array(Aside),
      handle: () => ({ body: access.aside.list() }),
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/set-aside/{id}/take',
      summary: 'Take in what a device sent after it was taken out, as noted by its person',
      answers: Type.Array(Aside),
      handle: (ask) => {
        const one = access.aside.get(ask.params.id);
        if (!one) throw notFound('thing that waits');
        const route = routes().find((known) => keyOf(known) === one.route)!;
        const device = access.devices.get(one.deviceId);
        const person = device && store.persons.get(device.personId);
        doLater(route, one, store, device && person ? asDevice(person, device) : NOBODY);
        store.write(() => {
          access.aside.done(one.id);
          access.events.note('taken in from a device that was taken out', {
            ...byWhom(ask),
            ...(device ? { more: device.name } : {}),
          });
        });
        return { body: access.aside.list() };
      },
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/set-aside/{id}',
      summary: 'Let go what a device sent after it was taken out',
      answers: Type.Array(Aside),
      handle: (ask) =>
        store.write(() => {
          const one = access.aside.get(ask.params.id);
          if (!one) throw notFound('thing that waits');
          access.aside.done(one.id);
          access.events.note('let go from a device that was taken out', byWhom(ask));
          return { body: access.aside.list() };
        }),
    }),
    longRoute({
      method: 'get',
      path: '/api/v1/access-events',
      summary: 'Who came in, who was turned away, what was given and taken back: 180 days',
      answers: Type.Array(AccessEvent),
      handle: () => ({ body: access.events.list() }),
    }),
  ];
}

const NOBODY: Caller = { by: 'nobody' };

/** What was turned away is noted before it is told. */
function orRefused<A>(outcome: { answer: A } | { refused: ProblemError }): A {
  if ('refused' in outcome) throw outcome.refused;
  return outcome.answer;
}

const asDevice = (person: Person, device: DeviceRow): Caller => ({
  by: 'device',
  role: person.role,
  person,
  device,
});

const devicesOf = (access: Access, caller: Caller): Device[] => {
  const here = caller.by === 'device' ? caller.device.id : undefined;
  return access.devices.list().map((row) => toDevice(row, here));
};

/** @throws 403 over plain http: what is typed there can be read on its way */
function mustBeSafe(safe: boolean): void {
  if (safe) return;
  throw new ProblemError(403, 'A pass phrase is never asked for over plain http.', {
    detail: 'Open the https address. Nothing was stored.',
  });
}

function me(store: Store, caller: Caller, reach: Reach): Me {
  const origin = houseOrigin(reach);
  const common = { persons: store.persons.list().length, ...(origin ? { origin } : {}) };
  if (caller.by === 'here') {
    const { person } = caller;
    return { by: 'here', role: 'keeper', ...(person ? { person } : {}), ...common };
  }
  if (caller.by === 'device') {
    const { role, person, device } = caller;
    return { by: 'device', role, person, device: toDevice(device, device.id), ...common };
  }
  return { by: 'nobody', ...(caller.by === 'revoked' ? { revoked: true } : {}), ...common };
}

/** @param host the address that was asked, for a server that is reached by nothing else */
function toCode(
  code: string,
  until: number,
  person: Person,
  reach: Reach,
  host: string,
): PairingCode {
  const origin = houseOrigin(reach) ?? host;
  return {
    code,
    personId: person.id,
    until: new Date(until).toISOString(),
    phone: `${phonePage(reach) ?? `${host}/pair`}#${code}`,
    ...(reach.authority ? { words: inWords(reach.authority) } : {}),
    pair: `${origin}/pair#${code}`,
  };
}
