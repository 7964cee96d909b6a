import type { Answer } from '../http/answer.js';
import { invalid } from '../http/problem.js';
import { fileRoute, type Route } from '../http/route.js';
import type { Threads } from '../threads/threads.js';

/** Sheets to print and hand to somebody who comes to look at a machine. */
export const handoverRoutes = (threads: Threads): Route[] => {
  const print =
    (sheet: 'print-case' | 'print-visit') =>
    async ({ params }: { params: { id: string } }): Promise<Answer<Buffer>> => {
      const { pdf, fileName } = await threads.run(sheet, { id: params.id, now: Date.now() });
      return { body: Buffer.from(pdf), fileName };
    };
  return [
    fileRoute({
      path: '/api/v1/machines/{id}/record.pdf',
      summary:
        'A machine’s record to print, of which days and for whom: its build and age, what is open, parts, figures, what was done',
      query: 'SheetQuery',
      gives: 'application/pdf',
      handle: async ({ params: { id }, query: asked }) => {
        const { from, to } = asked;
        if (from !== undefined && to !== undefined && from > to) {
          throw invalid([{ field: 'to', message: 'This is before the first day.' }]);
        }
        const { pdf, fileName } = await threads.run('print-machine', {
          id,
          now: Date.now(),
          asked,
        });
        return { body: Buffer.from(pdf), fileName };
      },
    }),
    fileRoute({
      path: '/api/v1/cases/{id}/summary.pdf',
      summary: 'A case of trouble to print for a professional: seen, checked, measured, suspected',
      gives: 'application/pdf',
      handle: print('print-case'),
    }),
    fileRoute({
      path: '/api/v1/runs/{id}/visit.pdf',
      summary: 'A visit to print: what came of it, or while it is open, its steps',
      gives: 'application/pdf',
      handle: print('print-visit'),
    }),
  ];
};
