import {
  ACCESS_DRAFTS,
  type AccessDraft,
  type Device,
  type Me,
  type Person,
} from '@needlecase/core/model/access';
import { checkAccess } from '@needlecase/core/model/check-access';
import type { Access } from './access.js';
import { personOf, type Caller } from './caller.js';
import { toDevice, type DeviceRow } from './devices.js';
import { houseOrigin, isSettled, type Reach } from './reach.js';
import type { Changes } from '../http/changes.js';
import { notFound, ProblemError } from '../http/problem.js';
import type { Ask } from '../http/route.js';
import type { Store } from '../store/store.js';

/** What the routes of access stand on. */
export interface Ground {
  store: Store;
  access: Access;
  changes: Changes;
  reach: () => Reach;
}

/** A body of access, and what is wrong with it. */
export const reads = (name: AccessDraft) => ({
  schema: ACCESS_DRAFTS[name],
  check: (body: unknown) => checkAccess(name, body),
});

/** @throws 404 */
export function personOr404({ store }: Ground, id: string): Person {
  const person = store.persons.get(id);
  if (!person) throw notFound('person');
  return person;
}

/** Tells open screens that something of the household changed. @returns what */
export function told<T>({ store }: Ground, what: T): T {
  store.changed({ topic: 'household' });
  return what;
}

/** The first person, made where nobody is yet. */
export const someone = ({ store, access }: Ground): Person =>
  store.persons.list()[0] ?? access.firstKeeper();

/** Who asks, for the list of what happened. */
export function byWhom({ caller }: Ask): { personId?: string; device?: string } {
  const personId = personOf(caller)?.id;
  return {
    ...(personId ? { personId } : {}),
    ...(caller.by === 'device' ? { device: caller.device.name } : {}),
  };
}

/** Ends what devices listen to that are shut out. */
export const gone = ({ changes }: Ground, ids: readonly string[]): void =>
  ids.forEach((id) => changes.end(id));

export const NOBODY: Caller = { by: 'nobody' };

export const asDevice = (person: Person, device: DeviceRow): Caller => ({
  by: 'device',
  role: person.role,
  person,
  device,
});

export const devicesOf = ({ access }: Ground, caller: Caller): Device[] => {
  const here = caller.by === 'device' ? caller.device.id : undefined;
  return access.devices.list().map((row) => toDevice(row, here));
};

/** @throws 403 over plain http: what is typed there can be read on its way */
export function mustBeSafe(safe: boolean): void {
  if (safe) return;
  throw new ProblemError(403, 'A pass phrase is never asked for over plain http.', {
    detail: 'Open the https address. Nothing was stored.',
  });
}

/** What was turned away is noted before it is told. */
export function orRefused<A>(outcome: { answer: A } | { refused: ProblemError }): A {
  if ('refused' in outcome) throw outcome.refused;
  return outcome.answer;
}

/** Who asks, as it is told to them. */
export function me({ store, reach }: Ground, caller: Caller): Me {
  const known = reach();
  const origin = houseOrigin(known);
  const common = {
    persons: store.persons.list().length,
    ...(origin ? { origin, settled: isSettled(known) } : {}),
  };
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
