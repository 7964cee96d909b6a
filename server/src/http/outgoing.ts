import { lookup as lookUp, type LookupAddress } from 'node:dns';
import { get as getHttp, type IncomingMessage, type RequestOptions } from 'node:http';
import { get as getHttps } from 'node:https';
import { isIP, type LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';

/*
 * The one gate for addresses that this server calls because somebody said so: it must not be made to look around in
 * the house's network, or at its own computer, for whoever can name an address (OWASP: server-side request forgery).
 */

/** Where an address may lead: out into the world, or also into the house's own network. */
export type May = 'world' | 'home';

/** An address that may not be called, or where nothing answers as it should. */
export class NotCalled extends Error {}

/** Where nobody's server is: nothing at all, everybody at once, and what clouds tell of their computers. */
const NEVER = new Set(['unspecified', 'broadcast', 'multicast', 'reserved', 'linkLocal']);

/**
 * Whether a numeric address may be called.
 * @source RFC 6890, special-purpose addresses, by ipaddr.js; an address of version 4 that is written as one of version 6
 *   is what it stands for (RFC 4291, 2.5.5; RFC 6052)
 */
export function mayCall(address: string, may: May): boolean {
  if (!ipaddr.isValid(address)) return false;
  const parsed = ipaddr.parse(address);
  if (parsed instanceof ipaddr.IPv6) {
    const six = parsed;
    if (six.isIPv4MappedAddress()) return mayCall(six.toIPv4Address().toString(), may);
    if (six.range() === 'rfc6052') {
      return mayCall(six.toByteArray().slice(12).join('.'), may);
    }
  }
  const range = parsed.range();
  if (range === 'unicast') return true;
  return may === 'home' && !NEVER.has(range);
}

/** Looks a name up, and lets nothing through that may not be called: what is connected to is what was looked at. */
const guarded =
  (may: May): LookupFunction =>
  (host, options, done) => {
    lookUp(host, { ...options, all: true }, (error, found: LookupAddress[]) => {
      if (error) return done(error, '', 0);
      const good = found.filter(({ address }) => mayCall(address, may));
      const [first] = good;
      if (!first) return done(new NotCalled('not to be called'), '', 0);
      if (options.all) return done(null, good, 0);
      done(null, first.address, first.family);
    });
  };

/** Whether a host, by its name or its number, leads only where it may. @throws NotCalled */
export async function mustBeCallable(host: string, may: May): Promise<void> {
  const bare = host.replace(/^\[|\]$/g, '');
  if (isIP(bare)) {
    if (!mayCall(bare, may)) throw new NotCalled('not to be called');
    return;
  }
  await new Promise<void>((done, failed) =>
    guarded(may)(bare, {}, (error) => (error ? failed(error) : done())),
  );
}

/** So many times one is sent on. */
const MOST_HOPS = 4;

interface Calling {
  may: May;
  /** Whoever does not answer by then is away, ms. */
  patience: number;
  /** Bytes at most. */
  most: number;
  accept: string;
}

/**
 * What an address of http or https answers. Each hop is held against the gate, by the number that is really called.
 * @throws NotCalled
 */
export async function callOutside(address: string, calling: Calling): Promise<Buffer> {
  const until = AbortSignal.timeout(calling.patience);
  let url = addressOf(address);
  for (let hop = 0; hop <= MOST_HOPS; hop++) {
    const answer = await answered(url, calling, until);
    const { statusCode = 0, headers } = answer;
    if (statusCode >= 300 && statusCode < 400 && headers.location !== undefined) {
      answer.destroy();
      url = addressOf(headers.location, url);
      continue;
    }
    if (statusCode !== 200) {
      answer.destroy();
      throw new NotCalled(`answered ${statusCode}`);
    }
    return bytesOf(answer, calling.most);
  }
  throw new NotCalled('sent on too often');
}

function addressOf(address: string, from?: URL): URL {
  const plain = address.trim().replace(/^webcal:/i, 'https:');
  if (URL.canParse(plain, from)) {
    const url = new URL(plain, from);
    // From a safe address nobody is sent on to an unsafe one.
    const downhill = from?.protocol === 'https:' && url.protocol !== 'https:';
    if (/^https?:$/.test(url.protocol) && !downhill) return url;
  }
  throw new NotCalled('no address of the web');
}

async function answered(
  url: URL,
  { may, accept }: Calling,
  signal: AbortSignal,
): Promise<IncomingMessage> {
  await mustBeCallable(url.hostname, may);
  const options: RequestOptions = {
    ...{ signal, lookup: guarded(may), agent: false },
    headers: { Accept: accept, 'Accept-Encoding': 'identity' },
    ...(url.username
      ? { auth: `${decodeURIComponent(url.username)}:${decodeURIComponent(url.password)}` }
      : {}),
  };
  return new Promise((done, failed) => {
    const get = url.protocol === 'https:' ? getHttps : getHttp;
    get(url, options, done).on('error', failed);
  });
}

async function bytesOf(answer: IncomingMessage, most: number): Promise<Buffer> {
  const pieces: Buffer[] = [];
  let bytes = 0;
  for await (const piece of answer as AsyncIterable<Buffer>) {
    bytes += piece.length;
    if (bytes > most) throw new NotCalled('too long');
    pieces.push(piece);
  }
  return Buffer.concat(pieces);
}
