import { checkSheet, type CodeSheet, type CodeSheetDraft } from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { invalid, notFound, stale } from '../http/problem.js';
import type { Ask, Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { householdOf } from './household.js';

/** Sheets of display codes, in an open format whose schema is given out here. */
export const codeSheetRoutes = (store: Store): Route[] => {
  const told = () => store.changed({ topic: 'code-sheets' });
  const right = (body: unknown, but?: string): CodeSheetDraft => {
    householdOf(store);
    const draft = body as CodeSheetDraft;
    const problems = checkSheet(draft);
    const same = ({ maker, family, id }: CodeSheet): boolean =>
      id !== but && bareName(maker, family) === bareName(draft.maker, draft.family);
    if (store.codeSheets.list().some(same)) {
      problems.push({ field: 'family', message: 'There is a sheet of this maker and family.' });
    }
    if (problems.length) throw invalid(problems);
    return draft;
  };
  const current = ({ params, version, body }: Ask): CodeSheet => {
    const sheet = store.codeSheets.get(params.id);
    if (!sheet) throw notFound('code sheet');
    if (sheet.version !== version) throw stale(sheet, body);
    return sheet;
  };
  return [
    {
      method: 'get',
      path: '/api/v1/code-sheets',
      summary: 'Every sheet of display codes',
      answers: Type.Array(schemas.CodeSheet),
      handle: () => ({ body: store.codeSheets.list() }),
    },
    {
      method: 'get',
      path: '/api/v1/code-sheet.schema.json',
      summary: 'The JSON Schema (2020-12) of a code sheet',
      answers: Type.Object({}, { title: 'JsonSchema' }),
      handle: () => ({
        body: {
          $schema: 'https://json-schema.org/draft/2020-12/schema',
          title: 'Needlecase code sheet',
          description: 'The display codes of one maker and family, a row a code.',
          ...schemas.CodeSheetDraft,
        },
      }),
    },
    {
      method: 'post',
      path: '/api/v1/code-sheets',
      summary: 'Add a sheet of display codes',
      body: 'CodeSheetDraft',
      answers: schemas.CodeSheet,
      handle: ({ body }) => {
        const sheet = store.codeSheets.create(right(body));
        told();
        return { status: 201, body: sheet, version: sheet.version };
      },
    },
    {
      method: 'put',
      path: '/api/v1/code-sheets/{id}',
      summary: 'Change a sheet of display codes',
      body: 'CodeSheetDraft',
      guarded: true,
      answers: schemas.CodeSheet,
      handle: (ask) => {
        const { id, version } = current(ask);
        const sheet = store.codeSheets.replace(id, version, right(ask.body, id));
        told();
        return { body: sheet, version: sheet.version };
      },
    },
    {
      method: 'delete',
      path: '/api/v1/code-sheets/{id}',
      summary:
        'Take a sheet of display codes away; it is answered with, so that it can be added again',
      guarded: true,
      answers: schemas.CodeSheet,
      handle: (ask) => {
        const sheet = current(ask);
        store.codeSheets.remove(sheet.id);
        told();
        return { body: sheet };
      },
    },
  ];
};

const bareName = (...words: string[]): string => words.join(' ').trim().toLowerCase();
