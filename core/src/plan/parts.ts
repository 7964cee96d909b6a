import type { AheadProblem } from './ahead.js';
import { groupedBy } from '../units/grouped.js';
import type { Plan } from './problem.js';
import type { Progress } from './solve.js';

/** A part of a problem that shares nothing with the others. */
export interface Part {
  problem: AheadProblem;
  /** Its chores' indexes in the whole. */
  chores: readonly number[];
}

/**
 * Parts a problem into those that share no place, no set-up and no order: each is planned as well by itself as together
 * with the others, and in a fraction of the time.
 *
 * ```
 *   chore a - set-up 1 - chore b        one part
 *               place x - chore c       joined to it where c is at the place of a or b
 *   chore d - place y                   another
 * ```
 */
export function partsOf(problem: AheadProblem): Part[] {
  const { chores, setups, places } = problem;
  const root = chores.map((_, i) => i);
  const find = (i: number): number => {
    let at = i;
    while (root[at] !== at) at = root[at] = root[root[at]!]!;
    return at;
  };
  const firstAt = new Map<string, number>();
  const join = (what: string, i: number): void => {
    const other = firstAt.get(what);
    if (other === undefined) firstAt.set(what, i);
    else root[find(i)] = find(other);
  };
  chores.forEach(({ place, setups: own, follows = [] }, i) => {
    join(`place ${place}`, i);
    for (const setup of own) join(`set-up ${setup}`, i);
    for (const other of follows) root[find(i)] = find(other);
  });
  const groups = groupedBy(chores.keys(), find);
  if (groups.size <= 1) return [{ problem, chores: root.map((_, i) => i) }];
  return [...groups.values()].map((own) => {
    const chore = indexOf(own);
    const setup = indexOf(own.flatMap((i) => [...chores[i]!.setups]));
    const place = indexOf(own.map((i) => chores[i]!.place));
    return {
      chores: own,
      problem: {
        ...problem,
        setups: [...setup.keys()].map((i) => setups[i]!),
        places: [...place.keys()].map((i) => places[i]!),
        of: own.map((i) => problem.of[i]!),
        chores: own.map((i) => {
          const { follows, ...rest } = chores[i]!;
          return {
            ...rest,
            place: place.get(rest.place)!,
            setups: rest.setups.map((one) => setup.get(one)!),
            ...(follows ? { follows: follows.map((one) => chore.get(one)!) } : {}),
          };
        }),
      },
    };
  });
}

/** The places of things among themselves, each once, in their order. */
function indexOf(things: readonly number[]): Map<number, number> {
  const found = new Map<number, number>();
  for (const one of things) if (!found.has(one)) found.set(one, found.size);
  return found;
}

/** Puts the plans of parts together: what they cost, and what none can cost less than, adds up. */
export function together(
  problem: AheadProblem,
  parts: readonly Part[],
  made: readonly Progress[],
): Progress {
  const plan: Plan[number][] = problem.chores.map(() => []);
  parts.forEach(({ chores }, k) => chores.forEach((i, j) => (plan[i] = made[k]!.plan[j]!)));
  return {
    plan,
    cost: made.reduce((sum, { cost }) => sum + cost, 0),
    bound: made.reduce((sum, { bound }) => sum + bound, 0),
  };
}
