import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import { gzipSync } from 'node:zlib';
import type { App } from '../app.js';
import { openApi } from '../http/openapi.js';
import { move } from './people.js';
import { Chance } from './chance.js';
import { hostileCalendar } from './hostile-calendar.js';

/*
 * Asks every route of the OpenAPI document with what its schemas allow, bent here and there: figures out of all
 * bounds, other types, texts that are none, ids of other things, headers that nobody sends.
 */

interface Schema {
  $ref?: string;
  type?: string | string[];
  enum?: unknown[];
  const?: unknown;
  format?: string;
  pattern?: string;
  properties?: Record<string, Schema>;
  required?: string[];
  patternProperties?: Record<string, Schema>;
  additionalProperties?: Schema | boolean;
  items?: Schema;
  anyOf?: Schema[];
  oneOf?: Schema[];
  minimum?: number;
  maximum?: number;
  exclusiveMinimum?: number;
  minItems?: number;
  maxItems?: number;
  minLength?: number;
  maxLength?: number;
}
interface Operation {
  parameters: { name: string; in: string; required: boolean; schema: Schema }[];
  requestBody?: { content: Record<string, { schema: Schema }> };
}

/** What no schema foresees. */
const BENT: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  -0,
  1e308,
  -1e308,
  5e-324,
  2 ** 53,
  0.1 + 0.2,
  '',
  ' ',
  'null',
  'x'.repeat(3000),
  '9999-12-31T23:59:60Z',
  '0000-01-01T00:00:00Z',
  '2026-02-30T00:00:00Z',
  '🧵'.repeat(300),
  '<script>',
  "'; DROP TABLE entries; --",
  '%00',
  '../../etc/passwd',
  [],
  {},
  [[[[[]]]]],
  { $ref: '#' },
  { toString: 1, valueOf: 2, constructor: { prototype: {} } },
];

export interface Failure {
  asked: string;
  status: number;
  said: string;
}

/** Makes values that fit a schema, with ids that are there where one can be had. */
class Maker {
  constructor(
    private readonly chance: Chance,
    private readonly ids: readonly string[],
  ) {}

  make(schema: Schema, depth = 0): unknown {
    const { chance } = this;
    if (schema.const !== undefined) return schema.const;
    if (schema.enum) return chance.of(schema.enum);
    const ways = schema.oneOf ?? schema.anyOf;
    if (ways) return this.make(chance.of(ways), depth);
    const type = Array.isArray(schema.type) ? chance.of(schema.type) : schema.type;
    switch (type) {
      case 'object':
        return this.#object(schema, depth);
      case 'array': {
        const least = schema.minItems ?? 0;
        const n = Math.min(schema.maxItems ?? 4, least + chance.below(depth > 4 ? 1 : 3));
        return Array.from({ length: n }, () => this.make(schema.items ?? {}, depth + 1));
      }
      case 'string':
        return this.#text(schema);
      case 'integer':
        return Math.round(this.#figure(schema));
      case 'number':
        return this.#figure(schema);
      case 'boolean':
        return chance.is(0.5);
      default:
        return chance.of(BENT);
    }
  }

  #object({ properties = {}, required = [], patternProperties }: Schema, depth: number): object {
    const named = Object.entries(properties)
      .filter(([name]) => required.includes(name) || this.chance.is(depth > 4 ? 0 : 0.4))
      .map(([name, part]) => [name, this.make(part, depth + 1)] as const);
    const [free] = Object.values(patternProperties ?? {});
    const more = free ? [[this.chance.of(this.ids), this.make(free, depth + 1)] as const] : [];
    return Object.fromEntries([...named, ...more]);
  }

  #text({ format, maxLength = 40, minLength = 0 }: Schema): string {
    if (format === 'uuid') return this.chance.is(0.8) ? this.chance.of(this.ids) : randomUUID();
    const at = Date.now() - this.chance.below(400) * 86_400_000;
    if (format === 'date-time') return new Date(at).toISOString();
    if (format === 'date') return new Date(at).toISOString().slice(0, 10);
    return 'thread and needle '
      .repeat(20)
      .slice(0, Math.max(minLength, this.chance.below(maxLength)));
  }

  #figure({ minimum, maximum, exclusiveMinimum }: Schema): number {
    const least = minimum ?? exclusiveMinimum ?? -10;
    const most = maximum ?? least + 1000;
    return this.chance.is(0.1) ? least : least + (this.chance.below(1000) / 1000) * (most - least);
  }
}

