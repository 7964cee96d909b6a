import { describe, expect, it } from 'vitest';
import type { Features, Visit } from '../../model/schemas.js';
import { MACHINE_KINDS, type MachineKind } from '../../model/vocabulary.js';
import { cautionsFor, procedureById, tasksOf } from '../catalogue/lookup.js';
import type { Step } from '../catalogue/types.js';
import { coveringVariants, featuresRead, tasksOfKind } from '../../laws/variants.js';
import { FEATURE_QUESTIONS } from '../catalogue/data/features.js';
import { entriesOf } from './visit-entries.js';
import { emptyProgress, leftOpen, outcomeOf } from './progress.js';
import { check } from '../../model/check.js';
import { openQuestions } from './questions.js';
import { planVisit, type VisitMachine } from './plan.js';
import { taskKey, withoutCovered } from '../catalogue/set-ups.js';

const ID = '00000000-0000-4000-8000-000000000001';

/** Ways a machine of a kind can be built, over what steps depend on: each pair of answers occurs. */
const variants = (kind: MachineKind): VisitMachine[] =>
  coveringVariants(kind, featuresRead(kind, tasksOfKind(kind))).map((one) => ({ ...one, id: ID }));

const every = MACHINE_KINDS.flatMap((kind) => [{ id: ID, kind, features: {} }, ...variants(kind)]);

