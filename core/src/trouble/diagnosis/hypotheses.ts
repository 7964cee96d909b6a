import type { Answer } from '../../model/vocabulary.js';

/** "Partly" leans to yes: so much of its weight goes there. Judgement. */
export const PARTLY_YES = 0.7;
/** Chance that what was done at a cause did not put it right. Judgement. */
const DONE_BADLY = 0.005;

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

/** What may be the case, as a table: causes present together, and the chance of each finding. */
interface Table {
  /** Indices of the causes present, rising. */
  sets: readonly (readonly number[])[];
  /** For each hypothesis and each of its causes, the hypothesis without it. */
  less: readonly (readonly number[])[];
  /** In how many ways the hidden states can be: so many hypotheses follow one another with the same set. */
  ways: number;
  /** Chance before anything was answered. */
  priors: Float64Array;
  /** P(yes) of each finding under each hypothesis. */
  chances: ReadonlyMap<string, Float64Array>;
}

/** Hypotheses that are the same where only some of the causes matter. */
interface Group {
  set: readonly number[];
  way: number;
  of: number[];
  chance: number;
}

/** Hypotheses, and what answers and work make of the belief in them. */
export class Hypotheses {
  readonly #table: Table;

  /** @param count how many causes there are */
  constructor(
    protected readonly count: number,
    table: Table,
  ) {
    this.#table = table;
  }

  knows(finding: string): boolean {
    return this.#table.chances.has(finding);
  }

  /**
   * What is believed after some answers, in whatever order they came.
   * @param failed causes, by index, that were put right, and the trouble went on
   * @throws RangeError for a finding that is not known
   */
  believe(
    answers: Iterable<readonly [finding: string, answer: Answer]>,
    failed: readonly number[] = [],
  ): CauseBelief {
    const weights = this.#table.priors.slice();
    for (const [finding, answer] of answers) {
      if (answer === 'unknown') continue;
      const chances = this.#chancesOf(finding);
      const yes = answer === 'yes' ? 1 : answer === 'no' ? 0 : PARTLY_YES;
      for (let h = 0; h < weights.length; h++) {
        const chance = chances[h]!;
        weights[h]! *= yes * chance + (1 - yes) * (1 - chance);
      }
    }
    for (const cause of failed) this.#fail(weights, cause);
    return this.#normal(this.#holding(weights));
  }

