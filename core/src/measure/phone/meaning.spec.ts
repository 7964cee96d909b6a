import { describe, expect, it } from 'vitest';
import { SYMPTOMS } from '../../trouble/data/symptoms.js';
import { meaningOf } from './meaning.js';
import type { Heard } from './sound.js';

const heard = (change: Partial<Heard>): Heard => ({ level: 60, tones: [], roar: 0.1, ...change });
const louder = { is: 'worse', own: 50, of: 3, change: 10 } as const;
const findings = (...asked: Parameters<typeof meaningOf>) =>
  meaningOf(...asked).map(({ finding }) => finding);

describe('what a sound may mean', () => {
  it('says nothing of a sound like any other', () => {
    expect(meaningOf(heard({}), 'vented-dryer')).toEqual([]);
    // Roar alone is how machines sound.
    expect(meaningOf(heard({ roar: 0.7 }), 'vented-dryer')).toEqual([]);
  });

  it('hears a thump a turn, a blower out of balance, roar that has come, a pump that hums', () => {
    expect(findings(heard({ thumps: 0.9 }), 'vented-dryer')).toEqual(['squeal']);
    expect(findings(heard({ thumps: 3 }), 'vented-dryer')).toEqual([]);
    expect(findings(heard({ roar: 0.6 }), 'vented-dryer', louder)).toEqual(['rumble']);
    expect(findings(heard({ roar: 0.6 }), 'front-load-washer', louder)).toEqual(['roar']);
    const blower = heard({ tones: [{ hz: 28.7, over: 24 }] });
    expect(findings(blower, 'vented-dryer', louder)).toEqual(['rumble']);
    expect(findings(heard({ tones: [{ hz: 100.4, over: 12 }] }), 'front-load-washer')).toEqual([
      'hum-no-flow',
    ]);
  });

  it('speaks for symptoms that Trouble has for such a machine', () => {
    for (const kind of ['vented-dryer', 'front-load-washer'] as const) {
      const all = meaningOf(
        heard({ thumps: 0.9, roar: 0.6, tones: [28.7, 100].map((hz) => ({ hz, over: 24 })) }),
        kind,
        louder,
      );
      expect(all.length).toBeGreaterThan(1);
      for (const { finding } of all) {
        expect(SYMPTOMS.find(({ id }) => id === finding)?.kinds).toContain(kind);
      }
    }
  });
});
