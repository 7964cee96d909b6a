import type { Express } from 'express';
import { createHash } from 'node:crypto';
import type { Day } from '@needlecase/core';
import type { FeedDraft } from '@needlecase/core/model/planned';
import type { HousePlan } from '@needlecase/core/views/plan';
import type { Access } from '../access/access.js';
import { houseOrigin, type Reach } from '../access/reach.js';
import { notFound, sendProblem } from '../http/problem.js';
import type { Store } from '../store/store.js';
import { writeCalendar } from './write.js';

export const CALENDAR = 'text/calendar; charset=utf-8';

/** Calendars as they were written last, of each plan as it was told. */
const written = new WeakMap<HousePlan, Map<string, string>>();

/** The visits as a calendar, of the whole house or of one person. */
export function calendarOf(
  store: Store,
  view: HousePlan,
  address: string,
  { evening, begins, who }: Pick<FeedDraft, 'evening' | 'begins' | 'who'>,
  only?: string,
): string {
  const asked = JSON.stringify([address, evening, begins, who, only, store.planned.revision]);
  const known = written.get(view)?.get(asked);
  if (known !== undefined) return known;
  const changed = new Map(store.planned.list().map(({ id, changedAt }) => [id, changedAt]));
  const own = who === undefined ? view.visits : view.visits.filter((one) => one.who === who);
  const visits = only === undefined ? nearest(own, view.start) : own;
  const text = writeCalendar(
    { view: { ...view, visits }, address, changed, reminders: { evening, begins } },
    only,
  );
  written.set(view, (written.get(view) ?? new Map<string, string>()).set(asked, text));
  return text;
}

/** Of so many visits a calendar tells, at most: those ahead that come first, and those behind that were last. */
const MOST = { ahead: 300, behind: 60 };

function nearest(visits: HousePlan['visits'], today: Day): HousePlan['visits'] {
  const behind = visits.filter(({ day }) => day < today).slice(-MOST.behind);
  return [...behind, ...visits.filter(({ day }) => day >= today).slice(0, MOST.ahead)];
}

/** Calendars that programs read at an address with a secret. */
export function serveCalendars(
  app: Express,
  store: Store,
  access: Access,
  plan: () => Promise<HousePlan>,
  reach: () => Reach,
): void {
  app.get('/calendar/:secret.ics', async (request, response) => {
    const { secret } = request.params;
    response.set({ 'X-Robots-Tag': 'noindex', 'Cache-Control': 'private, no-cache' });
    const found = access.feeds.bySecret(secret);
    const isGone = found?.personId && !store.persons.get(found.personId);
    if (!found || isGone) return sendProblem(response, notFound('calendar'));
    const address =
      houseOrigin(reach()) ?? `${request.protocol}://${request.headers.host ?? 'localhost'}`;
    const text = calendarOf(store, await plan(), address, found.feed);
    const tag = `"${createHash('sha256').update(text).digest('base64url').slice(0, 27)}"`;
    response.set('ETag', tag);
    const known = (request.get('If-None-Match') ?? '').split(/\s*,\s*/);
    if (known.some((one) => one.replace(/^W\//, '') === tag))
      return void response.status(304).end();
    response.set('Content-Type', CALENDAR).send(text);
  });
}
