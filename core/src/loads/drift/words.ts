import { many } from '../../units/many.js';
import type { SignalFigure } from '../../model/vocabulary.js';
import type { Change, PastSignal, Signal } from './signal.js';

/** How a signal is told. */
interface Words {
  /** After "the dryer:" and after "by the meter,": with how many per cent. */
  is: (percent: number) => string;
  /** Of what is over. */
  was: (percent: number) => string;
  /** What it is compared in, as the sentence of its range goes on. */
  basis: string;
  /** What there is to know of it. */
  know?: string;
  /** A figure of a load. */
  of: (figure: number) => string;
  /** The question to somebody who knows the reason. */
  ask: string;
}

const WORDS: Record<SignalFigure, Words> = {
  drying: {
    is: (percent) => `drying takes ${percent} % longer`,
    was: (percent) => `Drying took ${percent} % longer for the same energy`,
    basis: ' for the same energy',
    of: (minutes) => `${minutes} min`,
    ask: 'Why does it take longer?',
  },
  power: {
    is: (percent) => `it draws ${percent} % more at most`,
    was: (percent) => `It drew ${percent} % more at most`,
    basis: ' at the most of a load',
    know: 'A compressor works harder where its air is short.',
    of: (watts) => `${watts} W`,
    ask: 'Why does it draw more?',
  },
  heating: {
    is: (percent) => `heating takes ${percent} % longer`,
    was: (percent) => `Heating took ${percent} % longer for the same energy`,
    basis: ' for the same energy',
    know: 'The heater is held off again and again where scale sits on it.',
    of: (minutes) => `${minutes} min/kWh`,
    ask: 'Why does it heat longer?',
  },
  filling: {
    is: (percent) => `it takes ${percent} % longer until it heats`,
    was: (percent) => `It took ${percent} % longer until it heated`,
    basis: ' in the same programmes',
    know: 'It heats only once there is water enough.',
    of: (minutes) => `${minutes} min`,
    ask: 'Why does it take longer?',
  },
  spins: {
    is: (percent) => `it tries to spin ${percent} % more often`,
    was: (percent) => `It tried to spin ${percent} % more often`,
    basis: ' in the same programmes',
    of: (spins) => `${spins} spins`,
    ask: 'Why does it try so often?',
  },
  drain: {
    is: () => 'it ends with the pump running',
    was: () => 'It ended with the pump running',
    basis: ' before their last spin',
    of: String,
    ask: 'Why does it end so?',
  },
};

const percentOf = ({ change }: { change?: Change }): number => change?.percent ?? 0;

/** "drying takes 18 % longer", as a sentence goes on. */
export const sayChange = (signal: Pick<Signal, 'figure' | 'change'>): string =>
  WORDS[signal.figure].is(percentOf(signal));

/** "Drying took 18 % longer for the same energy (12 to 25 %)". */
export function sayWas(signal: PastSignal): string {
  const { change } = signal;
  const said = WORDS[signal.figure].was(percentOf(signal));
  return change ? `${said} (${change.low} to ${change.high} %)` : said;
}

/** "12 to 25 % for the same energy, by 16 loads since then.", and what there is to know of it. */
export function sayRange({ figure, change, loads }: Signal): string {
  const { basis, know } = WORDS[figure];
  const rests = many(loads, 'load');
  const range = change
    ? `${change.low} to ${change.high} %${basis}, by ${rests} since then.`
    : `${rests} since then ended so${basis}.`;
  return know ? `${range} ${know}` : range;
}

/** The usual figure of a load before and now, with their units. */
export const levelsOf = ({ figure, change }: Signal): { usual: string; now: string } | undefined =>
  change && { usual: WORDS[figure].of(change.usual), now: WORDS[figure].of(change.now) };

/** The question to somebody who knows the reason. */
export const askWhy = ({ figure }: Pick<Signal, 'figure'>): string => WORDS[figure].ask;
