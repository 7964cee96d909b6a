import { MOST_CALENDAR, NoCalendar } from './read.js';

/** Whoever does not answer by then is away, ms. */
const PATIENCE_MS = 10_000;

/**
 * What a calendar's address answers, as text; `webcal:` is read over https.
 * @throws NoCalendar in words, where nothing is there that can be read
 */
export async function fetchCalendar(address: string): Promise<string> {
  const url = addressOf(address);
  let answer: Response;
  try {
    answer = await fetch(url, {
      signal: AbortSignal.timeout(PATIENCE_MS),
      headers: { Accept: 'text/calendar' },
    });
  } catch {
    throw new NoCalendar('Nobody answers at this address.');
  }
  if (!answer.ok || !answer.body) {
    throw new NoCalendar(`This address does not give its calendar out (${answer.status}).`);
  }
  const pieces: Uint8Array[] = [];
  let bytes = 0;
  try {
    for await (const piece of answer.body as unknown as AsyncIterable<Uint8Array>) {
      bytes += piece.length;
      if (bytes > MOST_CALENDAR) break;
      pieces.push(piece);
    }
  } catch {
    throw new NoCalendar('The calendar at this address broke off.');
  }
  if (bytes > MOST_CALENDAR) {
    throw new NoCalendar('The calendar at this address is larger than one of a person.');
  }
  return Buffer.concat(pieces).toString('utf8');
}

function addressOf(address: string): URL {
  const plain = address.trim().replace(/^webcal:/i, 'https:');
  const url = URL.canParse(plain) ? new URL(plain) : undefined;
  if (url && /^https?:$/.test(url.protocol)) return url;
  throw new NoCalendar('Give an address that begins with https://, http:// or webcal://.');
}
