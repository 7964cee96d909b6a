import { pino } from 'pino';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { serveDatabase } from './db/open.js';
import { endOnFaults } from './faults.js';
import { orEnd } from './or-end.js';
import { mustNotBeServed, readSettings } from './settings.js';

// What is written here is nobody else's to read.
process.umask(0o077);
const settings = orEnd(() => readSettings(process.env, process.argv.slice(2)));
const log = pino({ level: settings.log });
endOnFaults(log);
const webRoot = join(dirname(fileURLToPath(import.meta.url)), '../../web/dist/browser');
orEnd(() => mustNotBeServed(webRoot, settings));
const { db, held } = orEnd(() =>
  serveDatabase(settings.database, (how) => log.warn(how, 'The data file was brought up to date.')),
);

// What a wrong setting or file ends is not read in before.
const { serve } = await import('./serve.js');
await serve({ settings, log, webRoot, db, held });
