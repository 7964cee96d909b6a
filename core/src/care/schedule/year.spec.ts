import { inOneGo } from '../../units/steps.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Machine } from '../../model/schemas.js';
import { MACHINE_KINDS, SCHOOLS } from '../../model/vocabulary.js';
import { daysBetween, MS_PER_DAY } from '../../units/calendar.js';
import { tasksOf } from '../catalogue/lookup.js';
import { gather, type Fact } from '../record/history.js';
import { loadsForADose } from '../fouling/scale.js';
import { household, machine } from '../../model/testing.js';
import { Usage } from '../record/load-counts.js';
import { everyDays, schoolYears, workAhead, type House } from './year.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');

function houseOf(machines: Machine[], perWeek = 5, facts: Fact[] = []): House {
  const { taps, ...past } = gather(facts);
  return {
    household: household({ hardness: 200 }),
    machines,
    histories: machines.map(() => ({ ...past, usage: new Usage(taps, perWeek) })),
    now: NOW,
  };
}
const doneAgo = (task: string, days: number): Fact => {
  const at = NOW - days * MS_PER_DAY;
  return { entryId: task, kind: 'done', at, day: new Date(at).toISOString().slice(0, 10), task };
};
const yearOf = (house: House) =>
  Object.fromEntries(schoolYears(house).map((year) => [year.school, year]));

describe('everyDays', () => {
  const inForce = { school: {}, speedUps: [] };

  it('is the earliest of its bounds at the pace of use', () => {
    expect(everyDays({ ...inForce, loads: 50, months: 12 }, 5)).toBe(70);
    expect(everyDays({ ...inForce, loads: 50, days: 30 }, 5)).toBe(30);
    expect(everyDays({ ...inForce, loads: 500 }, 5, { months: 6 })).toBeCloseTo(182.6, 1);
    expect(everyDays({ ...inForce, loads: 50 }, 0)).toBe(Infinity);
  });
});

describe('workAhead', () => {
  it('repeats each task from its next date on, never before today, in order', () => {
    const washer = machine('front-load-washer');
    const facts = tasksOf(washer).map(({ id }) => doneAgo(id, 10));
    const work = inOneGo(workAhead(houseOf([washer], 5, facts), 365));
    const filter = work.filter(({ task }) => task.id === 'pump-filter').map(({ on }) => on);
    expect(filter[0]).toBe('2026-08-05');
    expect(daysBetween(filter[0]!, filter[1]!)).toBeGreaterThanOrEqual(60);
    expect(filter.length).toBe(6);
    const dates = work.map(({ on }) => on);
    expect(dates).toEqual([...dates].sort());
    expect(dates[0]! >= '2026-06-15').toBe(true);
    expect(work.some(({ task }) => task.habit)).toBe(false);
  });

  it('reckons what is not known yet with a first look now', () => {
    const work = inOneGo(workAhead(houseOf([machine('vented-dryer')]), 30));
    expect(work.filter(({ task }) => task.id === 'duct-run').map(({ on }) => on)).toEqual([
      '2026-06-15',
    ]);
  });
});

describe('schoolYears', () => {
  const house = houseOf([
    machine('front-load-washer', { id: 'a' }),
    machine('vented-dryer', { id: 'b' }),
  ]);

  it('asks more of little and often than of steady, and more of steady than of stretch', () => {
    const { often, steady, stretch } = yearOf(house);
    expect(often!.hands).toBeGreaterThan(steady!.hands);
    expect(steady!.hands).toBeGreaterThan(stretch!.hands);
    expect(often!.visits).toBeGreaterThan(stretch!.visits);
    expect(often!.supplies['dish-soap']!).toBeGreaterThan(stretch!.supplies['dish-soap']!);
  });

  it('makes it the likelier to be late the less it asks', () => {
    const { often, steady, stretch } = yearOf(house);
    expect(often!.chance).toBeLessThan(steady!.chance);
    expect(steady!.chance).toBeLessThan(stretch!.chance);
    for (const { chance } of schoolYears(house)) expect(chance >= 0 && chance <= 1).toBe(true);
  });

  it('gives a steady task the chance that its place in the belief says', () => {
    // With no evidence P(F > 0.9) is the accepted 10 % at the interval; the limit, 1, is a little less
    // likely passed: P(z > 1.2816 + ln(1/0.9)/0.6) = 7.2 % for the normal z.
    const one = machine('condenser-dryer', {
      rules: Object.fromEntries(
        tasksOf(machine('condenser-dryer'))
          .filter(({ id }) => id !== 'heat-exchanger')
          .map(({ id }) => [id, { off: true, acknowledged: true }]),
      ),
    });
    const { steady } = yearOf(houseOf([one]));
    expect(steady!.chance).toBeCloseTo(0.072, 2);
    // About once a month.
    const times = steady!.timesPast / steady!.chance;
    expect(times >= 11 && times <= 12.5).toBe(true);
  });

  it('costs no more together than each task on a day of its own', () => {
    for (const kind of MACHINE_KINDS) {
      const together = yearOf(houseOf([machine(kind)]));
      for (const school of SCHOOLS) {
        const { visits, calendar, hands } = together[school]!;
        expect(visits).toBeGreaterThan(0);
        expect(calendar.length).toBeGreaterThan(0);
        expect(hands).toBeLessThan(60 * 400);
      }
    }
  });

  it('keeps own figures and leaves out what is switched off, whatever the school', () => {
    const own = machine('heat-pump-dryer', {
      school: 'often',
      rules: Object.fromEntries(
        tasksOf(machine('heat-pump-dryer')).map(({ id }) => [
          id,
          id === 'fine-filter'
            ? { own: { every: 10, unit: 'days' as const } }
            : { off: true, acknowledged: true },
        ]),
      ),
    });
    const years = schoolYears(houseOf([own]));
    expect(new Set(years.map(({ visits }) => visits)).size).toBe(1);
    expect(years[0]!.visits).toBeCloseTo(36.5, 0);
  });

  it('reckons hard water once where the loads come from the hardness', () => {
    const washer = machine('top-load-washer');
    const only = {
      ...washer,
      rules: Object.fromEntries(
        tasksOf(washer)
          .filter(({ id }) => id !== 'descale')
          .map(({ id }) => [id, { off: true, acknowledged: true }]),
      ),
    };
    const { count } = yearOf(houseOf([only]));
    const every = (loadsForADose(200) * 7) / 5;
    expect(count!.visits).toBe(Math.floor(730 / every) / 2);
  });

  it('asks more of a house that washes more', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 15 }), (perWeek) => {
        const at = (n: number) => yearOf(houseOf([machine('vented-dryer')], n))['count']!.hands;
        expect(at(perWeek + 3)).toBeGreaterThanOrEqual(at(perWeek));
      }),
      { numRuns: 8 },
    );
  });
});
