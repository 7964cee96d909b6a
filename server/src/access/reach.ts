import { privateAddresses } from './names.js';

/** How the server is reached from other devices of the house. */
export interface Reach {
  /** Of plain http. */
  port: number;
  /** Of https, where it is spoken here. */
  tlsPort?: number;
  /** The one address that was laid down, such as that of a proxy. */
  origin?: string;
  /** Open to the house's network, not to this computer alone. */
  open: boolean;
  /** The household's authority, as PEM, where https is spoken by it. */
  authority?: string;
}

const inUrl = (address: string): string => (address.includes(':') ? `[${address}]` : address);

/** The address that phones use: installed application, outbox and cookie belong to it alone. */
export function houseOrigin({ origin, open, port, tlsPort }: Reach): string | undefined {
  if (origin) return origin;
  const [address] = open ? privateAddresses() : [];
  if (!address) return undefined;
  return tlsPort ? `https://${inUrl(address)}:${tlsPort}` : `http://${inUrl(address)}:${port}`;
}

/** Where a phone begins: over plain http, where the certificate is got; where none is needed, where it is paired. */
export function phonePage(reach: Reach): string | undefined {
  const origin = houseOrigin(reach);
  if (!origin || !reach.authority) return origin && `${origin}/pair`;
  return `http://${new URL(origin).hostname}:${reach.port}/phone`;
}
