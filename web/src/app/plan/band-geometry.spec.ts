import { plusDays } from '@needlecase/core';
import { BandScale, roomy } from './band-geometry';

describe('the band of the year', () => {
  const away = [{ from: '2026-12-19', to: '2027-01-03' }];
  const scale = new BandScale('2026-11-27', '2027-11-21', 1140, away, 20);

  it('gives every day a place of its own, in order, and finds it again', () => {
    let before = -Infinity;
    for (let day = '2026-11-27'; day <= '2027-11-21'; day = plusDays(day, 1)) {
      const at = scale.at(day);
      expect(at).toBeGreaterThan(before);
      expect(scale.dayAt(at)).toBe(day);
      before = at;
    }
    expect(scale.from('2026-11-27')).toBe(20);
    expect(scale.from('2027-11-22')).toBeCloseTo(1120, 6);
  });

  it('pleats the days away to three tenths, and no shorter ones', () => {
    const usual = scale.from('2027-02-02') - scale.from('2027-02-01');
    const folded = scale.from('2026-12-21') - scale.from('2026-12-20');
    expect(folded / usual).toBeCloseTo(0.3, 6);
    const short = [{ from: '2027-03-01', to: '2027-03-02' }];
    expect(new BandScale('2026-11-27', '2027-11-21', 1140, short).folds).toEqual([]);
  });

  it('names each month where it begins, with the year in January', () => {
    const { months } = scale;
    expect(months).toHaveLength(12);
    expect(months[1]!.name).toBe('Jan 2027');
    expect(months[1]!.at).toBe(scale.from('2027-01-01'));
  });

  it('keeps a day outside of it at its edges', () => {
    expect(scale.dayAt(-50)).toBe('2026-11-27');
    expect(scale.dayAt(5000)).toBe('2027-11-21');
    expect(scale.at('2020-01-01')).toBe(scale.at('2026-11-27'));
  });
});

describe('labels on one line', () => {
  it('give way to the weightiest beside them, and never overlap', () => {
    const all = [0, 12, 24, 80].map((at, i) => ({
      at: at + 20,
      width: 20,
      weight: [1, 9, 2, 3][i]!,
    }));
    expect(roomy(all, 0, 200)).toEqual([false, true, false, true]);
    expect(roomy(all, 0, 60)).toEqual([false, true, false, false]);
  });
});
