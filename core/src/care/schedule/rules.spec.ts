import { describe, expect, it } from 'vitest';
import type { MachineDraft, TaskRule } from '../../model/schemas.js';
import { MS_PER_DAY, plusDays } from '../../units/calendar.js';
import { taskById, taskOf } from '../catalogue/lookup.js';
import { due } from './due.js';
import { sayState, why } from './explain.js';
import { inDriver } from '../catalogue/interval-figure.js';
import { Openings, type Opening } from '../record/openings.js';
import { checkOwnTasks, checkPages, checkRules, loosens, ruleFor, sayLooser } from './rules.js';
import { planVisit } from '../visit/plan.js';
import { household, machine } from '../../model/testing.js';
import { Usage } from '../record/load-counts.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const opened = (daysAgo: number, grade?: 0 | 1 | 2 | 3 | 4): Opening => {
  const at = NOW - daysAgo * MS_PER_DAY;
  const day = new Date(at).toISOString().slice(0, 10);
  const opening = { entryId: `${daysAgo}`, at, day, task: 'pump-filter', cleaned: true };
  return grade === undefined ? opening : { ...opening, grade };
};
const dueWith = (rule: TaskRule | undefined, ...openings: Opening[]) =>
  due({
    task: taskById('pump-filter'),
    machine: machine('front-load-washer', rule ? { rules: { 'pump-filter': rule } } : {}),
    household: household(),
    openings: new Openings(openings),
    usage: new Usage([], 5),
    now: NOW,
  });

describe('ruleFor', () => {
  const task = taskById('pump-filter');

  it('takes the nearest: the task’s own figure, the task’s school, the machine’s, the household’s', () => {
    const from = (m: object, school: 'steady' | 'often' = 'steady') =>
      ruleFor(task, machine('front-load-washer', m), household({ school }));
    expect(from({}, 'often')).toMatchObject({ school: 'often', own: false });
    expect(from({ school: 'stretch' }).interval).toBe(task.intervals.stretch);
    expect(
      from({ school: 'stretch', rules: { 'pump-filter': { school: 'count' } } }).interval,
    ).toBe(task.intervals.count);
    const own = from({
      rules: { 'pump-filter': { own: { every: 3, unit: 'months', source: 'p. 12' } } },
    });
    expect(own).toEqual({ interval: { months: 3 }, own: true, from: 'your own figure (p. 12)' });
  });
});

describe('an own figure', () => {
  const own: TaskRule = { own: { every: 40, unit: 'loads', source: 'Manual, page 12' } };

  it('holds exactly, whatever the profile, and nothing lengthens past it', () => {
    const one = dueWith(own, opened(140), opened(80, 0), opened(20, 0));
    expect(one.base).toBe(40);
    expect(one.learned).toBe(40);
    expect(one.on).toBe(plusDays('2026-06-15', Math.ceil((40 * 7) / 5) - 20));
    expect(why(taskById('pump-filter'), one, '2026-06-15').interval).toContain(
      'as your own figure (Manual, page 12) says',
    );
  });

  it('is shortened by evidence all the same', () => {
    expect(dueWith(own, opened(140), opened(80, 4), opened(20, 4)).learned).toBeLessThan(40);
  });

  it('changes what was learned at once when it is taken away', () => {
    const openings = [opened(140), opened(80, 0), opened(20, 0)];
    const without = dueWith(undefined, ...openings).learned;
    expect(dueWith(own, ...openings).learned).toBe(40);
    expect(dueWith(undefined, ...openings).learned).toBe(without);
    expect(without).toBeGreaterThan(inDriver(taskById('pump-filter').intervals.steady, 'loads'));
  });
});

describe('a task switched off', () => {
  it('is never due, and says so', () => {
    const one = dueWith({ off: true }, opened(500));
    expect(one.status).toBe('off');
    expect(one.on).toBeUndefined();
    expect(sayState(one, machine('front-load-washer'), '2026-06-15')).toBe('switched off');
  });
});

