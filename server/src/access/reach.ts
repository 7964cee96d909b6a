import { isIP } from 'node:net';
import { bareName, HOUSE_NAME, privateAddresses } from './names.js';

/** How the server is reached from other devices of the house. */
export interface Reach {
  /** Of plain http. */
  port: number;
  /** Of https, where it is spoken here. */
  tlsPort?: number;
  /** The one address that was laid down, such as that of a proxy. */
  origin?: string;
  /** The name or number that the household has chosen for it. */
  host?: string;
  /** Open to the house's network, not to this computer alone. */
  open: boolean;
  /** The household's authority, as PEM, where https is spoken by it. */
  authority?: string;
}

const inUrl = (address: string): string => (address.includes(':') ? `[${address}]` : address);

/** What the house's network may know this computer by: its numbers there, and its names. */
export const houseHosts = (): string[] => [
  ...privateAddresses(),
  HOUSE_NAME,
  `${bareName()}.local`,
  bareName(),
];

/** The address of a host, over https where it is spoken. */
export const originOf = (host: string, { port, tlsPort }: Reach): string =>
  tlsPort ? `https://${inUrl(host)}:${tlsPort}` : `http://${inUrl(host)}:${port}`;

/** A name stays with this computer; a number may have been given to another one. */
const isStillOurs = (host: string | undefined, addresses: readonly string[]): boolean =>
  host !== undefined && (isIP(host) === 0 || addresses.includes(host));

/** The address that phones use: installed application, outbox and cookie belong to it alone. */
export function houseOrigin(reach: Reach): string | undefined {
  if (reach.origin) return reach.origin;
  if (!reach.open) return undefined;
  const addresses = privateAddresses();
  const host = isStillOurs(reach.host, addresses) ? reach.host : addresses[0];
  return host === undefined ? undefined : originOf(host, reach);
}

/** Where a phone begins: over plain http, where the certificate is got; where none is needed, where it is paired. */
export function phonePage(reach: Reach): string | undefined {
  const origin = houseOrigin(reach);
  if (!origin || !reach.authority) return origin && `${origin}/pair`;
  return `http://${new URL(origin).hostname}:${reach.port}/phone`;
}

/** Whether its address was laid down, and is no guess. */
export const isSettled = ({ origin, host }: Reach): boolean =>
  origin !== undefined || host !== undefined;
