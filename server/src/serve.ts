import type { Express } from 'express';
import type { Logger } from 'pino';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import type { Reach } from './access/reach.js';
import { tellTheHouse } from './access/tell.js';
import type { Secure } from './access/tls.js';
import { makeApp } from './app.js';
import type { serveDatabase } from './db/open.js';
import { fewConnections } from './http/connections.js';
import { orEnd } from './or-end.js';
import type { Settings } from './settings.js';
import { certificateLook } from './work/house-looks.js';
import { ownCells } from './threads/cells.js';
import { ownThreads } from './threads/threads.js';

/** Who sends slowly does not keep others waiting; a backup that is handed in takes its time. */
const LIMITS = { headersTimeout: 15_000, requestTimeout: 600_000, keepAliveTimeout: 10_000 };
const LONGEST_END_MS = 4000;
const MOST_WARMING_MS = 250;
/** How often it is looked whether a letter is to go out. */
const LETTERS_MS = 60_000;
/** How often it is looked whether a calendar is to be read again. */
const CALENDARS_MS = 3_600_000;
/** How often what the household relies on is looked at. */
const WATCH_MS = 60_000;
/** How soon after a start, and how often then, it is looked how well was foretold. */
const FIRST_HINDSIGHT_MS = 120_000;
const HINDSIGHT_MS = 24 * 3_600_000;

interface Begun extends ReturnType<typeof serveDatabase> {
  settings: Settings;
  log: Logger;
  webRoot: string;
}

/** Answers at the addresses that the settings name, until the process is asked to stop. */
export async function serve({ settings, log, webRoot, db, held }: Begun): Promise<void> {
  const { open, origin, proxies, host } = settings;
  const threads = ownThreads(
    settings.database,
    fileURLToPath(new URL('worker.js', import.meta.url)),
  );
  const cells = ownCells(fileURLToPath(new URL('cell.js', import.meta.url)));
  let reach: Reach = { port: settings.port, open, ...(origin ? { origin } : {}) };
  const standIn = settings.postOffice ? await standingIn() : undefined;
  const plug = settings.standInPlug ? await standInPlug() : undefined;
  const mail = settings.mail ?? standIn?.server;
  const app = makeApp(db, {
    webRoot,
    ...(mail ? { mail } : {}),
    ...(standIn ? { office: standIn.office } : {}),
    ...(plug ? { plug } : {}),
    log,
    threads,
    cells,
    keeping: {
      file: settings.database,
      folder: settings.backups,
      now: Date.now,
      failed: (error: unknown) => log.error(error),
    },
    proxies,
    reach: () => reach,
  });
  const {
    express,
    store,
    changes,
    backups,
    days,
    access,
    postman,
    busy,
    live,
    brokers,
    hindsight,
    guard,
    loop,
    watch,
  } = app;
  store.answers.forgetOld();
  access.forgetOld();

  // What the first screen asks for is at hand when it asks, or soon after.
  await Promise.race([days.warm(), new Promise((done) => setTimeout(done, MOST_WARMING_MS))]);

  const server = createServer(LIMITS, express);
  const secure = await secureOne(express, settings, log);
  if (secure) Object.assign(secure.server, LIMITS);
  for (const one of [server, ...(secure ? [secure.server] : [])]) {
    fewConnections(one, (from) => proxies === 0 && !/^(::ffff:)?127\.|^::1$/.test(from));
  }

  const port = await listening(server, { port: settings.port, host, setting: 'PORT' });
  const tlsPort =
    secure &&
    (await listening(secure.server, {
      port: settings.tlsPort,
      host,
      setting: 'NEEDLECASE_TLS_PORT',
    }));
  reach = {
    ...reach,
    port,
    ...(tlsPort === undefined ? {} : { tlsPort }),
    ...(secure?.authority ? { authority: secure.authority } : {}),
  };
  const silence = open && settings.announce ? await announced(log) : undefined;
  const address = `http://${open || host === '::1' ? 'localhost' : host}:${port}/`;
  held.at(address);
  if (secure)
    watch.add(
      'certificate',
      certificateLook(() => secure.until()),
    );
  const looksAround = setInterval(() => void watch.look(), WATCH_MS);
  looksAround.unref();
  void watch.look();
  loop.start();
  backups.start();
  live.start();
  void brokers.sync(store.meters.list());
  const letters = setInterval(() => void postman.round(), LETTERS_MS);
  const calendars = setInterval(() => void busy.refresh(), CALENDARS_MS);
  const widen = (): void => void hindsight.widen().catch((error: unknown) => log.error(error));
  const looksBack = [setTimeout(widen, FIRST_HINDSIGHT_MS), setInterval(widen, HINDSIGHT_MS)];
  for (const one of looksBack) one.unref();
  console.log(`Needlecase is at ${address}`);
  if (open || origin) await tellTheHouse(store, access, reach, process.argv.includes('--code'));

  const stop = (): void => {
    changes.close();
    guard?.stop();
    loop.stop();
    clearInterval(looksAround);
    backups.stop();
    clearInterval(letters);
    clearInterval(calendars);
    standIn?.office.close();
    live.stop();
    brokers.close();
    void plug?.close();
    silence?.();
    secure?.close();
    void threads.close();
    void cells.close();
    const end = (): never => {
      // Of a file that was lost the end would be written over what is there now.
      if (guard?.says === undefined) store.close();
      process.exit(0);
    };
    const servers = [server, ...(secure ? [secure.server] : [])];
    let left = servers.length;
    for (const one of servers) {
      one.close(() => {
        if (--left === 0) end();
      });
      one.closeIdleConnections();
    }
    // Whatever a client does, it ends: what was answered is stored.
    setTimeout(end, LONGEST_END_MS).unref();
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
}

/** The one that speaks https on a home network; behind a proxy that one does. Read in only where it is wanted. */
async function secureOne(
  express: Express,
  settings: Settings,
  log: Logger,
): Promise<Secure | undefined> {
  if (!settings.open || settings.proxies > 0) return undefined;
  const { serveSecurely } = await import('./access/tls.js');
  return serveSecurely(express, settings, (error) => log.error(error)).catch((error: unknown) =>
    orEnd(() => {
      throw error;
    }),
  );
}

/** Read in only where it is wanted. */
async function standingIn() {
  const { PostOffice } = await import('./mail/post-office.js');
  return PostOffice.open();
}

async function standInPlug() {
  const { StandInPlug } = await import('./meters/stand-in-plug.js');
  return StandInPlug.open();
}

async function announced(log: Logger): Promise<() => void> {
  const { announce } = await import('./access/announce.js');
  return announce((error) => log.info(error));
}

/** @returns the port that it listens at */
function listening(
  one: Server,
  { port, host, setting }: { port: number; host: string; setting: string },
): Promise<number> {
  return new Promise((done) => {
    const told = (): void => done((one.address() as AddressInfo).port);
    one.once('error', (error: NodeJS.ErrnoException) => {
      // A computer without version 6 of the internet's addresses has those of version 4.
      if (error.code === 'EAFNOSUPPORT' && host === '::') {
        one.listen(port, '0.0.0.0', told);
        return;
      }
      console.error(
        error.code === 'EADDRINUSE'
          ? `Port ${port} is taken. Set ${setting} to another one.`
          : `Needlecase cannot listen: ${error.message}`,
      );
      process.exit(1);
    });
    one.listen(port, host, told);
  });
}
