import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS } from '../model/vocabulary.js';
import { household, machine } from '../model/testing.js';
import type { House } from '../care/schedule/year.js';
import { Usage } from '../care/record/load-counts.js';
import { costOf } from './cost.js';
import { houseProblem, type PlanWishes } from './house-problem.js';
import { solve, type Progress } from './solve.js';
import { yearPlan } from './year-plan.js';

const NOW = Date.parse('2026-11-27T10:00:00Z');

function houseWith(kinds: readonly (typeof MACHINE_KINDS)[number][]): House {
  const machines = kinds.map((kind, i) => machine(kind, { id: `m${i}`, place: `Place ${i % 2}` }));
  return {
    household: household({ zone: 'Europe/Vienna' }),
    machines,
    histories: machines.map(() => ({
      openings: new Map(),
      readings: new Map(),
      usage: new Usage([], 5),
    })) as unknown as House['histories'],
    now: NOW,
  };
}

function planned(house: House, wishes: PlanWishes = {}) {
  const problem = houseProblem(house, wishes);
  let last: Progress | undefined;
  for (const progress of solve(problem, { rounds: 8 })) last = progress;
  return { problem, progress: last!, year: yearPlan(problem, last!) };
}

describe('a house’s year', () => {
  it.each(MACHINE_KINDS)('is planned without a rule giving way: %s', (kind) => {
    const { problem, progress, year } = planned(houseWith([kind]));
    expect(problem.chores.length).toBeGreaterThan(3);
    expect(year.gaveWay).toEqual([]);
    expect(progress.bound).toBeLessThanOrEqual(progress.cost + 1e-6);
    expect(year.minutes).toBeLessThan(year.apart);
    expect(year.minutes).toBeCloseTo(costOf(problem, progress.plan).work, 6);
  });

  it('is on the days on which somebody can work, and on none while nobody is there', () => {
    const away = [
      { from: '2026-12-19', to: '2027-01-03' },
      { from: '2027-07-19', to: '2027-08-08' },
    ];
    const { year } = planned(houseWith(['front-load-washer', 'vented-dryer']), {
      weekdays: [6],
      away,
    });
    expect(year.visits.length).toBeGreaterThan(5);
    for (const { day } of year.visits) {
      expect(new Date(`${day}T12:00:00Z`).getUTCDay(), day).toBe(6);
      expect(away.some(({ from, to }) => from <= day && day <= to)).toBe(false);
    }
  });

  it('does what can hurt somebody before going away, where it falls due meanwhile', () => {
    const away = [{ from: '2026-11-30', to: '2027-02-28' }];
    const { problem, progress, year } = planned(houseWith(['vented-dryer']), { away });
    const dueMeanwhile = problem.chores.flatMap(({ safety, first }, i) =>
      safety && first.to < 13 ? [i] : [],
    );
    expect(dueMeanwhile.length).toBeGreaterThan(0);
    for (const i of dueMeanwhile) expect(progress.plan[i]![0]).toBe(0);
    expect(year.gaveWay.filter(({ rule }) => rule === 'safety')).toEqual([]);
  });

  it('holds no visit longer than may be, but one task that is longer by itself', () => {
    const { year } = planned(houseWith(['front-load-washer', 'heat-pump-dryer']), { limit: 60 });
    const over = year.visits.filter(({ minutes, tasks }) => minutes > 60 && tasks.length > 1);
    const told = year.gaveWay.filter(({ rule }) => rule === 'minutes');
    expect(over.length).toBe(told.length);
  });
});