describe('planVisit', () => {
  it('walks every task in every variant: prepared before worked, proved after, no step twice', () => {
    for (const machine of every) {
      for (const { id } of tasksOf(machine)) {
        const { steps, minutes, fetch } = planVisit([{ machineId: ID, task: id }], [machine]);
        const name = `${id} ${JSON.stringify(machine.features)}`;
        const own = steps.filter(({ task }) => task === id);
        const prepared = steps.findLastIndex(({ phase }) => phase === 'set-up');
        expect(steps.indexOf(own[0]!), name).toBeGreaterThan(prepared);
        const proved = own.findIndex(({ phase }) => phase === 'proof');
        expect(proved, name).toBeGreaterThan(0);
        expect(own.slice(proved).every(({ phase }) => phase === 'proof')).toBe(true);
        expect(own.some(({ phase }) => phase === 'put-back')).toBe(true);
        expect(new Set(steps.map(({ key }) => key)).size, name).toBe(steps.length);
        expect(minutes.hands).toBeGreaterThan(0);
        expect(fetch.length).toBeGreaterThan(0);
      }
    }
  });

  it('undoes whatever it did: plug, gas, water, flap, machine pulled out', () => {
    const pairs: [did: string, undid: string][] = [
      ['unplug', 'plug-in'],
      ['gas-shut', 'gas-open'],
      ['gas-which', 'gas-open-if'],
      ['flap-left', 'flap-shut'],
      ['tap-off', 'tap-on'],
      ['panel-behind', 'panel-back'],
      ['pull-out', 'push-back'],
      ['pull-out-stack', 'push-back-stack'],
      ['hose-out', 'hose-cap'],
      ['unscrew', 'filter-in'],
      ['stuff-hole', 'cloth-out'],
      ['hose-off', 'hose-on'],
      ['hose-off-electric', 'hose-on'],
      ['take-out', 'screen-in'],
      ['catches', 'slide-in'],
      ['draw-out', 'drawer-in'],
      ['cup-out', 'cup-in'],
      ['siphon', 'siphon-in'],
      ['fill-hose-off', 'hose-hand'],
      ['dry-screen', 'screen-level'],
      ['hose-lift', 'hose-in'],
      ['hose-floor-out', 'hose-floor-in'],
      ['hose-unclip', 'hose-sink'],
      ['trap-open', 'trap-on'],
      ['screen-out', 'screen-in'],
      ['housing-off', 'housing-on'],
      ['fine-out', 'fine-in'],
      ['flap-sump', 'close-sump'],
      ['panel-off', 'panel-on'],
      ['pour-acid', 'rinse-acid'],
      ['draw', 'tank-in'],
    ];
    const met = new Set<string>();
    for (const machine of every) {
      for (const { id } of tasksOf(machine)) {
        const { steps } = planVisit([{ machineId: ID, task: id }], [machine]);
        const ids = steps.map(({ step }) => step.id);
        for (const [did, undid] of pairs) {
          const at = ids.indexOf(did);
          if (at < 0) continue;
          met.add(did);
          expect(ids.indexOf(undid, at), `${did} of ${id}`).toBeGreaterThan(at);
        }
      }
    }
    expect([...met].sort()).toEqual(pairs.map(([did]) => did).sort());
  });

  it('shows every caution at its step, and the plug-out before the first hand goes in', () => {
    for (const machine of every) {
      for (const { id, setups } of tasksOf(machine)) {
        const { steps } = planVisit([{ machineId: ID, task: id }], [machine]);
        for (const one of steps) {
          expect(one.cautions).toEqual(cautionsFor(machine, one.step.hazards));
        }
        if (setups.includes('unplugged')) {
          const ids = steps.map(({ step }) => step.id);
          const firstWork = steps.findIndex(({ phase }) => phase === 'work');
          expect(ids.indexOf('unplug')).toBeLessThan(firstWork);
          expect(ids.indexOf('plug-in')).toBeGreaterThan(firstWork);
        }
      }
    }
  });

  it('shows the gas caution before a gas or unknown dryer’s duct comes off, and not for electric', () => {
    const cautions = (energy: 'gas' | 'electric' | 'unknown') =>
      planVisit(
        [{ machineId: ID, task: 'duct-run' }],
        [{ id: ID, kind: 'vented-dryer', features: { energy } }],
      ).steps.flatMap(({ step }) =>
        step.hazards?.some(
          (id) =>
            id.startsWith('gas') &&
            cautionsFor({ kind: 'vented-dryer', features: { energy } }, [id])[0],
        )
          ? step.id
          : [],
      );
    const moved = ['pull-out', 'hose-off', 'room-air'];
    expect(cautions('gas')).toEqual(['gas-shut', ...moved, 'gas-open', 'gas-smell']);
    expect(cautions('unknown')).toEqual(['gas-which', ...moved, 'gas-open-if', 'gas-smell']);
    expect(cautions('electric')).toEqual([]);
  });

  it('drains before it opens the filter', () => {
    for (const machine of variants('front-load-washer')) {
      if (machine.features.filterAccess === 'none') continue;
      const ids = planVisit([{ machineId: ID, task: 'pump-filter' }], [machine]).steps.map(
        ({ step }) => step.id,
      );
      const drained = ids.findLastIndex((id) =>
        ['hose-drain', 'hose-if', 'crack-open', 'crack-if'].includes(id),
      );
      expect(drained, JSON.stringify(machine.features)).toBeGreaterThan(0);
      expect(ids.indexOf('unscrew')).toBeGreaterThan(drained);
    }
  });

  it('opens tap and gas before the push back, smells after it, looks for drips before the heat', () => {
    for (const machine of every) {
      const tasks = tasksOf(machine).map(({ id }) => ({ machineId: ID, task: id }));
      const ids = planVisit(tasks, [machine]).steps.map(({ step }) => step.id);
      const name = JSON.stringify(machine);
      const inTurn = (first: string, then: string) => {
        if (!ids.includes(first) || !ids.includes(then)) return;
        expect(ids.indexOf(then), `${first}, ${then} in ${name}`).toBeGreaterThan(
          ids.indexOf(first),
        );
      };
      inTurn('tap-on', 'push-back');
      inTurn('leak-feel', 'push-back');
      inTurn('gas-open', 'push-back');
      inTurn('push-back', 'gas-smell');
      inTurn('push-back', 'bubble');
      inTurn('pour-look', 'panel-back');
      inTurn('panel-back', 'push-back');
      inTurn('drips', 'flap-shut');
      inTurn('flap-shut', 'hot-cycle');
      inTurn('drain-watch', 'hot-cycle');
      inTurn('tap-on', 'warm-cycle');
    }
  });

  it('fills a wait with what does not touch what waits', () => {
    const washer: VisitMachine = {
      id: ID,
      kind: 'front-load-washer',
      features: { filterAccess: 'front-left', drainDownHose: 'no' },
    };
    const ids = planVisit(
      ['pump-filter', 'gasket-folds'].map((task) => ({ machineId: ID, task })),
      [washer],
    ).steps.map(({ step }) => step.id);
    const between = (from: string, to: string) => ids.slice(ids.indexOf(from) + 1, ids.indexOf(to));
    expect(between('soak', 'soak-rinse')).toEqual(expect.arrayContaining(['housing', 'impeller']));
    expect(between('treat', 'dry')).toEqual(expect.arrayContaining(['unscrew', 'scrape', 'soak']));
  });

  it('leaves out of a visit what another task does along the way', () => {
    const tasks = ['hood', 'duct-run', 'transition-hose', 'lint-screen-wash'];
    const kept = withoutCovered(tasks.map((task) => ({ machineId: ID, task })));
    expect(kept.map(({ task }) => task)).toEqual(['duct-run', 'lint-screen-wash']);
  });

  it('has a gas dryer’s cabinet done by a professional, with no panel taken off', () => {
    const { steps } = planVisit(
      [{ machineId: ID, task: 'cabinet' }],
      [{ id: ID, kind: 'vented-dryer', features: { energy: 'gas' } }],
    );
    expect(steps.map(({ step }) => step.id)).not.toContain('panel-off');
    expect(steps[0]!.step.hazards).toContain('gas-professional');
  });

  it('makes a shared set-up once and gathers what to fetch in one list', () => {
    const washer: VisitMachine = { id: ID, kind: 'front-load-washer', features: {} };
    const both = planVisit(
      [
        { machineId: ID, task: 'pump-filter' },
        { machineId: ID, task: 'gasket-folds' },
      ],
      [washer],
    );
    const ids = both.steps.map(({ step }) => step.id);
    expect(ids.filter((id) => id === 'unplug')).toHaveLength(1);
    expect(both.fetch.filter(({ what }) => what === 'A torch')).toHaveLength(1);
    expect(ids.indexOf('peel')).toBeLessThan(ids.indexOf('unscrew'));
    const alone = (task: string) => planVisit([{ machineId: ID, task }], [washer]).minutes.hands;
    expect(both.minutes.hands).toBe(alone('pump-filter') + alone('gasket-folds') - 1);
  });

  it('washes what must dry first and puts it back last, dry machines before wet ones', () => {
    const dryer: VisitMachine = { id: ID.replace(/1$/, '2'), kind: 'vented-dryer', features: {} };
    const washer: VisitMachine = { id: ID, kind: 'front-load-washer', features: {} };
    const { steps } = planVisit(
      [
        { machineId: washer.id, task: 'dispenser' },
        { machineId: dryer.id, task: 'duct-run' },
        { machineId: dryer.id, task: 'lint-screen-wash' },
      ],
      [washer, dryer],
    );
    expect(steps[0]!.machineId).toBe(dryer.id);
    const ids = steps.map(({ step }) => step.id);
    expect(ids.indexOf('lay-dry')).toBeLessThan(ids.indexOf('material'));
    expect(ids.indexOf('screen-in')).toBeGreaterThan(ids.indexOf('hose-on'));
  });

  it('never asks for vinegar after mould remover in one treatment', () => {
    const treat = procedureById('gasket-folds').steps.find(({ id }) => id === 'treat') as Step;
    expect(treat.do).toContain('Choose one');
    expect(treat.hazards).toEqual(['mould-remover', 'mould-health', 'acid']);
  });

  it('asks what the steps depend on and nobody told, and no more once it is told', () => {
    const ask = (kind: MachineKind, task: string, features: Features = {}) =>
      openQuestions([{ machineId: ID, task }], [{ id: ID, kind, features }]).map(
        ({ question }) => question.id,
      );
    expect(ask('front-load-washer', 'pump-filter')).toEqual(['filterAccess', 'drainDownHose']);
    expect(
      ask('front-load-washer', 'pump-filter', { filterAccess: 'behind', drainDownHose: 'unknown' }),
    ).toEqual(['drainDownHose', 'stacked']);
    expect(ask('vented-dryer', 'duct-run')).toContain('energy');
    expect(ask('vented-dryer', 'lint-screen-wash')).toEqual([]);
    expect(ask('condenser-dryer', 'heat-exchanger')).toEqual([]);
    for (const machine of every) {
      const known = Object.fromEntries(
        FEATURE_QUESTIONS.filter(({ kinds }) => kinds.includes(machine.kind)).map(
          ({ id, answers }) => [id, answers.at(-1)!.value],
        ),
      ) as Features;
      const told = { ...machine, features: known };
      const tasks = tasksOf(told).map(({ id }) => ({ machineId: ID, task: id }));
      expect(openQuestions(tasks, [told])).toEqual([]);
    }
  });

  it('fetches nothing twice under two names', () => {
    const once =
      /cloth|towel|tray|vacuum|pliers|cups? for|vinegar, in|screwdriver|rubber gloves|work gloves/gi;
    for (const machine of every) {
      const tasks = tasksOf(machine).map(({ id }) => ({ machineId: ID, task: id }));
      const { fetch } = planVisit(tasks, [machine]);
      const named = fetch.flatMap(({ what }) => what.toLowerCase().match(once) ?? []);
      expect(named.sort(), machine.kind).toEqual([...new Set(named)].sort());
    }
  });

  it('carries chlorine and acid to the same machine in no visit', () => {
    const washer: VisitMachine = { id: ID, kind: 'front-load-washer', features: {} };
    const carried = (...tasks: string[]) =>
      planVisit(
        tasks.map((task) => ({ machineId: ID, task })),
        [washer],
      ).fetch.flatMap(({ what }) => /vinegar|citric|mould/i.exec(what)?.[0].toLowerCase() ?? []);
    expect(carried('gasket-folds')).toEqual(['mould']);
    expect(carried('gasket-folds', 'pump-filter')).toEqual(['mould']);
    expect(carried('pump-filter')).toEqual(['vinegar']);
    // What is needed in any case stays.
    expect(carried('gasket-folds', 'descale')).not.toContain('mould');
  });

  it('shuts the tap before the filter is opened, where the machine will be moved off its hoses', () => {
    let seen = 0;
    for (const machine of every) {
      const has = tasksOf(machine).map(({ id }) => id);
      if (!has.includes('pump-filter')) continue;
      for (const other of ['inlet-screen', 'drain-hose'].filter((id) => has.includes(id))) {
        const { steps } = planVisit(
          ['pump-filter', other].map((task) => ({ machineId: ID, task })),
          [machine],
        );
        const at = (id: string) => steps.findIndex(({ step }) => step.id === id);
        expect(at('tap-off'), JSON.stringify(machine)).toBeGreaterThan(-1);
        expect(at('tap-off'), JSON.stringify(machine)).toBeLessThan(at('unscrew'));
        seen += 1;
      }
    }
    expect(seen).toBeGreaterThan(10);
  });

  it('refuses a machine that is not given', () => {
    expect(() => planVisit([{ machineId: 'gone', task: 'dispenser' }], [])).toThrow('gone');
  });
});

