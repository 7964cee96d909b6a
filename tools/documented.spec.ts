import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

/*
 * Whoever comes after reads the comment first: every function that core gives out has one, says what
 * its numbers are in, and what it throws.
 */

const core = join(import.meta.dirname, '../core/src');
const files = readdirSync(core, { recursive: true, encoding: 'utf8' }).filter(
  (file) =>
    /\.ts$/.test(file) && !/\.spec\.ts$|\.d\.ts$|testing\.ts$|(^|\/)data\/|generated/.test(file),
);

/** What a number is in, or of. */
const UNIT =
  /\b(mm|cm|m|[Ll]itres?|min|[Mm]inutes?|s|seconds?|h|hours?|days?|months?|years?|metres|loads?|grams?|kg|kWh|Pa|W|mol|grade|number|count(ed)?|times|share|factor|ratio|chances?|probability|0 to 1|milliseconds|[Mm]etres?)\b|[°%²³]|\w\/\w/;
/** A parameter whose name says its unit. */
const NAMED_UNIT = /(mm|cm|metres|litres|minutes|seconds|days|loads)$/i;
/** A constant whose figure somebody measured, or holds to be so. */
const FIGURE = /^(export )?const [A-Z_]+ = \d*\.?\d+/m;
const SOURCE =
  /@source|source:|common practice|from memory|handbook|judgement|ASHRAE|\b(ISO|EN|DIN) \d|theorem/i;

interface Exported {
  name: string;
  doc: string;
  fn: ts.FunctionLikeDeclaration;
}

/** The functions that a file exports. */
function exportedIn(file: string): Exported[] {
  const text = readFileSync(join(core, file), 'utf8');
  const { statements } = ts.createSourceFile(file, text, ts.ScriptTarget.ES2022, true);
  return statements.filter(isExported).flatMap((statement) => {
    const found = functionOf(statement);
    const doc = ts.getJSDocCommentsAndTags(statement).map((one) => one.getText());
    return found ? [{ ...found, doc: doc.join('\n') }] : [];
  });
}

const isNumber = (type: ts.TypeNode | undefined): boolean =>
  /^(number|number\[\]|readonly number\[\])( \| undefined)?$/.test(type?.getText() ?? '');

/** Whether a number goes in or comes out whose unit is told neither by the comment nor by its name. */
function lacksUnit({ fn, doc }: Exported): boolean {
  const open = fn.parameters.filter(
    ({ type, name }) => isNumber(type) && !NAMED_UNIT.test(name.getText()),
  );
  return (open.length > 0 || isNumber(fn.type)) && !UNIT.test(doc);
}

function throwsSilently({ fn, doc }: Exported): boolean {
  const throws = (node: ts.Node): boolean =>
    ts.isThrowStatement(node) || (ts.forEachChild(node, throws) ?? false);
  return fn.body !== undefined && throws(fn.body) && !doc.includes('@throws');
}

const isExported = (statement: ts.Statement): boolean =>
  ts.canHaveModifiers(statement) &&
  (ts.getModifiers(statement) ?? []).some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword);

function functionOf(statement: ts.Statement): Omit<Exported, 'doc'> | undefined {
  if (ts.isFunctionDeclaration(statement)) {
    return statement.name && { name: statement.name.text, fn: statement };
  }
  if (!ts.isVariableStatement(statement)) return undefined;
  const [first] = statement.declarationList.declarations;
  return first?.initializer && ts.isArrowFunction(first.initializer)
    ? { name: first.name.getText(), fn: first.initializer }
    : undefined;
}

const namesOf = (some: readonly Exported[]) => some.map(({ name }) => name);

describe('public functions of core', () => {
  it('are many', () => {
    expect(files.length).toBeGreaterThan(80);
    expect(files.flatMap(exportedIn).length).toBeGreaterThan(200);
  });
  it.each(files)('%s says what each does, in what units, and what it throws', (file) => {
    const all = exportedIn(file);
    expect(namesOf(all.filter(({ doc }) => !doc))).toEqual([]);
    expect(namesOf(all.filter(lacksUnit))).toEqual([]);
    expect(namesOf(all.filter(throwsSilently))).toEqual([]);
  });
});

describe('figures of core', () => {
  const measuring = files.filter((file) => /^(measure|chemistry|care\/fouling)\//.test(file));
  const text = (file: string) => readFileSync(join(core, file), 'utf8');
  const withFigures = measuring.filter((file) => FIGURE.test(text(file)));

  it('are in many files', () => expect(withFigures.length).toBeGreaterThan(15));
  it.each(withFigures)('%s says where its figures come from', (file) => {
    expect(text(file)).toMatch(SOURCE);
  });
});
