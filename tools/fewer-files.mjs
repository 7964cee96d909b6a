/*
 * After the web's build: the program's many small files become fewer and fuller ones, those of the first view a
 * single one. What workers import stays as it was built: they do not know of the rest.
 */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { rolldown } from 'rolldown';
import { keptAnswers } from './kept-answers.mjs';
import { root } from './steps.mjs';

const folder = join(root, 'web/dist/browser');
const page = readFileSync(join(folder, 'index.html'), 'utf8');
const main = /\bmain-[\w-]+\.js\b/.exec(page)[0];
const built = new Map(
  readdirSync(folder)
    .filter((name) => /^(main|chunk|worker|polyfills)-[\w-]+\.js$/.test(name))
    .map((name) => [name, readFileSync(join(folder, name), 'utf8')]),
);

/** Every file that a script imports, at once or later, and theirs. */
function reached(name, seen = new Set()) {
  if (seen.has(name) || !built.has(name)) return seen;
  seen.add(name);
  for (const [, to] of built
    .get(name)
    .matchAll(/(?:from|import)\s*\(?\s*["'`]\.\/([\w-]+\.js)["'`]/g)) {
    reached(to, seen);
  }
  return seen;
}
const ofWorkers = new Set(
  [...built.keys()]
    .filter((name) => /^(worker|polyfills)-/.test(name))
    .flatMap((name) => [...reached(name)]),
);

const taken = new Set();
const bundle = await rolldown({
  input: main,
  plugins: [
    {
      name: 'built-files',
      resolveId(source) {
        const name = source.replace(/^\.\//, '');
        return built.has(name) ? name : { id: source, external: true };
      },
      load(id) {
        taken.add(id);
        return { code: built.get(id) };
      },
    },
  ],
});
const { output } = await bundle.generate({
  minify: { mangle: false, compress: false },
  entryFileNames: main,
  chunkFileNames: 'chunk-[hash].js',
});
await bundle.close();

// What nothing asks for any more goes as well.
const there = new Set([main, ...output.map(({ fileName }) => fileName), ...ofWorkers]);
const gone = [...built.keys()].filter((name) => !there.has(name));
for (const name of gone) rmSync(join(folder, name));
for (const { fileName, code } of output) writeFileSync(join(folder, fileName), code);
writeFileSync(
  join(folder, 'index.html'),
  page.replace(/<link rel="modulepreload" href="[^"]*">/g, ''),
);

// The service worker keeps what is there now.
const manifest = join(folder, 'ngsw.json');
const kept = JSON.parse(readFileSync(manifest, 'utf8'));
const print = (name) =>
  createHash('sha1')
    .update(readFileSync(join(folder, name)))
    .digest('hex');
for (const name of gone) delete kept.hashTable[`/${name}`];
for (const name of ['index.html', ...output.map(({ fileName }) => fileName)]) {
  kept.hashTable[`/${name}`] = print(name);
}
for (const group of kept.assetGroups) {
  const had = group.urls.length;
  group.urls = group.urls.filter((url) => !gone.includes(url.slice(1)));
  if (group.urls.length === had) continue;
  const added = output
    .map(({ fileName }) => `/${fileName}`)
    .filter((url) => !group.urls.includes(url));
  group.urls = [...group.urls, ...added].sort();
}
kept.dataGroups = keptAnswers(kept.dataGroups);
writeFileSync(manifest, JSON.stringify(kept, null, 2));
console.log(`${taken.size} files became ${output.length}; ${ofWorkers.size} are of workers.`);
