import * as schemas from '@needlecase/core/model/schemas';
import type { TSchema } from 'typebox';
import type { FileRoute, Route } from './route.js';

/** The OpenAPI 3.1 document, made from the routes and the shared schemas. */
export function openApi(routes: readonly (Route | FileRoute)[]): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const route of routes) {
    (paths[route.path] ??= {})[route.method] = operation(route);
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Needlecase',
      version: '1',
      description:
        'Instants are UTC (RFC 3339), dates are calendar dates in the household’s zone. Errors are problem details (RFC 9457) with the field at fault. Changes are told on /api/v1/changes as server-sent events.',
    },
    paths,
    components: { schemas: { Problem: schemas.Problem } },
  };
}

const problem = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
});
const file = (type: string) => ({ [type]: { schema: { type: 'string', format: 'binary' } } });
const json = (schema: TSchema) => ({ 'application/json': { schema } });

function operation(route: Route | FileRoute): object {
  const query =
    route.query &&
    (schemas.VALIDATED[route.query] as TSchema & {
      properties: Record<string, TSchema>;
      required?: string[];
    });
  const parameters = [
    ...(route.path.includes('{id}')
      ? [{ name: 'id', in: 'path', required: true, schema: { type: 'string', format: 'uuid' } }]
      : []),
    ...Object.entries(query?.properties ?? {}).map(([name, schema]) => ({
      name,
      in: 'query',
      required: query?.required?.includes(name) ?? false,
      schema,
    })),
    ...(route.guarded ? [header('If-Match', true, 'The ETag of the version you change.')] : []),
    ...(route.method === 'get'
      ? []
      : [
          header(
            'Idempotency-Key',
            false,
            'The same key gets the same answer and does nothing twice.',
          ),
        ]),
  ];
  const good = route.method === 'post' && route.body && !route.reckons ? '201' : '200';
  return {
    summary: route.summary,
    parameters,
    ...(route.body
      ? { requestBody: { required: true, content: json(schemas.VALIDATED[route.body]) } }
      : {}),
    ...(route.takes ? { requestBody: { required: true, content: file(route.takes) } } : {}),
    responses: {
      [good]: {
        description: 'As asked',
        content: route.gives ? file(route.gives) : json(route.answers),
      },
      ...(route.path.includes('{id}') ? { 404: problem('No such thing') } : {}),
      ...(route.method === 'get'
        ? {}
        : { 409: problem('Changed elsewhere; both versions are given') }),
      ...(route.body || route.query ? { 422: problem('Fields that need another look') } : {}),
      ...(route.guarded ? { 428: problem('If-Match is missing') } : {}),
    },
  };
}

const header = (name: string, required: boolean, description: string) => ({
  name,
  in: 'header',
  required,
  description,
  schema: { type: 'string' },
});
