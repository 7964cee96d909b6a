import { existsSync, readFileSync, writeFileSync } from 'node:fs';

/* A note beside the data file that says where it is served. It is another file: the data file is SQLite's alone. */

export const noteAddress = (note: string, address: string): void =>
  writeFileSync(note, `${address}\n`, { mode: 0o600 });

/** @returns nothing but an empty text where there is no note */
export const notedAddress = (note: string): string =>
  existsSync(note) ? readFileSync(note, 'utf8').trim() : '';
