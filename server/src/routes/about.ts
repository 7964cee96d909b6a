import { About } from '@needlecase/core/model/access';
import type { Keeping } from '../backup/keeper.js';
import { longRoute, type Route } from '../http/route.js';
import { PROGRAM } from '../program.js';

/** What runs here, and where it keeps what it is told. */
export const aboutRoutes = (keeping?: Keeping): Route[] => [
  longRoute({
    method: 'get',
    path: '/api/v1/about',
    summary: 'The program’s version, and where the data and its backups are',
    answers: About,
    handle: () => ({
      body: {
        version: PROGRAM,
        ...(keeping ? { file: keeping.file, backups: keeping.folder } : {}),
      },
    }),
  }),
];
