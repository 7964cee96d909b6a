import type { Role } from '@needlecase/core/model/access';
import type { App } from '../app.js';

/** The cookie of a device that was paired over plain http. */
export const cookieOf = (secret: string): string => `needlecase-weak=${secret}`;

/** A person of a role with a paired device. */
export function move(app: App, role: Role, name: string = role) {
  return app.store.write(() => {
    const person = app.store.persons.create({ name, thread: 'indigo', role });
    const { device, secret } = app.access.devices.pair(person.id, `${name}’s phone`, true);
    return { person, device, secret, cookie: cookieOf(secret) };
  });
}
