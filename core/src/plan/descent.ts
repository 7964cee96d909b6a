import { overBy } from './cost.js';
import { cheapestTimes, stepPrice, weeksAtHome } from './path.js';
import { PRICES, type Plan, type Problem } from './problem.js';
import { ownPrices } from './relax.js';

/** Numbers between 0 and 1 that look like chance and are the same for the same seed (Vigna's splitmix, 32 bits). */
export function chanceFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x9e3779b9) >>> 0;
    let mixed = state;
    mixed = Math.imul(mixed ^ (mixed >>> 16), 0x21f0aaad);
    mixed = Math.imul(mixed ^ (mixed >>> 15), 0x735a2d97);
    return ((mixed ^ (mixed >>> 15)) >>> 0) / 2 ** 32;
  };
}

/**
 * A plan that gets better: one chore at a time is taken out and put back by its cheapest times, where what the others
 * open is free. Each such step is exact for its chore, so the plan never costs more after it.
 */
export class Descent {
  readonly #own: Float64Array[];
  readonly #home: Int32Array;
  readonly #plan: number[][];
  /** How many chores use a set-up, or are done at a place, by week. */
  readonly #made: Uint16Array[];
  readonly #there: Uint16Array[];
  /** Minutes of tasks and set-ups, by place and week. */
  readonly #minutes: Float64Array[];
  readonly #prices: Float64Array;
  readonly #chance: () => number;
  readonly #fixed: readonly (readonly number[])[];
  /** What follows each chore, by its index. */
  readonly #followers: readonly (readonly number[])[];
  /** How many one after another each follows. */
  readonly #depth: readonly number[];

