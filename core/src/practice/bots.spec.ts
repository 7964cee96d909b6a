import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS } from '../model/vocabulary.js';
import { playAs, type Hand } from './bots.js';
import { isPlayable } from './case.js';
import { debriefOf } from './debrief.js';
import { LEVELS } from './levels.js';

const front = {
  name: 'The washer',
  kind: 'front-load-washer' as const,
  features: { filterAccess: 'front-left', drainDownHose: 'yes' } as const,
};

describe('hands that play', () => {
  // A thousand cases, and each level by itself, are played by `npm run check:practice`.
  it('need at most 60 % of the minutes of a fixed order where they follow the adviser', () => {
    const minutes: Partial<Record<Hand, number>> = {};
    for (const kind of MACHINE_KINDS) {
      const machine = { name: 'M', kind, features: {} };
      for (const level of LEVELS.filter((one) => isPlayable(one, machine))) {
        for (const hand of ['practised', 'fixed'] as const) {
          const { state } = playAs(hand, { seed: 31, level: level.id, machine });
          minutes[hand] = (minutes[hand] ?? 0) + state.minutes;
        }
      }
    }
    expect(minutes.practised! / minutes.fixed!).toBeLessThan(0.6);
  });

  it('flood where they are careless, and the debrief says why', () => {
    const begun = { seed: 3, level: 'full', machine: front } as const;
    const careless = playAs('careless', begun);
    expect(careless.state.mess).toBeGreaterThan(5);
    const { slips, yours, practised } = debriefOf({ ...begun, acts: careless.acts });
    expect(slips.join(' ')).toContain('what stands above an opening runs out of it');
    expect(slips.join(' ')).toContain('the plug is in');
    expect([practised.mess, practised.stopped]).toEqual([0, 0]);
    expect(yours.mess).toBe(careless.state.mess);
  });

  it('are never stopped, spill nothing and leave all as it is used, where they are practised', () => {
    for (let seed = 1; seed <= 25; seed++) {
      const { state } = playAs('practised', { seed, level: 'full', machine: front });
      expect([state.stopped, state.mess]).toEqual([[], 0]);
      if (state.end === 'done') expect(state.leftSo).toEqual([]);
    }
  });
});
