import { describe, expect, it } from 'vitest';
import type { AheadProblem } from './ahead.js';
import { costOf } from './cost.js';
import { partsOf, together } from './parts.js';
import { replan } from './standing.js';
import { madeUp } from './testing.js';

const seeds = Array.from({ length: 40 }, (_, i) => i + 1);

function ahead(seed: number): AheadProblem {
  const problem = madeUp(seed, { chores: 9, weeks: 26, limit: 60, follows: seed % 2 === 0 });
  return {
    ...{ ...problem, start: '2026-11-27', weekdays: [6], spans: [], closed: [] },
    of: problem.chores.map(({ id, safety }) => ({
      ...{ machineId: `m${seed}`, task: id, driver: 'days' as const, perWeek: 5, free: !safety },
      risk: { after: [], first: [], stake: 0 },
    })),
  };
}

/** Two houses of machines under one roof: nothing is shared between them. */
function beside(a: AheadProblem, b: AheadProblem): AheadProblem {
  const [chores, setups, places] = [a.chores.length, a.setups.length, a.places.length];
  return {
    ...a,
    away: a.away.map((one, week) => one || b.away[week]!),
    setups: [...a.setups, ...b.setups],
    places: [...a.places, ...b.places],
    of: [...a.of, ...b.of],
    chores: [
      ...a.chores,
      ...b.chores.map((chore) => ({
        ...chore,
        place: chore.place + places,
        setups: chore.setups.map((one) => one + setups),
        ...(chore.follows ? { follows: chore.follows.map((one) => one + chores) } : {}),
      })),
    ],
  };
}

describe('the parts of a problem', () => {
  it.each(seeds)('have every chore once, and share no place, set-up or order: house %i', (seed) => {
    const problem = beside(ahead(seed), ahead(seed + 100));
    const parts = partsOf(problem);
    expect(parts.length).toBeGreaterThan(1);
    const all = parts.flatMap(({ chores }) => chores).toSorted((a, b) => a - b);
    expect(all).toEqual(problem.chores.map((_, i) => i));
    const used = parts.map(({ chores }) => {
      const own = chores.map((i) => problem.chores[i]!);
      return new Set(
        own.flatMap(({ place, setups, follows = [] }, k) => [
          ...[`place ${place}`, `chore ${chores[k]!}`],
          ...setups.map((one) => `set-up ${one}`),
          ...follows.map((one) => `chore ${one}`),
        ]),
      );
    });
    for (const one of used) {
      const others = new Set(used.filter((other) => other !== one).flatMap((other) => [...other]));
      expect([...one].filter((what) => others.has(what))).toEqual([]);
    }
  });

  it.each(seeds)(
    'cost together what the whole costs, and name the same things: house %i',
    (seed) => {
      const problem = beside(ahead(seed), ahead(seed + 100));
      const parts = partsOf(problem);
      for (const { problem: part, chores } of parts) {
        part.chores.forEach((chore, k) => {
          const whole = problem.chores[chores[k]!]!;
          expect(chore.id).toBe(whole.id);
          expect(part.places[chore.place]!.id).toBe(problem.places[whole.place]!.id);
          expect(chore.setups.map((one) => part.setups[one]!.id)).toEqual(
            whole.setups.map((one) => problem.setups[one]!.id),
          );
          expect((chore.follows ?? []).map((one) => part.chores[one]!.id)).toEqual(
            (whole.follows ?? []).map((one) => problem.chores[one]!.id),
          );
        });
      }
      const made = parts.map(({ problem: part }) => replan(part, []));
      const { plan, cost, bound } = together(problem, parts, made);
      // What a plan costs is reckoned from the plan alone, and by nothing that made it.
      expect(cost).toBeCloseTo(costOf(problem, plan).total, 6);
      expect(bound).toBeLessThanOrEqual(cost + 1e-6);
      expect(replan(problem, []).cost).toBeCloseTo(cost, 6);
    },
  );
});
