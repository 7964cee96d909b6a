import { afterEach, describe, expect, it } from 'vitest';
import { cautionsFor, hazardById } from '../care/catalogue/lookup.js';
import type { Step } from '../care/catalogue/types.js';
import { planVisit, type VisitMachine } from '../care/visit/plan.js';
import { productById } from '../chemistry/products.js';
import { MACHINE_KINDS, VENTED, type MachineKind } from '../model/vocabulary.js';
import { AS_WRITTEN, type Tongue } from '../regions/in-tongue.js';
import { REGIONS, type Region } from '../regions/region.js';
import { speakAs } from '../regions/spoken.js';
import { CHECKS } from '../trouble/data/checks.js';
import { DOOR_RUNGS, type Rung } from '../trouble/data/door-ladder.js';
import { STOP_RULES } from '../trouble/data/stops.js';
import { coveringVariants, featuresRead, has, tasksOfKind } from './variants.js';

/*
 * Which step must carry which caution: by what a step does, over every task in machines in which each pair of
 * features occurs, and told in every region. Common practice and the sources named with the hazards.
 */

const hasGas = ({ kind, features: { energy = 'unknown' } }: VisitMachine): boolean =>
  (VENTED as readonly MachineKind[]).includes(kind) && energy !== 'electric';
const brings = ({ brings: asked }: Step, active: string): boolean =>
  asked?.products.some((id) => productById(id).actives.includes(active as never)) ?? false;

/** A hazard, and the steps that must carry it. */
const RULES: [hazard: string, at: string, needs: (step: Step, machine: VisitMachine) => boolean][] =
  [
    ['scald', 'water is let out', ({ acts }) => acts.drains === true],
    ['scald', 'the drain hose is lowered', ({ acts }) => acts.does?.drainHose === 'bucket'],
    ['full-drum', 'the drain hose is lowered', ({ acts }) => acts.does?.drainHose === 'bucket'],
    ['full-drum', 'it is asked whether it is full', ({ acts }) => acts.stopsIfFull === true],
    [
      'flood',
      'the filter is opened',
      ({ acts }) => acts.does?.filter !== undefined && acts.does.filter !== 'in',
    ],
    ['electric', 'the plug is pulled', ({ acts }) => acts.does?.power === 'off'],
    ['lead', 'the plug goes in', ({ acts }) => acts.does?.power === 'on'],
    [
      'water-pressure',
      'a tap or a hose under pressure',
      ({ acts }) => acts.does?.tap === 'shut' || acts.does?.fillHose === 'off',
    ],
    ['hot-hose', 'a tap is shut', ({ acts }) => acts.does?.tap === 'shut'],
    [
      'gas',
      'the gas valve is turned',
      ({ acts }, one) => acts.does?.gas !== undefined && one.features.energy === 'gas',
    ],
    [
      'gas',
      'the duct comes off a gas dryer',
      ({ acts }, one) => acts.does?.duct === 'off' && hasGas(one),
    ],
    ['gas', 'gas is smelled for', ({ acts }) => acts.proves?.includes('gas') === true],
    [
      'gas-connector',
      'a gas dryer is moved',
      ({ acts }, one) => acts.does?.place === 'out' && hasGas(one),
    ],
    [
      'stacked',
      'a stack is moved',
      ({ acts }) => acts.does?.place !== undefined && acts.people === 2,
    ],
    [
      'moving',
      'a machine is moved',
      ({ acts }) => acts.does?.place !== undefined && acts.people !== 2,
    ],
    ['never-indoors', 'the duct goes back on', ({ acts }) => acts.does?.duct === 'on'],
    [
      'inside-panels',
      'the cabinet is opened',
      ({ acts }) => acts.does?.cabinet === 'off' || acts.does?.housing === 'off',
    ],
    [
      'live-parts',
      'a panel comes off a washer',
      ({ id }) => id === 'front-off' || id === 'panel-behind',
    ],
    ['no-screen', 'the screen goes back', ({ acts }) => acts.does?.screen === 'in'],
    ['hot-glass', 'a hot cycle', ({ acts }) => acts.runs === 'hot'],
    ['children', 'a hot cycle', ({ acts }) => acts.runs === 'hot'],
    [
      'children',
      'a door is left open',
      ({ do: what, look = '' }) =>
        /\bdoor\b[^.]*\b(ajar|a hand open)|Leave the door/i.test(`${what} ${look}`) &&
        !/until the smell/.test(what),
    ],
    [
      'fire-load',
      'something is dried',
      ({ acts }) => acts.runs === 'dry' && acts.needs?.measured === undefined,
    ],
    ['bag-test', 'the bag test', ({ reading }) => reading === 'bag-fill-time'],
    ['ladder', 'the way to the hood', ({ acts }) => acts.does?.stand === 'safe'],
    ['impeller', 'hands at the impeller', ({ id }) => id === 'impeller' || id === 'housing'],
    [
      'mould-remover',
      'mould remover',
      ({ brings: asked }) => asked?.products.includes('mould-bleach') ?? false,
    ],
    [
      'mould-health',
      'mould',
      ({ brings: asked }) => asked?.products.includes('mould-bleach') ?? false,
    ],
    [
      'solvent',
      'alcohol in a dryer',
      (step) => step.acts.at === 'drum' && brings(step, 'alcohol') && !brings(step, 'hypochlorite'),
    ],
    [
      'cleaner-alone',
      'what goes into the drum',
      ({ brings: asked, acts }) =>
        acts.does?.rinsed === 'no' && asked !== undefined && acts.soaks === undefined,
    ],
    [
      'acid',
      'a soak in vinegar',
      ({ acts, brings: asked }) =>
        acts.soaks !== undefined && (asked?.products.includes('vinegar') ?? false),
    ],
    [
      'heat-pump-manual',
      'the fins of a heat pump',
      ({ id }, { kind }) =>
        kind === 'heat-pump-dryer' &&
        ['soft-dry', 'brush-in-place', 'manual', 'flap-sump'].includes(id),
    ],
    [
      'sharp-fins',
      'the fins',
      ({ id }) => ['soft-dry', 'dry-first', 'catches', 'flap-sump'].includes(id),
    ],
    ['tipping', 'a foot is turned', ({ acts }) => acts.does?.locknuts === 'loose'],
    ['stacked', 'the feet of a stack', ({ id }) => id === 'feet-stack'],
    ['sink-edge', 'the trap is opened', ({ acts }) => acts.does?.trap === 'off'],
  ];

