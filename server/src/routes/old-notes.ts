import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { authorOf } from '../access/caller.js';
import { mustBeRight } from '../http/problem.js';
import { route, type Route } from '../http/route.js';
import { MOST_METER } from '../http/sizes.js';
import type { Store } from '../store/store.js';
import { householdOf } from '../work/household.js';
import { keepNotes, noteProblems, undoNotes } from '../work/old-notes.js';

/** Notes from before, taken in together and taken back together. */
export const oldNotesRoutes = (store: Store): Route[] => [
  route({
    method: 'post',
    path: '/api/v1/old-notes',
    summary:
      'Take notes from before in, all or nothing; those that were taken in before, as they are written, are passed over',
    body: 'OldNotes',
    most: MOST_METER,
    answers: schemas.NotesKept,
    handle: ({ body, caller }) => {
      const { zone } = householdOf(store);
      mustBeRight(noteProblems(store, body.notes, Date.now()));
      const kept = keepNotes(store, body.notes, { zone, author: authorOf(caller) });
      store.changed({ topic: 'entries' });
      return { status: 201, body: kept };
    },
  }),
  route({
    method: 'post',
    path: '/api/v1/old-notes/undo',
    summary: 'Take notes back that came in together',
    body: 'NotesUndo',
    answers: Type.Object({ undone: Type.Integer() }, { additionalProperties: false }),
    handle: ({ body, caller }) => {
      const { zone } = householdOf(store);
      const undone = undoNotes(store, body.ids, { zone, author: authorOf(caller) });
      store.changed({ topic: 'entries' });
      return { status: 201, body: { undone } };
    },
  }),
];
