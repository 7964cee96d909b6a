/*
 * After the web's build: the files are pressed, and the page's head names every part that the first view needs, so that none waits for another
 * to ask for it. The parts are those that main imports, and theirs, all the way down.
 */
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { root } from './steps.mjs';

const folder = join(root, 'web/dist/browser');
const page = join(folder, 'index.html');
const html = readFileSync(page, 'utf8');
const main = /\bmain-[\w-]+\.js\b/.exec(html)?.[0];
if (!main) throw new Error('The page has no main script.');

/** Every file that a script imports as it starts, and theirs. */
function importedBy(file, seen = new Set()) {
  const script = readFileSync(join(folder, file), 'utf8');
  for (const [, name] of script.matchAll(/(?:from|import)\s*"\.\/(chunk-[\w-]+\.js)"/g)) {
    if (seen.has(name)) continue;
    seen.add(name);
    importedBy(name, seen);
  }
  return seen;
}

const links = [...importedBy(main)]
  .map((name) => `<link rel="modulepreload" href="${name}">`)
  .join('');
const bare = html.replace(/<link rel="modulepreload" href="[^"]*">/g, '');
const whole = bare.replace('</head>', `${links}</head>`);
writeFileSync(page, whole);

// The service worker keeps the page only as it was printed.
const manifest = join(folder, 'ngsw.json');
if (existsSync(manifest)) {
  const kept = JSON.parse(readFileSync(manifest, 'utf8'));
  if (kept.hashTable?.['/index.html']) {
    kept.hashTable['/index.html'] = createHash('sha1').update(whole).digest('hex');
    writeFileSync(manifest, JSON.stringify(kept, null, 2));
  }
}

// Pressed once, here, and not by the server at each request.
for (const name of readdirSync(folder)) {
  if (!/\.(js|css|svg)$/.test(name)) continue;
  const path = join(folder, name);
  writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }));
}
