import {
  BusyCalendar,
  Feed,
  type BusyAddress,
  type FeedDraft,
} from '@needlecase/core/model/planned';
import { check } from '@needlecase/core';
import { DRAFTS } from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { personOf, type Caller } from '../access/caller.js';
import { byWhom, type Ground } from '../access/ground.js';
import { houseOrigin } from '../access/reach.js';
import { MOST_CALENDAR } from '../calendar/read.js';
import { calendarOf } from '../calendar/serve.js';
import { notFound } from '../http/problem.js';
import { fileRoute, longRoute, type Route } from '../http/route.js';
import { mustHaveRoom, MOST } from '../work/ceilings.js';
import { householdOf } from '../work/household.js';
import type { BusyDays } from '../work/busy.js';
import type { PlanAnswer } from '../work/plan-answer.js';

const NO_REMINDERS = { evening: false, begins: false };

/** Calendars: addresses at which programs read the visits, single visits as files, and others' calendars read in. */
export function calendarRoutes(
  { store, access, reach }: Ground,
  plan: PlanAnswer,
  busy: BusyDays,
): Route[] {
  const told = () => store.changed({ topic: 'plan' });
  const isTheirs = (caller: Caller, personId: string | null): boolean =>
    personId === null || personOf(caller)?.id === personId || roleOf(caller) === 'keeper';
  const theirs = (caller: Caller) =>
    access.feeds.list().flatMap(({ feed, personId }) => (isTheirs(caller, personId) ? [feed] : []));
  return [
    longRoute({
      method: 'get',
      path: '/api/v1/feeds',
      summary: 'Addresses at which calendar programs read the visits',
      answers: Type.Array(Feed),
      handle: ({ caller }) => ({ body: theirs(caller) }),
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/feeds',
      summary: 'Make such an address; it is told this once',
      reads: { schema: DRAFTS.FeedDraft, check: (body) => check('FeedDraft', body) },
      answers: Feed,
      handle: (ask) =>
        store.write(() => {
          householdOf(store);
          mustHaveRoom(access.feeds.list().length, MOST.feeds, 'calendar addresses');
          const draft = ask.body as FeedDraft;
          const { feed, secret } = access.feeds.make(draft, personOf(ask.caller)?.id);
          access.events.note('calendar made', { ...byWhom(ask), more: draft.name });
          told();
          const address = `${houseOrigin(reach()) ?? ask.host}/calendar/${secret}.ics`;
          return { status: 201, body: { ...feed, address } };
        }),
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/feeds/{id}',
      summary: 'Take such an address back: nothing is read there any more',
      answers: Type.Array(Feed),
      handle: (ask) =>
        store.write(() => {
          const found = access.feeds.get(ask.params.id);
          if (!found || !isTheirs(ask.caller, found.personId)) throw notFound('calendar');
          access.feeds.revoke(found.feed.id);
          access.events.note('calendar taken back', { ...byWhom(ask), more: found.feed.name });
          told();
          return { body: theirs(ask.caller) };
        }),
    }),
    fileRoute({
      path: '/api/v1/calendar.ics',
      summary: 'The visits of the year ahead as a calendar, for scripts',
      gives: 'text/calendar',
      handle: async ({ host }) => {
        const address = houseOrigin(reach()) ?? host;
        const text = calendarOf(store, await plan.house(), address, NO_REMINDERS);
        return { body: Buffer.from(text), fileName: 'needlecase.ics' };
      },
    }),
    fileRoute({
      path: '/api/v1/plan/visits/{id}/visit.ics',
      summary: 'One visit as a calendar file',
      gives: 'text/calendar',
      handle: async ({ params: { id }, host }) => {
        const visit = store.planned.get(id);
        if (!visit) throw notFound('planned visit');
        const view = await plan.around(visit);
        if (!view.visits.some((one) => one.id === id)) throw notFound('planned visit');
        const address = houseOrigin(reach()) ?? host;
        const reminders = { evening: true, begins: true };
        const text = calendarOf(store, view, address, reminders, id);
        return { body: Buffer.from(text), fileName: 'visit.ics' };
      },
    }),
    longRoute({
      method: 'get',
      path: '/api/v1/busy',
      summary: 'Calendars that were read in, with the days on which nobody can',
      answers: Type.Array(BusyCalendar),
      handle: () => ({ body: store.busy.list() }),
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/busy',
      summary: 'Read a calendar in: on days that it takes no visit is planned',
      takes: 'text/calendar',
      most: MOST_CALENDAR,
      answers: BusyCalendar,
      handle: async ({ body }) => {
        householdOf(store);
        return { status: 201, body: await busy.take((body as Buffer).toString('utf8')) };
      },
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/busy/address',
      summary: 'Read a calendar in from its address, and again each day',
      reads: { schema: DRAFTS.BusyAddress, check: (body) => check('BusyAddress', body) },
      answers: BusyCalendar,
      handle: async ({ body }) => {
        householdOf(store);
        return { status: 201, body: await busy.takeFrom(body as BusyAddress) };
      },
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/busy/{id}',
      summary: 'Let a calendar go that was read in; it is answered with',
      answers: BusyCalendar,
      handle: ({ params: { id } }) =>
        store.write(() => {
          const found = store.busy.get(id);
          if (!found) throw notFound('calendar');
          store.busy.remove(id);
          told();
          return { body: found };
        }),
    }),
  ];
}

const roleOf = (caller: Caller): string | undefined => ('role' in caller ? caller.role : undefined);