/** Puts something in the place of one part of a value, wherever. */
function bend(value: unknown, chance: Chance): unknown {
  if (typeof value !== 'object' || value === null || chance.is(0.15)) return chance.of(BENT);
  const copy: Record<string, unknown> | unknown[] = Array.isArray(value)
    ? [...(value as unknown[])]
    : { ...(value as Record<string, unknown>) };
  const names = Object.keys(copy);
  const name = names.length && !chance.is(0.1) ? chance.of(names) : 'more';
  const parts = copy as Record<string, unknown>;
  if (chance.is(0.1)) delete parts[name];
  else parts[name] = bend(parts[name], chance);
  return copy;
}

/** Bends one field, wherever it lies; all others stay as they are. */
function bendOne(value: unknown, chance: Chance): unknown {
  const fields: { holder: Record<string, unknown>; name: string }[] = [];
  const copy = structuredClone(value);
  const walk = (part: unknown): void => {
    if (typeof part !== 'object' || part === null) return;
    const holder = part as Record<string, unknown>;
    for (const name of Object.keys(holder)) {
      fields.push({ holder, name });
      walk(holder[name]);
    }
  };
  walk(copy);
  if (fields.length === 0) return chance.of(BENT);
  const { holder, name } = chance.of(fields);
  const there = holder[name];
  // A little off is what gets furthest.
  if (typeof there === 'number' && chance.is(0.5))
    holder[name] = there * chance.of([-1, 1e6, 1e-9]);
  else if (typeof there === 'string' && chance.is(0.5)) {
    holder[name] = there + chance.of(['\u202e', '\u200b', ' ', '\u0007', '\n', '’']);
  } else if (chance.is(0.2)) delete holder[name];
  else holder[name] = chance.of(BENT);
  return copy;
}

const HEADERS: readonly Record<string, string>[] = [
  { 'Content-Encoding': 'gzip' },
  { 'Content-Encoding': 'nonsense' },
  { 'Content-Type': 'text/plain' },
  { 'Content-Type': 'application/json; charset=utf-32' },
  { 'Idempotency-Key': 'the same for all' },
  { 'Idempotency-Key': 'x' },
  { 'If-Match': 'W/"1"' },
  { 'If-Match': '"99999999999999999999"' },
  { Range: 'bytes=5-1' },
  { 'Accept-Encoding': 'br;q=9, *;q=0' },
  { Accept: 'image/png' },
];

/**
 * Asks so many times.
 * @param seed of the chance, so that what was found is found again
 * @returns what was answered with a fault of the server, or without problem details
 */
export async function fuzz(app: App, times: number, seed: number): Promise<Failure[]> {
  const chance = new Chance(seed);
  const { paths } = openApi(app.routes) as unknown as {
    paths: Record<string, Record<string, Operation>>;
  };
  const operations = Object.entries(paths)
    .filter(([path]) => !/restore$|backup/.test(path))
    .flatMap(([path, ways]) =>
      Object.entries(ways).map(([method, operation]) => ({ path, method, operation })),
    );
  const server = app.express.listen(0, '127.0.0.1');
  await new Promise((done) => server.once('listening', done));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const failures: Failure[] = [];
  const ids = (): string[] => [
    ...app.store.machines.list().map(({ id }) => id),
    ...app.store.visits.open().map(({ id }) => id),
    ...app.store.cases.list().map(({ id }) => id),
    ...app.store.supplies.list().map(({ id }) => id),
    ...app.store.codeSheets.list().map(({ id }) => id),
    ...app.store.ventRuns.list().map(({ id }) => id),
    ...app.store.entries.list({ limit: 20, all: true }).entries.map(({ id }) => id),
  ];
  let known = ids();
  const cookie = keeperOf(app);
  for (let i = 0; i < times; i++) {
    if (i % 50 === 0) known = ids();
    const { path, method, operation } = chance.of(operations);
    const asked = request(path, method, operation, new Maker(chance, known), chance);
    asked.init.headers['Cookie'] = cookie();
    const { status, said, problem } = await answerOf(`${address}${asked.path}`, asked.init);
    if (status === 0 || status >= 500 || (status >= 400 && !problem)) {
      const body = String(asked.init.body).slice(0, 800);
      const { headers } = asked.init;
      failures.push({
        asked: `${i}: ${method} ${asked.path} ${JSON.stringify(headers)} ${body}`,
        status,
        said: said.slice(0, 300),
      });
      if (failures.length > MOST_FAILURES) break;
    }
    // What was taken in may not stand in the way of anything for good.
    if (i % 25 === 0) await looked(address, cookie(), failures, asked, i % 150 === 0);
  }
  server.closeAllConnections();
  server.close();
  return failures;
}

