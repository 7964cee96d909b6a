import {
  Document,
  DOCUMENT_ENDS,
  MOST_DOCUMENT,
  type DocumentDraft,
  type DocumentType,
} from '@needlecase/core/model/documents';
import Type from 'typebox';
import { invalid, notFound, ProblemError } from '../http/problem.js';
import { bytesRoute, fileRoute, route, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import type { Cells } from '../threads/cells.js';
import { mustHaveRoom, MOST } from '../work/ceilings.js';
import { machineOf } from '../work/household.js';
import { currentOf } from '../work/records.js';

/** Manuals, receipts and other papers of machines. */
export const documentRoutes = (store: Store, cells: Cells): Route[] => {
  const find = (id: string) => store.documents.get(id);
  const told = (id: string) => store.changed({ topic: 'documents', id });
  return [
    route({
      method: 'get',
      path: '/api/v1/documents',
      summary: 'The papers of all machines: what each is, and of which',
      answers: Type.Array(Document),
      handle: () => ({ body: store.documents.list() }),
    }),
    bytesRoute({
      method: 'put',
      path: '/api/v1/documents/{id}/file',
      summary:
        'Keep a paper of a machine, PDF or picture, under an id of your own; the same again changes nothing',
      query: 'DocumentDraft',
      answers: Document,
      most: MOST_DOCUMENT,
      looks: ({ body }) => cells.read('document', { bytes: body as Buffer }, 'file'),
      handle: ({ params: { id }, query, body, looked }) => {
        machineIn(store, query);
        const type = looked as DocumentType;
        const there = store.documents.file(id);
        if (there) {
          if (there.equals(body)) return { body: store.documents.get(id)! };
          throw new ProblemError(409, 'There is another paper with this id.', {
            detail: 'Nothing was stored.',
          });
        }
        mustHaveRoom(store.documents.list(query.machineId).length, MOST.documents, 'papers');
        const kept = store.documents.keep(id, query, type, body);
        told(id);
        return { status: 201, body: kept, version: kept.version };
      },
    }),
    fileRoute({
      path: '/api/v1/documents/{id}/file',
      summary: 'A paper itself: a PDF or a picture',
      gives: 'application/octet-stream',
      forGood: true,
      handle: ({ params: { id } }) => {
        const document = find(id);
        const file = store.documents.file(id);
        if (!document || !file) throw notFound('paper');
        const { name, type } = document;
        return { body: file, type, shown: `${name}.${DOCUMENT_ENDS[type]}` };
      },
    }),
    route({
      method: 'put',
      path: '/api/v1/documents/{id}',
      summary: 'Call a paper something else, or give it to another machine',
      body: 'DocumentDraft',
      guarded: true,
      answers: Document,
      handle: (ask) => {
        const { id, version } = currentOf('paper', find, ask);
        machineIn(store, ask.body);
        const document = store.documents.replace(id, version, ask.body);
        told(id);
        return { body: document, version: document.version };
      },
    }),
    route({
      method: 'delete',
      path: '/api/v1/documents/{id}',
      summary: 'Take a paper away, its file with it',
      guarded: true,
      answers: Document,
      handle: (ask) => {
        const document = currentOf('paper', find, ask);
        store.documents.remove(document.id);
        told(document.id);
        return { body: document };
      },
    }),
  ];
};

/** @throws 422 beside the field where there is no such machine */
function machineIn(store: Store, { machineId }: DocumentDraft): void {
  try {
    machineOf(store, machineId);
  } catch {
    throw invalid([{ field: 'machineId', message: 'There is no such machine.' }]);
  }
}
