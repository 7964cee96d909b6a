import type { Person, Role, Scope } from '@needlecase/core/model/access';
import type { DeviceRow } from './devices.js';

/** Who asks. */
export type Caller =
  /** At the server's own computer, while one person alone lives with it, or none was named. */
  | { by: 'here'; role: 'keeper'; person?: Person }
  | { by: 'device'; role: Role; person: Person; device: DeviceRow }
  /** A meter's own is of that meter alone. */
  | { by: 'token'; scopes: readonly Scope[]; meterId?: string }
  /** A device that was taken out of the list, or whose person was. */
  | { by: 'revoked'; device: DeviceRow }
  | { by: 'nobody'; token?: true };

/** Who is named as the author where nobody else is. */
export const AUTHOR = 'household';

export const personOf = (caller: Caller): Person | undefined =>
  caller.by === 'here' || caller.by === 'device' ? caller.person : undefined;

/** The person an entry is by. */
export const authorOf = (caller: Caller): string => personOf(caller)?.id ?? AUTHOR;
