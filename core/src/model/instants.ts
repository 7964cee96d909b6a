import Type, { type TSchema } from 'typebox';

/*
 * Instants as they come in: RFC 3339, and nothing that no calendar can read (a 60th second, an offset
 * without minutes, a blank for the T). They are kept as `Date.toISOString` writes them.
 */

/** The shape; that the day is in its month is the format's business. */
export const INSTANT =
  '^\\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\\d|3[01])[Tt]([01]\\d|2[0-3]):[0-5]\\d:[0-5]\\d(\\.\\d{1,9})?([Zz]|[+-]([01]\\d|2[0-3]):[0-5]\\d)$';
const SHAPE = new RegExp(INSTANT);

/** Schema of an instant. */
export const instant = () => Type.String({ format: 'date-time', pattern: INSTANT });

/** UTC milliseconds of an instant; undefined where no calendar can read it. */
export function readInstant(text: string): number | undefined {
  if (!SHAPE.test(text)) return undefined;
  const at = Date.parse(text.toUpperCase());
  return Number.isFinite(at) ? at : undefined;
}

/** An instant as it is kept; what cannot be read stays as it is. */
export function keptInstant(text: string): string {
  const at = readInstant(text);
  return at === undefined ? text : new Date(at).toISOString();
}

/** The parts of a schema that matter here. */
export interface Shape {
  pattern?: string;
  format?: string;
  /** A secret (JSON Schema validation 2020-12, 9.4). */
  writeOnly?: boolean;
  properties?: Record<string, Shape>;
  patternProperties?: Record<string, Shape>;
  items?: Shape;
  anyOf?: Shape[];
  oneOf?: Shape[];
}

/**
 * A value that fits a schema, each instant in it changed.
 * @param change from an instant as written to another
 */
export const mapInstants = <T>(schema: TSchema, value: T, change: (text: string) => string): T =>
  mapTexts(schema, value, ({ pattern }, text) => (pattern === INSTANT ? change(text) : text));

/** A value that fits a schema, each text in it changed as its part of the schema wants it. */
export function mapTexts<T>(schema: TSchema, value: T, change: Change): T {
  return mapped(schema, value, change) as T;
}

type Change = (shape: Shape, text: string) => string;

function mapped(shape: Shape, value: unknown, change: Change): unknown {
  const ways = shape.anyOf ?? shape.oneOf;
  if (ways) return ways.reduce((now, way) => mapped(way, now, change), value);
  if (typeof value === 'string') return change(shape, value);
  if (Array.isArray(value)) {
    const { items } = shape;
    return items ? value.map((one) => mapped(items, one, change)) : value;
  }
  if (value === null || typeof value !== 'object') return value;
  const { properties = {}, patternProperties = {} } = shape;
  const [ofAll] = Object.values(patternProperties);
  return Object.fromEntries(
    Object.entries(value).map(([name, part]) => {
      const inner = Object.hasOwn(properties, name) ? properties[name] : ofAll;
      return [name, inner ? mapped(inner, part, change) : part];
    }),
  );
}

/** Every instant in a value that fits a schema, with the path to it. */
export function instantsIn(schema: TSchema, value: unknown): { path: string; at: number }[] {
  const found: { path: string; at: number }[] = [];
  const walk = (shape: Shape, part: unknown, path: string): void => {
    if (shape.pattern === INSTANT && typeof part === 'string') {
      found.push({ path, at: readInstant(part) ?? NaN });
      return;
    }
    for (const way of shape.anyOf ?? shape.oneOf ?? []) walk(way, part, path);
    if (part === null || typeof part !== 'object') return;
    for (const [name, inner] of Object.entries(part)) {
      const of =
        shape.items ?? shape.properties?.[name] ?? Object.values(shape.patternProperties ?? {})[0];
      if (of) walk(of, inner, path ? `${path}.${name}` : name);
    }
  };
  walk(schema, value, '');
  return found;
}
