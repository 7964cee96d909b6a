import type { CodeClass } from '../../model/vocabulary.js';
import { spoken } from '../../regions/spoken.js';

/** What a class of codes is about, and which symptoms' causes it points at. Common practice. */
export interface ClassOfCodes {
  id: CodeClass;
  /** As a person picks it: "It is about …". */
  say: string;
  /** A code of this class is seen with whatever makes one of these. */
  shows: readonly string[];
}

export const CODE_CLASS_LIST: readonly ClassOfCodes[] = spoken([
  {
    id: 'drain',
    say: 'draining: water does not go out, or not fast enough',
    shows: ['code-drain'],
  },
  {
    id: 'fill',
    say: 'filling: water does not come in, or too slowly',
    shows: ['code-fill', 'no-fill'],
  },
  { id: 'heat', say: 'heating: it does not get warm', shows: ['no-heat', 'long-heating'] },
  {
    id: 'overheat',
    say: 'too hot: it got hotter than it should',
    shows: ['overheats', 'heat-stops-early', 'hot-laundry'],
  },
  { id: 'door', say: 'the door or its lock', shows: ['door-locked', 'damp-round-door'] },
  {
    id: 'balance',
    say: 'balance: the load lies unevenly, or it shakes',
    shows: ['walks', 'bangs-this-load', 'wont-spin'],
  },
  { id: 'motor', say: 'the motor or the drum does not turn', shows: ['drum-still', 'wont-spin'] },
  {
    id: 'air',
    say: 'air: a screen, the condenser or the vent is to be cleaned',
    shows: ['condenser-lamp', 'weak-air', 'stops-minutes'],
  },
  { id: 'tank', say: 'the tank or the condensate', shows: ['tank-lamp', 'sump-water'] },
  { id: 'sensor', say: 'a sensor of dampness or heat', shows: ['auto-damp', 'runs-on'] },
  {
    id: 'leak',
    say: 'a leak: water where none should be',
    shows: ['pool-front', 'water-behind', 'damp-tap-side'],
  },
  { id: 'suds', say: 'too much foam', shows: ['foam'] },
  { id: 'electronics', say: 'the electronics, or numbers nobody explains', shows: ['odd-code'] },
  {
    id: 'reminder',
    say: 'a reminder to clean or to rinse something: nothing is broken',
    shows: [],
  },
]);

/** @throws RangeError for an unknown class */
export function codeClassById(id: CodeClass): ClassOfCodes {
  const found = CODE_CLASS_LIST.find((one) => one.id === id);
  if (!found) throw new RangeError(`There is no class of codes "${id}".`);
  return found;
}

/** Said of a reminder: it opens no case. */
export const REMINDER_SAID =
  'This is a reminder, not a fault. It may stay on until the next start, also after you cleaned. No case is opened.';
