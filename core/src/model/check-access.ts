import { VALIDATORS } from './access.generated.js';
import type { AccessDraft } from './access.js';
import { problemsOf, type FieldProblem } from './check.js';

/**
 * What is wrong with a body about persons and what lets them in; nothing where it is right.
 *
 * @param name of its schema
 */
export function checkAccess(name: AccessDraft, body: unknown): FieldProblem[] {
  const validate = VALIDATORS[name]!;
  return validate(body) ? [] : problemsOf(validate.errors);
}
