import { checkSheet, type CodeSheetDraft } from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { mustBeRight } from '../http/problem.js';
import { route, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { mustHaveRoom, MOST } from '../work/ceilings.js';
import { householdOf } from '../work/household.js';
import { currentOf } from '../work/records.js';

/** Sheets of display codes, in an open format whose schema is given out here. */
export const codeSheetRoutes = (store: Store): Route[] => {
  const told = () => store.changed({ topic: 'code-sheets' });
  const find = (id: string) => store.codeSheets.get(id);
  const right = (draft: CodeSheetDraft, but?: string): CodeSheetDraft => {
    householdOf(store);
    mustBeRight(checkSheet(draft, store.codeSheets.list(), but));
    return draft;
  };
  return [
    route({
      method: 'get',
      path: '/api/v1/code-sheets',
      summary: 'Every sheet of display codes',
      answers: Type.Array(schemas.CodeSheet),
      handle: () => ({ body: store.codeSheets.list() }),
    }),
    route({
      method: 'get',
      path: '/api/v1/code-sheet.schema.json',
      summary: 'The JSON Schema (2020-12) of a code sheet',
      answers: Type.Unsafe<object>({ type: 'object', title: 'JsonSchema' }),
      handle: () => ({
        body: {
          $schema: 'https://json-schema.org/draft/2020-12/schema',
          title: 'Needlecase code sheet',
          description: 'The display codes of one maker and family, a row a code.',
          ...schemas.CodeSheetDraft,
        },
      }),
    }),
    route({
      method: 'post',
      path: '/api/v1/code-sheets',
      summary: 'Add a sheet of display codes',
      body: 'CodeSheetDraft',
      answers: schemas.CodeSheet,
      handle: ({ body }) => {
        mustHaveRoom(store.codeSheets.list().length, MOST.sheets, 'code sheets');
        const sheet = store.codeSheets.create(right(body));
        told();
        return { status: 201, body: sheet, version: sheet.version };
      },
    }),
    route({
      method: 'put',
      path: '/api/v1/code-sheets/{id}',
      summary: 'Change a sheet of display codes',
      body: 'CodeSheetDraft',
      guarded: true,
      answers: schemas.CodeSheet,
      handle: (ask) => {
        const { id, version } = currentOf('code sheet', find, ask);
        const sheet = store.codeSheets.replace(id, version, right(ask.body, id));
        told();
        return { body: sheet, version: sheet.version };
      },
    }),
    route({
      method: 'delete',
      path: '/api/v1/code-sheets/{id}',
      summary:
        'Take a sheet of display codes away; it is answered with, so that it can be added again',
      guarded: true,
      answers: schemas.CodeSheet,
      handle: (ask) => {
        const sheet = currentOf('code sheet', find, ask);
        store.codeSheets.remove(sheet.id);
        told();
        return { body: sheet };
      },
    }),
  ];
};
