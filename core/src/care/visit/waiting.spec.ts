import { describe, expect, it } from 'vitest';
import type { VisitProgress } from '../../model/schemas.js';
import { NOTHING } from '../../chemistry/products.js';
import type { ChemicalEvent } from '../../chemistry/guard.js';
import { emptyProgress } from './progress.js';
import { planVisit, type VisitMachine } from './plan.js';
import { factsOf, hindersRinse, timerStartedBy, waitsFor } from './waiting.js';

const washer: VisitMachine = {
  id: 'm',
  kind: 'front-load-washer',
  features: { filterAccess: 'front-left', drainDownHose: 'no', stacked: 'below' },
};
const plan = planVisit(
  ['gasket-folds', 'pump-filter', 'drum-clean'].map((task) => ({ machineId: 'm', task })),
  [washer],
);
const stepOf = (id: string) => plan.steps.find(({ step }) => step.id === id)!;
const NOON = Date.parse('2026-06-15T12:00:00Z');
const MINUTE = 60_000;
/** Everything up to a step ticked, a minute apart. */
function until(id: string, change: Partial<VisitProgress> = {}): VisitProgress {
  const before = plan.steps.slice(0, plan.steps.indexOf(stepOf(id)));
  const ticked = Object.fromEntries(
    before.map(({ key }, i) => [key, new Date(NOON + i * MINUTE).toISOString()]),
  );
  return { ...emptyProgress(), ticked, ...change };
}
const bleach: ChemicalEvent = {
  entryId: 'e',
  at: NOON,
  kind: 'chemical',
  product: 'mould-bleach',
  actives: ['hypochlorite'],
  station: 'gasket',
};

describe('waitsFor', () => {
  const treat = stepOf('treat');
  const timers = {
    [treat.key]: { startedAt: new Date(NOON).toISOString(), seconds: 20 * 60 },
  };

  it('keeps hands off what soaks until it has had its time, and lets other work go on', () => {
    const at = (id: string, minutes: number) =>
      waitsFor(stepOf(id), plan, { timers }, [], NOON + minutes * MINUTE);
    expect(at('dry', 19)).toEqual({ for: 'soak', key: treat.key, until: NOON + 20 * MINUTE });
    expect(at('dry', 20)).toBeUndefined();
    expect(at('unscrew', 1)).toBeUndefined();
    // Stopped by the person, it has had its time.
    expect(waitsFor(stepOf('dry'), plan, { timers: {} }, [], NOON)).toBeUndefined();
  });

  it('asks for the product, and for the rinse', () => {
    expect(waitsFor(treat, plan, {}, [], NOON)).toEqual({ for: 'answer' });
    expect(waitsFor(stepOf('rinse'), plan, {}, [bleach], NOON)).toEqual({ for: 'rinse' });
    expect(waitsFor(stepOf('rinse'), plan, {}, [], NOON)).toBeUndefined();
  });

  it('starts the time by itself where something was left to work or to dry', () => {
    expect(timerStartedBy(treat, 'mould-bleach')).toBe(1200);
    expect(timerStartedBy(treat, NOTHING)).toBeUndefined();
    expect(timerStartedBy(treat)).toBeUndefined();
    const lint = planVisit(
      [{ machineId: 'd', task: 'lint-screen-wash' }],
      [{ id: 'd', kind: 'vented-dryer', features: {} }],
    ).steps.find(({ step }) => step.id === 'lay-dry')!;
    expect(timerStartedBy(lint)).toBe(3600);
  });
});

describe('hindersRinse', () => {
  it('says why no full rinse can have run: by the steps that were ticked', () => {
    expect(hindersRinse(plan, until('unplug'), washer)).toEqual([]);
    expect(hindersRinse(plan, until('glass'), washer)).toEqual(['the plug is out']);
    expect(hindersRinse(plan, until('scrape'), washer)).toEqual([
      'the pump filter is out',
      'the plug is out',
    ]);
    expect(hindersRinse(plan, until('drain-test'), washer)).toEqual([]);
  });

  it('never holds a dryer up: it is wiped', () => {
    const dryer: VisitMachine = { id: 'm', kind: 'vented-dryer', features: {} };
    expect(hindersRinse(plan, until('scrape'), dryer)).toEqual([]);
  });

  it('goes by when the steps were ticked, not by where they stand', () => {
    const progress = until('drain-test');
    const again = { ...progress.ticked, [stepOf('unplug').key]: '2026-06-15T20:00:00.000Z' };
    expect(factsOf(plan, { ticked: again }, 'm').power).toBe('off');
    expect(factsOf(plan, progress, 'another').power).toBe('on');
  });
});
