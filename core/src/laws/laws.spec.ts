import { randomLcg } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { planVisit } from '../care/visit/plan.js';
import { MACHINE_KINDS } from '../model/vocabulary.js';
import { MUTANTS } from './data/mutants.js';
import { brokenInVisit } from './check-visit.js';
import { mutated, type Mutant } from './mutants.js';
import { has, tasksOfKind } from './variants.js';
import { report, Sweeper, sweepMixtures, sweepRandom, sweepSingles } from './sweep.js';

describe('every visit keeps the laws', () => {
  it('each task alone, in each way a machine can be built', () => {
    const sweeper = new Sweeper();
    sweepSingles(sweeper);
    expect(sweeper.result.plans).toBeGreaterThan(80);
    expect(sweeper.result.found, report(sweeper.result)).toEqual([]);
  });

  it('each pair of tasks, on machines in which each pair of features occurs', () => {
    const sweeper = new Sweeper();
    sweepMixtures(sweeper, 2);
    expect(sweeper.result.plans).toBeGreaterThan(500);
    expect(sweeper.result.found, report(sweeper.result)).toEqual([]);
  });

  it('two thousand visits of three to eight tasks, drawn at random', () => {
    const sweeper = new Sweeper();
    sweepRandom(sweeper, randomLcg(2026), 2000);
    expect(sweeper.result.plans).toBeGreaterThan(1500);
    expect(sweeper.result.found, report(sweeper.result)).toEqual([]);
  });
});

describe('a task of the household’s own', () => {
  it('keeps its plug out until it is done, whatever it is done with', () => {
    const own = {
      id: 'own-shelf',
      name: 'Wipe the shelf behind',
      station: 'whole',
      every: 3,
      unit: 'months',
      unplugged: true,
      minutes: 10,
      steps: ['Wipe it.', 'Dry it.'],
    } as const;
    for (const kind of MACHINE_KINDS) {
      for (const task of tasksOfKind(kind)) {
        const machine = {
          id: 'm',
          kind,
          features: {},
          ownTasks: [{ ...own, steps: [...own.steps] }],
        };
        if (!has(machine, task)) continue;
        const plan = planVisit(
          [own.id, task.id].map((id) => ({ machineId: 'm', task: id })),
          [machine],
        );
        expect(brokenInVisit(plan, [machine]), `${kind} ${task.id}`).toEqual([]);
      }
    }
  });
});

describe('the laws tell a wrong visit from a right one', () => {
  const breaks = ({ kind, features, tasks, change }: Mutant): boolean => {
    const machine = { id: 'm', kind, features };
    const { steps } = planVisit(
      tasks.map((task) => ({ machineId: 'm', task })),
      [machine],
    );
    return brokenInVisit({ steps: mutated(steps, change) }, [machine]).length > 0;
  };

  it('were judged by hand, each with its reason', () => {
    expect(MUTANTS).toHaveLength(200);
    for (const { reason } of MUTANTS) expect(reason.length).toBeGreaterThan(8);
  });

  it('catch at least 95 % of what is wrong, and cry out at less than 5 % of what is harmless', () => {
    const wrong = MUTANTS.filter(({ judged }) => judged === 'wrong');
    const harmless = MUTANTS.filter(({ judged }) => judged === 'harmless');
    const missed = wrong.filter((one) => !breaks(one));
    const falseAlarms = harmless.filter(breaks);
    const say = (some: readonly Mutant[]) => JSON.stringify(some, undefined, 1);
    expect(missed.length, say(missed)).toBeLessThanOrEqual(0.05 * wrong.length);
    expect(falseAlarms.length, say(falseAlarms)).toBeLessThanOrEqual(0.05 * harmless.length);
  });
});
