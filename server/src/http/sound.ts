import type { RequestHandler } from 'express';
import type { FieldProblem } from '@needlecase/core';
import { invalid } from './problem.js';

/** Nothing that is sent here is nested deeper by far. */
const DEEPEST = 50;

/** What no JSON of ours has, wherever it stands; the first that is found. */
function unsound(body: unknown): FieldProblem | undefined {
  const left: { value: unknown; field: string; depth: number }[] = [
    { value: body, field: '', depth: 0 },
  ];
  for (let next = left.pop(); next; next = left.pop()) {
    const { value, field, depth } = next;
    if (typeof value === 'string') {
      const message = wrongWith(value);
      if (message) return { field, message };
    }
    // A file is no JSON: gone through byte by byte, a large one would hold everybody up for a minute.
    if (typeof value !== 'object' || value === null || Buffer.isBuffer(value)) continue;
    if (depth === DEEPEST) {
      const [top = ''] = field.split('.');
      return { field: top, message: `This is nested more than ${DEEPEST} deep.` };
    }
    for (const [name, part] of Object.entries(value)) {
      const message = wrongWith(name);
      if (message) return { field, message };
      left.push({ value: part, field: field ? `${field}.${name}` : name, depth: depth + 1 });
    }
  }
  return undefined;
}

function wrongWith(text: string): string | undefined {
  if (text.includes('\0')) return 'This has a NUL in it, which cannot be kept.';
  return isWellFormed(text) ? undefined : 'This has signs in it that are no letters.';
}

/** Whether there is no half of a letter in a text: every high surrogate is followed by a low one. */
const isWellFormed = (text: string): boolean =>
  !/[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/.test(text);

/** Refuses JSON that could not be kept, or not be looked through, before anybody looks at it. */
export const soundOnly: RequestHandler = (request, _response, next) => {
  const problem = unsound(request.body as unknown);
  next(problem && invalid([problem]));
};
