import { chanceFrom } from './descent.js';
import { stepPrice, weeksAtHome } from './path.js';
import { ownPrices } from './relax.js';
import type { Chore, Problem } from './problem.js';

/** A house made up from a seed: machines with set-ups of their own, in places. */
export function madeUp(
  seed: number,
  {
    chores: most = 12,
    weeks = 20,
    limit,
    follows = false,
  }: { chores?: number; weeks?: number; limit?: number; follows?: boolean } = {},
): Problem {
  const chance = chanceFrom(seed * 7919 + 1);
  const below = (n: number) => Math.floor(chance() * n);
  const machines = 1 + below(3);
  const places = 1 + below(Math.min(2, machines));
  const setups = Array.from({ length: machines * 3 }, (_, i) => ({
    id: `set-up ${i}`,
    minutes: 3 + below(18),
  }));
  const chores = Array.from({ length: Math.max(3, most - below(4)) }, (_, i): Chore => {
    const machine = below(machines);
    const to = 2 + below(Math.max(3, Math.floor(weeks * 0.6)));
    const first = below(Math.min(weeks, to + 2));
    const safety = chance() < 0.2;
    return {
      id: `chore ${i}`,
      place: machine % places,
      minutes: 4 + below(25),
      setups: [0, 1, 2].filter(() => chance() < 0.4).map((one) => machine * 3 + one),
      safety,
      first: { from: Math.floor(first * 0.6), to: first },
      gap: { from: Math.max(1, Math.ceil(to * 0.6)), to },
      late: safety
        ? []
        : Array.from({ length: Math.floor(to * 0.2) }, (_, k) => 2 * (k + 1) + below(3)),
      byLoads: chance() < 0.5,
    };
  });
  const away = Array.from({ length: weeks }, () => false);
  if (chance() < 0.4) {
    const from = 1 + below(weeks - 4);
    away.fill(true, from, from + 1 + below(2));
  }
  return {
    weeks,
    chores: follows ? withFollowers(chores) : chores,
    setups,
    places: Array.from({ length: places }, (_, i) => ({ id: `place ${i}`, minutes: 10 })),
    away,
    ...(limit === undefined ? {} : { limit }),
  };
}

/** One follows two others, and another follows it, where they are at the same place; they are never too early. */
function withFollowers(chores: readonly Chore[]): Chore[] {
  const made = [...chores];
  const there = chores.flatMap(({ place }, i) => (place === chores[0]!.place ? [i] : []));
  const follow = (i: number | undefined, follows: (number | undefined)[]) => {
    const known = follows.filter((one) => one !== undefined);
    if (i === undefined || known.length === 0) return;
    const { first, gap } = made[i]!;
    made[i] = {
      ...made[i]!,
      first: { ...first, from: 0 },
      gap: { ...gap, from: 1 },
      follows: known,
    };
  };
  follow(there[2], [there[0], there[1]]);
  follow(there[3], [there[2]]);
  return made;
}

/**
 * The same problem as a 0-1 model, without the limit of a visit, in the LP format that solvers read: for each chore a
 * path of arcs over the weeks; each set-up and each way there is open where any path that needs it goes.
 */
export function zeroOne(problem: Problem): string {
  const { weeks, chores, setups, places, away } = problem;
  const home = weeksAtHome(away);
  const terms: string[] = [];
  const rows: string[] = [];
  const binary: string[] = [];
  const open = new Set<string>();
  const cost = (value: number, name: string) => terms.push(`+ ${value.toFixed(6)} ${name}`);
  chores.forEach((chore, i) => {
    const own = ownPrices(problem, chore);
    const into = Array.from({ length: weeks + 1 }, (): string[] => []);
    const outOf = Array.from({ length: weeks + 1 }, (): string[] => []);
    for (let from = -1; from < weeks; from++) {
      for (let to = from + 1; to <= weeks; to++) {
        const name = `x_${i}_${from + 1}_${to + 1}`;
        cost(stepPrice(chore, weeks, home, from, to) + (to < weeks ? own[to]! : 0), name);
        binary.push(name);
        into[to]!.push(name);
        if (from >= 0) outOf[from]!.push(name);
      }
    }
    const starts = Array.from({ length: weeks + 1 }, (_, to) => `x_${i}_0_${to + 1}`);
    rows.push(`${starts.join(' + ')} = 1`);
    for (let week = 0; week < weeks; week++) {
      rows.push(`${into[week]!.join(' + ')} - ${outOf[week]!.join(' - ')} = 0`);
      const needs = [...chore.setups.map((s) => `s_${s}_${week}`), `p_${chore.place}_${week}`];
      for (const need of needs) {
        open.add(need);
        rows.push(`${need} - ${into[week]!.join(' - ')} >= 0`);
      }
    }
  });
  // What has to follow is done wherever what it follows is.
  chores.forEach(({ follows = [] }, i) => {
    for (const leader of follows) {
      for (let week = 0; week < weeks; week++) {
        const into = (chore: number) =>
          Array.from({ length: week + 1 }, (_, from) => `x_${chore}_${from}_${week + 1}`);
        rows.push(`${into(i).join(' + ')} - ${into(leader).join(' - ')} >= 0`);
      }
    }
  });
  for (const name of open) {
    const [kind, index] = name.split('_');
    cost((kind === 's' ? setups : places)[Number(index)]!.minutes, name);
  }
  const lines = rows.map((row, i) => ` r${i}: ${row}`);
  const bounds = [...open].map((name) => ` 0 <= ${name} <= 1`);
  return [
    ...['Minimize', ` cost: ${terms.join('\n ')}`, 'Subject To', ...lines],
    ...['Bounds', ...bounds, 'Binary', ...binary.map((name) => ` ${name}`), 'End'],
  ].join('\n');
}
