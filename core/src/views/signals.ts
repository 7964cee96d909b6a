import { troubleView } from './trouble.js';
import type { Signal } from '../loads/drift/signal.js';
import { sayChange } from '../loads/drift/words.js';
import type { Situation } from '../trouble/diagnosis/priors.js';

/** A signal with what is likeliest behind it, and what would tell most cheaply. */
export interface ToldSignal extends Signal {
  /** "drying takes 18 % longer", as a sentence goes on. */
  said: string;
  /** Chances from 0 to 1, the likeliest first. */
  likely: { station: string; name: string; chance: number }[];
  look?: { say: string; minutes: number };
}

const MOST = 2;

/** @param situation of the machine, as its record has it */
export function toldSignal(
  signal: Signal,
  situation: Situation,
  said: Readonly<Record<string, string>>,
): ToldSignal {
  const { suspects, next } = troubleView(situation, { [signal.finding]: 'yes' }, [], said);
  const look = next && ('check' in next ? { ...next.check, say: next.check.ask } : next.fix);
  return {
    ...signal,
    said: sayChange(signal),
    likely: suspects.slice(0, MOST).map(({ station, name, chance }) => ({ station, name, chance })),
    ...(look ? { look: { say: look.say, minutes: look.minutes } } : {}),
  };
}
