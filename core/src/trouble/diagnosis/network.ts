import { Hypotheses } from './hypotheses.js';

/*
 * Exact inference over few faults at a time. A hypothesis is a set of causes present together: none,
 * one, or two (more where asked), and how each hidden state is under it. Each state and each finding is
 * made by any of the causes present (noisy-OR with a leak; Pearl 1988), or has a chance of its own for
 * each set; a finding may be made by states as well. Findings that follow from one state are not
 * independent evidence.
 *
 *   causes    filter   hose   pump           prior chance each, independent
 *               \   \   |   /
 *   state        \   water stands            P(state | set)
 *                 \   /   |    \
 *   findings     slow   code   locked        P(yes | set, states) = 1 - (1 - leak) Π (1 - strength)
 */

export interface Cause {
  id: string;
  /** Chance before anything was seen, above 0 and below 1. */
  prior: number;
}

/** Something that nobody sees, made by causes, from which several findings follow. */
export interface HiddenState {
  id: string;
  /** Chance that it is so, given the indices of the causes present, rising. */
  chance(present: readonly number[]): number;
}

export interface Finding {
  id: string;
  /** Chance that it is seen, given the indices of the causes present, rising, and the states. */
  chance(present: readonly number[], states?: readonly boolean[]): number;
}

/**
 * A finding that any of its causes can make, and sometimes nothing at all.
 * @param leak chance of seeing it where none of them is present, 0 to 1
 * @param links by index of the cause, the chance that it makes the finding, 0 to 1
 * @param byState by index of the state, the chance that it makes the finding, 0 to 1
 */
export function noisyOr(
  id: string,
  leak: number,
  links: ReadonlyMap<number, number>,
  byState: ReadonlyMap<number, number> = new Map(),
): Finding {
  return {
    id,
    chance: (present, states = []) => {
      let missed = 1 - leak;
      for (const cause of present) missed *= 1 - (links.get(cause) ?? 0);
      for (const [state, strength] of byState) if (states[state]) missed *= 1 - strength;
      return 1 - missed;
    },
  };
}

/** Causes and findings, ready to be asked. */
export class Network extends Hypotheses {
  /**
   * @param most so many causes may be present together
   * @throws RangeError for a prior that is not above 0 and below 1
   */
  constructor(
    readonly causes: readonly Cause[],
    readonly findings: readonly Finding[],
    most = 2,
    readonly states: readonly HiddenState[] = [],
  ) {
    for (const { id, prior } of causes) {
      if (!(prior > 0 && prior < 1))
        throw new RangeError(`The prior of "${id}" is above 0 and below 1.`);
    }
    const ways = waysOf(states.length);
    const all = setsUpTo(causes.length, most).flatMap((set) => ways.map((how) => ({ set, how })));
    const first = new Map(all.map(({ set }, h) => [set.join(), h - (h % ways.length)]));
    super(causes.length, {
      sets: all.map(({ set }) => set),
      less: all.map(({ set }, h) =>
        set.map(
          (cause) => first.get(set.filter((one) => one !== cause).join())! + (h % ways.length),
        ),
      ),
      ways: ways.length,
      priors: Float64Array.from(all, ({ set, how }) =>
        causes.reduce(
          (chance, { prior }, i) => chance * (set.includes(i) ? prior : 1 - prior),
          chanceOf(states, set, how),
        ),
      ),
      chances: new Map(
        findings.map((finding) => [
          finding.id,
          Float64Array.from(all, ({ set, how }) => finding.chance(set, how)),
        ]),
      ),
    });
  }

  /** Chance of a finding where these causes are there, over how the states may be. */
  chanceGiven(finding: Finding, present: readonly number[]): number {
    return waysOf(this.states.length).reduce(
      (sum, how) => sum + chanceOf(this.states, present, how) * finding.chance(present, how),
      0,
    );
  }
}

/** Every way that so many states can be. */
const waysOf = (states: number): boolean[][] =>
  Array.from({ length: 2 ** states }, (_, mask) =>
    Array.from({ length: states }, (_state, i) => Math.floor(mask / 2 ** i) % 2 === 1),
  );

/** Chance that hidden states are so, given the causes present. */
const chanceOf = (
  states: readonly HiddenState[],
  present: readonly number[],
  how: readonly boolean[],
): number =>
  states.reduce((sum, state, i) => {
    const is = state.chance(present);
    return sum * (how[i] ? is : 1 - is);
  }, 1);

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
