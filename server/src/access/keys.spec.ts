import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { once } from 'node:events';
import { get } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import type { TLSSocket } from 'node:tls';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { newAuthority, newCertificate, readCertificate } from './authority.js';
import { KeyFolder } from './keys.js';
import { inWords } from './phone-page.js';
import { serveSecurely } from './tls.js';

/* What is made here is read by OpenSSL, which had no part in making it. */

const DAY_MS = 86_400_000;
const NAMES = ['localhost', 'needlecase.local', 'house.test'];
const ADDRESSES = ['127.0.0.1', '192.168.1.20', 'fd00::1'];

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'needlecase-keys-'))));
afterEach(() => {
  vi.useRealTimers();
  rmSync(folder, { recursive: true, force: true });
});

function openssl(...args: string[]): string {
  const { status, stdout, stderr, error } = spawnSync('openssl', args);
  if (error) throw error;
  if (status !== 0) throw new Error(String(stderr) + String(stdout));
  return String(stdout);
}
const at = (name: string) => join(folder, name);
const keep = (name: string, text: string) => {
  writeFileSync(at(name), text);
  return at(name);
};
const keys = () => new KeyFolder(join(folder, 'keys'));
const holding = { names: NAMES, addresses: ADDRESSES };

describe('the household’s authority', () => {
  it('is one for ten years, with a key on P-256, that may sign certificates of servers and nothing more', async () => {
    const { certificate } = await newAuthority('cellar-box', Date.now());
    const path = keep('authority.pem', certificate);
    const said = openssl('x509', '-in', path, '-noout', '-text');
    expect(said).toContain('CA:TRUE, pathlen:0');
    expect(said).toMatch(/Basic Constraints: critical/);
    expect(said).toMatch(/Key Usage: critical\s+Certificate Sign, CRL Sign/);
    expect(said).toContain('ASN1 OID: prime256v1');
    const years = (readCertificate(certificate).until - Date.now()) / (365.25 * DAY_MS);
    expect(years).toBeGreaterThan(9.9);
    expect(years).toBeLessThan(10.1);
  });

  it('speaks for private names and addresses alone, and whoever reads it must heed that', async () => {
    const said = openssl(
      'x509',
      '-noout',
      '-text',
      '-in',
      keep('authority.pem', (await newAuthority('cellar-box', Date.now())).certificate),
    );
    expect(said).toMatch(/Name Constraints: critical\s+Permitted:/);
    for (const one of [
      'DNS:cellar-box',
      'DNS:local',
      'DNS:home.arpa',
      'IP:192.168.0.0/255.255.0.0',
      'IP:10.0.0.0/255.0.0.0',
      'IP:172.16.0.0/255.240.0.0',
      'IP:FC00:0:0:0:0:0:0:0/FE00:0:0:0:0:0:0:0',
    ]) {
      expect(said).toContain(one);
    }
  });

  it.each([
    ['a name of the internet', ['bank.example'], []],
    ['an address of the internet', [], ['8.8.8.8']],
  ])('is not believed for %s', async (_what, names, addresses) => {
    const authority = await newAuthority('cellar-box', Date.now());
    const forged = await newCertificate(authority, names, addresses, Date.now());
    expect(() =>
      openssl(
        'verify',
        '-CAfile',
        keep('a.pem', authority.certificate),
        keep('s.pem', forged.certificate),
      ),
    ).toThrow(/permitted subtree violation/);
  });
});

