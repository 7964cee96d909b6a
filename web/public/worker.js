/*
 * Needlecase's own worker, round the one that keeps the application. It stands in nobody's way: until the application is
 * kept whole, every request goes past it, what it fetches goes two at a time and last, and it takes a page over only
 * when all is there, or on the next visit. Photos that another application shares arrive as a form that is posted to
 * /share: they are put on a shelf of this device, with or without a connection, and the page that asks what they are of
 * is shown.
 */
'use strict';

const SHELF = 'needlecase-shared';
const MOST_FILES = 6;

/** Where it is noted that the application is kept whole. */
const NOTES = 'needlecase-worker';
const WHOLE = '/needlecase-whole';
/** Fetched at a time, to be kept. */
const AT_ONCE = 2;
/** After so long without fetching anything it is looked whether all is there, ms. */
const QUIET = 700;

const fetchNow = self.fetch.bind(self);
const takeOver = self.clients.claim.bind(self.clients);

/** Requests of pages; whatever else is fetched is fetched to be kept. */
const ofPages = new WeakSet();

let under = 0;
let quiet;
const waiting = [];

function next() {
  while (under < AT_ONCE && waiting.length) {
    under++;
    const { asked, done, failed } = waiting.shift();
    fetchNow(asked, { priority: 'low' })
      .then(done, failed)
      .finally(() => {
        under--;
        next();
      });
  }
  clearTimeout(quiet);
  if (under === 0) quiet = setTimeout(() => void lookWhetherWhole(), QUIET);
}

self.fetch = (asked, how) => {
  if (how !== undefined || ofPages.has(asked)) return fetchNow(asked, how);
  return new Promise((done, failed) => {
    waiting.push({ asked, done, failed });
    next();
  });
};
self.clients.claim = async () => {
  if (await isWhole()) await takeOver();
};

let whole;

/** Whether the application was kept whole once. */
async function isWhole() {
  whole ??= (await (await caches.open(NOTES)).match(WHOLE)) !== undefined;
  return whole;
}

/** Notes that all is there, and takes the pages over that are open. */
async function lookWhetherWhole() {
  if (under > 0 || (await isWhole())) return;
  const manifest = await fetchNow('ngsw.json', { priority: 'low' }).catch(() => undefined);
  if (!manifest?.ok) return;
  const { assetGroups } = await manifest.json();
  const wanted = assetGroups.reduce((sum, { urls }) => sum + urls.length, 0);
  const names = (await caches.keys()).filter((name) => /:assets:[^:]+:cache$/.test(name));
  const kept = await Promise.all(
    names.map(async (name) => (await (await caches.open(name)).keys()).length),
  );
  if (kept.reduce((sum, one) => sum + one, 0) < wanted) return;
  await (await caches.open(NOTES)).put(WHOLE, new Response(''));
  whole = true;
  await takeOver();
}

/** What keeps the application listens through us: it hears of a request only once it has all that it may be asked for. */
let keeper;
const listen = self.addEventListener.bind(self);
self.addEventListener = (name, heard, how) => {
  if (name === 'fetch') keeper = heard;
  else listen(name, heard, how);
};

listen('fetch', (event) => {
  const { request } = event;
  const { origin, pathname, searchParams } = new URL(request.url);
  if (request.method === 'POST' && pathname === '/share') {
    return event.respondWith(keep(request));
  }
  if (whole === false) return goOn();
  if (origin !== self.location.origin || searchParams.has('ngsw-bypass')) return;
  ofPages.add(request);
  event.respondWith(answered(event));
});

let goneOn = false;

/** What an earlier life of this worker began to fetch is gone on with. */
function goOn() {
  if (goneOn) return;
  goneOn = true;
  self.registration.active?.postMessage({ action: 'INITIALIZE' });
  quiet ??= setTimeout(() => void lookWhetherWhole(), 5 * QUIET);
}

async function answered(event) {
  if (!(await isWhole())) {
    goOn();
    return fetchNow(event.request);
  }
  let answer;
  keeper({
    request: event.request,
    clientId: event.clientId,
    resultingClientId: event.resultingClientId,
    waitUntil: (work) => event.waitUntil(work),
    respondWith: (response) => (answer = response),
  });
  return answer ?? fetchNow(event.request);
}

async function keep(request) {
  let said = '';
  try {
    const form = await request.formData();
    const files = form.getAll('photos').filter((one) => one instanceof File && one.size > 0);
    const words = ['title', 'text'].map((name) => form.get(name)).filter((one) => one);
    await put({ files: files.slice(0, MOST_FILES), text: words.join(' ').slice(0, 2000) });
  } catch {
    said = '?failed';
  }
  return Response.redirect(`/share${said}`, 303);
}

/** The last that was shared takes the place of what nobody looked at. */
function put(shared) {
  return new Promise((done, failed) => {
    const opening = indexedDB.open(SHELF, 1);
    opening.onupgradeneeded = () => opening.result.createObjectStore('shared');
    opening.onerror = () => failed(opening.error);
    opening.onsuccess = () => {
      const database = opening.result;
      const transaction = database.transaction('shared', 'readwrite');
      transaction.objectStore('shared').put(shared, 'last');
      transaction.oncomplete = () => {
        database.close();
        done();
      };
      transaction.onerror = () => failed(transaction.error);
    };
  });
}

importScripts('./ngsw-worker.js');
