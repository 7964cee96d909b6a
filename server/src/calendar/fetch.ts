import { callOutside, type May } from '../http/outgoing.js';
import { MOST_CALENDAR, NoCalendar } from './read.js';

/** Whoever does not answer by then is away, ms. */
const PATIENCE_MS = 10_000;

/** Whatever went wrong there: an address is not told what else is in the house, or who answers. */
const SAID =
  'No calendar could be read there. Check the address. If it is on your own network, tick that box.';

/**
 * What a calendar's address answers, as text; `webcal:` is read over https.
 * @param may where it may lead
 * @throws NoCalendar in the same words whatever it was
 */
export async function fetchCalendar(address: string, may: May): Promise<string> {
  try {
    const calling = { may, patience: PATIENCE_MS, most: MOST_CALENDAR, accept: 'text/calendar' };
    const bytes = await callOutside(address, calling);
    const text = bytes.toString('utf8');
    if (/^\uFEFF?\s*BEGIN:VCALENDAR/i.test(text)) return text;
  } catch {
    /* told below */
  }
  throw new NoCalendar(SAID);
}
