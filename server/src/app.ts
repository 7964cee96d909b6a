import { AS_WRITTEN, speakAs, tongueOf } from '@needlecase/core';
import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { extname, join } from 'node:path';
import { performance } from 'node:perf_hooks';
import type { Logger } from 'pino';
import { Access } from './access/access.js';
import { admission } from './access/admission.js';
import { fetchCalendar } from './calendar/fetch.js';
import { ownNamesOnly, ownOriginOnly } from './access/guard.js';
import { fewTries } from './access/limits.js';
import { safeAddress, servePhonePage } from './access/phone-page.js';
import { houseOrigin, isSettled, type Reach } from './access/reach.js';
import { serveSharedPages } from './access/shared-page.js';
import { BackupKeeper, type Keeping } from './backup/keeper.js';
import { Changes, EVENT_STREAM } from './http/changes.js';
import { requestLog } from './http/log.js';
import { openApi } from './http/openapi.js';
import { writesFirst } from './http/lanes.js';
import { LoopWatch } from './http/loop-watch.js';
import { notDone, notThisWay } from './http/not-done.js';
import { isFull, notFound, problemsOf, ProblemError, sendProblem } from './http/problem.js';
import { mount, type Route } from './http/route.js';
import { aboutRoutes } from './routes/about.js';
import { absenceRoutes } from './routes/absences.js';
import { addressRoutes } from './routes/access/addresses.js';
import { asideRoutes } from './routes/access/aside.js';
import { givenRoutes } from './routes/access/given.js';
import { passkeyRoutes } from './routes/access/passkeys.js';
import { personRoutes } from './routes/access/persons.js';
import { waysIn } from './routes/access/ways-in.js';
import { backupRoutes } from './routes/backups.js';
import { benchRoutes } from './routes/bench.js';
import { serveCalendars } from './calendar/serve.js';
import { calendarRoutes } from './routes/calendars.js';
import { caseRoutes } from './routes/cases.js';
import { codeSheetRoutes } from './routes/code-sheets.js';
import { entryRoutes } from './routes/entries.js';
import { handoverRoutes } from './routes/handover.js';
import { healthRoutes } from './routes/health.js';
import { householdRoutes } from './routes/household.js';
import { instrumentRoutes } from './routes/instruments.js';
import { mailRoutes, serveStopPages } from './routes/mail.js';
import { documentRoutes } from './routes/documents.js';
import { photoRoutes } from './routes/photos.js';
import { planRoutes } from './routes/plan.js';
import { oldNotesRoutes } from './routes/old-notes.js';
import { recordRoutes } from './routes/record.js';
import { printRoutes } from './routes/prints.js';
import { visitRoutes } from './routes/visits.js';
import { supplyRoutes } from './routes/supplies.js';
import { troubleRoutes } from './routes/trouble.js';
import { metersRoutes } from './routes/meters.js';
import { meterRoutes } from './routes/meter.js';
import { ventRunRoutes } from './routes/vent-runs.js';
import type { MailServerDraft } from '@needlecase/core/model/mail';
import type { PostOffice } from './mail/post-office.js';
import { Postman } from './mail/postman.js';
import { Brokers } from './meters/brokers.js';
import { LiveMeters } from './meters/live-meters.js';
import type { StandInPlug } from './meters/stand-in-plug.js';
import { newsOf } from './work/news.js';
import { Store } from './store/store.js';
import { Signals } from './work/signals.js';
import { HindsightKeeper } from './work/hindsight.js';
import { MachineDays } from './work/machine-days.js';
import { BusyDays } from './work/busy.js';
import { PlanAnswer } from './work/plan-answer.js';
import { Planner } from './work/planner.js';
import { sameCell, type Cells } from './threads/cells.js';
import { sameThread, watched, type Threads, type ThreadWatch } from './threads/threads.js';
import { DataGuard } from './work/data-guard.js';
import { brokerLook, clockLook, diskLook, threadLook } from './work/house-looks.js';
import { HouseWatch } from './work/house-watch.js';
import type { Db } from './db/open.js';

