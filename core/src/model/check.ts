import type { ErrorObject } from 'ajv';
import { INSTANT } from './instants.js';
import type { DraftName } from './schemas.js';
import * as validators from './validators.generated.js';

/** One thing wrong with what was sent, in words for the person who typed it. */
export interface FieldProblem {
  /** Path to the field, such as `machines.0.loadsPerWeek`; empty for the whole. */
  field: string;
  message: string;
}

/**
 * Checks a value against a shared schema.
 *
 * @returns what is wrong, one problem a field; empty when the value is right
 * @example check('MachineDraft', { ...washer, loadsPerWeek: -1 })
 *   // [{ field: 'loadsPerWeek', message: 'Give a number from 0 to 70.' }]
 */
export function check(schema: DraftName, value: unknown): FieldProblem[] {
  const validate = validators[schema];
  return validate(value) ? [] : problemsOf(validate.errors);
}

/** What Ajv found wrong, one problem a field, in words. */
export function problemsOf(errors: readonly ErrorObject[] | null | undefined): FieldProblem[] {
  const byField = new Map<string, FieldProblem>();
  for (const error of errors ?? []) {
    const field = fieldOf(error);
    if (!byField.has(field)) byField.set(field, { field, message: sentence(error) });
  }
  return [...byField.values()];
}

function fieldOf(error: ErrorObject): string {
  const path = error.instancePath.split('/').slice(1).map(decode);
  const params = error.params as {
    missingProperty?: string;
    additionalProperty?: string;
    tag?: string;
  };
  const last = params.missingProperty ?? params.additionalProperty ?? params.tag;
  return [...path, ...(last === undefined ? [] : [last])].join('.');
}

const decode = (part: string): string => part.replaceAll('~1', '/').replaceAll('~0', '~');

const CURRENCY = '^[A-Z]{3}$';
const NOT_MONEY = 'Give its three letters, such as EUR.';
const NOT_A_TIME = 'Give a date and time, such as 2026-03-01T09:30:00Z.';

function sentence(error: ErrorObject): string {
  const limits = error.parentSchema as { minimum?: number; maximum?: number } | undefined;
  const limit = (error.params as { limit?: number }).limit;
  switch (error.keyword) {
    case 'required':
      return 'This is needed.';
    case 'additionalProperties':
      return 'There is no such field.';
    case 'type':
      return `Give ${article((error.params as { type: string | string[] }).type)}.`;
    case 'discriminator':
      return `Choose one of: ${kindsOf(error).join(', ')}.`;
    case 'enum':
      return `Choose one of: ${(error.params as { allowedValues: unknown[] }).allowedValues.join(', ')}.`;
    case 'minimum':
      return limits?.maximum === undefined
        ? `Give a number from ${limit} up.`
        : `Give a number from ${limit} to ${limits.maximum}.`;
    case 'maximum':
      return limits?.minimum === undefined
        ? `Give a number up to ${limit}.`
        : `Give a number from ${limits.minimum} to ${limit}.`;
    case 'exclusiveMinimum':
      return limits?.maximum === undefined
        ? `Give a number above ${limit}.`
        : `Give a number above ${limit}, up to ${limits.maximum}.`;
    case 'minLength':
    case 'pattern':
      if ((error.params as { pattern?: string }).pattern === INSTANT) return NOT_A_TIME;
      if ((error.params as { pattern?: string }).pattern === CURRENCY) return NOT_MONEY;
      return limit === 1 || error.keyword === 'minLength'
        ? 'Write something here.'
        : 'This is empty or has signs that do not belong here.';
    case 'maxLength':
      return `At most ${limit} characters.`;
    case 'minItems':
      return `Add at least ${limit}.`;
    case 'maxItems':
      return `At most ${limit}.`;
    case 'uniqueItems':
      return 'The same thing is here twice.';
    case 'format':
      return {
        'date-time': NOT_A_TIME,
        date: 'Give a date, such as 2026-03-01.',
        uuid: 'This is not an id.',
      }[(error.params as { format: string }).format]!;
    default:
      return 'This is not right.';
  }
}

/** The kinds that a thing of several can be of. */
function kindsOf({ parentSchema }: ErrorObject): string[] {
  const { oneOf = [] } = (parentSchema ?? {}) as {
    oneOf?: { properties: { kind: { const: string } } }[];
  };
  return oneOf.map(({ properties }) => properties.kind.const);
}

function article(type: string | string[]): string {
  const names: Record<string, string> = {
    number: 'a number',
    integer: 'a whole number',
    string: 'text',
    boolean: 'yes or no',
    array: 'a list',
    object: 'an object',
  };
  return [type]
    .flat()
    .map((each) => names[each] ?? each)
    .join(' or ');
}
