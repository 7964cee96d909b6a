import type {
  AuthenticationResponseJSON,
  AuthenticatorTransport,
  RegistrationResponseJSON,
} from '@simplewebauthn/server';
import {
  Me,
  Passkey,
  PasskeyOptions,
  type PasskeyDraft,
  type PasskeySignIn,
  type Person,
} from '@needlecase/core/model/access';
import { isIP } from 'node:net';
import Type from 'typebox';
import { personOf, type Caller } from '../../access/caller.js';
import { invalid, notFound, ProblemError } from '../../http/problem.js';
import { longRoute, type Ask, type Route } from '../../http/route.js';
import { asDevice, byWhom, me, orRefused, reads, type Ground } from '../../access/ground.js';

const SIGN_IN = 'sign in';
const authentication = () => import('@simplewebauthn/server');

/** Keys that a person's own device holds behind its lock: they let the person in where https holds. */
export function passkeyRoutes(ground: Ground): Route[] {
  const { store, access } = ground;
  const { passkeys } = access;
  return [
    longRoute({
      method: 'get',
      path: '/api/v1/passkeys',
      summary: 'One’s own passkeys; a keeper’s list has everybody’s',
      answers: Type.Array(Passkey),
      handle: ({ caller }) => ({ body: seenBy(ground, caller) }),
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/passkeys/options',
      summary: 'What this device is to answer to, to make a passkey of one’s own',
      reckons: true,
      answers: PasskeyOptions,
      handle: async (ask) => {
        const { id, name } = ownPerson(ask.caller);
        const { generateRegistrationOptions } = await authentication();
        const options = await generateRegistrationOptions({
          rpName: 'Needlecase',
          rpID: placeOf(ask).name,
          userName: name,
          userID: new TextEncoder().encode(id),
          attestationType: 'none',
          excludeCredentials: passkeys.rows(id).map(({ credential, transports }) => ({
            id: credential,
            transports: known(transports),
          })),
          authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
        });
        passkeys.challenges.give(options.challenge, id);
        return { body: options };
      },
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/passkeys',
      summary: 'Keep a passkey that this device made',
      reads: reads('PasskeyDraft'),
      answers: Passkey,
      handle: async (ask) => {
        const { name, answer } = ask.body as PasskeyDraft;
        const { id: personId } = ownPerson(ask.caller);
        const place = placeOf(ask);
        const { verifyRegistrationResponse } = await authentication();
        const { registrationInfo } = await verifyRegistrationResponse({
          response: answer as unknown as RegistrationResponseJSON,
          expectedChallenge: (challenge) => passkeys.challenges.take(challenge, personId),
          expectedOrigin: place.origin,
          expectedRPID: place.name,
        }).catch(refused);
        if (!registrationInfo) throw notRight();
        const { id: credential, publicKey, counter, transports } = registrationInfo.credential;
        return store.write(() => {
          if (passkeys.byCredential(credential)) throw notRight('This passkey is kept already.');
          const kept = passkeys.add({
            personId,
            credential,
            publicKey: Buffer.from(publicKey),
            counter,
            transports: transports ?? [],
            name,
          });
          access.events.note('passkey made', { ...byWhom(ask), more: name });
          return { status: 201, body: kept };
        });
      },
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/passkeys/{id}',
      summary: 'Take a passkey away: one’s own, a keeper anybody’s',
      answers: Type.Array(Passkey),
      handle: (ask) => {
        const mine = seenBy(ground, ask.caller).find(({ id }) => id === ask.params.id);
        if (!mine) throw notFound('passkey');
        return store.write(() => {
          passkeys.remove(mine.id, mine.personId);
          access.events.note('passkey taken away', { ...byWhom(ask), more: mine.name });
          return { body: seenBy(ground, ask.caller) };
        });
      },
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/sign-in/options',
      summary: 'What a device is to answer to, to let somebody in by a passkey',
      reckons: true,
      answers: PasskeyOptions,
      handle: async (ask) => {
        const { generateAuthenticationOptions } = await authentication();
        const options = await generateAuthenticationOptions({
          rpID: placeOf(ask).name,
          userVerification: 'required',
        });
        passkeys.challenges.give(options.challenge, SIGN_IN);
        return { body: options };
      },
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/sign-in/passkey',
      summary: 'Let a device in by a passkey',
      reads: reads('PasskeySignIn'),
      answers: Me,
      handle: async (ask) => {
        const { device: called, answer } = ask.body as PasskeySignIn;
        const place = placeOf(ask);
        const response = answer as unknown as AuthenticationResponseJSON;
        const row =
          typeof response.id === 'string' ? passkeys.byCredential(response.id) : undefined;
        const person = row && store.persons.get(row.personId);
        const { verifyAuthenticationResponse } = await authentication();
        const counter =
          row &&
          (await verifyAuthenticationResponse({
            response,
            expectedChallenge: (challenge) => passkeys.challenges.take(challenge, SIGN_IN),
            expectedOrigin: place.origin,
            expectedRPID: place.name,
            credential: {
              id: row.credential,
              publicKey: new Uint8Array(row.publicKey),
              counter: row.counter,
              transports: known(row.transports),
            },
          }).then(
            ({ verified, authenticationInfo }) =>
              verified ? authenticationInfo.newCounter : undefined,
            () => undefined,
          ));
        return orRefused(
          store.write(() => {
            if (!person || counter === undefined) {
              access.events.note('turned away', { device: called, more: 'by a passkey' });
              return { refused: notRight('This passkey lets nobody in here.') };
            }
            passkeys.used(row.id, counter);
            const { device, secret } = access.devices.pair(person.id, called, false);
            access.events.note('signed in', { personId: person.id, device: called });
            return { answer: { body: me(ground, asDevice(person, device)), secret } };
          }),
        );
      },
    }),
  ];
}

function seenBy({ access, store }: Ground, caller: Caller): Passkey[] {
  if (caller.by === 'here' || (caller.by === 'device' && caller.role === 'keeper')) {
    const there = new Set(store.persons.list().map(({ id }) => id));
    return access.passkeys.list().filter(({ personId }) => there.has(personId));
  }
  const person = personOf(caller);
  return person ? access.passkeys.list(person.id) : [];
}

/** @throws 409 where there are no persons yet */
function ownPerson(caller: Caller): Person {
  const person = personOf(caller);
  if (person) return person;
  throw new ProblemError(409, 'A passkey belongs to a person, and there is none yet.', {
    detail: 'Add the people of the house first.',
  });
}

/**
 * The name that a passkey is for, and the address that it is used at.
 * @throws 409 where browsers have none: over plain http, and where the address is a number
 */
function placeOf({ safe, host }: Ask): { name: string; origin: string } {
  const { hostname: name, origin } = new URL(host);
  if (safe && isIP(name.replace(/^\[|\]$/g, '')) === 0) return { name, origin };
  throw new ProblemError(409, 'A passkey needs https and a name.', {
    detail: 'Open the house’s address by its name, and not by its number.',
  });
}

const known = (transports: readonly string[]): AuthenticatorTransport[] =>
  transports as AuthenticatorTransport[];

const notRight = (message = 'This passkey cannot be read. Try again.'): ProblemError =>
  invalid([{ field: 'answer', message }]);

const refused = (): never => {
  throw notRight();
};
