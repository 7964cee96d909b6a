import { randomLcg, randomNormal } from 'd3-random';

/** FNV-1a over the letters of a text, 32 bits (Fowler, Noll and Vo; its published constants). */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (const letter of text) {
    hash ^= letter.codePointAt(0)!;
    hash = Math.imul(hash, 0x01000193);
  }
  return hash >>> 0;
}

/**
 * Numbers from 0 up to 1 that belong to one thing of one case: what is drawn for another thing, and when, changes
 * nothing of them.
 * @param seed of the case, a number of 32 bits @param what they are for
 */
export const chancesFor = (seed: number, what: string): (() => number) =>
  randomLcg(hashOf(`${what} ${seed}`) / 2 ** 32);

/** A number between two. */
export const between = (random: () => number, [from, to]: readonly [number, number]): number =>
  from + (to - from) * random();

/** A factor that a figure is off by when it is taken by hand. @param spread of its natural logarithm */
export const offBy = (random: () => number, spread: number): number =>
  Math.exp(randomNormal.source(random)(0, spread)());

/** One of some, by their weights. @throws RangeError where there is none */
export function oneOf<T>(random: () => number, all: readonly T[], weight: (one: T) => number): T {
  let left = random() * all.reduce((sum, one) => sum + weight(one), 0);
  for (const one of all) {
    left -= weight(one);
    if (left < 0) return one;
  }
  const last = all.at(-1);
  if (last === undefined) throw new RangeError('There is nothing to draw from.');
  return last;
}
