import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  isBy,
  newAuthority,
  newCertificate,
  namesFor,
  readCertificate,
  type KeyPair,
} from './authority.js';
import { bareName } from './names.js';

const DAY_MS = 86_400_000;
const RENEW_MS = 30 * DAY_MS;

/** What the server holds its certificate for. */
export interface Held {
  names: readonly string[];
  addresses: readonly string[];
}

/** Writes a file that nobody else may read: whole, or not at all. */
function writePrivately(path: string, text: string): void {
  const beside = `${path}.new`;
  writeFileSync(beside, text, { mode: 0o600 });
  chmodSync(beside, 0o600);
  renameSync(beside, path);
}

/** Keys and certificates in a folder of their own beside the data file; nobody else may look into it. */
export class KeyFolder {
  constructor(readonly folder: string) {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    chmodSync(folder, 0o700);
  }

  #read(name: string): KeyPair | undefined {
    const [key, certificate] = [this.#path(`${name}.key`), this.#path(`${name}.crt`)];
    if (!existsSync(key) || !existsSync(certificate)) return undefined;
    return { key: readFileSync(key, 'utf8'), certificate: readFileSync(certificate, 'utf8') };
  }

  #write(name: string, { key, certificate }: KeyPair): void {
    writePrivately(this.#path(`${name}.key`), key);
    writePrivately(this.#path(`${name}.crt`), certificate);
  }

  #path = (name: string): string => join(this.folder, name);

  /** The household's authority; made where there is none, or its time is up. */
  async authority(now: number): Promise<KeyPair> {
    const kept = this.#read('authority');
    if (kept && readCertificate(kept.certificate).until > now + RENEW_MS) return kept;
    const made = await newAuthority(bareName(), now);
    this.#write('authority', made);
    return made;
  }

  /**
   * The server's certificate: the one that is there while it holds for all names and addresses and for a month to
   * come, else a new one.
   */
  async certificate({ names, addresses }: Held, now: number): Promise<KeyPair> {
    const authority = await this.authority(now);
    const wanted = [...namesFor(names, bareName()), ...addresses];
    const kept = this.#read('server');
    if (kept) {
      const { until, names: held } = readCertificate(kept.certificate);
      const holds = wanted.every((one) => held.includes(one));
      const isOurs = await isBy(kept.certificate, authority.certificate);
      if (holds && isOurs && until > now + RENEW_MS) return kept;
    }
    const made = await newCertificate(authority, namesFor(names, bareName()), addresses, now);
    this.#write('server', made);
    return made;
  }
}
