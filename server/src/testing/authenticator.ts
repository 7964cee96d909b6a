import { isoCBOR } from '@simplewebauthn/server/helpers';
import { createHash, generateKeyPairSync, randomBytes, sign, type KeyObject } from 'node:crypto';

const USER_PRESENT = 0x01;
const USER_VERIFIED = 0x04;
const CREDENTIAL_INCLUDED = 0x40;
const NO_AAGUID = Buffer.alloc(16);

const url = (bytes: Uint8Array): string => Buffer.from(bytes).toString('base64url');
const sha256 = (bytes: Uint8Array | string): Buffer => createHash('sha256').update(bytes).digest();

/**
 * A key in a device's lock, as a browser would answer for it (W3C Web Authentication, level 3: authenticator data
 * 6.1, attestation "none" 8.7; COSE keys by RFC 9053).
 */
export class Authenticator {
  readonly id = randomBytes(16);
  readonly #key: KeyObject;
  readonly #cose: Uint8Array;
  counter = 0;

  /** @param origin of the page that asks */
  constructor(readonly origin: string) {
    const { publicKey, privateKey } = generateKeyPairSync('ec', { namedCurve: 'P-256' });
    const { x, y } = publicKey.export({ format: 'jwk' });
    this.#key = privateKey;
    this.#cose = isoCBOR.encode(
      new Map<number, number | Uint8Array>([
        [1, 2],
        [3, -7],
        [-1, 1],
        [-2, Buffer.from(x!, 'base64url')],
        [-3, Buffer.from(y!, 'base64url')],
      ]),
    );
  }

  /** Answers what makes a passkey. */
  made(challenge: string) {
    const length = Buffer.from([0, this.id.length]);
    const data = Buffer.concat([
      this.#data(USER_PRESENT | USER_VERIFIED | CREDENTIAL_INCLUDED),
      ...[NO_AAGUID, length, this.id, this.#cose],
    ]);
    const attestation = new Map<string, unknown>([
      ['fmt', 'none'],
      ['attStmt', new Map()],
      ['authData', new Uint8Array(data)],
    ]);
    return this.#answer({
      clientDataJSON: url(this.#client('webauthn.create', challenge)),
      attestationObject: url(isoCBOR.encode(attestation as Parameters<typeof isoCBOR.encode>[0])),
      transports: ['internal'],
    });
  }

  /** Answers what lets in. */
  let(challenge: string) {
    this.counter++;
    const data = this.#data(USER_PRESENT | USER_VERIFIED);
    const client = this.#client('webauthn.get', challenge);
    return this.#answer({
      clientDataJSON: url(client),
      authenticatorData: url(data),
      signature: url(sign('sha256', Buffer.concat([data, sha256(client)]), this.#key)),
    });
  }

  #answer = (response: object) => ({
    id: url(this.id),
    rawId: url(this.id),
    type: 'public-key',
    clientExtensionResults: {},
    response,
  });

  #client = (type: string, challenge: string): Buffer =>
    Buffer.from(JSON.stringify({ type, challenge, origin: this.origin, crossOrigin: false }));

  #data(flags: number): Buffer {
    const counter = Buffer.alloc(4);
    counter.writeUInt32BE(this.counter);
    return Buffer.concat([sha256(new URL(this.origin).hostname), Buffer.from([flags]), counter]);
  }
}
