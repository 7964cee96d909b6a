import { instantOf, sampleOf, type Sample } from '@needlecase/core/loads/live/samples';
import type { MeterDraft } from '@needlecase/core/model/meters';

type Reading = Pick<NonNullable<MeterDraft['mqtt']>, 'figure' | 'instant' | 'unit'>;

/** No meter says more at once, bytes. */
export const MOST_MESSAGE = 64_000;
const MOST_ECHO = 40;

/**
 * What a broker's message tells: a number by itself, or one in JSON at a pointer (RFC 6901).
 * @param now UTC milliseconds at which it came in
 * @returns the sample, or in words why there is none
 */
export function readMessage(
  payload: Uint8Array,
  { figure, instant, unit }: Reading,
  now: number,
): Sample | string {
  if (payload.length > MOST_MESSAGE) return 'The message was longer than any meter’s.';
  const text = Buffer.from(payload).toString('utf8').trim();
  if (figure === undefined && instant === undefined) return told(text, text, unit, now, now);
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return `The message was no JSON: ${shortened(text)}`;
  }
  const value = figure === undefined ? json : at(json, figure);
  if (value === undefined) return `The message had nothing at ${figure}: ${shortened(text)}`;
  const when = instant === undefined ? now : instantOf(at(json, instant));
  if (when === undefined) return `The message had no instant at ${instant}: ${shortened(text)}`;
  return told(value, text, unit, when, now);
}

function told(
  value: unknown,
  text: string,
  unit: Reading['unit'],
  when: number,
  now: number,
): Sample | string {
  const isText = typeof value === 'string' && value.trim() !== '';
  const number = isText ? Number(value) : value;
  if (typeof number !== 'number' || !Number.isFinite(number)) {
    return `The message had no number in it: ${shortened(text)}`;
  }
  const read = sampleOf(number, unit, when, now);
  return 'sample' in read ? read.sample : `${read.problem.message} It said ${shortened(text)}`;
}

const shortened = (text: string): string =>
  text.length > MOST_ECHO ? `${text.slice(0, MOST_ECHO)}…` : text || 'nothing';

/** What is at a JSON pointer. */
function at(json: unknown, pointer: string): unknown {
  let value = json;
  for (const part of pointer.slice(1).split('/')) {
    const name = part.replaceAll('~1', '/').replaceAll('~0', '~');
    if (typeof value !== 'object' || value === null || !Object.hasOwn(value, name))
      return undefined;
    value = (value as Record<string, unknown>)[name];
  }
  return value;
}
