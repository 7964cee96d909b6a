import { describe, expect, it } from 'vitest';
import { machine } from '../../model/testing.js';
import { tasksOf } from '../catalogue/lookup.js';
import { usesOf, usuallyUsed } from '../catalogue/uses.js';
import { MACHINE_KINDS } from '../../model/vocabulary.js';
import { planVisit } from './plan.js';
import { usedIn } from './used.js';

const at = '2026-06-15T10:00:00Z';

describe('what a task used up', () => {
  it('is what is usual where nothing was told, and what was said where it was', () => {
    for (const one of MACHINE_KINDS.map((kind) => machine(kind, { id: 'm' }))) {
      for (const { id } of tasksOf(one)) {
        const task = { machineId: 'm', task: id };
        const plan = planVisit([task], [one]);
        const usual = usuallyUsed(
          usesOf(
            tasksOf(one).find((each) => each.id === id)!,
            one,
          ),
        );
        expect(usedIn(task, one, plan, {}, {})).toEqual(usual);
        const said = [{ supply: 'alcohol', amount: 3 }];
        expect(usedIn(task, one, plan, {}, { used: said })).toEqual(said);
      }
    }
  });

  it('follows what was told at a step', () => {
    const washer = machine('front-load-washer', { id: 'm' });
    const task = { machineId: 'm', task: 'gasket-folds' };
    const plan = planVisit([task], [washer]);
    const step = plan.steps.find(({ step: one }) => one.brings?.products.includes('mould-bleach'))!;
    const told = (product: string) =>
      usedIn(task, washer, plan, { brought: { [step.key]: { product, at } } }, {}).map(
        ({ supply }) => supply,
      );
    expect(told('mould-bleach')).toContain('mould-remover');
    expect(told('nothing')).not.toContain('mould-remover');
    expect(told('vinegar')).toContain('vinegar');
    expect(told('vinegar')).not.toContain('mould-remover');
  });
});
