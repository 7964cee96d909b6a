import type { PartView } from '@needlecase/core/views/life';
import { scaleOf, stretchesOf } from './years';

const TODAY = '2026-06-01';
const part = (more: Partial<PartView>): PartView => ({
  ...{ part: 'fill-hose', name: 'Fill hose', station: 'tap', by: 'anybody', sign: '', why: '' },
  ...{ from: 'machine', state: 'fine', said: '', replaced: [], done: [] },
  ...more,
});
const of = (one: PartView, since?: string) => {
  const scale = scaleOf({ today: TODAY, parts: [one], ...(since ? { since } : {}) });
  return { scale, stretches: stretchesOf(one, scale, TODAY) };
};

describe('the years of a machine', () => {
  it('begin with what is known first, two years ago at the latest, and go on beyond today', () => {
    expect(of(part({})).scale).toMatchObject({ from: '2024-06-01', to: '2028-12-01' });
    expect(of(part({}), '2019-03-01').scale.from).toBe('2019-03-01');
    expect(of(part({ replaced: ['2018-01-05'], since: '2018-01-05' })).scale.from).toBe(
      '2018-01-05',
    );
    // A date that lies ahead, mistyped, stretches nothing.
    expect(of(part({ since: '2090-01-01' })).scale.to).toBe('2028-12-01');
  });

  it('are named so that they can be told apart, however many they are', () => {
    for (const since of ['2025-01-01', '2015-01-01', '1985-01-01', '1900-01-01']) {
      const { years, at } = of(part({}), since).scale;
      expect(years.length, since).toBeLessThanOrEqual(9);
      expect(years.every((year) => year.at >= 0 && year.at <= 1)).toBe(true);
      expect(at(TODAY)).toBeGreaterThan(0);
    }
  });
});

describe('the thread of a part', () => {
  const kinds = (one: PartView, since?: string) => of(one, since).stretches.map(({ kind }) => kind);

  it('is what it was, what it is, and how long it is good for', () => {
    expect(kinds(part({}))).toEqual([]);
    expect(kinds(part({ since: '2023-01-01', on: '2028-01-01' }))).toEqual(['good', 'ahead']);
    expect(kinds(part({ since: '2018-01-01', on: '2023-01-01' }))).toEqual(['good', 'past']);
    const replaced = ['2019-01-01', '2024-01-01'];
    expect(kinds(part({ since: '2024-01-01', replaced }), '2015-01-01')).toEqual([
      ...['gone', 'gone', 'good'],
    ]);
  });

  it('has no gaps and no overlaps', () => {
    const replaced = ['2019-01-01', '2021-01-01', '2024-01-01'];
    const { stretches } = of(
      part({ since: '2024-01-01', on: '2029-01-01', replaced }),
      '2015-01-01',
    );
    stretches.slice(1).forEach(({ from }, i) => expect(from).toBeCloseTo(stretches[i]!.to, 9));
    expect(stretches[0]!.from).toBe(0);
  });
});
