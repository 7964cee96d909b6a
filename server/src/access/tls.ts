import { X509Certificate } from 'node:crypto';
import { readFileSync, statSync } from 'node:fs';
import { createServer, type Server } from 'node:https';
import type { RequestListener } from 'node:http';
import { createSecureContext, type SecureContextOptions } from 'node:tls';
import { FileProblem } from '../db/data-file.js';
import type { Settings } from '../settings.js';
import { KeyFolder } from './keys.js';
import { houseNames, privateAddresses } from './names.js';

const LOOK_AGAIN_MS = 60_000;

/** What https is spoken with, and what is handed out of it. */
export interface Secure {
  server: Server;
  /** The household's authority, as PEM; none where a certificate of one's own is used. */
  authority?: string;
  /** How long the certificate in use holds, UTC milliseconds. */
  until(): number;
  close(): void;
}

type Pair = Required<Pick<SecureContextOptions, 'key' | 'cert'>>;

/**
 * Speaks https: with a certificate of one's own, read anew when its files change, or with one by the household's
 * authority, renewed in time and when the addresses of this computer change.
 * @param failed is told what went wrong later on; the old certificate stays in use
 * @throws FileProblem where it cannot be begun
 */
export async function serveSecurely(
  listener: RequestListener,
  settings: Pick<Settings, 'own' | 'keys' | 'origin'>,
  failed: (error: unknown) => void,
): Promise<Secure> {
  const { own } = settings;
  const source = own ? ownFiles(own) : household(settings);
  const read = async () => await source.pair(Date.now());
  const first = await read().catch((error: unknown) => {
    throw toldOf(error, own?.certificate ?? settings.keys);
  });
  let last = first!;
  const server = createServer({ ...last, minVersion: 'TLSv1.2' }, listener);
  const timer = setInterval(() => {
    read()
      .then((next) => {
        if (!next || next.cert === last.cert) return;
        server.setSecureContext({ ...next, minVersion: 'TLSv1.2' });
        last = next;
      })
      .catch(failed);
  }, LOOK_AGAIN_MS).unref();
  return {
    server,
    ...(source.authority ? { authority: source.authority() } : {}),
    until: () => Date.parse(new X509Certificate(last.cert as string).validTo),
    close: () => clearInterval(timer),
  };
}

interface Source {
  /** Nothing where it is still the same. */
  pair(now: number): Promise<Pair> | Pair | undefined;
  authority?: () => string;
}

function ownFiles({ certificate, key }: NonNullable<Settings['own']>): Source {
  let read = '';
  return {
    pair: () => {
      const changed = [certificate, key].map((path) => statSync(path).mtimeMs).join();
      if (changed === read) return undefined;
      const pair = { cert: readFileSync(certificate, 'utf8'), key: readFileSync(key, 'utf8') };
      // Half of a new pair goes with nothing.
      createSecureContext(pair);
      read = changed;
      return pair;
    },
  };
}

function household({ keys, origin }: Pick<Settings, 'keys' | 'origin'>): Source {
  const folder = new KeyFolder(keys);
  const named = origin ? [new URL(origin).hostname] : [];
  const names = ['localhost', ...houseNames(), ...named];
  let authority = '';
  return {
    pair: async (now) => {
      const addresses = ['127.0.0.1', ...privateAddresses()];
      const { key, certificate } = await folder.certificate({ names, addresses }, now);
      authority = (await folder.authority(now)).certificate;
      return { key, cert: certificate };
    },
    authority: () => authority,
  };
}

function toldOf(error: unknown, path: string): Error {
  const { message } = error as Error;
  return new FileProblem(`https cannot be spoken with ${path}: ${message}`);
}
