import { instant } from '@needlecase/core/model/instants';
import Type from 'typebox';
import { route, type Route } from '../http/route.js';

export const healthRoutes = (): Route[] => [
  route({
    method: 'get',
    path: '/api/v1/health',
    summary: 'That the server is there, and what time it has',
    answers: Type.Object({ at: instant() }, { additionalProperties: false }),
    handle: () => ({ body: { at: new Date().toISOString() } }),
  }),
];
