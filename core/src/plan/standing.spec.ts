import { describe, expect, it } from 'vitest';
import type { AheadProblem } from './ahead.js';
import { costOf } from './cost.js';
import { lateBy, replan, weeksOf, type Standing } from './standing.js';
import { spreadOver } from './spread.js';
import { madeUp } from './testing.js';
import { weekdayOf } from '../units/calendar.js';
import { PlanWeeks } from './weeks.js';
import { yearPlan } from './year-plan.js';

const seeds = (count: number, from = 1) => Array.from({ length: count }, (_, i) => from + i);
const START = '2026-11-27';

function ahead(seed: number, more: Partial<AheadProblem> = {}): AheadProblem {
  const problem = madeUp(seed, { chores: 10, weeks: 30, limit: 60 });
  const away = problem.away.map(() => false);
  return {
    ...{ ...problem, away, start: START, weekdays: [6], spans: [], closed: [] },
    of: problem.chores.map(({ id, safety }) => ({
      ...{ machineId: 'm', task: id, driver: 'days' as const, perWeek: 5, free: !safety },
      risk: { after: [], first: [], stake: 0 },
    })),
    ...more,
  };
}

function standingOf(problem: AheadProblem): Standing[] {
  const progress = replan(problem, []);
  return yearPlan(problem, progress).visits.map(({ day, place, tasks }) => ({ day, place, tasks }));
}
const keys = ({ day, place, tasks }: Standing) =>
  `${day} ${place} ${tasks
    .map(({ task }) => task)
    .sort()
    .join('+')}`;

describe('a plan out of that of yesterday', () => {
  it.each(seeds(10))('is the same where nothing changed: house %i', (seed) => {
    const problem = ahead(seed);
    const before = standingOf(problem);
    const after = yearPlan(problem, replan(problem, before)).visits;
    expect(after.map(keys)).toEqual(before.map(keys));
  });

  it.each(seeds(12))(
    'moves no visit of the next four weeks when something was done, but for safety: house %i',
    (seed) => {
      const problem = ahead(seed);
      const before = standingOf(problem);
      // One chore was done today: its next time is an interval off.
      const done = problem.chores.findIndex(({ safety }) => !safety);
      const chores = problem.chores.map((chore, i) =>
        i === done ? { ...chore, first: { ...chore.gap } } : chore,
      );
      const after = yearPlan({ ...problem, chores }, replan({ ...problem, chores }, before)).visits;
      const until = new PlanWeeks(START, 30, [6], []).dayOf(3);
      for (const visit of before.filter(({ day }) => day <= until)) {
        for (const { task } of visit.tasks) {
          if (task === problem.of[done]!.task) continue;
          const still = after.find(
            ({ day, place, tasks }) =>
              day === visit.day && place === visit.place && tasks.some((one) => one.task === task),
          );
          expect(still, `${visit.day} ${task}`).toBeDefined();
        }
      }
    },
  );

  it('keeps what was laid down by hand on its day, whatever it costs', () => {
    const problem = ahead(3);
    const before = standingOf(problem);
    const [, , third] = before;
    const moved = { ...third!, day: '2027-04-14', held: true };
    const year = yearPlan(
      problem,
      replan(
        problem,
        before.map((one) => (one === third ? moved : one)),
      ),
      { standing: [moved] },
    );
    const found = year.visits.find(({ day, place }) => day === moved.day && place === moved.place);
    expect(found?.held).toBe(true);
    for (const { task } of moved.tasks) {
      expect(found?.tasks.some((one) => one.task === task)).toBe(true);
    }
  });

  it('comes sooner for what can hurt somebody', () => {
    const problem = ahead(7);
    const i = problem.chores.findIndex(({ safety }) => safety);
    expect(i).toBeGreaterThanOrEqual(0);
    const late: Standing = { day: '2026-12-19', place: 'place 0', tasks: [problem.of[i]!] };
    const chores = problem.chores.map((chore, k) =>
      k === i ? { ...chore, first: { from: 0, to: 1 } } : chore,
    );
    const { plan } = replan({ ...problem, chores }, [late]);
    expect(plan[i]![0]).toBeLessThanOrEqual(1);
    const without = plan.map((weeks, k) => (k === i ? [] : weeks));
    expect(lateBy({ ...problem, chores }, without, i, 3)).toBe(2);
  });

  it('does not do again, nor so soon, what is left out this once', () => {
    const problem = ahead(5);
    const before = standingOf(problem);
    const skipped = { ...before[1]!, skipped: true };
    const standing = before.map((one, i) => (i === 1 ? skipped : one));
    const progress = replan(problem, standing);
    const { visits, minutes } = yearPlan(problem, progress, { standing });
    expect(visits.some(({ day, place }) => day === skipped.day && place === skipped.place)).toBe(
      false,
    );
    expect(minutes).toBeLessThan(costOf(problem, progress.plan).work);
    const { task } = skipped.tasks[0]!;
    const chore = problem.of.findIndex((one) => one.task === task);
    const weeks = weeksOf(problem, visits)[chore]!;
    const at = new PlanWeeks(START, 30, [6], []).weekOf(skipped.day);
    const next = weeks.find((week) => week > at);
    if (next !== undefined) {
      expect(next - at).toBeGreaterThanOrEqual(problem.chores[chore]!.gap.from);
    }
  });
});

describe('the weeks of a plan', () => {
  it('are those of the calendar, so that tomorrow’s are the same', () => {
    const today = new PlanWeeks('2026-11-25', 6, [6, 7], []);
    const tomorrow = new PlanWeeks('2026-11-26', 6, [6, 7], []);
    expect(today.days).toEqual(tomorrow.days);
    expect(today.days[0]).toBe('2026-11-28');
    for (const day of today.days) expect(weekdayOf(day!)).toBe(6);
  });

  it('take the dearest day on which somebody is there', () => {
    const away = [{ from: '2026-12-05', to: '2026-12-05' }];
    expect(new PlanWeeks(START, 3, [6, 7], away).days[1]).toBe('2026-12-06');
    expect(new PlanWeeks(START, 3, [6], away).days[1]).toBeUndefined();
  });
});

describe('work too long for one visit', () => {
  const minutes = (some: readonly number[]) => some.reduce((a, b) => a + b, 0);
  const takes = { minutes, more: (_some: readonly number[], one: number) => one };

  it('is spread over the days there are, each as full as it may be', () => {
    const loads = spreadOver([40, 30, 20, 10], 3, 60, takes, () => 0);
    expect(loads.flat().toSorted()).toEqual([10, 20, 30, 40]);
    for (const load of loads) expect(minutes(load)).toBeLessThanOrEqual(60);
    expect(loads).toHaveLength(2);
  });

  it('stays together where it fits or there is one day, and loses nothing', () => {
    expect(spreadOver([20, 30], 3, 60, takes, () => 0)).toEqual([[20, 30]]);
    expect(spreadOver([50, 60], 1, 60, takes, () => 0)).toEqual([[50, 60]]);
    const crowded = spreadOver([50, 50, 50, 50], 2, 60, takes, () => 0);
    expect(crowded.flat()).toHaveLength(4);
    expect(crowded).toHaveLength(2);
  });
});
