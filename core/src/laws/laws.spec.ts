import { randomLcg } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { holds, procedureOf } from '../care/catalogue/lookup.js';
import { planVisit } from '../care/visit/plan.js';
import { MACHINE_KINDS } from '../model/vocabulary.js';
import MUTANT_SETS from './mutants.json' with { type: 'json' };
import { brokenInVisit } from './check-visit.js';
import { rate, type Mutant, type MutantSet } from './mutants.js';
import { featuresRead, has, tasksOfKind, variantsOver } from './variants.js';
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

describe('a task alone', () => {
  it('is told with every step of its procedure, in each way a machine can be built', () => {
    for (const kind of MACHINE_KINDS) {
      for (const task of tasksOfKind(kind)) {
        for (const machine of variantsOver(kind, featuresRead(kind, [task]))) {
          if (!has(machine, task)) continue;
          const { steps } = planVisit([{ machineId: machine.id, task: task.id }], [machine]);
          const told = steps.filter((one) => one.task === task.id).map(({ step }) => step.id);
          const { steps: work, putBack, proof } = procedureOf(machine, task.id);
          const wanted = [...work, ...putBack, ...proof].filter(({ when }) => holds(when, machine));
          expect(told.sort(), `${kind} ${task.id}`).toEqual(wanted.map(({ id }) => id).sort());
        }
      }
    }
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
  const sets = MUTANT_SETS as unknown as readonly MutantSet[];

  it('in sets that were judged by hand, each with its reason', () => {
    const taken = sets.map(({ gone }) => gone.wrong + gone.harmless).reduce((a, b) => a + b);
    expect(sets.flatMap(({ mutants }) => mutants).length + taken).toBe(320);
    expect(taken).toBeLessThan(20);
    for (const { mutants } of sets) {
      for (const { reason } of mutants) expect(reason.length).toBeGreaterThan(8);
    }
  });

  it('caught 95 % of the last set the first time, before anything was mended for it', () => {
    const { firstRun, gone, mutants } = sets.at(-1)!;
    const { wrong, harmless } = rate(mutants);
    expect(wrong + gone.wrong).toBe(firstRun.wrong);
    expect(harmless + gone.harmless).toBe(firstRun.harmless);
    expect(firstRun.caught / firstRun.wrong).toBeGreaterThanOrEqual(0.95);
    expect(firstRun.falseAlarms / firstRun.harmless).toBeLessThanOrEqual(0.05);
  });

  it.each(sets.map((set) => [set.seed, set] as const))(
    'catch 95 in 100 of what is wrong, and cry out at no more than 5 in 100 of what is harmless: %s',
    (_, { mutants }) => {
      const { wrong, harmless, missed, falseAlarms } = rate(mutants);
      const say = (some: readonly Mutant[]) => JSON.stringify(some, undefined, 1);
      expect(missed.length, say(missed)).toBeLessThanOrEqual(0.05 * wrong);
      expect(falseAlarms.length, say(falseAlarms)).toBeLessThanOrEqual(0.05 * harmless);
    },
  );
});
