import { cheapestTimes, weeksAtHome } from './path.js';
import { PRICES, type Chore, type Problem } from './problem.js';

/** What doing a chore in a week costs by itself: its minutes, its season, and that nobody may be there. */
export function ownPrices({ weeks, away }: Problem, { minutes, season }: Chore): Float64Array {
  return Float64Array.from(
    { length: weeks },
    (_, week) => minutes + (season?.[week] ?? 0) + (away[week] ? PRICES.away : 0),
  );
}

/** What no plan can cost less than, as far as so many steps tell; never above what a plan is known to cost. Minutes. */
export function boundOf(problem: Problem, known: number, steps: number): number {
  const relaxation = new Relaxation(problem);
  for (let i = 0; i < steps; i++) relaxation.step(known);
  return Math.min(known, relaxation.bound);
}

/** Chores that share something, and what it costs each of them in each week. */
interface Group {
  cost: number;
  users: number[];
  /** By user and week; in each week they come to the cost. */
  shares: Float64Array[];
}

/**
 * A lower bound of what any plan costs (Lagrange's multipliers; Held and Karp 1971 for the steps): each set-up and each
 * way there is paid in shares by those that use it. Then each chore's times are a shortest path of its own, and
 * whatever the shares are, their sum is less than any plan's cost. The limit of a visit's minutes is left out, which
 * only lowers it.
 */
export class Relaxation {
  readonly #own: Float64Array[];
  readonly #home: Int32Array;
  readonly #groups: Group[];
  readonly #prices: Float64Array[];
  /** The best bound so far, minutes. */
  bound = 0;
  /** The times that the last shares led to. */
  plan: number[][] = [];
  #pace = 1;
  #idle = 0;

  constructor(private readonly problem: Problem) {
    const { chores, setups, places, weeks } = problem;
    this.#home = weeksAtHome(problem.away);
    this.#own = chores.map((chore) => ownPrices(problem, chore));
    this.#prices = this.#own.map((one) => Float64Array.from(one));
    const usersOf = (uses: (chore: Chore) => boolean) =>
      chores.flatMap((chore, i) => (uses(chore) ? [i] : []));
    const groups = [
      ...setups.map(({ minutes }, i) => ({
        minutes,
        users: usersOf((one) => one.setups.includes(i)),
      })),
      ...places.map(({ minutes }, i) => ({ minutes, users: usersOf((one) => one.place === i) })),
    ];
    this.#groups = groups
      .filter(({ users, minutes }) => users.length > 0 && minutes > 0)
      .map(({ minutes, users }) => ({
        cost: minutes,
        users,
        shares: users.map(() => new Float64Array(weeks).fill(minutes / users.length)),
      }));
  }

  /** One step: the chores' times under the shares as they are, and better shares by them. @returns the bound of it */
  step(target: number): number {
    const { chores, weeks } = this.problem;
    this.#prices.forEach((prices, i) => prices.set(this.#own[i]!));
    for (const { users, shares } of this.#groups) {
      users.forEach((user, k) => {
        const prices = this.#prices[user]!;
        const share = shares[k]!;
        for (let week = 0; week < weeks; week++) prices[week] = prices[week]! + share[week]!;
      });
    }
    const paths = chores.map((chore, i) =>
      cheapestTimes(chore, this.problem, this.#home, this.#prices[i]!),
    );
    this.plan = paths.map((path) => path.weeks);
    const value = paths.reduce((sum, { cost }) => sum + cost, 0);
    if (value > this.bound + 1e-9) {
      this.bound = value;
      this.#idle = 0;
    } else if (++this.#idle > 10) {
      this.#pace *= 0.6;
      this.#idle = 0;
    }
    this.#raise(Math.max(target - value, 0.001 * target));
    return value;
  }

  /** Whoever uses a thing in a week pays more of it there, and the others less. */
  #raise(missing: number): void {
    const { weeks } = this.problem;
    const done = this.plan.map((times) => {
      const is = new Uint8Array(weeks);
      for (const week of times) is[week] = 1;
      return is;
    });
    let length = 0;
    for (const { users } of this.#groups) {
      for (let week = 0; week < weeks; week++) {
        let n = 0;
        for (const user of users) n += done[user]![week]!;
        // What is left of the step after all shares have to come to the cost again.
        if (n > 0 && n < users.length) length += n * (1 - n / users.length);
      }
    }
    if (length === 0) return;
    const pace = (this.#pace * missing) / length;
    const shares = new Float64Array(Math.max(...this.#groups.map(({ users }) => users.length)));
    for (const group of this.#groups) {
      const { users, cost } = group;
      for (let week = 0; week < weeks; week++) {
        let n = 0;
        for (const user of users) n += done[user]![week]!;
        if (n === 0 || n === users.length) continue;
        users.forEach((user, k) => {
          shares[k] = group.shares[k]![week]! + pace * done[user]![week]!;
        });
        toSum(shares, users.length, cost);
        users.forEach((_, k) => (group.shares[k]![week] = shares[k]!));
      }
    }
  }
}

/**
 * The nearest shares to some that are at least 0 and come to a sum: the projection onto the simplex (Held, Wolfe and
 * Crowder 1974).
 */
function toSum(shares: Float64Array, count: number, sum: number): void {
  const sorted = Array.from(shares.subarray(0, count)).sort((a, b) => b - a);
  let total = 0;
  let less = 0;
  sorted.forEach((share, i) => {
    total += share;
    const cut = (total - sum) / (i + 1);
    if (share > cut) less = cut;
  });
  for (let k = 0; k < count; k++) shares[k] = Math.max(0, shares[k]! - less);
}