describe('a visit begun before its steps were ordered anew', () => {
  it('opens, keeps what was ticked, and can be finished', () => {
    const washer: VisitMachine = {
      id: ID,
      kind: 'front-load-washer',
      features: { filterAccess: 'behind', drainDownHose: 'no', stacked: 'below' },
    };
    const tasks = ['pump-filter', 'drum-clean'].map((task) => ({ machineId: ID, task }));
    // Keys of steps as they were then; some of them are gone.
    const then = [
      'unplugged/unplug',
      'pulled-out/pull-out-stack',
      'flap-open/panel-behind',
      'pump-filter/unscrew',
      'pump-filter/filter-in',
      'flap-open/panel-back',
      'pulled-out/push-back',
      'pulled-out/stands-level',
      'drum-clean/filter-again',
    ].map((key) => `${ID}/${key}`);
    const ticked = Object.fromEntries(then.map((key) => [key, '2026-06-15T08:00:00.000Z']));
    const progress = { ...emptyProgress(), ticked, at: `${ID}/pulled-out/stands-level` };
    const { steps } = planVisit(tasks, [washer]);
    const kept = steps.filter(({ key }) => ticked[key]);
    expect(kept).toHaveLength(7);
    expect(leftOpen({ steps }, progress).map(({ step }) => step.id)).toContain('push-back-stack');
    const visit: Visit = {
      id: ID,
      version: 3,
      state: 'active',
      tasks,
      startedAt: '2026-06-15T07:50:00.000Z',
      changedAt: '2026-06-15T08:00:00.000Z',
      progress: { ...progress, tasks: { [taskKey(tasks[0]!)]: { grade: 2, outcome: 'cleaned' } } },
    };
    expect(check('VisitChange', { state: visit.state, progress: visit.progress })).toEqual([]);
    expect(entriesOf(visit, [washer], 0)).toContainEqual(
      expect.objectContaining({ kind: 'done', task: 'pump-filter', grade: 2 }),
    );
  });
});

