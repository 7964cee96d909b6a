import {
  checkEntry,
  completed,
  type Entry,
  type EntryDraft,
  type FieldProblem,
  type Machine,
} from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { invalid, notFound, ProblemError, stale } from '../http/problem.js';
import type { Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { householdOf } from './household.js';

const AUTHOR = 'household';

export const entryRoutes = (store: Store): Route[] => {
  /** Checks a draft against the machine it names, and fills in what follows from it. */
  const right = (draft: EntryDraft): EntryDraft => {
    const machine: Machine | undefined = draft.machineId
      ? store.machines.get(draft.machineId)
      : undefined;
    const problems = [
      ...checkEntry(draft, machine, Date.now(), householdOf(store).zone),
      ...wrongSupply(draft, store),
    ];
    if (problems.length) throw invalid(problems);
    return completed(draft, machine);
  };
  const stored = (draft: EntryDraft, revises?: string): Entry => {
    const { zone } = householdOf(store);
    const entry = store.entries.add(draft, {
      zone,
      author: AUTHOR,
      ...(revises ? { revises } : {}),
    });
    store.changed({ topic: 'entries', ...(entry.machineId ? { id: entry.machineId } : {}) });
    return entry;
  };
  /** The entry at an address, if nothing has taken its place yet. */
  const current = (id: string, yours: unknown): Entry => {
    const entry = store.entries.get(id);
    if (!entry) throw notFound('entry');
    if (entry.revisedBy) throw stale(store.entries.get(entry.revisedBy), yours);
    return entry;
  };

  return [
    {
      method: 'get',
      path: '/api/v1/entries',
      summary: 'The log, newest first, a page at a time',
      query: 'EntryQuery',
      answers: Type.Object({
        entries: Type.Array(schemas.Entry),
        next: Type.Optional(Type.String()),
      }),
      handle: ({ query }) => ({ body: store.entries.list(query) }),
    },
    {
      method: 'post',
      path: '/api/v1/entries',
      summary: 'Record something that happened',
      body: 'EntryDraft',
      answers: schemas.Entry,
      handle: ({ body }) => {
        const draft = right(body as EntryDraft);
        const there = draft.id && store.entries.get(draft.id);
        if (there)
          throw new ProblemError(409, 'There is an entry with this id.', {
            current: there,
            yours: draft,
          });
        return { status: 201, body: stored(draft) };
      },
    },
    {
      method: 'post',
      path: '/api/v1/entries/{id}/revision',
      summary: 'Correct an entry: a new one takes its place, the old one stays readable',
      body: 'EntryDraft',
      answers: schemas.Entry,
      handle: ({ params, body }) => {
        const draft = right(body as EntryDraft);
        const old = current(params.id, draft);
        if (old.kind === 'undone') throw notFound('entry that can be corrected');
        return { status: 201, body: stored(draft, old.id) };
      },
    },
    {
      method: 'post',
      path: '/api/v1/entries/{id}/undo',
      summary: 'Undo an entry; it can be restored',
      answers: schemas.Entry,
      handle: ({ params }) => {
        const old = current(params.id, undefined);
        if (old.kind === 'undone') throw notFound('entry that can be undone');
        return { status: 201, body: stored(undoing(old), old.id) };
      },
    },
    {
      method: 'post',
      path: '/api/v1/entries/{id}/restore',
      summary: 'Bring an undone entry back',
      answers: schemas.Entry,
      handle: ({ params }) => {
        const old = store.entries.get(params.id);
        const undone = old && store.entries.revisionOf(old.id);
        if (!old || undone?.kind !== 'undone') throw notFound('undone entry');
        current(undone.id, undefined);
        const { id, revises, revisedBy, recordedAt, runId, zone, ...draft } = old;
        return { status: 201, body: stored(draft, undone.id) };
      },
    },
  ];
};

function wrongSupply({ supply }: EntryDraft, store: Store): FieldProblem[] {
  const known = supply === undefined || store.supplies.list().some(({ item }) => item === supply);
  return known ? [] : [{ field: 'supply', message: 'Add this supply under House first.' }];
}

/** The entry that marks another as undone, at the same place and time. */
export function undoing(old: Entry): EntryDraft {
  const { machineId, station, task, at } = old;
  return {
    kind: 'undone',
    at,
    source: 'log',
    ...(machineId ? { machineId } : {}),
    ...(station ? { station } : {}),
    ...(task ? { task } : {}),
  };
}
