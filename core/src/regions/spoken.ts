import { AS_WRITTEN, inTongue, type Tongue } from './in-tongue.js';

/*
 * Knowledge that is told to people, in the words of their kind of house. A table of texts is registered
 * where it is defined; whoever serves or shows a household says once whose words are spoken, and every
 * table that is loaded then or later is in them.
 *
 *   export const CHECKS = spoken([...])   ·   speakAs({ region: 'us', units: 'us' })   ·   CHECKS[0].how
 */

interface Line {
  holder: Record<string, unknown>;
  key: string;
  written: string;
}

const LINES: Line[] = [];
const KNOWN = new WeakSet<object>();
let tongue: Tongue = AS_WRITTEN;

/** Ids are written without blanks and begin small; what people read is not. */
const isText = (value: string): boolean => value.includes(' ') || /^\p{Lu}/u.test(value);

function linesIn(value: unknown): Line[] {
  if (value === null || typeof value !== 'object' || KNOWN.has(value)) return [];
  KNOWN.add(value);
  const holder = value as Record<string, unknown>;
  return Object.entries(holder).flatMap(([key, part]): Line[] =>
    typeof part === 'string'
      ? isText(part)
        ? [{ holder, key, written: part }]
        : []
      : linesIn(part),
  );
}

function tell(lines: readonly Line[]): void {
  for (const { holder, key, written } of lines) holder[key] = inTongue(written, tongue);
}

/** Registers a table of texts, and gives it back in the words that are spoken now. */
export function spoken<T extends object>(table: T): T {
  const lines = linesIn(table);
  LINES.push(...lines);
  if (tongue !== AS_WRITTEN) tell(lines);
  return table;
}

/** Every registered table in somebody's words and units from now on; at no cost where they are spoken already. */
export function speakAs(wanted: Tongue): void {
  if (wanted.region === tongue.region && wanted.units === tongue.units) return;
  tongue = wanted;
  tell(LINES);
}

/** A text made on the way, in the words that are spoken now. */
export const told = (text: string): string => inTongue(text, tongue);
