import type { Answer } from '../../model/vocabulary.js';

/*
 * Exact inference over few faults at a time. A hypothesis is a set of causes present together: none,
 * one, or two (more where asked). Each finding is made by any of the causes present (noisy-OR with a
 * leak; Pearl 1988), or has a chance of its own for each set.
 *
 *   causes    filter   hose   pump           prior chance each, independent
 *               \  \   /      /
 *   findings   slow   standing   code        P(yes | set) = 1 - (1 - leak) Π (1 - strength)
 */

export interface Cause {
  id: string;
  /** Chance before anything was seen, above 0 and below 1. */
  prior: number;
}

export interface Finding {
  id: string;
  /** Chance that it is seen, given the indices of the causes present, rising. */
  chance(present: readonly number[]): number;
}

/** "Partly" leans to yes: so much of its weight goes there. Judgement. */
export const PARTLY_YES = 0.7;

/**
 * A finding that any of its causes can make, and sometimes nothing at all.
 * @param leak chance of seeing it where none of them is present, 0 to 1
 * @param links by index of the cause, the chance that it makes the finding, 0 to 1
 */
export function noisyOr(id: string, leak: number, links: ReadonlyMap<number, number>): Finding {
  return {
    id,
    chance: (present) =>
      1 - present.reduce((missed, cause) => missed * (1 - (links.get(cause) ?? 0)), 1 - leak),
  };
}

/** What is believed after some answers. */
export interface CauseBelief {
  /** Chance of each cause, in the network's order. */
  causes: Float64Array;
  /** Chance that none of them is present. */
  none: number;
  /** Chance of each hypothesis. */
  hypotheses: Float64Array;
}

/** What an answer would bring: how likely a yes is, what is believed after each, the bits expected. */
export interface Ahead {
  chance: number;
  yes: CauseBelief;
  no: CauseBelief;
  gain: number;
}

/** Causes and findings, ready to be asked. */
export class Network {
  readonly #sets: readonly (readonly number[])[];
  readonly #priors: Float64Array;
  /** P(yes) of each finding under each hypothesis. */
  readonly #chances = new Map<string, Float64Array>();