describe('the server’s certificate', () => {
  it('holds for all names and addresses, 398 days at most, and OpenSSL follows it to the authority', async () => {
    const { certificate, key } = await keys().certificate(holding, Date.now());
    const path = keep('server.pem', certificate);
    const authority = join(folder, 'keys/authority.crt');
    for (const purpose of ['sslserver', 'any']) {
      expect(
        openssl('verify', '-x509_strict', '-purpose', purpose, '-CAfile', authority, path),
      ).toContain('OK');
    }
    for (const name of NAMES) {
      expect(openssl('x509', '-in', path, '-noout', '-checkhost', name)).toContain('does match');
    }
    for (const address of ADDRESSES) {
      expect(openssl('x509', '-in', path, '-noout', '-checkip', address)).toContain('does match');
    }
    const said = openssl('x509', '-in', path, '-noout', '-text');
    expect(said).toMatch(/Key Usage: critical\s+Digital Signature\n/);
    expect(said).toContain('TLS Web Server Authentication');
    expect(said).toContain('CA:FALSE');
    const [begin, end] = [/Not Before: (.*)/, /Not After : (.*)/].map((one) =>
      Date.parse(one.exec(said)![1]!),
    );
    expect((end! - begin!) / DAY_MS).toBeLessThanOrEqual(398);
    // The key is the certificate's.
    expect(openssl('pkey', '-in', keep('server.key', key), '-pubout')).toBe(
      openssl('x509', '-in', path, '-noout', '-pubkey'),
    );
  });

  it('leaves out names that the authority may not speak for: one would spoil the rest', async () => {
    const { certificate } = await keys().certificate(
      { names: [...NAMES, 'laundry.example'], addresses: ADDRESSES },
      Date.now(),
    );
    expect(readCertificate(certificate).names).toEqual([...NAMES, ...ADDRESSES]);
  });

  it('is kept while it holds; made anew a month before its end, and for another address', async () => {
    const first = await keys().certificate(holding, Date.now());
    expect(await keys().certificate(holding, Date.now())).toEqual(first);
    const fewer = { ...holding, addresses: ADDRESSES.slice(1) };
    expect(await keys().certificate(fewer, Date.now())).toEqual(first);
    const late = readCertificate(first.certificate).until - 29 * DAY_MS;
    const renewed = await keys().certificate(holding, late);
    expect(renewed).not.toEqual(first);
    expect(readCertificate(renewed.certificate).until).toBeGreaterThan(late + 300 * DAY_MS);
    const moved = { ...holding, addresses: [...ADDRESSES, '10.0.0.9'] };
    const second = await keys().certificate(moved, late);
    expect(readCertificate(second.certificate).names).toContain('10.0.0.9');
    expect(
      openssl(
        'verify',
        '-no_check_time',
        '-CAfile',
        join(folder, 'keys/authority.crt'),
        keep('s', second.certificate),
      ),
    ).toContain('OK');
  });

  it('is by the authority that is there, when that one is another', async () => {
    const first = await keys().certificate(holding, Date.now());
    rmSync(join(folder, 'keys/authority.crt'));
    const second = await keys().certificate(holding, Date.now());
    expect(second).not.toEqual(first);
    expect(
      openssl(
        'verify',
        '-no_check_time',
        '-CAfile',
        join(folder, 'keys/authority.crt'),
        keep('s', second.certificate),
      ),
    ).toContain('OK');
  });

  it('and all keys lie where nobody else may look', async () => {
    await keys().certificate(holding, Date.now());
    expect(statSync(join(folder, 'keys')).mode & 0o777).toBe(0o700);
    const names = readdirSync(join(folder, 'keys'));
    expect(names.toSorted()).toEqual([
      'authority.crt',
      'authority.key',
      'server.crt',
      'server.key',
    ]);
    for (const name of names)
      expect(statSync(join(folder, 'keys', name)).mode & 0o777, name).toBe(0o600);
  });
});

it('six words stand for the fingerprint that OpenSSL tells', async () => {
  const { certificate } = await newAuthority('cellar-box', Date.now());
  const hex = openssl(
    'x509',
    '-noout',
    '-fingerprint',
    '-sha256',
    '-in',
    keep('a.pem', certificate),
  )
    .split('=')[1]!
    .replaceAll(/[^0-9A-F]/g, '');
  const bits = [...hex].map((one) => parseInt(one, 16).toString(2).padStart(4, '0')).join('');
  const { wordlist } = await import('@scure/bip39/wordlists/english.js');
  const words = [0, 1, 2, 3, 4, 5].map(
    (i) => wordlist[parseInt(bits.slice(11 * i, 11 * i + 11), 2)],
  );
  expect(inWords(certificate)).toBe(words.join(' '));
});

describe('https', () => {
  const ask = (port: number, ca: string) =>
    new Promise<string>((done, failed) => {
      get({ host: '127.0.0.1', port, ca, agent: false }, (answer) => {
        const { serialNumber } = (answer.socket as TLSSocket).getPeerCertificate();
        answer.resume();
        done(serialNumber);
      }).on('error', failed);
    });

  it('takes a certificate of one’s own, and reads it anew when its files change, not half of it', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] });
    const authority = await newAuthority('cellar-box', Date.now());
    const [certificate, key] = [at('own.crt'), at('own.key')];
    const write = async () => {
      const pair = await newCertificate(authority, ['localhost'], ['127.0.0.1'], Date.now());
      writeFileSync(certificate, pair.certificate);
      return pair;
    };
    const first = await write();
    writeFileSync(key, first.key);
    const problems: unknown[] = [];
    const secure = await serveSecurely(
      (_request, response) => response.end('in'),
      { own: { certificate, key }, keys: folder },
      (error) => problems.push(error),
    );
    secure.server.listen(0, '127.0.0.1');
    await once(secure.server, 'listening');
    const { port } = secure.server.address() as AddressInfo;
    const before = await ask(port, authority.certificate);
    const second = await write();
    utimesSync(certificate, new Date(), new Date(Date.now() + 5000));
    await vi.advanceTimersByTimeAsync(60_000);
    expect(problems).toHaveLength(1);
    expect(await ask(port, authority.certificate)).toBe(before);
    writeFileSync(key, second.key);
    utimesSync(key, new Date(), new Date(Date.now() + 9000));
    await vi.advanceTimersByTimeAsync(60_000);
    expect(await ask(port, authority.certificate)).not.toBe(before);
    secure.close();
    secure.server.close();
  });

  it('is not begun with what is no certificate, in one sentence', async () => {
    const own = { certificate: keep('own.crt', 'nothing'), key: keep('own.key', 'nothing') };
    await expect(
      serveSecurely(
        () => undefined,
        { own, keys: folder },
        () => undefined,
      ),
    ).rejects.toThrow(/https cannot be spoken with .*own\.crt/);
  });
});
