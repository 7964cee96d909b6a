import { Generator, type Config } from '@angular/service-worker/config';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { makeApp } from '../server/src/app.js';
// @ts-expect-error a script without types
import { keptAnswers } from './kept-answers.mjs';
import { openDatabase } from '../server/src/db/open.js';

/*
 * What the service worker keeps of the API: answers that are shown without a connection, photos, and the papers that
 * were looked at last. A file is never given out of what was kept: after some seconds an old backup would be taken for
 * the new one, and a phone would be full of them.
 */

const config = JSON.parse(
  readFileSync(new URL('../web/ngsw-config.json', import.meta.url), 'utf8'),
) as Config;
const nothing = {
  read: () => Promise.resolve(''),
  list: () => Promise.resolve([]),
  hash: () => Promise.resolve(''),
};
const { dataGroups = [] } = (await new Generator(
  { ...nothing, write: () => Promise.resolve() },
  '/',
).process({ ...config, assetGroups: [] })) as {
  dataGroups?: { name: string; patterns: string[] }[];
};
const groups = keptAnswers(dataGroups) as typeof dataGroups;
const keptBy = (path: string): string | undefined =>
  groups.find(({ patterns }) => patterns.some((one) => new RegExp(one).test(`${HOUSE}${path}`)))
    ?.name;
/** As the worker compares: the whole address. */
const HOUSE = 'https://needlecase.house.test:4311';
const ID = '6c84fb90-12c4-41e1-840d-725c6f5f1234';
const BY_PATH: Readonly<Record<string, string>> = {
  '/api/v1/photos/{id}': 'photos',
  '/api/v1/set-aside/{id}/photo': 'photos',
  '/api/v1/documents/{id}/file': 'papers',
  // Its name has a dot, and nobody asks for it without a connection.
  '/api/v1/code-sheet.schema.json': 'nothing',
};

describe('what the service worker keeps', () => {
  const asked = makeApp(openDatabase(':memory:')).routes.filter(({ method }) => method === 'get');

  it.each(asked.map(({ path, gives }) => [path, gives] as const))('of %s', (path, gives) => {
    const wanted = BY_PATH[path] ?? (gives ? 'nothing' : 'read-last');
    const address = path.replace('{id}', ID);
    for (const asked of ['', '?limit=60', '?words=a.pdf']) {
      expect(keptBy(address + asked) ?? 'nothing', asked).toBe(wanted);
    }
  });

  it('is nothing of what is no answer', () => {
    expect(keptBy('/api/openapi.json')).toBeUndefined();
    expect(keptBy('/m/abcdef')).toBeUndefined();
  });
});