describe('safety tasks', () => {
  const duct = taskById('duct-run');
  const dryer = (rule: TaskRule): MachineDraft => ({
    name: 'Dryer',
    kind: 'vented-dryer',
    place: 'Cellar',
    features: {},
    habits: [],
    loadsPerWeek: 5,
    rules: { 'duct-run': rule },
  });

  it.each<[TaskRule, boolean]>([
    [{ off: true }, true],
    [{ own: { every: 9, unit: 'months' } }, true],
    [{ own: { every: 6, unit: 'months' } }, false],
    [{ own: { every: 60, unit: 'loads' } }, false],
    [{ school: 'stretch' }, true],
    [{ school: 'often' }, false],
  ])('%j loosens the duct run: %s', (rule, expected) => {
    expect(loosens(duct, rule)).toBe(expected);
    expect(checkRules(dryer(rule)).map(({ field }) => field)).toEqual(
      expected ? ['rules.duct-run.acknowledged'] : [],
    );
    expect(checkRules(dryer({ ...rule, acknowledged: true }))).toEqual([]);
  });

  it('never loosens what is done with every load', () => {
    const rules = { 'lint-screen-brush': { own: { every: 5, unit: 'loads' }, acknowledged: true } };
    expect(checkRules({ ...dryer({}), rules } as MachineDraft)).toEqual([
      { field: 'rules.lint-screen-brush.own', message: 'This is done with every load.' },
    ]);
  });

  it('are named where a school leaves them longer than the steady one', () => {
    expect(sayLooser('often')).toBe('');
    expect(sayLooser('steady')).toBe('');
    expect(sayLooser('stretch', 'front-load-washer')).toBe(
      'Keeps these safety tasks longer than steady: look over the fill hose.',
    );
    expect(sayLooser('stretch')).toContain('brush the duct run through');
  });

  it('leaves other tasks to the person', () => {
    expect(loosens(taskById('dispenser'), { off: true })).toBe(false);
  });

  it('knows only tasks that the machine has', () => {
    const draft = { ...dryer({}), rules: { 'pump-filter': { off: true } } };
    expect(checkRules(draft)).toEqual([
      { field: 'rules.pump-filter', message: 'This machine has no such task.' },
    ]);
  });
});

describe('own tasks', () => {
  const own = {
    id: 'own-1',
    name: 'Oil the hinge',
    station: 'whole',
    every: 3,
    unit: 'months',
    minutes: 5,
    unplugged: true,
    steps: ['Put one drop of oil on the hinge.', 'Move the door twice.'],
  } as const;
  const washer = machine('front-load-washer', { ownTasks: [{ ...own, steps: [...own.steps] }] });

  it('have their own interval, whatever the school, and are due like any other', () => {
    const task = taskOf(washer, 'own-1');
    const dueUnder = (school: 'often' | 'stretch') =>
      due({
        task,
        machine: washer,
        household: household({ school }),
        openings: new Openings([{ ...opened(10), task: 'own-1' }]),
        usage: new Usage([], 5),
        now: NOW,
      });
    expect(dueUnder('often').on).toBe('2026-09-05');
    expect(dueUnder('stretch').on).toBe('2026-09-05');
    expect(why(task, dueUnder('often'), '2026-06-15').interval).toBe(
      'Every 3 months, as your own task says.',
    );
  });

  it('become a run with their own steps, unplugged before and plugged in after', () => {
    const { steps } = planVisit([{ machineId: washer.id, task: 'own-1' }], [washer]);
    const said = steps.map(({ step }) => step.do);
    const at = said.indexOf(own.steps[0]);
    expect(said[at + 1]).toBe(own.steps[1]);
    const ids = steps.map(({ step }) => step.id);
    expect(ids.indexOf('unplug')).toBeLessThan(at);
    expect(ids.indexOf('plug-in')).toBeGreaterThan(at);
  });

  it('are told where the station is not there, or the task is there twice', () => {
    const draft = { ...washer, ownTasks: [washer.ownTasks![0]!, washer.ownTasks![0]!] };
    expect(checkOwnTasks(draft).map(({ field }) => field)).toEqual(['ownTasks.1.id']);
    const elsewhere = { ...washer, ownTasks: [{ ...washer.ownTasks![0]!, station: 'hood' }] };
    expect(checkOwnTasks(elsewhere)).toEqual([
      { field: 'ownTasks.0.station', message: 'This machine has no such station.' },
    ]);
  });
});

describe('pages of a manual', () => {
  const page = (task: string, step?: string) => ({
    ...{ document: '00000000-0000-4000-8000-000000000001', page: 3, task },
    ...(step ? { step } : {}),
  });
  const wrong = (...pages: ReturnType<typeof page>[]) =>
    checkPages(machine('front-load-washer', { pages })).map(({ field }) => field);

  it('are of tasks that there are, one for each task and step', () => {
    expect(wrong()).toEqual([]);
    expect(wrong(page('pump-filter'), page('pump-filter', 'found'))).toEqual([]);
    expect(wrong(page('pump-filter'), page('pump-filter'))).toEqual(['pages.1.task']);
    expect(wrong(page('juggling'))).toEqual(['pages.0.task']);
  });

  it('outlive a task of the household’s own, and a feature that was put right', () => {
    expect(wrong(page('own-clay-trap'), page('duct-run'))).toEqual([]);
  });
});
