import { AS_WRITTEN, speakAs, tongueOf } from '@needlecase/core';
import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pinoHttp } from 'pino-http';
import type { Logger } from 'pino';
import { Changes } from './http/changes.js';
import { openApi } from './http/openapi.js';
import { notFound, problems, ProblemError, sendProblem } from './http/problem.js';
import { mount, type Route } from './http/route.js';
import { benchRoutes } from './routes/bench.js';
import { caseRoutes } from './routes/cases.js';
import { codeSheetRoutes } from './routes/code-sheets.js';
import { entryRoutes } from './routes/entries.js';
import { handoverRoutes } from './routes/handover.js';
import { householdRoutes } from './routes/household.js';
import { instrumentRoutes } from './routes/instruments.js';
import { MOST_BYTES, photoRoutes } from './routes/photos.js';
import { visitRoutes } from './routes/visits.js';
import { supplyRoutes } from './routes/supplies.js';
import { troubleRoutes } from './routes/trouble.js';
import { ventRunRoutes } from './routes/vent-runs.js';
import { Store } from './store/store.js';
import type { Db } from './db/open.js';

export interface App {
  express: Express;
  store: Store;
  changes: Changes;
  /** Every address of the API. */
  routes: readonly Route[];
}

/**
 * The whole server without its socket.
 * @param webRoot folder of the built web application, if it is to be served
 */
export function makeApp(db: Db, webRoot?: string, log?: Logger): App {
  const changes = new Changes();
  const store = new Store(db, changes);
  const routes: Route[] = [
    ...householdRoutes(store),
    ...benchRoutes(store),
    ...entryRoutes(store),
    ...visitRoutes(store),
    ...supplyRoutes(store),
    ...photoRoutes(store),
    ...handoverRoutes(store),
    ...troubleRoutes(store),
    ...caseRoutes(store),
    ...codeSheetRoutes(store),
    ...instrumentRoutes(),
    ...ventRunRoutes(store),
  ];

  const app = express();
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  if (log) app.use(pinoHttp({ logger: log }));
  app.use(security(), onlyWhereTrusted);
  app.use(
    compression({
      filter: (request, response) =>
        request.path !== '/api/v1/changes' && compression.filter(request, response),
    }),
  );
  app.get('/api/v1/changes', changes.stream);
  app.use('/api', ownOriginOnly, express.json({ limit: 1_000_000, strict: true }));
  app.use('/api/v1/photos', express.raw({ type: 'image/jpeg', limit: MOST_BYTES }));
  app.get('/api/openapi.json', (_request, response) => void response.json(openApi(routes)));
  app.use('/api', forHousehold(store));
  for (const route of routes) mount(app, route, store);
  app.use('/api', (request, response) => {
    const path = `/api${request.path}`;
    const known = routes.some((route) =>
      new RegExp(`^${route.path.replaceAll(/\{\w+\}/g, '[^/]+')}$`).test(path),
    );
    sendProblem(
      response,
      known ? new ProblemError(405, 'This cannot be done here.') : notFound('address'),
    );
  });
  if (webRoot && existsSync(webRoot)) changes.release = serveWeb(app, webRoot);
  app.use(problems);
  return { express: app, store, changes, routes };
}

/**
 * What was noted for one household is not taken by another's server, and everything is told in the words of
 * the one that is served.
 */
const forHousehold =
  (store: Store): express.RequestHandler =>
  (request, response, next) => {
    const household = store.household.get();
    speakAs(household ? tongueOf(household) : AS_WRITTEN);
    if (household) response.set(HOUSEHOLD, household.id);
    const wanted = request.get(HOUSEHOLD);
    if (wanted === undefined || wanted === household?.id) return next();
    sendProblem(
      response,
      new ProblemError(
        421,
        household
          ? 'This is the Needlecase of another household.'
          : 'This Needlecase has no household yet.',
        {
          detail:
            'Nothing was stored. What you noted stays on your device until its own server is reached.',
        },
      ),
    );
  };
/** Names the household that something is for, or that was served. */
const HOUSEHOLD = 'Needlecase-Household';

function security(): express.RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        'default-src': ["'none'"],
        'script-src': ["'self'"],
        'style-src': ["'self'", "'unsafe-inline'"],
        'img-src': ["'self'", 'data:', 'blob:'],
        'font-src': ["'self'"],
        'connect-src': ["'self'"],
        'worker-src': ["'self'"],
        'manifest-src': ["'self'"],
        'base-uri': ["'self'"],
        'form-action': ["'self'"],
        'frame-ancestors': ["'none'"],
        'object-src': ["'none'"],
      },
    },
    strictTransportSecurity: false,
    referrerPolicy: { policy: 'no-referrer' },
    crossOriginEmbedderPolicy: false,
  });
}

/** What a browser heeds only in a secure context, and complains of anywhere else, is sent only there. */
const onlyWhereTrusted: express.RequestHandler = (request, response, next) => {
  const ownMachine = /^(localhost|127(\.\d+){3}|\[::1\])$/.test(request.hostname);
  if (!request.secure && !ownMachine) response.removeHeader('Cross-Origin-Opener-Policy');
  next();
};

/** Other sites' pages may not write here, though they can reach the address. */
const ownOriginOnly: express.RequestHandler = (request, response, next) => {
  const origin = request.get('Origin');
  const site = request.get('Sec-Fetch-Site');
  const foreign =
    (origin !== undefined && !origin.endsWith(`://${request.get('Host')}`)) ||
    site === 'cross-site';
  if (foreign && request.method !== 'GET') {
    return sendProblem(response, new ProblemError(403, 'This was asked from another site.'));
  }
  next();
};

/** @returns the name of the program's first script, another one in each release */
function serveWeb(app: Express, webRoot: string): string | undefined {
  const index = readFileSync(join(webRoot, 'index.html'), 'utf8');
  app.use(
    express.static(webRoot, {
      index: false,
      setHeaders: (response, path) => {
        const hashed = /-[A-Z0-9]{8}\.\w+$/.test(path);
        response.set('Cache-Control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
      },
    }),
  );
  app.get('/{*path}', (request, response, next) => {
    if (/\.\w{1,5}$/.test(request.path)) return next();
    response.type('html').set('Cache-Control', 'no-cache').send(index);
  });
  app.use((_request, response) => sendProblem(response, notFound('page')));
  return /\bmain-\w+\.js\b/.exec(index)?.[0];
}
