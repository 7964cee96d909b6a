import {
  checkEntry,
  checkSupplyOf,
  completed,
  toldAgain,
  type Entry,
  type EntryDraft,
} from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { mustBeRight, notFound, ProblemError, stale } from '../http/problem.js';
import { route, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { AUTHOR, authorOf, personOf, type Caller } from '../access/caller.js';
import { undo } from '../work/entries.js';
import { reconcileTap, untap } from '../work/meter-taps.js';
import { mustBeAGuests } from '../work/guests.js';
import { householdOf } from '../work/household.js';

export const entryRoutes = (store: Store): Route[] => {
  /** Checks a draft against the machine it names, and fills in what follows from it. */
  const right = (draft: EntryDraft): EntryDraft => {
    const machine = draft.machineId ? store.machines.get(draft.machineId) : undefined;
    mustBeRight([
      ...checkEntry(draft, machine, Date.now(), householdOf(store).zone),
      ...checkSupplyOf(draft, store.supplies.list()),
    ]);
    return completed(draft, machine);
  };
  const mustBeNew = (draft: EntryDraft): void => {
    const there = draft.id && store.entries.get(draft.id);
    if (!there) return;
    throw new ProblemError(409, 'There is an entry with this id.', {
      current: there,
      yours: draft,
    });
  };
  const told = (entry: Entry): Entry => {
    store.changed({ topic: 'entries', ...(entry.machineId ? { id: entry.machineId } : {}) });
    return entry;
  };
  /** A person that is known is named; nobody notes anything in another's name. */
  const stored = (draft: EntryDraft, caller: Caller, revises?: string): Entry => {
    const { zone } = householdOf(store);
    const { author: named, ...rest } = draft;
    const author = personOf(caller)?.id ?? named ?? AUTHOR;
    return told(store.entries.add(rest, { zone, author, ...(revises ? { revises } : {}) }));
  };
  /** The entry at an address, if nothing has taken its place yet. */
  const current = (id: string, yours: unknown): Entry => {
    const entry = store.entries.get(id);
    if (!entry) throw notFound('entry');
    if (entry.revisedBy) throw stale(store.entries.get(entry.revisedBy), yours);
    return entry;
  };

  return [
    route({
      method: 'get',
      path: '/api/v1/entries',
      summary: 'The log, newest first, a page at a time',
      query: 'EntryQuery',
      answers: Type.Object(
        { entries: Type.Array(schemas.Entry), next: Type.Optional(Type.String()) },
        { additionalProperties: false },
      ),
      handle: ({ query }) => ({ body: store.entries.list(query) }),
    }),
    route({
      method: 'post',
      path: '/api/v1/entries',
      summary: 'Record something that happened',
      body: 'EntryDraft',
      answers: schemas.Entry,
      handle: ({ body, caller }) => {
        const draft = right(body);
        mustBeNew(draft);
        mustBeAGuests(store, caller, draft, Date.now());
        const entry = stored(draft, caller);
        reconcileTap(store, entry, householdOf(store).zone);
        return { status: 201, body: entry };
      },
    }),
    route({
      method: 'post',
      path: '/api/v1/entries/{id}/revision',
      summary: 'Correct an entry: a new one takes its place, the old one stays readable',
      body: 'EntryDraft',
      answers: schemas.Entry,
      handle: ({ params, body, caller }) => {
        const draft = right(body);
        const old = current(params.id, draft);
        if (old.kind === 'undone') throw notFound('entry that can be corrected');
        mustBeNew(draft);
        return { status: 201, body: stored(draft, caller, old.id) };
      },
    }),
    route({
      method: 'post',
      path: '/api/v1/entries/{id}/undo',
      summary: 'Undo an entry; it can be restored',
      answers: schemas.Entry,
      handle: ({ params, caller }) => {
        const { zone } = householdOf(store);
        const tap = store.entries.get(params.id);
        const load = tap && untap(store, tap, zone, authorOf(caller));
        if (load) return { status: 201, body: told(load) };
        const old = current(params.id, undefined);
        if (old.kind === 'undone') throw notFound('entry that can be undone');
        const [undone] = undo(store, [old], zone, authorOf(caller));
        return { status: 201, body: told(undone!) };
      },
    }),
    route({
      method: 'post',
      path: '/api/v1/entries/{id}/restore',
      summary: 'Bring an undone entry back',
      answers: schemas.Entry,
      handle: ({ params, caller }) => {
        const old = store.entries.get(params.id);
        const undone = old && store.entries.revisionOf(old.id);
        if (!old || undone?.kind !== 'undone') throw notFound('undone entry');
        current(undone.id, undefined);
        return { status: 201, body: stored(toldAgain(old), caller, undone.id) };
      },
    }),
  ];
};