/** The cookie of somebody who may do everything; of another one where those were shut out. */
function keeperOf(app: App): () => string {
  let keeper: ReturnType<typeof move> | undefined;
  return () => {
    const isIn =
      keeper &&
      app.store.persons.get(keeper.person.id)?.role === 'keeper' &&
      app.access.devices.get(keeper.device.id)?.revokedAt === null;
    return (isIn ? keeper! : (keeper = move(app, 'keeper', `K ${randomUUID()}`))).cookie;
  };
}

/** So long nothing takes here, ms. */
const PATIENCE_MS = 20_000;
const MOST_FAILURES = 20;

/** What is answered; a status of 0 where nothing is. */
async function answerOf(
  address: string,
  init: Asked['init'],
): Promise<{ status: number; said: string; problem: boolean }> {
  try {
    const signal = AbortSignal.timeout(PATIENCE_MS);
    const answer = await fetch(address, { ...init, signal });
    const problem = answer.headers.get('content-type')?.includes('problem+json') ?? false;
    return { status: answer.status, said: await answer.text(), problem };
  } catch (error) {
    return { status: 0, said: String(error), problem: false };
  }
}

async function looked(
  address: string,
  cookie: string,
  failures: Failure[],
  { path, init }: Asked,
  plans: boolean,
): Promise<void> {
  const views = ['bench', 'supplies', 'cases', 'runs', 'entries?limit=200&all=true'];
  // A year takes its time to be planned.
  for (const view of plans ? [...views, 'plan/ahead', 'calendar.ics'] : views) {
    const { status } = await answerOf(`${address}/api/v1/${view}`, {
      method: 'GET',
      headers: { Cookie: cookie },
    });
    if (status !== 200)
      failures.push({ asked: `${view} after ${init.method} ${path}`, status, said: '' });
  }
}

interface Asked {
  path: string;
  init: {
    method: string;
    headers: Record<string, string>;
    body?: string | Uint8Array<ArrayBuffer>;
  };
}

function request(
  path: string,
  method: string,
  { parameters, requestBody }: Operation,
  maker: Maker,
  chance: Chance,
): Asked {
  const headers: Record<string, string> = {};
  const query = new URLSearchParams();
  let full = path;
  for (const { name, in: where, required, schema } of parameters) {
    const fits = maker.make(schema);
    const value = String(chance.is(0.1) ? JSON.stringify(chance.of(BENT)) : fits);
    if (where === 'path') full = full.replace(`{${name}}`, encodeURIComponent(value));
    if (where === 'query' && (required || chance.is(0.4))) query.set(name, value);
    if (name === 'If-Match') headers[name] = `"${1 + chance.below(3)}"`;
    if (name === 'Idempotency-Key' && chance.is(0.3)) headers[name] = randomUUID();
  }
  if ([...query].length) full += `?${query.toString()}`;
  const body = bodyOf(requestBody?.content ?? {}, maker, chance);
  const [type] = Object.keys(requestBody?.content ?? {});
  if (body !== undefined && type) headers['Content-Type'] = type;
  if (chance.is(0.15)) Object.assign(headers, chance.of(HEADERS));
  const packs = body !== undefined && headers['Content-Encoding'] === 'gzip' && chance.is(0.5);
  return {
    path: full,
    init: {
      method: method.toUpperCase(),
      headers,
      ...(body === undefined ? {} : { body: packs ? new Uint8Array(gzipSync(body)) : body }),
    },
  };
}

function bodyOf(
  content: Record<string, { schema: Schema }>,
  maker: Maker,
  chance: Chance,
): string | Uint8Array<ArrayBuffer> | undefined {
  const [type, kind] = Object.entries(content)[0] ?? [];
  if (!type || !kind) return undefined;
  if (type === 'text/calendar' && chance.is(0.8)) return hostileCalendar(chance);
  if (type !== 'application/json') {
    return Uint8Array.from({ length: 40 }, () => chance.below(256));
  }
  // As it should be first: then one field of it is bent, and seldom more, so that the rest gets through.
  let body = maker.make(kind.schema);
  if (chance.is(0.6)) body = bendOne(body, chance);
  while (chance.is(0.1)) body = bend(body, chance);
  const text = JSON.stringify(body);
  if (chance.is(0.03)) return text.slice(0, chance.below(text.length));
  return chance.is(0.03) ? text.replace(/"([a-z])/, '"\\ud800$1') : text;
}
