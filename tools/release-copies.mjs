/*
 * Two releases of the program beside each other, for measuring an upgrade: as it was built, and one whose files all have
 * other names and contents, as after a new build.
 */
import { createHash } from 'node:crypto';
import {
  cpSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { root } from './steps.mjs';

/** The names of built files that change with what is in them. */
const NAMED = /\b((?:chunk|main|polyfills|worker|styles)-)([A-Z0-9]{8})\b/g;
const other = (name) =>
  name.replace(NAMED, (_all, kind, hash) => kind + [...hash].reverse().join(''));

/** Copies what runs into a folder. @returns where its server is started */
export function copyRelease(folder) {
  for (const part of ['server/dist', 'web/dist']) {
    cpSync(join(root, part), join(folder, part), { recursive: true });
  }
  symlinkSync(join(root, 'node_modules'), join(folder, 'node_modules'));
  return join(folder, 'server/dist/main.js');
}

/** Makes another release out of a copy. */
export function makeOther(folder) {
  const web = join(folder, 'web/dist/browser');
  const files = readdirSync(web);
  for (const name of files.filter((one) => one.endsWith('.gz'))) rmSync(join(web, name));
  for (const name of files.filter((one) => /\.(js|css|html|json)$/.test(one))) {
    const path = join(web, name);
    const text = readFileSync(path, 'utf8').replace(NAMED, (all) => other(all));
    writeFileSync(path, /-[A-Z0-9]{8}\.js$/.test(name) ? `${text}\n/* another release */` : text);
    if (other(name) !== name) renameSync(path, join(web, other(name)));
  }
  const manifest = join(web, 'ngsw.json');
  const kept = JSON.parse(readFileSync(manifest, 'utf8'));
  for (const url of Object.keys(kept.hashTable)) {
    kept.hashTable[url] = createHash('sha1')
      .update(readFileSync(join(web, url.slice(1))))
      .digest('hex');
  }
  kept.timestamp++;
  writeFileSync(manifest, JSON.stringify(kept));
}
