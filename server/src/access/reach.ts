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
}

const inUrl = (address: string): string => (address.includes(':') ? `[${address}]` : address);

/** The address that phones use: installed application, outbox and cookie belong to it alone. */
export function houseOrigin({ origin, open, port, tlsPort }: Reach): string | undefined {
  if (origin) return origin;
  const [address] = open ? privateAddresses() : [];
  if (!address) return undefined;
  return tlsPort ? `https://${inUrl(address)}:${tlsPort}` : `http://${inUrl(address)}:${port}`;
}

/** Where a phone begins: over plain http, where the certificate is got. */
export function phonePage(reach: Reach): string | undefined {
  const [address] = reach.open ? privateAddresses() : [];
  if (reach.tlsPort && address && !reach.origin) {
    return `http://${inUrl(address)}:${reach.port}/phone`;
  }
  const origin = houseOrigin(reach);
  return origin && `${origin}/pair`;
}
