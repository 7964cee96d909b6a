import { randomLcg } from 'd3-random';

/** A source of chance from one seed. */
export class Chance {
  readonly #unit: () => number;

  constructor(seed: number) {
    this.#unit = randomLcg(seed);
  }

  below = (n: number): number => Math.floor(this.#unit() * n);
  is = (share: number): boolean => this.#unit() < share;
  of = <T>(from: readonly T[]): T => from[this.below(from.length)]!;
}
