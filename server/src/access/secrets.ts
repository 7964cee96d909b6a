import { createHash, randomBytes, randomInt } from 'node:crypto';

/** Without what is taken for something else: no I, L, O, U, 0, 1. */
const LETTERS = '23456789ABCDEFGHJKMNPQRSTVWXYZ';
const CODE_LENGTH = 8;

/** A secret of 256 bits, as it can stand in a cookie, a header or an address. */
export const newSecret = (): string => randomBytes(32).toString('base64url');

/** A code that a person can read out, in two halves: some 39 bits. */
export function newCode(): string {
  const letters = Array.from({ length: CODE_LENGTH }, () => LETTERS[randomInt(LETTERS.length)]);
  return `${letters.slice(0, 4).join('')}-${letters.slice(4).join('')}`;
}

/** A code as it was meant, however it was typed. */
export const codeAsMeant = (typed: string): string =>
  typed.toUpperCase().replaceAll(/[^0-9A-Z]/g, '');

/** What is kept of a secret. */
export const digestOf = (secret: string): string =>
  createHash('sha256').update(secret).digest('hex');
