import { describe, expect, it } from 'vitest';
import { PROCEDURES } from '../catalogue/data/procedures/index.js';
import { foundAgain, yearByYear } from './finds.js';

const opened = (...what: string[]) => ({ found: what.map((one) => ({ what: one, count: 1 })) });

describe('what is found again', () => {
  it('hair grips twice running lead to pockets and nets', () => {
    const [again] = foundAgain([opened('hair grip', 'fluff'), {}, opened('hair grip')]);
    expect(again).toMatchObject({ what: 'hair grip' });
    expect(again!.to).toMatch(/pockets.*net/);
  });

  it('once, or at other times, leads to nothing', () => {
    expect(foundAgain([opened('coin')])).toEqual([]);
    expect(foundAgain([opened('coin'), opened('fluff'), opened('coin')])).toEqual([]);
  });

  it('knows every find that can be counted', () => {
    const all = [...new Set(PROCEDURES.flatMap(({ finds = [] }) => finds))];
    const silent = ['lint', 'screen', 'sludge', 'grit', 'sand', 'scale', 'rust'];
    for (const what of all.filter((one) => !silent.includes(one))) {
      expect(foundAgain([opened(what), opened(what)]), what).toHaveLength(1);
    }
  });
});

describe('figures from year to year', () => {
  it('are told by quantity, the mean of each year', () => {
    const lint = (at: string, value: number) =>
      ({ kind: 'reading', quantity: 'lint-mass', at, value }) as const;
    expect(
      yearByYear([
        lint('2026-03-01T10:00:00Z', 120),
        lint('2025-03-01T10:00:00Z', 80),
        lint('2025-09-01T10:00:00Z', 90),
      ]),
    ).toEqual([
      {
        quantity: 'lint-mass',
        say: 'Lint brushed out',
        unit: 'g',
        years: [
          { year: 2025, value: 85 },
          { year: 2026, value: 120 },
        ],
      },
    ]);
  });
});