  /**
   * @param start a plan to begin with; else each chore is put in, the least free first
   * @param fixed weeks in which chores are done whatever it costs: moved by hand, begun
   */
  constructor(
    private readonly problem: Problem,
    { seed = 1, start, fixed = [] }: { seed?: number; start?: Plan; fixed?: Plan } = {},
  ) {
    const { chores, setups, places, weeks } = problem;
    this.#home = weeksAtHome(problem.away);
    this.#own = chores.map((chore) => ownPrices(problem, chore));
    this.#made = setups.map(() => new Uint16Array(weeks));
    this.#there = places.map(() => new Uint16Array(weeks));
    this.#minutes = places.map(() => new Float64Array(weeks));
    this.#prices = new Float64Array(weeks);
    this.#chance = chanceFrom(seed);
    this.#fixed = fixed;
    this.#plan = chores.map(() => []);
    this.#followers = chores.map((_, leader) =>
      chores.flatMap(({ follows = [] }, i) => (follows.includes(leader) ? [i] : [])),
    );
    this.#depth = depthsOf(problem);
    if (start) {
      start.forEach((times, i) => this.#put(i, times));
      for (const i of this.#inOrder(chores.map((_, k) => k))) {
        if (!chores[i]!.follows) continue;
        this.#take(i);
        this.#put(i, this.#best(i));
      }
    } else for (const i of this.#inOrder(this.#byFreedom())) this.#put(i, this.#best(i));
  }

  get plan(): number[][] {
    return this.#plan.map((times) => [...times]);
  }

  /** Puts every chore anew until none gets better. @returns what is saved, minutes */
  settle(among: readonly number[] = this.problem.chores.map((_, i) => i)): number {
    let saved = 0;
    for (let round = 0; round < 40; round++) {
      let now = 0;
      for (const i of this.#shuffled(among)) now += this.#again(i);
      saved += now;
      if (now < 1e-6) break;
    }
    return saved;
  }

  /**
   * Takes several chores out that meet somewhere, puts them back in another order, and lets all settle; what is dearer
   * after it is taken back.
   * @returns what is saved, minutes
   */
  shake(): number {
    if (this.#plan.length === 0) return 0;
    const before = this.#plan.map((times) => [...times]);
    const out = this.#withFollowers(this.#some());
    const cost = this.cost();
    for (const i of out) this.#take(i);
    for (const i of this.#inOrder(this.#shuffled(out))) this.#put(i, this.#best(i));
    this.settle(out);
    this.settle();
    const saved = cost - this.cost();
    if (saved > -1e-9) return saved;
    before.forEach((times, i) => {
      if (same(times, this.#plan[i]!)) return;
      this.#take(i);
      this.#put(i, times);
    });
    return 0;
  }

  /** What the plan costs by what is open now; `costOf` reckons it from the plan alone. */
  cost(): number {
    const { chores, setups, places, weeks, limit = Infinity } = this.problem;
    let sum = 0;
    this.#plan.forEach((times, i) => {
      for (const week of times) sum += this.#own[i]![week]!;
      sum += this.#rhythm(i, times);
    });
    for (let week = 0; week < weeks; week++) {
      setups.forEach(({ minutes }, i) => (sum += this.#made[i]![week]! > 0 ? minutes : 0));
      places.forEach(({ minutes }, i) => {
        const there = this.#there[i]![week]!;
        if (there > 0) sum += minutes;
        sum += PRICES.over * overBy(this.#minutes[i]![week]!, there, limit);
      });
    }
    return chores.length ? sum : 0;
  }

  #rhythm(i: number, times: readonly number[]): number {
    const { weeks, chores } = this.problem;
    let sum = 0;
    let from = -1;
    for (const week of [...times, weeks]) {
      sum += stepPrice(chores[i]!, weeks, this.#home, from, week);
      from = week;
    }
    return sum;
  }

  /** The dearer it is to wait, the sooner it is put in. */
  #byFreedom(): number[] {
    const { chores } = this.problem;
    const free = ({ safety, gap, first }: (typeof chores)[number]) =>
      (safety ? 0 : 1000) + Math.min(gap.to - gap.from, first.to - first.from) + gap.to / 10;
    return chores.map((_, i) => i).sort((a, b) => free(chores[a]!) - free(chores[b]!) || a - b);
  }

  /** What follows comes after what it follows. */
  #inOrder(all: readonly number[]): number[] {
    return [...all].sort((a, b) => this.#depth[a]! - this.#depth[b]!);
  }

  /** Some chores and all that follows them, in order. */
  #withFollowers(some: readonly number[]): number[] {
    const all = new Set(some);
    for (const i of all) for (const follower of this.#followers[i]!) all.add(follower);
    return this.#inOrder([...all]);
  }

  /** A chore and what follows it, put anew together; dearer than before, it is taken back. */
  #againLeading(i: number): number {
    const moved = this.#withFollowers([i]);
    const before = moved.map((one) => this.#plan[one]!);
    const cost = this.cost();
    for (const one of moved) this.#take(one);
    for (const one of moved) this.#put(one, this.#best(one));
    const saved = cost - this.cost();
    if (saved > 1e-9) return saved;
    moved.forEach((one, k) => {
      this.#take(one);
      this.#put(one, before[k]!);
    });
    return 0;
  }

  #again(i: number): number {
    if (this.#followers[i]!.length > 0) return this.#againLeading(i);
    const before = this.#plan[i]!;
    this.#take(i);
    const prices = this.#pricesOf(i);
    const then = before.reduce((sum, week) => sum + prices[week]!, this.#rhythm(i, before));
    const { weeks, cost } = this.#cheapest(i, prices);
    const better = then - cost > 1e-9;
    this.#put(i, better ? weeks : before);
    return better ? then - cost : 0;
  }

  #best(i: number): number[] {
    return this.#cheapest(i, this.#pricesOf(i)).weeks;
  }

  #cheapest(i: number, prices: Float64Array) {
    return cheapestTimes(
      this.problem.chores[i]!,
      this.problem,
      this.#home,
      prices,
      this.#mustBe(i),
    );
  }

  /** Weeks in which a chore is done whatever it costs: by hand, or after what it follows. */
  #mustBe(i: number): readonly number[] {
    const { follows } = this.problem.chores[i]!;
    const fixed = this.#fixed[i] ?? [];
    return follows ? [...fixed, ...follows.flatMap((leader) => this.#plan[leader]!)] : fixed;
  }

  /** What it costs to do a chore in each week, by what the others have open there. */
  #pricesOf(i: number): Float64Array {
    const { chores, setups, places, weeks, limit = Infinity } = this.problem;
    const chore = chores[i]!;
    const prices = this.#prices;
    const own = this.#own[i]!;
    const there = this.#there[chore.place]!;
    const minutes = this.#minutes[chore.place]!;
    const way = places[chore.place]!.minutes;
    for (let week = 0; week < weeks; week++) {
      let more = 0;
      for (const setup of chore.setups) {
        if (this.#made[setup]![week] === 0) more += setups[setup]!.minutes;
      }
      // What has to follow it comes along.
      for (const follower of this.#followers[i]!) {
        if (!this.#plan[follower]!.includes(week)) more += this.#moreFor(follower, week);
      }
      const tasks = there[week]!;
      const over =
        limit === Infinity
          ? 0
          : overBy(minutes[week]! + chore.minutes + more, tasks + 1, limit) -
            overBy(minutes[week]!, tasks, limit);
      prices[week] = own[week]! + more + (tasks === 0 ? way : 0) + PRICES.over * over;
    }
    return prices;
  }

  #moreFor(i: number, week: number): number {
    const { minutes, setups } = this.problem.chores[i]!;
    return setups.reduce(
      (sum, one) => sum + (this.#made[one]![week] === 0 ? this.problem.setups[one]!.minutes : 0),
      minutes,
    );
  }

  #put(i: number, times: readonly number[]): void {
    const { place, setups, minutes } = this.problem.chores[i]!;
    for (const week of times) {
      this.#there[place]![week]!++;
      let more = minutes;
      for (const setup of setups) {
        if (this.#made[setup]![week]!++ === 0) more += this.problem.setups[setup]!.minutes;
      }
      this.#minutes[place]![week]! += more;
    }
    this.#plan[i] = [...times];
  }

  #take(i: number): void {
    const { place, setups, minutes } = this.problem.chores[i]!;
    for (const week of this.#plan[i]!) {
      this.#there[place]![week]!--;
      let less = minutes;
      for (const setup of setups) {
        if (--this.#made[setup]![week]! === 0) less += this.problem.setups[setup]!.minutes;
      }
      this.#minutes[place]![week]! -= less;
    }
    this.#plan[i] = [];
  }

  /** A few chores that share a set-up or a place with one another. */
  #some(): number[] {
    const { chores } = this.problem;
    const first = Math.floor(this.#chance() * chores.length);
    const one = chores[first]!;
    const bySetUp = this.#chance() < 0.5 && one.setups.length > 0;
    const near = chores.flatMap((other, i) =>
      i !== first &&
      (bySetUp ? other.setups.some((s) => one.setups.includes(s)) : other.place === one.place)
        ? [i]
        : [],
    );
    const count = 1 + Math.floor(this.#chance() * 7);
    return [first, ...this.#shuffled(near).slice(0, count)];
  }

  #shuffled(all: readonly number[]): number[] {
    const mixed = [...all];
    for (let i = mixed.length - 1; i > 0; i--) {
      const k = Math.floor(this.#chance() * (i + 1));
      [mixed[i], mixed[k]] = [mixed[k]!, mixed[i]!];
    }
    return mixed;
  }
}

/** @throws RangeError where chores follow one another in a circle */
function depthsOf({ chores }: Problem): number[] {
  const depthOf = (i: number, seen: readonly number[]): number => {
    if (seen.includes(i)) throw new RangeError(`${chores[i]!.id} follows itself.`);
    const { follows = [] } = chores[i]!;
    return follows.length ? 1 + Math.max(...follows.map((one) => depthOf(one, [...seen, i]))) : 0;
  };
  return chores.map((_, i) => depthOf(i, []));
}

const same = (a: readonly number[], b: readonly number[]): boolean =>
  a.length === b.length && a.every((week, i) => week === b[i]);
