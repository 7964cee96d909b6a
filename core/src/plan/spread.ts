/**
 * Work too long for one visit, over several days: in each as much as the limit takes, what shares set-ups together.
 * @param days how many there are; what fits in none goes to the last
 * @param minutes of some of it together
 * @param order what comes first, the lower
 * @returns by day, only days that have something
 */
export function spreadOver<T extends number | string>(
  work: readonly T[],
  days: number,
  limit: number,
  minutes: (some: readonly T[]) => number,
  order: (one: T) => number,
): T[][] {
  if (days < 2 || minutes(work) <= limit) return [[...work]];
  const loads: T[][] = [];
  const left = work.toSorted((a, b) => order(a) - order(b));
  while (left.length > 0) {
    const load = [left.shift()!];
    if (loads.length === days - 1) load.push(...left.splice(0));
    for (;;) {
      const before = minutes(load);
      // The one that adds least, of those that still fit.
      const next = left
        .map((one) => ({ one, more: minutes([...load, one]) - before }))
        .filter(({ more }) => before + more <= limit)
        .sort((a, b) => order(a.one) - order(b.one) || a.more - b.more)[0];
      if (!next) break;
      load.push(next.one);
      left.splice(left.indexOf(next.one), 1);
    }
    loads.push(load);
  }
  return loads;
}
