import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { makeApp } from './app.js';
import { endOnFaults } from './faults.js';
import { FileProblem } from './db/data-file.js';
import { serveDatabase } from './db/open.js';
import { readSettings } from './settings.js';
import { ownThreads } from './threads/threads.js';

/** What cannot be begun is told in one sentence. */
function orEnd<T>(begin: () => T): T {
  try {
    return begin();
  } catch (error) {
    if (!(error instanceof FileProblem || error instanceof RangeError)) throw error;
    console.error(error.message);
    process.exit(1);
  }
}

const LONGEST_END_MS = 4000;
const MOST_WARMING_MS = 250;

const settings = orEnd(() => readSettings(process.env));
const log = pino({ level: settings.log });
endOnFaults(log);
const webRoot = join(dirname(fileURLToPath(import.meta.url)), '../../web/dist/browser');
const { db, held } = orEnd(() =>
  serveDatabase(settings.database, (how) => log.warn(how, 'The data file was brought up to date.')),
);
const keeping = {
  file: settings.database,
  folder: settings.backups,
  now: Date.now,
  failed: (error: unknown) => log.error(error),
};
const threads = ownThreads(settings.database, fileURLToPath(new URL('worker.js', import.meta.url)));
const { express, store, changes, backups, days } = makeApp(db, { webRoot, log, threads, keeping });
store.answers.forgetOld();

// What the first screen asks for is at hand when it asks, or soon after.
await Promise.race([days.warm(), new Promise((done) => setTimeout(done, MOST_WARMING_MS))]);

const server = express.listen(settings.port, settings.host, (error?: Error) => {
  if (error) {
    const taken = (error as NodeJS.ErrnoException).code === 'EADDRINUSE';
    console.error(
      taken
        ? `Port ${settings.port} is taken. Set PORT to another one.`
        : `Needlecase cannot listen: ${error.message}`,
    );
    process.exit(1);
  }
  const { port } = server.address() as AddressInfo;
  const host = settings.host.includes(':') ? `[${settings.host}]` : settings.host;
  const address = `http://${host}:${port}/`;
  held.at(address);
  backups.start();
  console.log(`Needlecase is at ${address}`);
});

function stop(): void {
  changes.close();
  backups.stop();
  void threads.close();
  server.close(() => {
    store.close();
    process.exit(0);
  });
  server.closeIdleConnections();
  // Whatever a client does, it ends: what was answered is stored.
  setTimeout(() => {
    store.close();
    process.exit(0);
  }, LONGEST_END_MS).unref();
}
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
