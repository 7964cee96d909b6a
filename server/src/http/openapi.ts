import * as schemas from '@needlecase/core/model/schemas';
import type { TSchema } from 'typebox';
import { DERIVED_ANSWERS } from './derived.js';
import type { Route } from './route.js';

/** The OpenAPI 3.1 document, made from the routes and the shared schemas. */
export function openApi(routes: readonly Route[]): object {
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
    components: { schemas: { Problem: schemas.Problem, ...DERIVED_ANSWERS } },
  };
}

const problem = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
});
const file = (type: string) => ({ [type]: { schema: { type: 'string', format: 'binary' } } });
const json = (schema: object) => ({ 'application/json': { schema } });

function operation(route: Route): object {
  const query =
    route.query &&
    (schemas.QUERIES[route.query] as TSchema & {
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
  const asked = route.body ? schemas.DRAFTS[route.body] : route.reads?.schema;
  const good = route.method === 'post' && asked && !route.reckons ? '201' : '200';
  return {
    summary: route.summary,
    parameters,
    ...(asked ? { requestBody: { required: true, content: json(asked) } } : {}),
    ...(route.takes ? { requestBody: { required: true, content: file(route.takes) } } : {}),
    responses: {
      [good]: {
        description: 'As asked',
        content: route.gives ? file(route.gives) : json(answerSchema(route)),
      },
      ...(route.path.includes('{id}') ? { 404: problem('No such thing') } : {}),
      ...(route.method === 'get'
        ? {}
        : { 409: problem('Changed elsewhere; both versions are given') }),
      ...(asked || route.query ? { 422: problem('Fields that need another look') } : {}),
      ...(route.guarded ? { 428: problem('If-Match is missing') } : {}),
    },
  };
}

/** The schema of a good answer. */
export const answerSchema = ({ answers }: Route): object =>
  typeof answers === 'string'
    ? { $ref: `#/components/schemas/${answers}` }
    : 'derived' in answers
      ? answers.derived
      : answers;

const header = (name: string, required: boolean, description: string) => ({
  name,
  in: 'header',
  required,
  description,
  schema: { type: 'string' },
});
