import { describe, expect, it } from 'vitest';
import { CONDENSING, MACHINE_KINDS, VENTED, type MachineKind } from '../../model/vocabulary.js';
import type { Features } from '../../model/schemas.js';
import { tasksOf } from '../../care/catalogue/lookup.js';
import { HIDDEN_STATES } from '../data/states.js';
import { assess } from './suspects.js';
import { Diagnosis, symptomsOf, type Answers } from './diagnosis.js';
import { causesOf } from './priors.js';

const suspectsOf = (kind: MachineKind, answers: Answers, features: Features = {}) =>
  assess(new Diagnosis({ kind, features }), answers).suspects;
const chanceOf = (kind: MachineKind, cause: string, answers: Answers, features: Features = {}) =>
  suspectsOf(kind, answers, features).find((one) => one.cause.id === cause)?.chance ?? 0;

describe('causes, however a machine is built', () => {
  it('give every kind something to suspect for each of its symptoms', () => {
    for (const kind of MACHINE_KINDS) {
      const made = new Set(
        [{}, { dispenser: 'drawer' } as const].flatMap((features) =>
          causesOf({ kind, features }).flatMap(({ makes }) => Object.keys(makes)),
        ),
      );
      for (const { id, shows } of HIDDEN_STATES) {
        if (made.has(id)) for (const sign of Object.keys(shows)) made.add(sign);
      }
      expect(
        symptomsOf(kind)
          .map(({ id }) => id)
          .filter((id) => !made.has(id)),
        kind,
      ).toEqual([]);
    }
  });

  it('are a professional’s where nobody reaches them: a blower without access', () => {
    for (const kind of VENTED) {
      const blower = (blowerAccess: 'yes' | 'no') =>
        causesOf({ kind, features: { blowerAccess } }).find(({ id }) => id === 'blower-packed')
          ?.fix;
      expect(blower('no'), kind).toMatchObject({ who: 'professional' });
      expect(blower('no')!.task).toBeUndefined();
    }
  });

  it('say the softener sheets that coat fine filter and exchanger', () => {
    for (const kind of CONDENSING) {
      const chance = (cause: string, sheets: boolean) =>
        assess(new Diagnosis({ kind, features: {}, circumstances: sheets ? ['sheets'] : [] }), {
          'long-drying': 'yes',
        }).suspects.find((one) => one.cause.id === cause)!;
      for (const cause of ['fine-filter-clogged', 'exchanger-matted']) {
        expect(chance(cause, true).chance).toBeGreaterThan(1.05 * chance(cause, false).chance);
        expect(chance(cause, true).because.join()).toContain('softener or dryer sheets');
      }
    }
  });

  it('in a stack with a second screen suspect the well before the duct, and say why', () => {
    for (const machine of [
      { kind: 'vented-dryer', features: { screenWell: 'yes', stacked: 'above' } },
      { kind: 'tower', features: { screenWell: 'yes' } },
    ] as const) {
      const { suspects, advice } = assess(new Diagnosis(machine), { 'long-drying': 'yes' });
      const rank = (id: string) => suspects.findIndex(({ cause }) => cause.id === id);
      expect(rank('well-matted')).toBeLessThan(rank('duct-lined'));
      expect(suspects[rank('well-matted')]!.because.join()).toContain('second screen');
      const of = (id: string) => advice!.fixes.findIndex(({ cause }) => cause.id === id);
      expect(of('well-matted')).toBeLessThan(of('duct-lined'));
    }
    expect(
      assess(new Diagnosis({ kind: 'vented-dryer', features: { screenWell: 'yes' } }), {
        'long-drying': 'yes',
      }).suspects[0]!.cause.id,
    ).toBe('duct-lined');
  });

  it('are spoken against by a station just cleaned, and for by one that is overdue', () => {
    const told = (state: number) =>
      assess(
        new Diagnosis({
          kind: 'front-load-washer',
          features: {},
          fouling: { 'pump-filter': state },
        }),
        { 'drains-slowly': 'yes' },
        [],
        { 'pump-filter': 'the filter’s record' },
      ).suspects.find(({ cause }) => cause.id === 'filter-clogged')!;
    expect(told(0.05).because.join()).not.toContain('record');
    expect(told(0.05).against.join()).toContain('record');
    expect(told(1.1).because.join()).toContain('record');
    expect(told(1.1).against.join()).not.toContain('record');
  });

  it('does not drain, a locked door and a drain code say hardly more than the first of them', () => {
    const chance = (...seen: string[]) =>
      chanceOf(
        'front-load-washer',
        'filter-clogged',
        Object.fromEntries(seen.map((id) => [id, 'yes' as const])),
      );
    const one = chance('wont-drain');
    expect(Math.abs(chance('wont-drain', 'door-locked') - one)).toBeLessThan(0.07);
    expect(chance('wont-drain', 'door-locked', 'code-drain') - one).toBeLessThan(0.15);
  });

  it('name as a fix only work that the machine has', () => {
    for (const kind of MACHINE_KINDS) {
      for (const filterAccess of ['unknown', 'none', 'lower-front'] as const) {
        const machine = { kind, features: { filterAccess } };
        const tasks = new Set(tasksOf(machine).map(({ id }) => id));
        for (const { id, fix } of causesOf(machine)) {
          if (fix.task) expect(tasks.has(fix.task), `${kind} ${filterAccess} ${id}`).toBe(true);
        }
      }
    }
  });

  it('keep the pump of a top loader: it hums and no water comes', () => {
    const answers: Answers = { 'wont-drain': 'yes', 'hum-no-flow': 'yes' };
    const [first] = suspectsOf('top-load-washer', answers);
    expect(first!.cause).toMatchObject({ id: 'impeller-jammed', station: 'pump' });
    expect(first!.cause.fix.task).toBeUndefined();
    expect(chanceOf('top-load-washer', 'drain-hose-closed', answers)).toBeLessThan(0.3);
    expect(
      chanceOf('top-load-washer', 'pump-failed', { 'wont-drain': 'yes', 'pump-silent': 'yes' }),
    ).toBeGreaterThan(0.5);
  });

  it('keep the filter while it is not found yet, and the pump where there is none', () => {
    const answers: Answers = { 'wont-drain': 'yes', 'code-drain': 'yes' };
    for (const filterAccess of ['unknown', 'lower-front', 'behind'] as const) {
      const [first] = suspectsOf('front-load-washer', answers, { filterAccess });
      expect(first!.cause.id, filterAccess).toBe('filter-clogged');
    }
    const none = { filterAccess: 'none' } as const;
    expect(chanceOf('front-load-washer', 'drain-hose-closed', answers, none)).toBeLessThan(0.7);
    expect(chanceOf('front-load-washer', 'impeller-jammed', answers, none)).toBeGreaterThan(0.15);
  });

  it('give a top loader with a drawer the drawer’s causes, and one with a cup the cup’s', () => {
    const answers: Answers = { 'drawer-left': 'yes' };
    const drawer = { dispenser: 'drawer' } as const;
    expect(chanceOf('top-load-washer', 'jets-blocked', answers, drawer)).toBeGreaterThan(0.2);
    expect(chanceOf('top-load-washer', 'jets-blocked', answers, { dispenser: 'cup' })).toBe(0);
    expect(chanceOf('top-load-washer', 'softener-cup-fouled', answers)).toBeGreaterThan(0.3);
  });

  it('know a tower above and below, and the drying of a washer-dryer', () => {
    expect(suspectsOf('tower', { 'wont-drain': 'yes', 'code-drain': 'yes' })[0]!.cause.id).toBe(
      'filter-clogged',
    );
    const air = suspectsOf('tower', { 'long-drying': 'yes', 'weak-air': 'yes' })[0]!;
    expect(['duct-run', 'hood', 'lint-screen', 'transition-hose', 'screen-well']).toContain(
      air.cause.station,
    );
    const slower = suspectsOf('washer-dryer', { 'slow-drift': 'yes', overheats: 'yes' })[0]!;
    expect(slower.cause.id).toBe('channel-matted');
    const once = suspectsOf('washer-dryer', { 'long-this-load': 'yes', creased: 'yes' })[0]!;
    expect(once.cause.id).toBe('too-much-to-dry');
  });
});

describe('a look that presupposes others', () => {
  it('is offered once they are answered, on every kind and after every symptom', () => {
    for (const kind of MACHINE_KINDS) {
      const trouble = new Diagnosis({ kind, features: {} });
      const presupposing = trouble.checks.filter(({ after }) => after);
      for (const { id: symptom } of symptomsOf(kind)) {
        const { advice } = assess(trouble, { [symptom]: 'yes' });
        for (const { id, after = [] } of presupposing) {
          const offered = advice!.checks.some(({ check }) => check.id === id);
          const open = after.some((one) => trouble.asks(one));
          expect(offered && open, `${kind} ${symptom} ${id}`).toBe(false);
        }
      }
    }
    const clear: Answers = {
      'wont-drain': 'yes',
      'open-filter': 'no',
      'turn-impeller': 'no',
      'hose-low': 'no',
    };
    const { advice } = assess(new Diagnosis({ kind: 'front-load-washer', features: {} }), clear);
    expect(advice!.checks.map(({ check }) => check.id)).toContain('all-clear-still');
  });
});