const MACHINES = MACHINE_KINDS.map((kind) => ({
  kind,
  machines: coveringVariants(kind, featuresRead(kind, tasksOfKind(kind))),
}));

/** Every step that any task can ask for, with the machine it is at. */
function* everyStep(): Generator<{
  step: Step;
  cautions: string[];
  machine: VisitMachine;
  task: string;
}> {
  for (const { kind, machines } of MACHINES)
    for (const machine of machines)
      for (const task of tasksOfKind(kind))
        if (has(machine, task))
          for (const { step, cautions } of planVisit(
            [{ machineId: machine.id, task: task.id }],
            [machine],
          ).steps)
            yield { step, cautions, machine, task: task.id };
}

const TONGUES: Record<Region, Tongue> = {
  eu: { region: 'eu', units: 'metric' },
  uk: { region: 'uk', units: 'metric' },
  us: { region: 'us', units: 'us' },
};
afterEach(() => speakAs(AS_WRITTEN));

describe.each(REGIONS)(
  'cautions stand at the step where they count, in the region %s',
  (region) => {
    it('by what the step does', () => {
      speakAs(TONGUES[region]);
      const met = new Map(RULES.map(([hazard, at]) => [`${hazard}: ${at}`, 0]));
      const missing = new Set<string>();
      for (const { step, cautions, machine, task } of everyStep()) {
        for (const [hazard, at, needs] of RULES) {
          if (!needs(step, machine)) continue;
          const name = `${hazard}: ${at}`;
          met.set(name, met.get(name)! + 1);
          const [caution] = cautionsFor(machine, [hazard]);
          if (caution === undefined || !cautions.includes(caution))
            missing.add(`${name} is not said at ${task}/${step.id} (${machine.kind})`);
        }
      }
      expect([...missing]).toEqual([]);
      expect([...met].filter(([, count]) => count === 0)).toEqual([]);
    });

    it('in words that are told there', () => {
      speakAs(TONGUES[region]);
      const said = (hazard: string) => hazardById(hazard).caution;
      const fitter = { eu: 'licensed gas fitter', uk: 'By law', us: 'your gas utility' }[region];
      expect(said('gas')).toContain(fitter);
      expect(said('lead')).toContain(region === 'us' ? 'extension cord' : 'extension lead');
      expect(said('scald')).toContain(region === 'us' ? '104 °F' : '40 °C');
      expect(said('scald')).not.toContain('(');
      expect(said('duct-material')).toContain(region === 'us' ? 'forbid it' : 'metal is safer');
      expect(said('fire-load')).toContain(region === 'us' ? 'gasoline' : 'petrol');
      expect(said('heat-pump-manual')).toContain('R290');
    });
  },
);

describe('trouble says what can hurt', () => {
  it('at each look that needs the plug out, the water cold or the gas shut', () => {
    const wanting = CHECKS.flatMap(({ id, how, hazards = [] }) => [
      ...(/^(Cool|Cold|Screen out)?[^.]*\bplug out\b/i.test(how) &&
      id !== 'plug-out-five' &&
      !hazards.includes('electric')
        ? [`${id}: electric`]
        : []),
      ...(/drain hose|thin hose|front hose|filter out/i.test(how) &&
      /bucket|tray|turn the/.test(how) &&
      !hazards.includes('scald')
        ? [`${id}: scald`]
        : []),
      ...(/hose off/.test(how) && /Tap shut/.test(how) && !hazards.includes('water-pressure')
        ? [`${id}: water-pressure`]
        : []),
    ]);
    expect(wanting).toEqual([]);
  });

  it('at each rung of a locked door that lets water out or reaches in', () => {
    for (const { id, drains, hazards = [] } of Object.values<Rung>(DOOR_RUNGS)) {
      if (drains) expect(hazards, id).toContain('scald');
    }
    expect(DOOR_RUNGS.pull.hazards).toEqual(expect.arrayContaining(['electric', 'scald']));
    expect(DOOR_RUNGS.pull.do).toMatch(/below the sill.*cool.*plug out.*drum still/);
  });

  it('before any suspect, with whom to call', () => {
    const calling = /fire service|emergency number|poison centre|gas emergency/;
    for (const { id, call, calls = [] } of STOP_RULES) {
      if (calling.test(call) && !['flooding'].includes(id))
        expect(calls.length, id).toBeGreaterThan(0);
    }
  });
});
