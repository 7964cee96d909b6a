import { minutesLeft, stagesOf, type Made } from '../data/stages.js';
import type { Check, TroubleCause } from '../data/types.js';
import type { Answers, Diagnosis } from './diagnosis.js';
import { onesAndPairsOf, type CauseBelief, type Hypotheses } from './hypotheses.js';

/** What it costs to have somebody come who finds what nobody thought of, minutes. */
export const SOMEBODY_ELSE = 180;
/** What it costs to let it rest and watch the next load, minutes; where nothing is wrong, that is the end. */
export const WATCH = 10;
/** A look that saves fewer minutes than this only puts the work off. */
const WORTH_A_LOOK = 1;
/** Minutes that each hazard of a check counts for. */
const PER_HAZARD = 2;
/** Tries end where the rest is as unlikely as this. */
const ENOUGH = 0.995;
/** A chance below this is not worth a fix. */
const HARDLY = 0.02;
/** Before a long job the cheap ends are looked at, even where that saves nothing: for so much of its minutes. */
const BEFORE_A_JOB = 0.12;
/** Minutes within which two fixes come to the same. */
const THE_SAME = 1;
/** Looking ahead keeps to the hypotheses that make up so much of the belief. */
const FOCUS = 0.98;
/** Looks, and fixes, that are followed one step further. */
const LOOKS_AHEAD = 4;
const FIXES_AHEAD = 2;

/** A check with what it is expected to tell. */
export interface CheckAdvice {
  check: Check;
  /** Minutes, with mess and hazards counted in, and without what was made for an earlier look. */
  cost: number;
  /** Bits it is expected to tell. */
  gain: number;
  /** Expected minutes to the end if it is done next. */
  expected: number;
}

export interface FixAdvice {
  cause: TroubleCause;
  chance: number;
  /** Minutes, without what was made for an earlier look. */
  minutes: number;
  /** Expected minutes to the end if this is tried next. */
  expected: number;
}

export interface Advice {
  /**
   * The best next step: a look, or a fix that is cheaper than looking further; none where it is best to
   * let it rest and watch the next load.
   */
  next: { check: CheckAdvice } | { fix: FixAdvice } | undefined;
  /** Checks not answered yet, the most telling a minute first. */
  checks: CheckAdvice[];
  /** Fixes, the likeliest a minute first. */
  fixes: FixAdvice[];
}

const messOf = ({ mess, hazards = [] }: Check): number => mess + PER_HAZARD * hazards.length;

/**
 * Minutes that a look costs, its mess and its hazards counted in; these were met already where all that it
 * opens is open.
 * @param made stages that an earlier look or repair made
 */
export const costOf = (check: Check, made: Made = 0): number => {
  const own = stagesOf(check);
  return minutesLeft(check.minutes, own, made) + (own && (own & made) === own ? 0 : messOf(check));
};

/**
 * What to do next: look, or try a fix, by the minutes expected to the end (Heckerman, Breese and Rommelse
 * 1995, "Decision-theoretic troubleshooting"). The most promising looks and fixes are followed two steps
 * ahead; beyond that, fixes are tried in the order of chance over cost. Looks are listed by bits a minute.
 * @param failed causes, by index, that were put right, and the trouble went on
 */
export function advise(
  trouble: Diagnosis,
  belief: CauseBelief,
  answers: Answers,
  failed: readonly number[] = trouble.failed,
): Advice {
  return new Adviser(trouble, belief, answers, failed).advise();
}

/** What is known of a case while it is looked ahead. */
interface Node {
  belief: CauseBelief;
  made: Made;
  /** Looks made on the way. */
  looked: readonly Check[];
  /** Fixes tried, by index. */
  failed: readonly number[];
}

/** A cause that may be tried. */
interface Trial {
  cause: TroubleCause;
  chance: number;
  own: Made;
}

/** Looks ahead from one state of a case, over the causes that explain it and the likeliest hypotheses. */
class Adviser {
  readonly #few: Hypotheses;
  readonly #trials: readonly Trial[];
  readonly #checks: readonly Check[];
  readonly #asks: ReadonlySet<string>;
  readonly #answered: ReadonlySet<string>;
  readonly #root: Node;
  /** Written over at each step ahead: what is believed there, and the chances in it. */
  readonly #there: CauseBelief;
  readonly #alone: ReturnType<typeof onesAndPairsOf>;
  readonly #order: number[] = [];
  readonly #rates: Float64Array;
  readonly #fixed: number[] = [];

