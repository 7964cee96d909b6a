import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';

/** OWASP's least for scrypt: N 2^17, r 8, p 1. */
const COST = { N: 2 ** 17, r: 8, p: 1 };
const BYTES = 32;
/** What it takes, bytes: 128 N r, and room. */
const MEMORY = 160 * COST.N * COST.r;

const derive = (passphrase: string, salt: Buffer, { N, r, p } = COST): Promise<Buffer> =>
  new Promise((done, failed) =>
    scrypt(passphrase.normalize('NFKC'), salt, BYTES, { N, r, p, maxmem: MEMORY }, (error, key) =>
      error ? failed(error) : done(key),
    ),
  );

/** What is kept of a pass phrase: a salted digest, and how it was made. */
export async function digestOfPassphrase(passphrase: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await derive(passphrase, salt);
  return ['scrypt', COST.N, COST.r, COST.p, salt.toString('base64'), key.toString('base64')].join(
    '$',
  );
}

/**
 * Whether a pass phrase is the one of a digest. It takes as long where there is none, so that names cannot be
 * tried out.
 */
export async function isPassphrase(
  passphrase: string,
  digest: string | undefined,
): Promise<boolean> {
  if (digest === undefined) {
    await derive(passphrase, randomBytes(16));
    return false;
  }
  const [, N, r, p, salt, key] = digest.split('$');
  const kept = Buffer.from(key!, 'base64');
  const cost = { N: Number(N), r: Number(r), p: Number(p) };
  return timingSafeEqual(kept, await derive(passphrase, Buffer.from(salt!, 'base64'), cost));
}
