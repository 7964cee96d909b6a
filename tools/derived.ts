/*
 * Makes the schemas of what is worked out: of each derived answer of the API (core/src/views/answers.ts) and
 * of what each instrument takes in and answers (core/src/measure/instruments.ts), from their TypeScript
 * types. They go into the OpenAPI document; the instruments' inputs are also written out as validators.
 */
import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';
import TJS from 'typescript-json-schema';
import { VentRunInput } from '../core/src/model/vent-runs.js';
import { writeValidatorMap } from './standalone.js';

type Schema = TJS.Definition;

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const config = ts.getParsedCommandLineOfConfigFile(
  join(root, 'core/tsconfig.json'),
  {},
  { ...ts.sys, onUnRecoverableConfigFileDiagnostic: () => undefined },
)!;
const program = ts.createProgram([join(root, 'core/src/views/answers.ts')], config.options);
const generator = TJS.buildGenerator(program, {
  required: true,
  noExtraProps: true,
  aliasRef: true,
  strictNullChecks: true,
  ignoreErrors: true,
})!;

readMaps();

const answers = byName('ApiAnswers');
const instruments: Record<'inputs' | 'answers', Record<string, object>> = {
  inputs: byName('InstrumentInputs'),
  answers: byName('InstrumentAnswers'),
};
// A vent run is kept as well: it has a schema of its own.
instruments.inputs['vent-run'] = VentRunInput;
const target = join(root, 'server/src/http/derived.generated.json');
await mkdir(dirname(target), { recursive: true });
await writeFile(target, `${JSON.stringify({ answers, instruments }, undefined, 1)}\n`);
await writeValidatorMap('core/src/model/instruments.generated', instruments.inputs);

/**
 * The generator reads `{ [name: string]: T }` but not `Record<string, T>`, which it takes for an object of
 * nothing: what a map holds is put in.
 */
function readMaps(): void {
  const inner = generator as unknown as {
    getClassDefinition(type: ts.Type, into: Schema): Schema;
    getTypeDefinition(type: ts.Type): Schema;
  };
  const checker = program.getTypeChecker();
  const read = inner.getClassDefinition.bind(inner);
  inner.getClassDefinition = (type, into) => {
    const made = read(type, into);
    const held = checker.getIndexInfoOfType(type, ts.IndexKind.String)?.type;
    if (held && made.additionalProperties === false) {
      made.additionalProperties = inner.getTypeDefinition(held);
    }
    return made;
  };
}

/** The schema of each property of a type, whole in itself. */
function byName(type: string): Record<string, Schema> {
  const whole = generator.getSchemaForSymbol(type);
  const definitions = (whole.definitions ?? {}) as Record<string, Schema>;
  return Object.fromEntries(
    Object.entries(whole.properties ?? {}).map(([name, schema]) => [
      name,
      inlined(schema as Schema, definitions, []),
    ]),
  );
}

/** A schema with what it refers to put in its place; what refers to itself is left open. */
function inlined(schema: Schema, definitions: Record<string, Schema>, under: string[]): Schema {
  const { $ref: ref, ...rest } = schema;
  if (ref !== undefined) {
    const name = decodeURIComponent(ref.replace('#/definitions/', ''));
    if (under.includes(name)) return {};
    return { ...inlined(definitions[name]!, definitions, [...under, name]), ...rest };
  }
  const each = (one: unknown): unknown =>
    Array.isArray(one)
      ? one.map(each)
      : one !== null && typeof one === 'object'
        ? inlined(one, definitions, under)
        : one;
  return Object.fromEntries(
    Object.entries(rest)
      .filter(([key]) => !['propertyOrder', '$schema', 'additionalItems'].includes(key))
      // A list of given things, as the later drafts of JSON Schema call it.
      .map(([key, value]) => [
        key === 'items' && Array.isArray(value) ? 'prefixItems' : key,
        each(value),
      ]),
  );
}
