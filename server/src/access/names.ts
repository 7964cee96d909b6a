import { hostname, networkInterfaces } from 'node:os';

/* By which names this server may be asked: a page of another site can have its own name point here (DNS rebinding). */

const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];
const HOME_ZONES = ['local', 'lan', 'home', 'home.arpa'];
/** The name that is announced in the house. */
export const HOUSE_NAME = 'needlecase.local';
const LOOKED_UP_MS = 20_000;

/** A host and its port, as they stand in a Host header; the host small. */
const HOST = /^(\[[0-9a-f:.]+\]|[a-z0-9](?:[a-z0-9.-]*[a-z0-9])?)(?::\d{1,5})?$/;

/** The host of a Host header; nothing where it is none, or spelled oddly. */
export const hostOf = (header: string | undefined): string | undefined =>
  HOST.exec((header ?? '').toLowerCase())?.[1];

/** Whether a host is this computer, by a name that only it has. */
export const isLoopbackName = (host: string | undefined): boolean =>
  host !== undefined && LOOPBACK.includes(host);

const PRIVATE =
  /^(10\.|192\.168\.|172\.(1[6-9]|2\d|3[01])\.|169\.254\.|100\.(6[4-9]|[7-9]\d|1[01]\d|12[0-7])\.|f[cd]|fe80:)/i;

/** Addresses of this computer on private networks, those of version 4 first. */
export const privateAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter(({ internal, address }) => !internal && PRIVATE.test(address))
    .sort((a, b) => a.family.localeCompare(b.family))
    .map(({ address }) => address);

/** What this computer is called, without a zone. */
export const bareName = (): string => hostname().toLowerCase().split('.')[0]!;

/** The names by which the house may ask for this computer. */
export const houseNames = (): string[] => {
  const bare = bareName();
  return [bare, ...HOME_ZONES.map((zone) => `${bare}.${zone}`), HOUSE_NAME];
};

/**
 * Whether a Host header names this server.
 * @param origin under which the household reaches it besides
 */
export function ownNames(origin?: string): (header: string | undefined) => boolean {
  const fixed = new Set([...LOOPBACK, ...houseNames()]);
  if (origin) fixed.add(new URL(origin).hostname);
  let addresses = new Set<string>();
  let looked = -Infinity;
  return (header) => {
    const host = hostOf(header);
    if (host === undefined) return false;
    if (fixed.has(host)) return true;
    if (Date.now() - looked > LOOKED_UP_MS) {
      looked = Date.now();
      addresses = new Set(privateAddresses().map((one) => (one.includes(':') ? `[${one}]` : one)));
    }
    return addresses.has(host);
  };
}
