import { expect, it } from 'vitest';
import { RECIPES } from './recipes.js';
import { mixSequence, type PlannedMix } from './sequence.js';

const NOW = Date.parse('2026-03-01T10:00:00Z');
const recipe = (id: string) => RECIPES.find((one) => one.id === id)!;
const gives = (planned: readonly PlannedMix[], there: Parameters<typeof mixSequence>[1] = []) =>
  mixSequence(planned, there, NOW).map(({ meets }) => meets?.rule.gives);

it('stops an acid after chlorine in either order, until a full rinse', () => {
  const [bleach, vinegar, citric] = ['bleach-hot', 'vinegar-hot', 'citric-hot'].map(recipe);
  expect(gives([bleach!, vinegar!])).toEqual([undefined, 'chlorine gas']);
  expect(gives([citric!, bleach!])).toEqual([undefined, 'chlorine gas']);
  expect(gives([bleach!, 'rinse', vinegar!])).toEqual([undefined, undefined, undefined]);
  expect(gives([vinegar!, citric!])).toEqual([undefined, undefined]);
});

it('takes in what the machine’s record still has in it', () => {
  const used = [
    { entryId: 'e', at: NOW - 1000, kind: 'chemical', actives: ['hypochlorite'] } as const,
  ];
  expect(gives([recipe('vinegar-hot')], used)).toEqual(['chlorine gas']);
});
