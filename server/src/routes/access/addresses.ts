import { HouseAddress, type AddressDraft } from '@needlecase/core/model/access';
import Type from 'typebox';
import { isIP } from 'node:net';
import { houseHosts, houseOrigin, originOf } from '../../access/reach.js';
import { invalid, ProblemError } from '../../http/problem.js';
import { longRoute, type Route } from '../../http/route.js';
import { byWhom, reads, told, type Ground } from '../../access/ground.js';

/** The one address that devices use: laid down once, so that what they keep stays where it is. */
export function addressRoutes(ground: Ground): Route[] {
  const { store, access } = ground;
  return [
    longRoute({
      method: 'get',
      path: '/api/v1/addresses',
      summary: 'By what the house’s network may know the server, and which of it is used',
      answers: Type.Array(HouseAddress),
      handle: () => ({ body: addressesOf(ground) }),
    }),
    longRoute({
      method: 'put',
      path: '/api/v1/address',
      summary: 'Lay down the address that devices use; those elsewhere go over to it',
      reads: reads('AddressDraft'),
      answers: Type.Array(HouseAddress),
      handle: (ask) => {
        const { host } = ask.body as AddressDraft;
        if (ground.reach().origin !== undefined) {
          throw new ProblemError(409, 'The address was laid down where the server is installed.', {
            detail: 'Change NEEDLECASE_ORIGIN there.',
          });
        }
        if (!addressesOf(ground).some((one) => one.host === host)) {
          throw invalid([{ field: 'host', message: 'This computer does not go by that.' }]);
        }
        return store.write(() => {
          access.host.choose(host);
          access.events.note('address laid down', { ...byWhom(ask), more: host });
          return { body: told(ground, addressesOf(ground)) };
        });
      },
    }),
  ];
}

function addressesOf({ reach }: Ground): HouseAddress[] {
  const known = reach();
  const used = houseOrigin(known);
  if (used === undefined) return [];
  const hosts = known.origin
    ? [new URL(known.origin).hostname]
    : [...new Set([...(known.host ? [known.host] : []), ...houseHosts()])];
  return hosts.map((host) => {
    const origin = known.origin ?? originOf(host, known);
    return { host, origin, named: isIP(host) === 0, used: origin === used };
  });
}
