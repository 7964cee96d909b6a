import { describe, expect, it } from 'vitest';
import type { Grade } from '../../model/vocabulary.js';
import { choosing } from './choosing.js';

const TODAY = '2026-06-01';
const seen = (task: string, ...grades: Grade[]) => ({
  task,
  evidence: grades.map((grade, i) => ({ entryId: `${i}`, day: TODAY, n: 40, grade })),
});

describe('choosing a new machine', () => {
  it('looks for a front flap and a drain hose where this one has neither', () => {
    const { wishes } = choosing(
      {
        kind: 'front-load-washer',
        features: { filterAccess: 'behind', drainDownHose: 'no' },
      },
      [seen('pump-filter', 3, 4)],
      TODAY,
    );
    const looks = wishes.map(({ look }) => look).join(' ');
    expect(looks).toMatch(/flap at the front.*drain-down hose.*wide pump filter/);
    expect(wishes.at(-1)!.because).toContain('twice');
  });

  it('fits the next dryer to the duct where that was found heavy', () => {
    const vented = { kind: 'vented-dryer', features: { blowerAccess: 'no' } } as const;
    const { wishes } = choosing(vented, [seen('duct-run', 3), seen('hood', 4)], TODAY);
    expect(wishes.map(({ look }) => look).join(' ')).toMatch(/blower wheel.*length of your duct/);
    const clean = choosing({ ...vented, features: { blowerAccess: 'yes' } }, [], TODAY);
    expect(clean.wishes).toEqual([]);
  });

  it('says up to which bill a repair pays: half the price times what is left of eleven years', () => {
    const washer = { kind: 'front-load-washer', features: {} } as const;
    const at = (boughtOn: string, more = {}) =>
      choosing({ ...washer, identity: { boughtOn, price: 880, ...more } }, [], TODAY).repair;
    expect(at('2020-12-01')).toContain('about 220');
    expect(at('2010-06-01')).toContain('about 40');
    expect(at('2025-06-01', { warrantyUntil: '2027-06-01' })).toContain('warranty');
    expect(choosing(washer, [], TODAY).repair).toContain('Enter when it was bought');
  });
});
