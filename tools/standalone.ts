import Ajv, { type Options } from 'ajv/dist/2020.js';
import standalone from 'ajv/dist/standalone/index.js';
import formats from 'ajv-formats';
import { build } from 'esbuild';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');

const VALIDATOR = `import type { ErrorObject } from 'ajv';
type Validator = ((value: unknown) => boolean) & { errors?: ErrorObject[] | null };
`;

/** Writes a validator for each schema, by its name, as plain code with its types beside it. */
export async function writeValidators(
  target: string,
  schemas: Readonly<Record<string, object>>,
  options: Options = {},
): Promise<void> {
  const names = Object.keys(schemas);
  const code = compiled(schemas, Object.fromEntries(names.map((name) => [name, name])), options);
  await write(target, code);
  await writeFile(
    join(root, `${target}.d.ts`),
    VALIDATOR + names.map((name) => `export const ${name}: Validator;\n`).join(''),
  );
}

/** The same for names that are no names in code: they are in one map, `VALIDATORS`. */
export async function writeValidatorMap(
  target: string,
  schemas: Readonly<Record<string, object>>,
): Promise<void> {
  const names = Object.keys(schemas);
  const exported = Object.fromEntries(names.map((name, i) => [`v${i}`, name]));
  const map = names.map((name, i) => `${JSON.stringify(name)}: v${i}`).join(', ');
  await write(
    target,
    `${compiled(schemas, exported, {})}\nexport const VALIDATORS = { ${map} };\n`,
  );
  await writeFile(
    join(root, `${target}.d.ts`),
    `${VALIDATOR}export const VALIDATORS: Readonly<Record<string, Validator>>;\n`,
  );
}

function compiled(
  schemas: Readonly<Record<string, object>>,
  exported: Record<string, string>,
  options: Options,
): string {
  const ajv = new Ajv.default({
    allErrors: true,
    verbose: true,
    discriminator: true,
    coerceTypes: false,
    useDefaults: false,
    code: { source: true, esm: true },
    ...options,
  });
  formats.default(ajv, ['uuid', 'date', 'date-time']);
  for (const [name, schema] of Object.entries(schemas)) ajv.addSchema({ ...schema, $id: name });
  return standalone.default(ajv, exported);
}

async function write(target: string, code: string): Promise<void> {
  const draft = join(root, '.cache', `${target.replaceAll('/', '-')}.mjs`);
  await mkdir(dirname(draft), { recursive: true });
  await writeFile(draft, code);
  await build({
    entryPoints: [draft],
    bundle: true,
    format: 'esm',
    target: 'es2022',
    minifySyntax: true,
    outfile: join(root, `${target}.js`),
    banner: { js: '/* generated: see tools/ */' },
    nodePaths: [join(root, 'node_modules')],
    logLevel: 'warning',
  });
  await rm(draft);
}
