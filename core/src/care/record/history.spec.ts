import { describe, expect, it } from 'vitest';
import { habitRows, habitsOf } from '../house/habits.js';
import { gather, type Fact } from './history.js';
import { machine } from '../../model/testing.js';
import { Usage } from './load-counts.js';

const fact = (change: Partial<Fact>): Fact => ({
  entryId: 'e',
  kind: 'done',
  at: Date.parse('2026-06-10T10:00:00Z'),
  day: '2026-06-10',
  ...change,
});

describe('gather', () => {
  it('sorts what happened by what the engines ask, in order of time', () => {
    const later = { at: Date.parse('2026-06-12T10:00:00Z'), day: '2026-06-12' };
    const past = gather([
      fact({ task: 'dispenser', grade: 2, ...later }),
      fact({ task: 'dispenser', kind: 'opened', grade: 1 }),
      fact({ kind: 'load', count: 3, programme: 'hot' }),
      fact({ kind: 'load' }),
      fact({ kind: 'reading', quantity: 'drain-time', value: 41 }),
      fact({ kind: 'reading', quantity: 'drying-minutes', value: 80 }),
      fact({ kind: 'habit', habit: 'pockets' }),
      fact({ kind: 'note' }),
    ]);
    expect(past.openings.get('dispenser')!.list.map(({ cleaned }) => cleaned)).toEqual([
      false,
      true,
    ]);
    expect(past.taps).toEqual([
      { at: fact({}).at, count: 3, programme: 'hot' },
      { at: fact({}).at, count: 1 },
    ]);
    expect(past.readings.get('pump-filter')).toHaveLength(1);
    expect([...past.readings.keys()].sort()).toEqual(['duct-run', 'heat-exchanger', 'pump-filter']);
    expect(past.habits.get('pockets')).toEqual(new Set(['2026-06-10']));
  });

  it('counts what another task does along the way as cleaned, without a grade of its own', () => {
    const { openings } = gather([fact({ task: 'pump-filter', grade: 3 })]);
    expect(openings.get('drain-stale')!.list).toEqual([
      expect.not.objectContaining({ grade: 3 }) as object,
    ]);
    expect(openings.get('drain-stale')!.list[0]).toMatchObject({
      task: 'pump-filter',
      cleaned: true,
    });
    const looked = gather([fact({ task: 'pump-filter', kind: 'opened', grade: 3 })]);
    expect(looked.openings.has('drain-stale')).toBe(false);
  });
});

describe('the daily strip', () => {
  const history = (...facts: Fact[]) => {
    const { taps, ...past } = gather(facts);
    return { ...past, usage: new Usage(taps, 5) };
  };

  it('shows what fits the machine and its house', () => {
    const names = (...habits: ('pets' | 'softener')[]) =>
      habitsOf(machine('front-load-washer', { habits })).map(({ id }) => id);
    expect(names()).not.toContain('lint-roller');
    expect(names('pets')).toContain('lint-roller');
    const tankless = machine('condenser-dryer', { features: { condensateTo: 'hose' } });
    expect(habitsOf(tankless).map(({ id }) => id)).not.toContain('tank');
  });

  it('tells the last seven days, from habits noted and from tasks done', () => {
    const washer = machine('front-load-washer');
    const rows = habitRows(
      washer,
      history(
        fact({ kind: 'habit', habit: 'pockets' }),
        fact({ task: 'gasket-wipe', day: '2026-06-12' }),
      ),
      '2026-06-12',
    );
    const days = (id: string) => rows.find(({ habit }) => habit === id)!.days;
    expect(days('pockets')).toEqual([false, false, false, false, true, false, false]);
    expect(days('gasket-wipe')).toEqual([false, false, false, false, false, false, true]);
    expect(days('measured')).toEqual(Array(7).fill(false));
  });
});
