import type { Check, TroubleCause } from '../data/types.js';
import type { Answers, Diagnosis } from './diagnosis.js';
import type { CauseBelief } from './network.js';

/** What it costs to have somebody come who finds what nobody thought of, minutes. */
export const SOMEBODY_ELSE = 180;
/** A look that saves fewer minutes than this only puts the work off. */
const WORTH_A_LOOK = 1;
/** Minutes that each hazard of a check counts for. */
const PER_HAZARD = 2;
/** Tries end where the rest is as unlikely as this. */
const ENOUGH = 0.995;
/** A chance below this is not worth a fix. */
const HARDLY = 0.02;

/** A check with what it is expected to tell. */
export interface CheckAdvice {
  check: Check;
  /** Minutes, with mess and hazards counted in. */
  cost: number;
  /** Bits it is expected to tell. */
  gain: number;
  /** Expected minutes to the end if it is done next. */
  expected: number;
}

export interface FixAdvice {
  cause: TroubleCause;
  chance: number;
  /** Expected minutes to the end if this is tried next. */
  expected: number;
}

export interface Advice {
  /** The best next step: a look, or a fix that is cheaper than looking further. */
  next: { check: CheckAdvice } | { fix: FixAdvice } | undefined;
  /** Checks not answered yet, the most telling a minute first. */
  checks: CheckAdvice[];
  /** Fixes, the likeliest a minute first. */
  fixes: FixAdvice[];
}

/** Minutes that a look costs, its mess and its hazards counted in. */
export const costOf = ({ minutes, mess, hazards = [] }: Check): number =>
  minutes + mess + PER_HAZARD * hazards.length;

/**
 * What to do next: look, or try a fix. Looks are ordered by bits a minute, fixes by chance over cost
 * (Heckerman, Breese and Rommelse 1995, "Decision-theoretic troubleshooting"); which of the two comes
 * first is decided by the minutes expected to the end.
 */
export function advise(trouble: Diagnosis, belief: CauseBelief, answers: Answers): Advice {
  const { network } = trouble;
  const explains = trouble.explaining(answers);
  const checks = trouble.checks
    .filter(
      ({ id, after = [] }) =>
        answers[id] === undefined &&
        trouble.tellsOf(id, explains) &&
        !after.some((before) => trouble.asks(before) && answers[before] === undefined),
    )
    .map((check): CheckAdvice => {
      const cost = costOf(check);
      const { chance, yes, no, gain } = network.ahead(belief, check.id);
      const expected =
        cost +
        chance * expectedMinutes(trouble, yes, explains) +
        (1 - chance) * expectedMinutes(trouble, no, explains);
      return { check, cost, gain, expected };
    })
    .sort((a, b) => b.gain / b.cost - a.gain / a.cost);
  const fixes = fixesFor(trouble, belief, explains);
  const [check, fix] = [checks[0], fixes[0]];
  const looking = check && check.gain > 0.01 ? check.expected : Infinity;
  if (fix && fix.expected <= looking + WORTH_A_LOOK) return { next: { fix }, checks, fixes };
  return { next: check && looking < Infinity ? { check } : undefined, checks, fixes };
}

function fixesFor(
  trouble: Diagnosis,
  belief: CauseBelief,
  explains: readonly boolean[],
): FixAdvice[] {
  const expected = expectedMinutes(trouble, belief, explains);
  const alone = trouble.network.alone(belief, explains);
  return trouble.causes
    .map((cause, i) => ({ cause, chance: belief.causes[i]!, expected, alone: alone[i]! }))
    .filter(({ chance }, i) => explains[i] && chance >= HARDLY)
    .sort((a, b) => b.alone / b.cause.fix.minutes - a.alone / a.cause.fix.minutes)
    .map(({ alone: _alone, ...advice }) => advice);
}

/**
 * Minutes to the end if fixes are tried one after the other, what likeliest cures a minute first. Where
 * two causes are there together, it takes both.
 * @param explains causes that make anything of what was seen; only these are tried
 */
function expectedMinutes(
  { causes, network }: Diagnosis,
  belief: CauseBelief,
  explains: readonly boolean[],
): number {
  const alone = network.alone(belief, explains);
  const order: { index: number; rate: number }[] = [];
  for (let i = 0; i < causes.length; i++) {
    if (!explains[i] || belief.causes[i]! < HARDLY) continue;
    order.push({ index: i, rate: alone[i]! / causes[i]!.fix.minutes });
  }
  order.sort((a, b) => b.rate - a.rate);
  const fixed: boolean[] = [];
  let cured = 0;
  let sum = 0;
  for (const { index } of order) {
    if (cured > ENOUGH) break;
    sum += causes[index]!.fix.minutes * (1 - cured);
    fixed[index] = true;
    cured = network.cured(belief, explains, fixed);
  }
  return sum + SOMEBODY_ELSE * (1 - cured);
}