describe('what a run leaves in the log', () => {
  const washer: VisitMachine = {
    id: ID,
    kind: 'front-load-washer',
    features: { drainDownHose: 'no' },
  };
  const task = { machineId: ID, task: 'pump-filter' };
  const plan = planVisit([task], [washer]);
  const run = (change: Partial<Visit['progress']>): Visit => ({
    id: ID,
    version: 1,
    state: 'active',
    tasks: [task],
    startedAt: '2026-06-15T08:00:00.000Z',
    changedAt: '2026-06-15T08:00:00.000Z',
    progress: { ...emptyProgress(), ...change },
  });
  const allTicked = Object.fromEntries(
    plan.steps.map(({ key }, i) => [key, new Date(Date.UTC(2026, 5, 15, 8, i)).toISOString()]),
  );

  it('is nothing where nothing was done', () => {
    expect(entriesOf(run({}), [washer], 0)).toEqual([]);
  });

  it('is the work, its grade, finds and trays, at the time the work was done', () => {
    const entries = entriesOf(
      run({
        ticked: allTicked,
        tasks: {
          [taskKey(task)]: { grade: 3, trays: 2, found: [{ what: 'coin', count: 2 }], note: ' ' },
        },
      }),
      [washer],
      0,
    );
    const filterIn = plan.steps.filter(({ phase }) => phase === 'put-back').at(-1)!;
    expect(entries).toEqual([
      {
        machineId: ID,
        kind: 'done',
        task: 'pump-filter',
        station: 'pump-filter',
        source: 'run',
        at: allTicked[filterIn.key],
        grade: 3,
        trays: 2,
        found: [{ what: 'coin', count: 2 }],
      },
    ]);
  });

  it('is a look where it was graded and left alone, and a reading where one was taken', () => {
    const proof = plan.steps.find(({ step }) => step.reading)!;
    const entries = entriesOf(
      run({ tasks: { [taskKey(task)]: { grade: 1 } }, readings: { [proof.key]: { value: 48 } } }),
      [washer],
      Date.UTC(2026, 5, 15),
    );
    expect(entries.map(({ kind, value, unit }) => [kind, value, unit])).toEqual([
      ['opened', undefined, undefined],
      ['reading', 48, 's'],
    ]);
  });

  it('takes the person’s word over the ticks', () => {
    const progress = run({ ticked: allTicked, tasks: { [taskKey(task)]: { outcome: 'skipped' } } });
    expect(outcomeOf(task, plan, progress.progress).outcome).toBe('skipped');
    expect(entriesOf(progress, [washer], 0)).toEqual([]);
  });
});
