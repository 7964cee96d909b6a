import { sharesOf } from '@needlecase/core';
import {
  isCalled,
  isKeptWithout,
  Person,
  Shared,
  type PassphraseDraft,
  type PersonDraft,
} from '@needlecase/core/model/access';
import Type from 'typebox';
import { personOf } from '../../access/caller.js';
import { digestOfPassphrase } from '../../access/passphrase.js';
import { invalid } from '../../http/problem.js';
import { longRoute, type Route } from '../../http/route.js';
import { currentOf } from '../../work/records.js';
import {
  byWhom,
  gone,
  mustBeSafe,
  personOr404,
  reads,
  someone,
  told,
  type Ground,
} from '../../access/ground.js';

const QUARTER_MS = 91 * 86_400_000;

/** The people of the household. */
export function personRoutes(ground: Ground): Route[] {
  const { store, access, changes } = ground;
  return [
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
          mustBeOwnName(ground, draft);
          const first = store.persons.list().length === 0 && ask.caller.by === 'here';
          const keeper = first ? someone(ground) : personOf(ask.caller);
          mustBeOwnName(ground, draft);
          const person = told(ground, store.persons.create(draft));
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
          const { id, version } = currentOf(
            'person',
            () => personOr404(ground, ask.params.id),
            ask,
          );
          mustBeOwnName(ground, draft, id);
          if (draft.role !== 'keeper') mustLeaveAKeeper(ground, id, 'role');
          const person = told(ground, store.persons.replace(id, version, draft));
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
        const { id, name } = personOr404(ground, ask.params.id);
        const revoked = store.write(() => {
          mustLeaveAKeeper(ground, id, '');
          store.persons.remove(id);
          access.passkeys.removeAllOf(id);
          access.events.note('person taken out', { ...byWhom(ask), more: name });
          told(ground, undefined);
          return access.devices.revokeAllOf(id);
        });
        gone(ground, revoked);
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
        const { id } = personOr404(ground, ask.params.id);
        const digest = await digestOfPassphrase((ask.body as PassphraseDraft).passphrase);
        return store.write(() => {
          store.persons.setPassphrase(id, digest);
          access.events.note('pass phrase set', {
            ...byWhom(ask),
            more: personOr404(ground, id).name,
          });
          return { body: told(ground, personOr404(ground, id)) };
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
          const { id, name } = personOr404(ground, ask.params.id);
          store.persons.setPassphrase(id, undefined);
          access.events.note('pass phrase taken away', { ...byWhom(ask), more: name });
          return { body: told(ground, personOr404(ground, id)) };
        }),
    }),
  ];
}

/** @throws 422 where nobody could let anybody in any more */
function mustLeaveAKeeper({ store }: Ground, without: string, field: string): void {
  if (isKeptWithout(store.persons.list(), without)) return;
  throw invalid([
    { field, message: 'Somebody has to keep this house: make another one keeper first.' },
  ]);
}

/** @throws 422 for a name that another one has: people sign in by it */
function mustBeOwnName({ store }: Ground, { name }: PersonDraft, id?: string): void {
  if (store.persons.list().some((one) => one.id !== id && isCalled(one, name))) {
    throw invalid([{ field: 'name', message: 'Somebody is called that already.' }]);
  }
}
