import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { readBackup } from './backup/read.js';
import { writeBackup } from './backup/write.js';
import { fullHouse, type Served } from './testing/full-house.js';
import { fuzz } from './testing/fuzz.js';

/* `npm run fuzz` asks twenty thousand times. */
const TIMES = Number(process.env['FUZZ'] ?? 900);
const SEED = Number(process.env['SEED'] ?? 0.1626);

let folder: string;
let house: Served;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  house = await fullHouse(join(folder, 'house.sqlite'));
});
afterEach(() => {
  house.store.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('every route, asked askew', () => {
  it(
    `never fails of itself in ${TIMES} times, and what it took can be read and backed up`,
    async () => {
      const failures = await fuzz(house, TIMES, SEED);
      expect(failures.slice(0, 5)).toEqual([]);
      const zip = join(folder, 'house.zip');
      await writeBackup(house.file, zip, Date.now());
      await readBackup(zip);
    },
    60_000 + 100 * TIMES,
  );
});