  /** @param most so many causes may be present together */
  constructor(
    readonly causes: readonly Cause[],
    readonly findings: readonly Finding[],
    most = 2,
  ) {
    for (const { id, prior } of causes) {
      if (!(prior > 0 && prior < 1))
        throw new RangeError(`The prior of "${id}" is above 0 and below 1.`);
    }
    this.#sets = setsUpTo(causes.length, most);
    this.#priors = Float64Array.from(this.#sets, (set) =>
      causes.reduce((chance, { prior }, i) => chance * (set.includes(i) ? prior : 1 - prior), 1),
    );
    for (const finding of findings) {
      this.#chances.set(
        finding.id,
        Float64Array.from(this.#sets, (set) => finding.chance(set)),
      );
    }
  }

  knows(finding: string): boolean {
    return this.#chances.has(finding);
  }

  /**
   * What is believed after some answers, in whatever order they came.
   * @throws RangeError for a finding that the network does not have
   */
  believe(answers: Iterable<readonly [finding: string, answer: Answer]>): CauseBelief {
    const weights = this.#priors.slice();
    for (const [finding, answer] of answers) {
      if (answer === 'unknown') continue;
      const chances = this.#chancesOf(finding);
      const yes = answer === 'yes' ? 1 : answer === 'no' ? 0 : PARTLY_YES;
      for (let h = 0; h < weights.length; h++) {
        const chance = chances[h]!;
        weights[h]! *= yes * chance + (1 - yes) * (1 - chance);
      }
    }
    return this.#normal(weights);
  }

  /** Chance that a finding will be seen. */
  chance(finding: string, { hypotheses }: CauseBelief): number {
    const chances = this.#chancesOf(finding);
    let sum = 0;
    for (let h = 0; h < hypotheses.length; h++) sum += hypotheses[h]! * chances[h]!;
    return sum;
  }

  /** Chance that none of some causes is there. @param marked by index of the cause */
  without({ hypotheses }: CauseBelief, marked: readonly boolean[]): number {
    let sum = 0;
    for (let h = 0; h < hypotheses.length; h++) {
      if (!this.#sets[h]!.some((cause) => marked[cause])) sum += hypotheses[h]!;
    }
    return Math.min(1, sum);
  }

  /**
   * Chance that some causes are all there is of those that matter: that fixing them cures it.
   * @param matters by index of the cause; the others may be there as well
   * @param fixed by index of the cause
   */
  cured(
    { hypotheses }: CauseBelief,
    matters: readonly boolean[],
    fixed: readonly boolean[],
  ): number {
    let sum = 0;
    for (let h = 0; h < hypotheses.length; h++) {
      const set = this.#sets[h]!;
      let [some, all] = [false, true];
      for (let k = 0; k < set.length; k++) {
        const cause = set[k]!;
        if (!matters[cause]) continue;
        some = true;
        if (!fixed[cause]) all = false;
      }
      if (some && all) sum += hypotheses[h]!;
    }
    return sum;
  }

  /** Chance of each cause to be the only one of those that matter, by index. */
  alone({ hypotheses }: CauseBelief, matters: readonly boolean[]): Float64Array {
    const chances = new Float64Array(this.causes.length);
    for (let h = 0; h < hypotheses.length; h++) {
      const set = this.#sets[h]!;
      let only = -1;
      for (let k = 0; k < set.length; k++) {
        const cause = set[k]!;
        if (matters[cause]) only = only === -1 ? cause : -2;
      }
      if (only >= 0) chances[only]! += hypotheses[h]!;
    }
    return chances;
  }

  /** What would be believed if a finding were answered next. */
  after(belief: CauseBelief, finding: string, yes: boolean): CauseBelief {
    const chances = this.#chancesOf(finding);
    const weights = belief.hypotheses.slice();
    for (let h = 0; h < weights.length; h++) weights[h]! *= yes ? chances[h]! : 1 - chances[h]!;
    return this.#normal(weights);
  }

  /** What an answer to a finding is expected to bring. */
  ahead(belief: CauseBelief, finding: string): Ahead {
    const chance = this.chance(finding, belief);
    const [yes, no] = [this.after(belief, finding, true), this.after(belief, finding, false)];
    const left = chance * bits(yes.hypotheses) + (1 - chance) * bits(no.hypotheses);
    return { chance, yes, no, gain: Math.max(0, bits(belief.hypotheses) - left) };
  }

  #chancesOf(finding: string): Float64Array {
    const chances = this.#chances.get(finding);
    if (!chances) throw new RangeError(`There is no finding "${finding}".`);
    return chances;
  }

  #normal(weights: Float64Array): CauseBelief {
    let sum = 0;
    for (let h = 0; h < weights.length; h++) sum += weights[h]!;
    // Answers that nothing explains leave the priors as they were.
    const hypotheses = sum > 0 ? weights : this.#priors.slice();
    const causes = new Float64Array(this.causes.length);
    const sets = this.#sets;
    for (let h = 0; h < hypotheses.length; h++) {
      if (sum > 0) hypotheses[h]! /= sum;
      const set = sets[h]!;
      for (let k = 0; k < set.length; k++) causes[set[k]!]! += hypotheses[h]!;
    }
    return { causes, none: hypotheses[0]!, hypotheses };
  }
}

/** Every set of up to so many of n things, the empty one first. */
function setsUpTo(n: number, most: number): number[][] {
  const sets: number[][] = [[]];
  let last: number[][] = [[]];
  for (let size = 1; size <= most; size++) {
    last = last.flatMap((set) => {
      const from = (set.at(-1) ?? -1) + 1;
      return Array.from({ length: n - from }, (_, i) => [...set, from + i]);
    });
    sets.push(...last);
  }
  return sets;
}

function bits(chances: Float64Array): number {
  let sum = 0;
  for (let h = 0; h < chances.length; h++) {
    const chance = chances[h]!;
    // What is this unlikely adds nothing.
    if (chance > 1e-9) sum -= chance * Math.log2(chance);
  }
  return sum;
}
