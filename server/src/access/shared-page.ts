import type { Express, Request, Response } from 'express';
import type { Link } from '@needlecase/core/model/access';
import type { Store } from '../store/store.js';
import type { Threads } from '../threads/threads.js';
import type { Access } from './access.js';
import { escaped, plainPage } from './plain-page.js';

/** What a link shows: its name, and the sheet that it gives out. */
function shown(store: Store, { shows, target }: Link): string | undefined {
  if (shows === 'machine') return store.machines.get(target)?.name;
  const found = store.cases.get(target);
  const machine = found && store.machines.get(found.machineId);
  return machine && `${machine.name}: what is wrong with it`;
}

/** Pages that a link opens, for a landlord or a technician: one machine's record or one case, and nothing else. */
export function serveSharedPages(
  app: Express,
  store: Store,
  access: Access,
  threads: Threads,
): void {
  const known = (request: Request): Link | undefined =>
    access.links.bySecret((request.params as { secret: string }).secret);
  const headers = (response: Response) =>
    response.set({ 'Cache-Control': 'no-store', 'X-Robots-Tag': 'noindex' });

  app.get('/shared/:secret', (request, response) => {
    headers(response);
    const link = known(request);
    const name = link && shown(store, link);
    if (!link || name === undefined) {
      response.status(404).type('html').send(plainPage('Not here any more', GONE));
      return;
    }
    access.links.opened(link.id);
    access.events.note('link opened', { more: link.forWhom });
    response.type('html').send(plainPage(name, page(link, name, store, request.path)));
  });

  app.get('/shared/:secret/sheet.pdf', async (request, response, next) => {
    headers(response);
    const link = known(request);
    if (!link) return next();
    const sheet = link.shows === 'machine' ? 'print-machine' : 'print-case';
    const { pdf, fileName } = await threads.run(sheet, { id: link.target, now: Date.now() });
    response.attachment(fileName).type('application/pdf').send(Buffer.from(pdf));
  });
}

const GONE = `<p>This link was taken back, or its two weeks are over. Ask whoever gave it to you for a new one.</p>`;

function page(link: Link, name: string, store: Store, path: string): string {
  const household = store.household.get();
  const until = new Intl.DateTimeFormat('en-GB', {
    dateStyle: 'long',
    timeZone: household?.zone ?? 'UTC',
  }).format(new Date(link.until));
  const what =
    link.shows === 'machine'
      ? 'how the machine is built, what is due, what was done and found'
      : 'what was noticed, checked and measured, and what is suspected';
  return `<h1>${escaped(name)}</h1>
<p>${escaped(household?.name ?? 'This household')} shows this to ${escaped(link.forWhom)}: ${what}.</p>
<p><a class="button" href="${path}/sheet.pdf">Open the sheet (PDF)</a></p>
<p class="said">It can be read until ${until}. Nothing else of the household can be seen with it.</p>`;
}