export interface App {
  express: Express;
  store: Store;
  changes: Changes;
  backups: BackupKeeper;
  days: MachineDays;
  access: Access;
  postman: Postman;
  busy: BusyDays;
  live: LiveMeters;
  hindsight: HindsightKeeper;
  brokers: Brokers;
  /** Watches over the data file; none where the household is only in memory. */
  guard?: DataGuard | undefined;
  /** Knows what holds up everybody else; it is to be started. */
  loop: LoopWatch;
  /** Knows what is wrong with what the household relies on. */
  watch: HouseWatch;
  /** Every address of the API. */
  routes: readonly Route[];
}

/** What a server may have beside its data file. */
export interface Setting {
  /** Folder of the built web application, if it is to be served. */
  webRoot?: string;
  log?: Logger;
  /** Where long work is done; in the loop itself where nothing is said. */
  threads?: Threads;
  /** Where what comes from outside is read; in the loop itself where nothing is said. */
  cells?: Cells;
  /** How other devices reach it; not at all where nothing is said. */
  reach?: () => Reach;
  /** How many computers in front of it hand requests on, and are believed. */
  proxies?: number;
  /** Through which mail server letters go, whatever is kept. */
  mail?: MailServerDraft;
  /** Stands in for a real post office. */
  office?: PostOffice;
  /** A plug that stands in for a real one. */
  plug?: StandInPlug;
  /** Where its backups are; without, none can be made. */
  keeping?: Keeping;
}

