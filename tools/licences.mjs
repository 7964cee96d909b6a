/* Writes the licence of every package that ships, in the page or in the server, into one file that is served. */
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './steps.mjs';

const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));
const LICENCE = /^(licen[cs]e|copying|notice)/i;
const OWN = /^node_modules\/@needlecase\//;

/** Packages that run, not those that only build or test. */
const shipped = Object.entries(packages)
  .filter(([path, { dev, link }]) => path.includes('node_modules/') && !dev && !link)
  .filter(([path]) => !OWN.test(path) && existsSync(join(root, path, 'package.json')))
  .map(([path]) => {
    const { name, version, license } = JSON.parse(
      readFileSync(join(root, path, 'package.json'), 'utf8'),
    );
    const texts = readdirSync(join(root, path))
      .filter((file) => LICENCE.test(file) && !/\.(js|ts)$/.test(file))
      .map((file) => readFileSync(join(root, path, file), 'utf8').trim());
    return { title: `${name} ${version}`, license: license?.type ?? license, texts };
  })
  .sort((a, b) => a.title.localeCompare(b.title));

const seen = new Set();
const parts = shipped
  .filter(({ title }) => !seen.has(title) && seen.add(title))
  .map(({ title, license = 'see its text', texts }) =>
    [`${title}: ${license}`, ...texts].join('\n\n'),
  );
writeFileSync(
  join(root, 'web/dist/browser/licences.txt'),
  `Needlecase stands on the work of others. These ${parts.length} packages ship with it.\n\n${parts.join(`\n\n${'-'.repeat(72)}\n\n`)}\n`,
);
