import type { Waiting } from './device';

/*
 * What waits goes along when a device goes over to another address of the house, such as the safe one, which has a
 * store of its own. It stays here, too: an entry has one id wherever it is sent from, and is counted once.
 */

const MARK = 'waiting=';
/** Longer addresses some browsers cut. */
const MOST = 60_000;

/** What can stand in an address; photos cannot, and are sent from where they are. */
export function inAddress(waiting: readonly Waiting[]): string {
  const text = (letters: readonly Waiting[]) => MARK + encodeURIComponent(JSON.stringify(letters));
  const letters = waiting.filter((one) => !('photo' in one));
  if (letters.length === 0) return '';
  while (text(letters).length > MOST) letters.pop();
  return text(letters);
}

/** An address as somebody types it, without a path; nothing where it is none. */
export function houseAddress(typed: string): string | undefined {
  const text = typed.trim();
  if (!/^https?:\/\//i.test(text) || !URL.canParse(text)) return undefined;
  return new URL(text).origin;
}

/** What an address brought along: the code of the device, and what waits. */
export function fromAddress(hash: string): { code: string; waiting: Waiting[] } {
  const [code = '', ...rest] = hash.replace(/^#/, '').split('&');
  const brought = rest.find((part) => part.startsWith(MARK));
  return { code: decoded(code), waiting: brought ? letters(brought.slice(MARK.length)) : [] };
}

function letters(text: string): Waiting[] {
  try {
    const read = JSON.parse(decodeURIComponent(text)) as unknown;
    return Array.isArray(read) ? (read as unknown[]).filter(isLetter) : [];
  } catch {
    return [];
  }
}

/** What it says is looked at by the server; here only that it is one that can be sent. */
function isLetter(one: unknown): one is Waiting {
  const { kind, id, undo, news } = (one ?? {}) as Record<string, unknown>;
  const events = (news as { events?: unknown } | undefined)?.events;
  return (
    (typeof kind === 'string' && typeof id === 'string') ||
    typeof undo === 'string' ||
    (Array.isArray(events) && events.length > 0)
  );
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return '';
  }
}
