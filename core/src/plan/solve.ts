import { costOf } from './cost.js';
import { Descent } from './descent.js';
import type { Plan, Problem } from './problem.js';
import { Relaxation } from './relax.js';

/** The best plan so far. */
export interface Progress {
  plan: Plan;
  /** Minutes. */
  cost: number;
  /** Less than this no plan can cost. */
  bound: number;
}

export interface Solving {
  seed?: number;
  /** A plan to begin with, such as yesterday's. */
  start?: Plan;
  /** Weeks in which chores are done whatever it costs. */
  fixed?: Plan;
  /** Rounds at most. */
  rounds?: number;
  /** Near enough to the bound to stop, as a part of it. */
  enough?: number;
  /** Of the relaxation in each round; with none there is no bound. */
  steps?: number;
}

const ROUNDS = 400;
/** Rounds between two plans that begin from the relaxation. */
const FROM_SHARES = 20;
const SHAKES = 6;
/** Of the relaxation, in each round. */
const STEPS = 8;

/**
 * Plans a year: a first plan at once, then better ones with a bound that rises, until the rounds are over, the plan is
 * proven best, or nobody asks on. Each `next()` is one round: between two, others may work.
 */
export function* solve(
  problem: Problem,
  { seed = 1, start, fixed, rounds = ROUNDS, enough = 0, steps = STEPS }: Solving = {},
): Generator<Progress, Progress> {
  const given = { ...(start ? { start } : {}), ...(fixed ? { fixed } : {}) };
  let descent = new Descent(problem, { seed, ...given });
  descent.settle();
  let best: Progress = { plan: descent.plan, cost: costOf(problem, descent.plan).total, bound: 0 };
  yield best;
  const relaxation = new Relaxation(problem);
  for (let round = 1; round <= rounds; round++) {
    for (let i = 0; i < steps; i++) relaxation.step(best.cost);
    let { plan, cost } = best;
    if (steps > 0 && round % FROM_SHARES === 0) {
      const other = new Descent(problem, {
        seed: seed + round,
        start: fixed ? withFixed(relaxation.plan, fixed) : relaxation.plan,
        ...(fixed ? { fixed } : {}),
      });
      other.settle();
      for (let i = 0; i < 3 * SHAKES; i++) other.shake();
      if (other.cost() < descent.cost() - 1e-9) descent = other;
    } else for (let i = 0; i < SHAKES; i++) descent.shake();
    const now = costOf(problem, descent.plan).total;
    if (now < cost - 1e-9) {
      plan = descent.plan;
      cost = now;
    }
    best = { plan, cost, bound: Math.min(cost, relaxation.bound) };
    yield best;
    if (cost - best.bound <= enough * cost + 1e-6) break;
  }
  return best;
}

/** The plan of the shares with what is fixed in it; settling puts the rest right. */
const withFixed = (plan: Plan, fixed: Plan): Plan =>
  plan.map((times, i) => [...new Set([...times, ...(fixed[i] ?? [])])].sort((a, b) => a - b));