/** The whole server without its socket. */
export function makeApp(
  db: Db,
  {
    webRoot,
    log,
    threads: own,
    cells: ownCells,
    keeping,
    reach: at = () => ALONE,
    proxies = 0,
    mail,
    office,
    plug,
  }: Setting = {},
): App {
  const changes = new Changes();
  const guard = keeping && new DataGuard(keeping.file, db, changes, log);
  const store = new Store(db, changes, () => guard?.problem());
  const cells = ownCells ?? sameCell();
  const loop = new LoopWatch((hold) => log?.warn(hold, 'The loop was held.'));
  const watch = new HouseWatch(
    () => changes.tell({ topic: 'health' }),
    (error) => log?.error(error),
  );
  const stops = threadLook();
  const workers: ThreadWatch = {
    failed: (job) => {
      stops.failed(job);
      void watch.lookAt('thread');
    },
    did: (job) => {
      stops.did(job);
      void watch.lookAt('thread');
    },
  };
  const threads = watched(own ?? sameThread({ file: keeping?.file, store: () => store }), workers);
  cells.watch = workers;
  const days = new MachineDays(store);
  const planner = new Planner(store, threads);
  const plan = new PlanAnswer(store, planner);
  const busy = new BusyDays(store, plan, cells, fetchCalendar);
  const signals = new Signals(store);
  const hindsight = new HindsightKeeper(store, threads);
  const backups = new BackupKeeper(store, threads, keeping, () => void watch.lookAt('backup'));
  const access = new Access(db, store);
  const reach = () => access.host.in(at());
  const ground = { store, access, changes, reach };
  const postman = new Postman(store, newsOf(store, plan, reach), mail, (error) =>
    log?.error(error),
  );
  const live = new LiveMeters(store, Date.now, (error) => log?.error(error));
  const brokers = new Brokers({
    take: (meter, samples) => void live.take(meter, samples),
    changed: (id) => store.tell({ topic: 'meters', id }),
    ...(plug ? { standIn: plug.address } : {}),
  });
  const plugs = { live, brokers, ...(plug ? { standIn: plug } : {}) };
  const routes: Route[] = [
    ...healthRoutes(watch, () => store.whyNot()),
    ...householdRoutes(store),
    ...benchRoutes(store, threads, days, hindsight, signals),
    ...planRoutes(store, planner, plan),
    ...calendarRoutes(ground, plan, busy),
    ...printRoutes(ground, threads, plan),
    ...mailRoutes(ground, postman, office),
    ...absenceRoutes(store),
    ...entryRoutes(store),
    ...visitRoutes(store),
    ...supplyRoutes(store),
    ...photoRoutes(store, cells),
    ...documentRoutes(store, cells),
    ...handoverRoutes(threads),
    ...troubleRoutes(store),
    ...caseRoutes(store),
    ...codeSheetRoutes(store),
    ...instrumentRoutes(),
    ...ventRunRoutes(store),
    ...meterRoutes(store, signals),
    ...metersRoutes(ground, () => plugs),
    ...backupRoutes(backups),
    ...oldNotesRoutes(store),
    ...recordRoutes(store, { db, file: keeping?.file }),
    ...aboutRoutes(keeping),
    ...waysIn(ground),
    ...addressRoutes(ground),
    ...personRoutes(ground),
    ...passkeyRoutes(ground),
    ...givenRoutes(ground),
    ...asideRoutes(ground, () => routes),
  ];

  const disk = keeping && diskLook(keeping.file);
  watchOver(watch, {
    store,
    busy,
    live,
    brokers,
    backups,
    guard,
    stops,
    ...(disk ? { disk } : {}),
  });
  const unanswered = notDone([
    ...routes,
    { method: 'get', path: '/api/openapi.json' },
    { method: 'get', path: '/api/v1/changes' },
  ]);

  const app = express();
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  // Records have theirs by version; nothing else of the API is kept by anybody.
  app.set('etag', false);
  if (log) app.use(requestLog(log));
  app.set('trust proxy', proxies);
  app.use(security(reach), onlyWhereTrusted, ownNamesOnly(reach().origin));
  const inPlace = whileInPlace(guard);
  app.use(writesFirst());
  servePhonePage(app, reach);
  app.post('/shared/:secret', inPlace);
  serveSharedPages(app, store, access, { threads, cells }, reach().origin);
  serveStopPages(app, ground, postman);
  serveCalendars(app, store, access, () => plan.house(), reach);
  // Answers are made anew each time and packed quickly; the application's files are packed well.
  app.use('/api', packed(FAST));
  app.use(packed(WELL));
  app.use('/api', ownOriginOnly(reach().origin));
  app.get('/api/v1/changes', (request, response) => {
    const caller = access.admit('get /api/v1/changes', request);
    changes.stream(request, response, caller.by === 'device' ? caller.device.id : caller.by);
  });
  app.use('/api', access.livesOn);
  app.get('/api/openapi.json', (request, response) => {
    access.admit('get /api/openapi.json', request);
    response.json(openApi(routes));
  });
  app.use('/api', inPlace);
  app.use('/api', forHousehold(store), withRevision(changes));
  // What is for another household tries nothing here.
  app.post(['/api/v1/pair', '/api/v1/sign-in', '/api/v1/sign-in/passkey'], fewTries());
  app.use('/api', admission(routes, { access, cells, notDone: unanswered }));
  for (const route of routes) mount(app, route, store, access, loop);
  app.use('/api', unanswered);
  if (webRoot && existsSync(webRoot)) changes.release = serveWeb(app, webRoot);
  app.use(
    problemsOf((code) => {
      if (!isFull(code) || !disk) return;
      disk.full(Date.now());
      void watch.lookAt('disk');
    }),
  );
  return {
    express: app,
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
    routes,
  };
}

interface Watched {
  store: Store;
  busy: BusyDays;
  live: LiveMeters;
  brokers: Brokers;
  backups: BackupKeeper;
  guard: DataGuard | undefined;
  stops: ReturnType<typeof threadLook>;
  disk?: ReturnType<typeof diskLook>;
}

/** Has everything looked at that can be looked at here; https is looked at where it is spoken. */
function watchOver(
  watch: HouseWatch,
  { store, busy, live, brokers, backups, guard, stops, disk }: Watched,
): void {
  watch.add('data-file', () => guard?.told);
  if (guard) guard.changed = () => void watch.lookAt('data-file');
  watch.add('thread', stops.look);
  watch.add('backup', () => backups.trouble());
  watch.add('backup-ahead', () => backups.ahead());
  watch.add(
    'clock',
    clockLook(
      () => performance.now(),
      () => store.entries.newestRecordedAt(),
    ),
  );
  watch.add('calendar', (now) => busy.trouble(now));
  watch.add('broker', brokerLook(store, live, brokers));
  if (disk) watch.add('disk', disk.look);
}

/** A server that nobody but this computer reaches. */
const ALONE: Reach = { port: 0, open: false };

