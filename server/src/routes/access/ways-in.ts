import {
  Device,
  isCalled,
  Me,
  PairingCode,
  type CodeDraft,
  type PairDraft,
  type Person,
  type SignInDraft,
} from '@needlecase/core/model/access';
import Type from 'typebox';
import { personOf } from '../../access/caller.js';
import { isPassphrase } from '../../access/passphrase.js';
import { inWords } from '../../access/phone-page.js';
import { houseOrigin, phonePage, type Reach } from '../../access/reach.js';
import { invalid, notFound } from '../../http/problem.js';
import { longRoute, type Route } from '../../http/route.js';
import {
  asDevice,
  byWhom,
  devicesOf,
  gone,
  me,
  mustBeSafe,
  NOBODY,
  orRefused,
  personOr404,
  reads,
  someone,
  type Ground,
} from '../../access/ground.js';

/** So long one takes to go from one address to the other. */
const MOVE_MS = 2 * 60_000;

/** How devices come in, and are shut out. */
export function waysIn(ground: Ground): Route[] {
  const { store, access, reach } = ground;
  return [
    longRoute({
      method: 'get',
      path: '/api/v1/me',
      summary: 'Who asks, as the server knows it',
      answers: Me,
      handle: ({ caller }) => ({ body: me(ground, caller) }),
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
            return { answer: { body: me(ground, asDevice(person, device)), secret } };
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
        const person = store.persons.list().find((one) => isCalled(one, name));
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
            return { answer: { body: me(ground, asDevice(person, device)), secret } };
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
          gone(ground, [caller.device.id]);
        }
        return { body: me(ground, NOBODY), secret: null };
      },
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
          const person = personId
            ? personOr404(ground, personId)
            : (personOf(ask.caller) ?? someone(ground));
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
          const person = personOf(ask.caller) ?? someone(ground);
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
      handle: ({ caller }) => ({ body: devicesOf(ground, caller) }),
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
        gone(ground, [device.id]);
        return { body: devicesOf(ground, ask.caller) };
      },
    }),
  ];
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
