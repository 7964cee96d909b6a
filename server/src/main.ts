import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { announce } from './access/announce.js';
import type { Reach } from './access/reach.js';
import { tellTheHouse } from './access/tell.js';
import { serveSecurely } from './access/tls.js';
import { makeApp } from './app.js';
import { endOnFaults } from './faults.js';
import { FileProblem } from './db/data-file.js';
import { serveDatabase } from './db/open.js';
import { mustNotBeServed, readSettings } from './settings.js';
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

function raise(error: unknown): never {
  throw error;
}

/** @returns the port that it listens at */
function listening(one: Server, wanted: number, setting: string): Promise<number> {
  return new Promise((done) => {
    one.once('error', (error: NodeJS.ErrnoException) => {
      // A computer without version 6 of the internet's addresses has those of version 4.
      if (error.code === 'EAFNOSUPPORT' && settings.host === '::') {
        one.listen(wanted, '0.0.0.0', () => done((one.address() as AddressInfo).port));
        return;
      }
      console.error(
        error.code === 'EADDRINUSE'
          ? `Port ${wanted} is taken. Set ${setting} to another one.`
          : `Needlecase cannot listen: ${error.message}`,
      );
      process.exit(1);
    });
    one.listen(wanted, settings.host, () => done((one.address() as AddressInfo).port));
  });
}

/** Who sends slowly does not keep others waiting; a backup that is handed in takes its time. */
const LIMITS = { headersTimeout: 15_000, requestTimeout: 600_000, keepAliveTimeout: 10_000 };
const LONGEST_END_MS = 4000;
const MOST_WARMING_MS = 250;

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
const keeping = {
  file: settings.database,
  folder: settings.backups,
  now: Date.now,
  failed: (error: unknown) => log.error(error),
};
const threads = ownThreads(settings.database, fileURLToPath(new URL('worker.js', import.meta.url)));
const { open, origin, proxies } = settings;
let reach: Reach = { port: settings.port, open, ...(origin ? { origin } : {}) };
const { express, store, changes, backups, days, access } = makeApp(db, {
  webRoot,
  log,
  threads,
  keeping,
  proxies,
  reach: () => reach,
});
store.answers.forgetOld();
access.forgetOld();

// What the first screen asks for is at hand when it asks, or soon after.
await Promise.race([days.warm(), new Promise((done) => setTimeout(done, MOST_WARMING_MS))]);

const server = createServer(LIMITS, express);
/** Behind a proxy that one speaks https. */
const secure =
  open && proxies === 0
    ? await serveSecurely(express, settings, (error) => log.error(error)).catch((error: unknown) =>
        orEnd(() => raise(error)),
      )
    : undefined;
if (secure) Object.assign(secure.server, LIMITS);

const port = await listening(server, settings.port, 'PORT');
const tlsPort = secure && (await listening(secure.server, settings.tlsPort, 'NEEDLECASE_TLS_PORT'));
reach = {
  ...reach,
  port,
  ...(tlsPort === undefined ? {} : { tlsPort }),
  ...(secure?.authority ? { authority: secure.authority } : {}),
};
const silence = open && settings.announce ? announce((error) => log.info(error)) : undefined;
const host = open || settings.host === '::1' ? 'localhost' : settings.host;
const address = `http://${host}:${port}/`;
held.at(address);
backups.start();
console.log(`Needlecase is at ${address}`);
if (open || origin) await tellTheHouse(store, access, reach, process.argv.includes('--code'));

function stop(): void {
  changes.close();
  backups.stop();
  silence?.();
  secure?.close();
  void threads.close();
  const servers = [server, ...(secure ? [secure.server] : [])];
  let left = servers.length;
  for (const one of servers) {
    one.close(() => {
      if (--left > 0) return;
      store.close();
      process.exit(0);
    });
    one.closeIdleConnections();
  }
  // Whatever a client does, it ends: what was answered is stored.
  setTimeout(() => {
    store.close();
    process.exit(0);
  }, LONGEST_END_MS).unref();
}
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
