import type { RequestHandler } from 'express';
import type { FieldProblem } from '@needlecase/core';
import { hasControl } from '@needlecase/core/model/texts';
import { invalid } from './problem.js';

/** Nothing that is sent here is nested deeper by far. */
const DEEPEST = 50;

/** A thing on the way into a body: where it stands is put into words only where it is at fault. */
interface Level {
  parts: unknown;
  /** Names of an object's parts; of a list its places are counted. */
  names: string[] | undefined;
  at: number;
}

const nameAt = ({ names, at }: Level): string => (names ? names[at - 1]! : String(at - 1));

const placeOf = (levels: readonly Level[]): string => levels.map(nameAt).join('.');

/** What is gone into; a file is no JSON: gone through byte by byte, a large one would hold everybody up. */
const isDeeper = (value: unknown): value is object =>
  typeof value === 'object' && value !== null && !ArrayBuffer.isView(value);

/** What no JSON of ours has, wherever it stands; the first that is found. */
export function unsound(body: unknown): FieldProblem | undefined {
  if (typeof body === 'string') return faultOf(body, '');
  if (!isDeeper(body)) return undefined;
  const levels: Level[] = [levelOf(body)];
  for (let level = levels.at(-1); level; level = levels.at(-1)) {
    const { parts, names } = level;
    const length = names ? names.length : (parts as unknown[]).length;
    if (level.at === length) {
      levels.pop();
      continue;
    }
    const at = level.at++;
    const name = names?.[at];
    if (name !== undefined && wrongWith(name)) return faultOf(name, placeOf(levels.slice(0, -1)));
    const value = name === undefined ? (parts as unknown[])[at] : (parts as Parts)[name];
    if (typeof value === 'string') {
      if (wrongWith(value)) return faultOf(value, placeOf(levels));
    } else if (isDeeper(value)) {
      if (levels.length === DEEPEST) {
        const message = `This is nested more than ${DEEPEST} deep.`;
        return { field: nameAt(levels[0]!), message };
      }
      levels.push(levelOf(value));
    }
  }
  return undefined;
}

type Parts = Record<string, unknown>;

const levelOf = (parts: object): Level => ({
  parts,
  names: Array.isArray(parts) ? undefined : Object.keys(parts),
  at: 0,
});

function faultOf(text: string, field: string): FieldProblem | undefined {
  const message = wrongWith(text);
  return message === undefined ? undefined : { field, message };
}

function wrongWith(text: string): string | undefined {
  if (hasControl(text)) return 'This has control signs in it, which cannot be kept.';
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
