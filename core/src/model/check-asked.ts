import * as instruments from './instruments.generated.js';
import { problemsOf, type FieldProblem } from './check.js';
import * as queries from './queries.generated.js';
import type { QueryName } from './schemas.js';

/* Checks of what only the server is asked; the page does without them. */

/**
 * Checks what came with an address, where everything is text.
 * @param value is changed: figures and truth values are read out of their text
 */
export function checkQuery(name: QueryName, value: object): FieldProblem[] {
  const validate = queries[name];
  return validate(value) ? [] : problemsOf(validate.errors);
}

/** Checks what an instrument is given, but for the ranges of its figures, which it checks itself. */
export function checkInstrument(name: string, value: unknown): FieldProblem[] {
  const validate = instruments.VALIDATORS[name]!;
  return validate(value) ? [] : problemsOf(validate.errors);
}
