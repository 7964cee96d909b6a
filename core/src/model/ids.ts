import type { TSchema } from 'typebox';
import { keptInstant, INSTANT, mapTexts } from './instants.js';
import { keptText } from './texts.js';

const ID = /^(?:urn:uuid:)?([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})$/i;

/** An id as it is kept: in small letters, without `urn:uuid:` (RFC 9562, 4); what is none stays as it is. */
export const keptId = (text: string): string => ID.exec(text)?.[1]?.toLowerCase() ?? text;

/** A value that fits a schema, its instants, ids and texts as they are kept. */
export const keptForm = <T>(schema: TSchema, value: T): T =>
  mapTexts(schema, value, ({ pattern, format, writeOnly }, text) => {
    // What lets somebody in is what it is, to the last sign.
    if (writeOnly) return text;
    if (pattern === INSTANT) return keptInstant(text);
    return format === 'uuid' ? keptId(text) : keptText(text);
  });