/**
 * Of a data file that is not where it was nothing is told and nothing stored: nobody would find it again. Where only
 * what SQLite lays beside it is lost, what was read in is told on, and nothing is stored. That the server lives, and
 * how it is, is told always.
 */
const whileInPlace =
  (guard: DataGuard | undefined): express.RequestHandler =>
  (request, _response, next) => {
    const problem = guard?.problem();
    const reads = request.method === 'GET' || request.method === 'HEAD';
    const told = reads && (guard?.reads || request.originalUrl.startsWith(HEALTH));
    next(told ? undefined : problem);
  };

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
/** Says at which revision something was read, before it is: the stream tells a page whether it missed any. */
const withRevision =
  (changes: Changes): express.RequestHandler =>
  (request, response, next) => {
    if (request.method === 'GET') response.set('Needlecase-Revision', changes.revision);
    next();
  };

const HEALTH = '/api/v1/health';

/** Names the household that something is for, or that was served. */
const HOUSEHOLD = 'Needlecase-Household';

/** Where a device is to go over to: its page looks whether it can. */
const settledOrigin = (reach: Reach): string =>
  isSettled(reach) ? (houseOrigin(reach) ?? "'self'") : "'self'";

function security(reach: () => Reach): express.RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        'default-src': ["'none'"],
        'script-src': ["'self'"],
        'style-src': ["'self'", "'unsafe-inline'"],
        'img-src': ["'self'", 'data:', 'blob:'],
        'font-src': ["'self'"],
        // A page of plain http looks whether the safe address holds on its device.
        'connect-src': [
          "'self'",
          (request) =>
            (request as express.Request).secure
              ? settledOrigin(reach())
              : (safeAddress(request as express.Request, reach()) ?? "'self'"),
        ],
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

const FAST = 1;
const WELL = 6;

/** Packs answers, but for the stream, which would wait in the packing. @param level of zlib */
const packed = (level: number): express.RequestHandler =>
  compression({
    level,
    filter: (request, response) =>
      !response.get('Content-Type')?.startsWith(EVENT_STREAM) &&
      compression.filter(request, response),
  });

/** What a browser heeds only in a secure context, and complains of anywhere else, is sent only there. */
const onlyWhereTrusted: express.RequestHandler = (request, response, next) => {
  const ownMachine = /^(localhost|127(\.\d+){3}|\[::1\])$/.test(request.hostname);
  if (!request.secure && !ownMachine) response.removeHeader('Cross-Origin-Opener-Policy');
  next();
};

/** @returns the name of the program's first script, another one in each release */
function serveWeb(app: Express, webRoot: string): string | undefined {
  const index = readFileSync(join(webRoot, 'index.html'), 'utf8');
  app.use((request, response, next) => {
    if (!['GET', 'HEAD'].includes(request.method)) return notThisWay(response, ['GET', 'HEAD']);
    // What begins with a dot is nobody's business.
    if (/\/(\.|%2e)/i.test(request.path)) return sendProblem(response, notFound('page'));
    next();
  });
  const pressed = new Set(readdirSync(webRoot).filter((name) => name.endsWith('.gz')));
  app.use((request, response, next) => {
    const name = `${request.path.slice(1)}.gz`;
    if (!pressed.has(name) || !request.acceptsEncodings('gzip')) return next();
    // It was pressed when the program was built: nobody waits for that.
    request.url = `/${name}`;
    next();
  });
  app.use(
    express.static(webRoot, {
      index: false,
      setHeaders: (response, path) => {
        const hashed = /-[\w-]{8}\.(js|css|woff2?)(\.gz)?$/.test(path);
        if (path.endsWith('.gz')) {
          response.type(extname(path.slice(0, -3)));
          response.set({ 'Content-Encoding': 'gzip', Vary: 'Accept-Encoding' });
        }
        response.set('Cache-Control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
      },
    }),
  );
  app.get('/{*path}', (request, response, next) => {
    if (/\.\w{1,5}$/.test(request.path)) return next();
    response.type('html').set('Cache-Control', 'no-cache').send(index);
  });
  app.use((_request, response) => sendProblem(response, notFound('page')));
  return /\bmain-[\w-]+\.js\b/.exec(index)?.[0];
}
