import { checkAccess } from '@needlecase/core/model/check-access';
import type { Link, SharedNoteDraft } from '@needlecase/core/model/access';
import { keptText } from '@needlecase/core/model/texts';
import express, { type Express, type Request, type Response } from 'express';
import { randomUUID } from 'node:crypto';
import { invalid, mustBeRight, notFound, ProblemError } from '../http/problem.js';
import { soundOnly } from '../http/sound.js';
import type { Store } from '../store/store.js';
import type { Cells } from '../threads/cells.js';
import type { Threads } from '../threads/threads.js';
import type { Access } from './access.js';
import type { Left } from './aside.js';
import { ownOriginOnly } from './guard.js';
import { LEAVE } from './leave-script.js';
import { fewNotes } from './limits.js';
import { escaped, plainPage } from './plain-page.js';

/** What a link shows: its name, and the sheet that it gives out. */
function shown(store: Store, { shows, target }: Link): string | undefined {
  if (shows === 'machine') return store.machines.get(target)?.name;
  const found = store.cases.get(target);
  const machine = found && store.machines.get(found.machineId);
  return machine && `${machine.name}: what is wrong with it`;
}

/** Pages that a link opens, for a landlord or a technician: one machine's record or one case, and nothing else. Where the link
 * says so, they may leave a note there. */
export function serveSharedPages(
  app: Express,
  store: Store,
  access: Access,
  { threads, cells }: { threads: Threads; cells: Cells },
  origin?: string,
): void {
  const known = (request: Request): Link | undefined =>
    access.links.bySecret((request.params as { secret: string }).secret);
  const headers = (response: Response) =>
    response.set({ 'Cache-Control': 'no-store', 'X-Robots-Tag': 'noindex' });

  app.get('/shared/leave.js', (_request, response) => {
    response.type('js').set('Cache-Control', 'no-cache').send(LEAVE);
  });
  app.get('/shared/:secret', (request, response) => {
    headers(response);
    const link = known(request);
    const name = link && shown(store, link);
    if (!link || name === undefined) {
      response.status(404).type('html').send(plainPage('Not here any more', GONE));
      return;
    }
    // How often is counted at the link; the list of what happened tells that it was used at all.
    if (link.opened === 0) access.events.note('link opened', { more: link.forWhom });
    access.links.opened(link.id);
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

  app.post(
    '/shared/:secret',
    fewNotes(),
    ownOriginOnly(origin),
    // Whose link it is not sends nothing that is read.
    (request, response, next) => {
      headers(response);
      next(known(request)?.notes ? undefined : notFound('link'));
    },
    express.json({ limit: 2_100_000, strict: true, inflate: false }),
    soundOnly,
    async (request, response) => {
      mustBeRight(checkAccess('SharedNoteDraft', request.body ?? {}));
      const draft = request.body as SharedNoteDraft;
      const photo =
        draft.photo === undefined
          ? undefined
          : await cells.read('picture', { bytes: Buffer.from(draft.photo, 'base64') }, 'photo');
      const link = known(request);
      if (!link?.notes) throw notFound('link');
      const left = deedOf(store, link, draft, photo && Buffer.from(photo.picture));
      store.write(() => {
        if (!access.aside.leave(link.id, left)) {
          throw new ProblemError(429, 'This link has left as much as it can.', {
            detail: 'Nothing was stored. Ask whoever gave it to you for a new one.',
          });
        }
        access.events.note('note left by a link', { more: link.forWhom });
        store.changed({ topic: 'household' });
      });
      response.status(201).json({ waits: true });
    },
  );
}

const GONE = `<p>This link was taken back, or its two weeks are over. Ask whoever gave it to you for a new one.</p>`;

const NOTES = `<h2>Leave a note</h2>
<p>What you found or did, with a photo if one helps. It waits until somebody of the house says yes to it.</p>
<form id="leave">
<label for="note">Note</label>
<textarea id="note" rows="4" maxlength="1900"></textarea>
<label for="photo">Photo</label>
<input id="photo" type="file" accept="image/*">
<p id="wrong" class="wrong" role="alert"></p>
<p><button class="button" type="submit">Leave it here</button></p>
</form>
<p id="left" class="said" role="status"></p>
<script src="/shared/leave.js" defer></script>`;

/** What a note is, once somebody of the house said yes to it: an entry of the machine's, with whom it is from. */
function deedOf(
  store: Store,
  link: Link,
  { id, note }: SharedNoteDraft,
  picture: Buffer | undefined,
): Left {
  const machineId =
    link.shows === 'machine' ? link.target : store.cases.get(link.target)?.machineId;
  if (machineId === undefined || !store.machines.get(machineId)) throw notFound('link');
  const said = keptText(note).trim();
  if (!said && !picture) {
    throw invalid([{ field: 'note', message: 'Write a note, or choose a photo.' }]);
  }
  return {
    key: `link ${link.id} ${id}`,
    route: 'post /api/v1/entries',
    path: '/api/v1/entries',
    body: {
      id,
      kind: 'note',
      machineId,
      ...(link.shows === 'case' ? { caseId: link.target } : {}),
      at: new Date().toISOString(),
      note: `${link.forWhom}: ${said || 'a photo'}`,
      ...(picture ? { photos: [randomUUID()] } : {}),
    },
    ...(picture ? { photo: picture } : {}),
  };
}

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
${link.notes ? NOTES : ''}
<p class="said">It can be read until ${until}. Nothing else of the household can be seen with it.</p>`;
}
