import QRCode from 'qrcode';
import type { Store } from '../store/store.js';
import type { Access } from './access.js';
import { houseOrigin, phonePage, type Reach } from './reach.js';

const DAY_MS = 86_400_000;

/**
 * Tells at the start how the house reaches the server; and, until the first device is paired, or where it is asked
 * for, the code that makes one a keeper's.
 */
export async function tellTheHouse(
  store: Store,
  access: Access,
  at: Reach,
  asked: boolean,
): Promise<void> {
  const reach = access.host.in(at);
  const phone = phonePage(reach);
  const origin = houseOrigin(reach);
  if (!phone || !origin) {
    console.log('No address of the house’s network was found: is this computer connected?');
    return;
  }
  const lines = [`In the house it is at ${origin}/`];
  // A backup that was put back may have taken the people of all devices away.
  const isFirst = !access.devices
    .list()
    .some(
      ({ revokedAt, personId }) =>
        revokedAt === null && store.persons.get(personId)?.role === 'keeper',
    );
  if (isFirst || asked) {
    const { code } = store.write(() => {
      const keeper =
        store.persons.list().find(({ role }) => role === 'keeper') ?? access.firstKeeper();
      return access.devices.newCode(keeper.id, DAY_MS);
    });
    lines.push(
      `A phone begins at ${phone}`,
      `It is paired with this code, once, within a day: ${code}`,
      await QRCode.toString(`${phone}#${code}`, { type: 'terminal', small: true }),
    );
  }
  console.log(lines.join('\n'));
}
