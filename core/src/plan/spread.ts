/** What work takes. */
export interface Takes<T> {
  /** Some of it together, minutes. */
  minutes: (some: readonly T[]) => number;
  /** One more beside some, minutes: what those made is there already. */
  more: (some: readonly T[], one: T) => number;
}

/**
 * Work too long for one visit, over several days: in each as much as the limit takes, what shares set-ups together.
 * @param days how many there are; what fits in none goes to the last
 * @param order what comes first, the lower
 * @returns by day, only days that have something
 */
export function spreadOver<T extends number | string>(
  work: readonly T[],
  days: number,
  limit: number,
  { minutes, more }: Takes<T>,
  order: (one: T) => number,
): T[][] {
  if (days < 2 || minutes(work) <= limit) return [[...work]];
  const loads: T[][] = [];
  const left = work.toSorted((a, b) => order(a) - order(b));
  while (left.length > 0) {
    const load = [left.shift()!];
    if (loads.length === days - 1) load.push(...left.splice(0));
    let before = minutes(load);
    for (;;) {
      // The one that adds least, of those that still fit; of several the first.
      let next = -1;
      let least = Infinity;
      left.forEach((one, i) => {
        if (next >= 0 && order(one) > order(left[next]!)) return;
        const by = more(load, one);
        if (before + by > limit) return;
        if (next >= 0 && order(one) === order(left[next]!) && by >= least) return;
        next = i;
        least = by;
      });
      if (next < 0) break;
      load.push(...left.splice(next, 1));
      before += least;
    }
    loads.push(load);
  }
  return loads;
}
