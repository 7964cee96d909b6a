import { check } from '@needlecase/core';
import {
  MailRecipient,
  MailState,
  type MailRecipientDraft,
  type MailServerDraft,
} from '@needlecase/core/model/mail';
import { DRAFTS } from '@needlecase/core/model/schemas';
import type { Express } from 'express';
import express from 'express';
import { personOf } from '../access/caller.js';
import type { Ground } from '../access/ground.js';
import { plainPage } from '../access/plain-page.js';
import { invalid, notFound, ProblemError } from '../http/problem.js';
import { longRoute, type Route } from '../http/route.js';
import type { PostOffice } from '../mail/post-office.js';
import type { Postman } from '../mail/postman.js';
import { toRecipient } from '../store/mail.js';
import { mustHaveRoom, MOST } from '../work/ceilings.js';
import { householdOf } from '../work/household.js';

/** Letters: through which mail server, to whom, and what went wrong. */
export function mailRoutes({ store }: Ground, postman: Postman, office?: PostOffice): Route[] {
  const told = () => store.changed({ topic: 'household' });
  const state = (): MailState => {
    const { server } = postman;
    return {
      ...(server ? { server: { ...server, password: Boolean(server.password) } } : {}),
      fixed: postman.isFixed,
      recipients: store.mail.list().map(toRecipient),
      ...(office ? { letters: office.letters } : {}),
    };
  };
  return [
    longRoute({
      method: 'get',
      path: '/api/v1/mail',
      summary: 'How letters stand: the mail server, who gets them, what went wrong',
      answers: MailState,
      handle: () => ({ body: state() }),
    }),
    longRoute({
      method: 'put',
      path: '/api/v1/mail/server',
      summary: 'Say through which mail server letters go',
      reads: { schema: DRAFTS.MailServerDraft, check: (body) => check('MailServerDraft', body) },
      answers: MailState,
      handle: ({ body }) =>
        store.write(() => {
          householdOf(store);
          if (postman.isFixed) {
            throw new ProblemError(409, 'The mail server was said where this server was started.', {
              detail: 'Nothing was stored.',
            });
          }
          const { password, ...draft } = body as MailServerDraft;
          const before = store.mail.server?.password;
          const kept = password ?? before;
          store.mail.server = { ...draft, ...(kept === undefined ? {} : { password: kept }) };
          told();
          return { body: state() };
        }),
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/mail/server',
      summary: 'Send no letters any more, and forget the mail server',
      answers: MailState,
      handle: () =>
        store.write(() => {
          store.mail.server = undefined;
          told();
          return { body: state() };
        }),
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/mail/recipients',
      summary: 'Write to somebody each week',
      reads: {
        schema: DRAFTS.MailRecipientDraft,
        check: (body) => check('MailRecipientDraft', body),
      },
      answers: MailRecipient,
      handle: ({ body, caller }) =>
        store.write(() => {
          householdOf(store);
          const draft = body as MailRecipientDraft;
          const known = store.mail.list();
          mustHaveRoom(known.length, MOST.recipients, 'people who get letters');
          if (known.some(({ address }) => address === draft.address)) {
            throw invalid([{ field: 'address', message: 'Letters go there already.' }]);
          }
          const row = store.mail.add(draft, personOf(caller)?.id);
          told();
          return { status: 201, body: toRecipient(row) };
        }),
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/mail/recipients/{id}',
      summary: 'Write to somebody no more',
      answers: MailState,
      handle: ({ params: { id } }) =>
        store.write(() => {
          if (!store.mail.get(id)) throw notFound('recipient');
          store.mail.remove(id);
          told();
          return { body: state() };
        }),
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/mail/recipients/{id}/letter',
      summary: 'Send the letter of this week now',
      answers: MailRecipient,
      handle: async ({ params: { id } }) => {
        if (!store.mail.get(id)) throw notFound('recipient');
        if (!postman.server) {
          throw new ProblemError(409, 'No mail server was said yet.', {
            detail: 'Nothing was sent.',
          });
        }
        await postman.sendNow(id);
        return { body: toRecipient(store.mail.get(id)!) };
      },
    }),
  ];
}

/** The page that a link in a letter opens: no more of them, by a button, or by the mail program itself (RFC 8058). */
export function serveStopPages(app: Express, { store }: Ground, postman: Postman): void {
  app.get('/letters/stop/:stopper', (request, response) => {
    response.set({ 'X-Robots-Tag': 'noindex', 'Cache-Control': 'no-store' }).type('html');
    const row = postman.stoppedBy(request.params.stopper);
    const page = row
      ? '<p>Letters about the laundry go to this address each week.</p><form method="post"><button>No more letters</button></form>'
      : '<p>No letters go out by this link any more.</p>';
    response.status(row ? 200 : 404).send(plainPage('Letters', page));
  });
  app.post(
    '/letters/stop/:stopper',
    express.urlencoded({ extended: false, limit: 2000 }),
    (request, response) => {
      response.set('Cache-Control', 'no-store').type('html');
      const row = postman.stoppedBy(request.params.stopper);
      if (row) store.write(() => store.mail.remove(row.id));
      response.send(plainPage('Letters', '<p>No more letters go out to this address.</p>'));
    },
  );
}
