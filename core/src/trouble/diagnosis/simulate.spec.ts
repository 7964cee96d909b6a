import { randomLcg } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS } from '../../model/vocabulary.js';
import { Diagnosis } from './diagnosis.js';
import { drawTrouble, minutesTo, type Policy } from './simulate.js';

describe('the advised path', () => {
  it.each(MACHINE_KINDS)(
    'puts a %s right in three quarters of the minutes of either order, or less',
    (kind) => {
      const trouble = new Diagnosis({ kind, features: {} });
      const random = randomLcg(271 / 1000);
      const sums: Record<Policy, number> = { advised: 0, random: 0, fixed: 0 };
      for (let i = 0; i < 60; i++) {
        const drawn = drawTrouble(trouble, random);
        for (const policy of ['advised', 'random', 'fixed'] as const) {
          sums[policy] += minutesTo(trouble, drawn, policy, random);
        }
      }
      expect(sums.advised).toBeLessThan(0.75 * sums.random);
      expect(sums.advised).toBeLessThan(0.75 * sums.fixed);
    },
  );

  it('draws what it says: something wrong, and a symptom of it', () => {
    const trouble = new Diagnosis({ kind: 'vented-dryer', features: {} });
    const drawn = drawTrouble(trouble, randomLcg(3 / 1000));
    expect(drawn.present.length).toBeGreaterThan(0);
    expect(Object.keys(drawn.reported).length).toBeGreaterThan(0);
    for (const [id, answer] of Object.entries(drawn.reported)) {
      expect([answer, drawn.shows.get(id)]).toEqual(['yes', true]);
    }
  });
});