  constructor(
    trouble: Diagnosis,
    belief: CauseBelief,
    answers: Answers,
    failed: readonly number[],
  ) {
    const explains = trouble.explaining(answers);
    this.#checks = trouble.checks.filter(
      ({ id }) => answers[id] === undefined && trouble.tellsOf(id, explains),
    );
    const asked = this.#checks.map(({ id }) => id);
    const focus = trouble.network.focused(belief, explains, FOCUS, asked);
    this.#few = focus.few;
    this.#trials = focus.causes.map((i) => {
      const cause = trouble.causes[i]!;
      return { cause, chance: belief.causes[i]!, own: stagesOf(cause.fix) };
    });
    this.#there = this.#few.blank();
    this.#alone = onesAndPairsOf(this.#trials.length);
    this.#rates = new Float64Array(this.#trials.length);
    this.#asks = new Set(trouble.checks.map(({ id }) => id));
    this.#answered = new Set(Object.keys(answers));
    const done = trouble.checks.filter(({ id }) => (answers[id] ?? 'unknown') !== 'unknown');
    this.#root = {
      belief: focus.belief,
      made: done.reduce((made, check) => made | stagesOf(check), 0),
      looked: [],
      failed: failed.flatMap((i) => {
        const at = focus.causes.indexOf(i);
        return at < 0 ? [] : [at];
      }),
    };
  }

  advise(): Advice {
    const looks = this.#looks();
    const fixes = this.#fixes();
    const best = <T extends { expected: number }>(some: readonly T[]): T | undefined =>
      [...some].sort((a, b) => a.expected - b.expected)[0];
    const look = best(looks);
    const cheapest = best(fixes);
    // Of fixes that come to the same, the likeliest.
    const fix = fixes
      .filter(({ expected }) => expected <= (cheapest?.expected ?? Infinity) + THE_SAME)
      .sort((a, b) => b.chance - a.chance)[0];
    // Only where nothing on the list is likelier than nothing at all is it left to rest.
    const stop =
      likeliest(this.#root.belief) < 0
        ? WATCH + SOMEBODY_ELSE * (1 - this.#root.belief.none)
        : Infinity;
    const [looking, fixing] = [look?.expected ?? Infinity, cheapest?.expected ?? Infinity];
    const next =
      stop <= Math.min(looking, fixing)
        ? undefined
        : fix && fixing <= looking + WORTH_A_LOOK - BEFORE_A_JOB * fix.minutes
          ? { fix }
          : look && { check: look };
    return {
      next,
      checks: looks.sort((a, b) => b.gain / b.cost - a.gain / a.cost),
      fixes,
    };
  }

  /** Looks that tell one cause from another, the most promising followed further. */
  #looks(): CheckAdvice[] {
    const root = this.#root;
    const looks = this.#open(root).flatMap((check) => {
      const { chance, yes, no, gain } = this.#few.ahead(root.belief, check.id);
      if (likeliest(yes) === likeliest(no) || gain <= 0.01) return [];
      const cost = costOf(check, root.made);
      const after = (how: (node: Node) => number) =>
        cost +
        chance * how(afterLook(root, check, yes)) +
        (1 - chance) * how(afterLook(root, check, no));
      const expected = after((node) => this.#tries(node));
      return { advice: { check, cost, gain, expected }, after };
    });
    looks.sort((a, b) => a.advice.expected - b.advice.expected);
    for (const { advice, after } of looks.slice(0, LOOKS_AHEAD)) {
      advice.expected = after((node) => this.#further(node));
    }
    return looks.map(({ advice }) => advice);
  }

  /** Fixes worth a try, the likeliest to be all it takes a minute first; the first of them followed further. */
  #fixes(): FixAdvice[] {
    const { belief, made, failed } = this.#root;
    const { ones } = this.#few.onesAndPairs(belief);
    return this.#trials
      .map((trial, i) => ({ trial, i, minutes: this.#minutes(i, made) }))
      .filter(({ trial, i }) => trial.chance >= HARDLY && !failed.includes(i))
      .sort((a, b) => ones[b.i]! / b.minutes - ones[a.i]! / a.minutes)
      .map(({ trial: { cause, chance }, i, minutes }, rank) => ({
        cause,
        chance,
        minutes,
        expected: rank < FIXES_AHEAD ? this.#fixFirst(i, ones[i]!, minutes) : Infinity,
      }));
  }

  /** Minutes to the end if a cause is put right next. @param cured chance that it is all it takes */
  #fixFirst(i: number, cured: number, minutes: number): number {
    const { belief, made, looked, failed } = this.#root;
    if (cured > ENOUGH) return minutes;
    const node = {
      belief: this.#few.afterFailed(belief, i),
      made: made | this.#trials[i]!.own,
      looked,
      failed: [...failed, i],
    };
    return minutes + (1 - cured) * this.#further(node);
  }

  #minutes(i: number, made: Made): number {
    const { cause, own } = this.#trials[i]!;
    return minutesLeft(cause.fix.minutes, own, made);
  }

  /** Checks that can be asked now: not asked yet, and what they presuppose was. */
  #open({ looked }: Node): Check[] {
    const isAsked = (id: string) => this.#answered.has(id) || looked.some((one) => one.id === id);
    return this.#checks.filter(
      ({ id, after = [] }) =>
        !isAsked(id) && !after.some((before) => this.#asks.has(before) && !isAsked(before)),
    );
  }

  /** Minutes to the end with the best look or fix next, and tries from then on. */
  #further(node: Node): number {
    let best = this.#tries(node);
    for (const check of this.#open(node)) {
      const cost = costOf(check, node.made);
      if (cost >= best) continue;
      const chance = this.#few.chance(check.id, node.belief);
      if (chance < 0.005 || chance > 0.995) continue;
      const made = node.made | stagesOf(check);
      const tries = (seen: boolean) => {
        const belief = this.#few.after(node.belief, check.id, seen, this.#there);
        return this.#tries({ belief, made, failed: node.failed });
      };
      const seen = cost + chance * tries(true);
      // What is dearer already cannot become the best.
      if (seen < best) best = Math.min(best, seen + (1 - chance) * tries(false));
    }
    return best;
  }

  /**
   * Minutes to the end if fixes are tried one after the other, what likeliest cures a minute first, while
   * that is cheaper than to let it rest. Where two causes are there together, it takes both.
   */
  #tries({ belief, made, failed }: Omit<Node, 'looked'>): number {
    const { ones, pairs } = this.#few.onesAndPairs(belief, this.#alone);
    const n = ones.length;
    const [order, rates, fixed] = [this.#order, this.#rates, this.#fixed];
    order.length = 0;
    fixed.length = 0;
    for (let i = 0; i < n; i++) {
      if (belief.causes[i]! < HARDLY || failed.includes(i)) continue;
      rates[i] = ones[i]! / this.#minutes(i, made);
      order.push(i);
    }
    order.sort((a, b) => rates[b]! - rates[a]!);
    let [done, cured, sum] = [made, 0, 0];
    for (const i of order) {
      if (cured > ENOUGH) break;
      let more = ones[i]!;
      for (const other of fixed) more += pairs[i * n + other]!;
      const cost = this.#minutes(i, done) * (1 - cured);
      if (cost > SOMEBODY_ELSE * more) continue;
      sum += cost;
      done |= this.#trials[i]!.own;
      cured += more;
      fixed.push(i);
    }
    const left = Math.max(0, 1 - cured);
    return sum + WATCH * left + SOMEBODY_ELSE * Math.max(0, left - belief.none);
  }
}

const afterLook = ({ made, looked, failed }: Node, check: Check, belief: CauseBelief): Node => ({
  belief,
  made: made | stagesOf(check),
  looked: [...looked, check],
  failed,
});

/** The cause that is likeliest, by index; -1 where none is likelier than something else. */
function likeliest({ causes, none }: CauseBelief): number {
  let [best, most] = [-1, none];
  for (let i = 0; i < causes.length; i++) if (causes[i]! > most) [best, most] = [i, causes[i]!];
  return best;
}
