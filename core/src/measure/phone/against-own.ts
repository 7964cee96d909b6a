/*
 * Figures that a phone takes tell nothing by themselves: another phone, or another place, gives another. They are held
 * against what the same phone told of the same machine before.
 */

/** What is taken by a phone and held against itself. */
export type OwnFigure =
  'spin-shake' | 'sound-level' | 'screen-light' | 'sieve-light' | 'spin-speed';

/** A figure against this machine’s own. */
export interface AgainstOwn {
  is: 'as usual' | 'better' | 'worse';
  /** The figure it is held against, in its own unit, and of how many it is the middle. */
  own: number;
  of: number;
  /** How many times that; of a level, dB more. */
  change: number;
}

/** Times its own from which shaking is more than two loads differ by; dB; share of a washed screen; of a speed. Judgement. */
const CLEARLY: Record<OwnFigure, number> = {
  'spin-shake': 1.5,
  'sound-level': 3,
  'screen-light': 1.25,
  'sieve-light': 1.25,
  'spin-speed': 1.1,
};
const MORE_IS_BETTER: readonly OwnFigure[] = ['screen-light', 'sieve-light', 'spin-speed'];
/** Held against itself when it was washed, which is its best. */
const AGAINST_BEST: readonly OwnFigure[] = ['screen-light', 'sieve-light'];

/**
 * A figure against those before it, of the same phone in the same place: the middle one, or of a screen the best, which
 * is when it was washed.
 * @param value in the unit of its quantity: a number @param before the earlier ones, in any order
 */
export function againstOwn(
  figure: OwnFigure,
  value: number,
  before: readonly { value: number }[],
): AgainstOwn | undefined {
  const sorted = before
    .map((one) => one.value)
    .filter(Number.isFinite)
    .sort((a, b) => a - b);
  if (sorted.length === 0 || !Number.isFinite(value)) return undefined;
  const best = AGAINST_BEST.includes(figure);
  const own = best ? sorted.at(-1)! : middle(sorted);
  const level = figure === 'sound-level';
  if (!level && !(own > 0)) return undefined;
  const change = level ? value - own : value / own;
  const clearly = CLEARLY[figure];
  const more = level ? change >= clearly : change >= clearly;
  const less = level ? change <= -clearly : change <= 1 / clearly;
  const good = MORE_IS_BETTER.includes(figure);
  const is = more ? (good ? 'better' : 'worse') : less ? (good ? 'worse' : 'better') : 'as usual';
  return { is, own, of: best ? 1 : sorted.length, change };
}

const middle = (sorted: readonly number[]): number => {
  const at = sorted.length >> 1;
  return sorted.length % 2 ? sorted[at]! : (sorted[at - 1]! + sorted[at]!) / 2;
};
