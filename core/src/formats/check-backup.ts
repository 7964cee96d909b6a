import { problemsOf, type FieldProblem } from '../model/check.js';
import { VALIDATORS } from './backup.generated.js';
import type { BackupKind } from './backup.js';

/* Checks of what comes back from a backup; the page does without them. */

function checked(name: string, value: unknown): FieldProblem[] {
  const validate = VALIDATORS[name]!;
  return validate(value) ? [] : problemsOf(validate.errors);
}

/** What is wrong with a line of a kind; nothing where it is right. */
export const checkLine = (kind: BackupKind, line: unknown): FieldProblem[] => checked(kind, line);
/** What is wrong with what a backup says of itself. */
export const checkManifest = (manifest: unknown): FieldProblem[] => checked('manifest', manifest);
/** What is wrong with how one in the folder is asked for. */
export const checkPick = (draft: unknown): FieldProblem[] => checked('pick', draft);
/** What is wrong with how one is to be put back. */
export const checkRestore = (draft: unknown): FieldProblem[] => checked('restore', draft);