  /**
   * The likeliest hypotheses over some of the causes alone, for looking ahead: quicker, and nearly as good.
   * How the others may be is averaged.
   * @param matters by index of the cause
   * @param share of the belief that they make up, 0 to 1
   * @param findings those that will be asked
   * @returns the hypotheses, the belief in them, and the indices that their causes have here
   */
  focused(
    { hypotheses: all }: CauseBelief,
    matters: readonly boolean[],
    share: number,
    findings: readonly string[],
  ): { few: Hypotheses; belief: CauseBelief; causes: number[] } {
    const { sets, ways } = this.#table;
    const causes = Array.from({ length: this.count }, (_, i) => i).filter((i) => matters[i]);
    const index = new Int32Array(this.count).fill(-1);
    causes.forEach((cause, i) => (index[cause] = i));
    // A set by one number: its causes as digits, and the way last.
    const base = causes.length + 1;
    const keyOf = (set: readonly number[], way: number): number =>
      set.reduce((key, cause) => key * base + cause + 1, 0) * ways + way;
    const groups = new Map<number, Group>();
    for (let h = 0; h < all.length; h++) {
      let key = 0;
      for (const cause of sets[h]!) if (index[cause]! >= 0) key = key * base + index[cause]! + 1;
      const way = h % ways;
      key = key * ways + way;
      let group = groups.get(key);
      if (!group) {
        const set = sets[h]!.map((cause) => index[cause]!).filter((i) => i >= 0);
        group = { set, way, of: [], chance: 0 };
        groups.set(key, group);
      }
      group.of.push(h);
      group.chance += all[h]!;
    }
    const kept = new Set<number>();
    const smaller = (key: number): number[] => {
      const { set, way } = groups.get(key)!;
      return set.map((_, i) =>
        keyOf(
          set.filter((_, k) => k !== i),
          way,
        ),
      );
    };
    const keep = (key: number): void => {
      if (kept.has(key)) return;
      kept.add(key);
      smaller(key).forEach(keep);
    };
    let sum = 0;
    for (const [key, { chance }] of [...groups].sort((a, b) => b[1].chance - a[1].chance)) {
      if (sum >= share) break;
      keep(key);
      sum += chance;
    }
    const keys = [...kept];
    const place = new Map(keys.map((key, i) => [key, i]));
    const weights = Float64Array.from(keys, (key) => groups.get(key)!.chance);
    // Which of the kept ones each hypothesis goes into, and with what weight in its mean.
    const into = new Int32Array(all.length).fill(-1);
    const weight = new Float64Array(all.length);
    keys.forEach((key, i) => {
      const { of, chance } = groups.get(key)!;
      for (const h of of) {
        into[h] = i;
        weight[h] = chance > 0 ? all[h]! / chance : 1 / of.length;
      }
    });
    const average = (values: Float64Array) => {
      const means = new Float64Array(keys.length);
      for (let h = 0; h < values.length; h++) {
        const i = into[h]!;
        if (i >= 0) means[i]! += weight[h]! * values[h]!;
      }
      return means;
    };
    const few = new Hypotheses(causes.length, {
      sets: keys.map((key) => groups.get(key)!.set),
      less: keys.map((key) => smaller(key).map((one) => place.get(one)!)),
      ways: 1,
      priors: weights,
      chances: new Map(findings.map((id) => [id, average(this.#chancesOf(id))])),
    });
    return { few, belief: few.#normal(few.#holding(weights.slice())), causes };
  }

  /** What is believed after a cause was put right, and the trouble went on. @param cause its index */
  afterFailed({ hypotheses }: CauseBelief, cause: number): CauseBelief {
    const weights = hypotheses.slice();
    this.#fail(weights, cause);
    return this.#normal(this.#holding(weights));
  }

  /** It was not that cause alone: with another, the other is left; else it was done badly. */
  #fail(weights: Float64Array, cause: number): void {
    for (let h = 0; h < weights.length; h++) {
      const k = this.#table.sets[h]!.indexOf(cause);
      if (k < 0) continue;
      if (this.#table.sets[h]!.length > 1)
        weights[this.#table.less[h]![k]!]! += weights[h]! * (1 - DONE_BADLY);
      weights[h]! *= DONE_BADLY;
    }
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
    const free = this.#freeOf(marked);
    let sum = 0;
    for (let h = 0; h < hypotheses.length; h++) sum += free[h]! * hypotheses[h]!;
    return Math.min(1, sum);
  }

  readonly #free = new WeakMap<readonly boolean[], Uint8Array>();

  /** 1 for each hypothesis with none of the marked causes in it; the same are asked for again and again. */
  #freeOf(marked: readonly boolean[]): Uint8Array {
    const known = this.#free.get(marked);
    if (known) return known;
    const { sets } = this.#table;
    const free = new Uint8Array(sets.length).fill(1);
    for (let h = 0; h < sets.length; h++) {
      const set = sets[h]!;
      for (let k = 0; k < set.length; k++) if (marked[set[k]!]) free[h] = 0;
    }
    this.#free.set(marked, free);
    return free;
  }

  /** Room for a belief that is looked at and given up again: many are on the way to one piece of advice. */
  blank(): CauseBelief {
    return {
      causes: new Float64Array(this.count),
      none: 0,
      hypotheses: new Float64Array(this.#table.priors.length),
    };
  }

  /**
   * Chance of each cause to be the only one, by index, and of each two to be all, by `i * n + j`.
   * @param into what is written over; new where nothing is given
   */
  onesAndPairs(
    { hypotheses }: CauseBelief,
    into: OnesAndPairs = onesAndPairsOf(this.count),
  ): OnesAndPairs {
    const n = this.count;
    const { ones, pairs } = into;
    ones.fill(0);
    pairs.fill(0);
    const { sets } = this.#table;
    for (let h = 0; h < hypotheses.length; h++) {
      const set = sets[h]!;
      if (set.length === 1) ones[set[0]!]! += hypotheses[h]!;
      else if (set.length === 2) {
        const [a, b] = set as [number, number];
        pairs[a * n + b]! += hypotheses[h]!;
        pairs[b * n + a]! += hypotheses[h]!;
      }
    }
    return into;
  }

  /**
   * What would be believed if a finding were answered next.
   * @param into what is written over; new where nothing is given
   */
  after(
    { hypotheses }: CauseBelief,
    finding: string,
    yes: boolean,
    into: CauseBelief = this.blank(),
  ): CauseBelief {
    const chances = this.#chancesOf(finding);
    const weights = into.hypotheses;
    for (let h = 0; h < weights.length; h++) {
      weights[h] = hypotheses[h]! * (yes ? chances[h]! : 1 - chances[h]!);
    }
    return this.#normal(into);
  }

  /** What an answer to a finding is expected to bring. */
  ahead(belief: CauseBelief, finding: string): Ahead {
    const chance = this.chance(finding, belief);
    const [yes, no] = [this.after(belief, finding, true), this.after(belief, finding, false)];
    const left = chance * bits(yes.hypotheses) + (1 - chance) * bits(no.hypotheses);
    return { chance, yes, no, gain: Math.max(0, bits(belief.hypotheses) - left) };
  }

  #chancesOf(finding: string): Float64Array {
    const chances = this.#table.chances.get(finding);
    if (!chances) throw new RangeError(`There is no finding "${finding}".`);
    return chances;
  }

  #holding(hypotheses: Float64Array): CauseBelief {
    return { causes: new Float64Array(this.count), none: 0, hypotheses };
  }

  /** Makes chances of the weights that it holds, and adds up those of the causes. */
  #normal(belief: CauseBelief): CauseBelief {
    const { sets, priors } = this.#table;
    const { causes, hypotheses } = belief;
    let sum = 0;
    for (let h = 0; h < hypotheses.length; h++) sum += hypotheses[h]!;
    // Answers that nothing explains leave the priors as they were.
    if (!(sum > 0)) hypotheses.set(priors);
    causes.fill(0);
    let none = 0;
    for (let h = 0; h < hypotheses.length; h++) {
      if (sum > 0) hypotheses[h]! /= sum;
      const chance = hypotheses[h]!;
      const set = sets[h]!;
      if (set.length === 0) none += chance;
      for (let k = 0; k < set.length; k++) causes[set[k]!]! += chance;
    }
    belief.none = none;
    return belief;
  }
}

/** Chances of causes alone, and of two together. */
export interface OnesAndPairs {
  ones: Float64Array;
  pairs: Float64Array;
}

/** @param count of causes */
export const onesAndPairsOf = (count: number): OnesAndPairs => ({
  ones: new Float64Array(count),
  pairs: new Float64Array(count * count),
});

function bits(chances: Float64Array): number {
  let sum = 0;
  for (let h = 0; h < chances.length; h++) {
    const chance = chances[h]!;
    // What is this unlikely adds nothing.
    if (chance > 1e-9) sum -= chance * Math.log2(chance);
  }
  return sum;
}
