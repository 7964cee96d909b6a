import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

/* Whoever comes after reads the comment first: every function that core gives out has one. */

const core = join(import.meta.dirname, '../core/src');
const files = readdirSync(core, { recursive: true, encoding: 'utf8' }).filter(
  (file) =>
    /\.ts$/.test(file) && !/\.spec\.ts$|\.d\.ts$|testing\.ts$|(^|\/)data\/|generated/.test(file),
);

/** Names of functions that a file exports without a word about them. */
function silentIn(file: string): string[] {
  const text = readFileSync(join(core, file), 'utf8');
  const { statements } = ts.createSourceFile(file, text, ts.ScriptTarget.ES2022, true);
  return statements.filter(isExported).flatMap((statement) => {
    const name = functionName(statement);
    return name !== undefined && ts.getJSDocCommentsAndTags(statement).length === 0 ? [name] : [];
  });
}

const isExported = (statement: ts.Statement): boolean =>
  ts.canHaveModifiers(statement) &&
  (ts.getModifiers(statement) ?? []).some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword);

function functionName(statement: ts.Statement): string | undefined {
  if (ts.isFunctionDeclaration(statement)) return statement.name?.text;
  if (!ts.isVariableStatement(statement)) return undefined;
  const [first] = statement.declarationList.declarations;
  return first?.initializer && ts.isArrowFunction(first.initializer)
    ? first.name.getText()
    : undefined;
}

describe('public functions of core', () => {
  it('are many', () => expect(files.length).toBeGreaterThan(80));
  it.each(files)('%s says what each does', (file) => {
    expect(silentIn(file)).toEqual([]);
  });
});
