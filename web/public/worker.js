/*
 * Needlecase's own worker, round the one that keeps the application: photos that another application shares arrive as
 * a form that is posted to /share. They are put on a shelf of this device, with or without a connection, and the page
 * that asks what they are of is shown.
 */
'use strict';

const SHELF = 'needlecase-shared';
const MOST_FILES = 6;

self.addEventListener('fetch', (event) => {
  const { method, url } = event.request;
  if (method !== 'POST' || new URL(url).pathname !== '/share') return;
  event.stopImmediatePropagation();
  event.respondWith(keep(event.request));
});

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
