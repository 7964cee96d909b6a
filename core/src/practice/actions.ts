import { SETUPS } from '../care/catalogue/data/setups.js';
import { holds, setUpIdsOf, taskOf, tasksOf } from '../care/catalogue/lookup.js';
import type { SetUp } from '../care/catalogue/types.js';
import { planVisit } from '../care/visit/plan.js';
import { tripsFor } from '../measure/water/tub.js';
import { isWasher } from '../model/vocabulary.js';
import { spoken } from '../regions/spoken.js';
import { minutesLeft, stagesOf, type Stage } from '../trouble/data/stages.js';
import type { Check, TroubleCause } from '../trouble/data/types.js';
import type { Acts } from '../world/acts.js';
import { HOME, strayFacts } from '../world/facts.js';
import { minutesToCool, pass } from '../world/world.js';
import { SUMP } from '../world/water.js';
import type { PracticeCase } from './case.js';
import { deedOfDraining, deedOfFix, deedOfLook, type Deed } from './deeds.js';
import { PRACTICE_MEASURES, type PracticeMeasure } from './figures-taken.js';
import { beliefOf, type PracticeState } from './state.js';
import { NOT_YET } from './words.js';
import { doIn, type Outcome } from './world-deeds.js';

/** The five pockets. */
export const POCKETS = ['prepare', 'look', 'measure', 'repair', 'prove'] as const;
export type PocketId = (typeof POCKETS)[number];
export const POCKET_NAMES: Record<PocketId, string> = spoken({
  prepare: 'Prepare',
  look: 'Look',
  measure: 'Measure',
  repair: 'Repair',
  prove: 'Prove',
});

/** Something that can be done now, with its price. */
export interface PracticeAction {
  id: string;
  pocket: PocketId;
  say: string;
  /** What to do in a sentence, and why. */
  how: string;
  minutes: number;
  /** Minutes in which one only waits. */
  waits: number;
  /** L that would run on the floor, as far as it can be seen before. */
  spills: number;
  /** In the household’s money. */
  money: number;
  done: boolean;
  /** Why it cannot be done yet; empty where it can. */
  notYet: string;
  /** The station that it is at, where it has one. */
  station?: string;
  /** The care task whose steps it is. */
  task?: string;
  /** The instrument, by its path. */
  instrument?: string;
  /** It says nothing of what can make what was told. */
  far?: true;
  /** What doing it again does, where it is done and can be undone. */
  back?: string;
}

/** What somebody who is called costs, in the household’s money, before any part. Judgement. */
export const CALL_OUT = 120;
/** L that the tray and the towels below take; minutes that a litre on the floor takes to mop up. Judgement. */
const TRAY = 3;
export const MOP = 1;
/** L a minute by a drain-down hose; minutes for a tray that is carried, and for a bucket that is scooped. */
const THIN_HOSE = 1.5;
const PER_TRAY = 0.75;
const PER_BUCKET = 2;
/** Repairs as unlikely as this are not offered; of what cannot make what was told, only those likelier than this. */
const HARDLY = 0.005;
const SURELY = 0.3;

/** Set-ups that stand among what to prepare, in this order. */
const PREPARES = ['unplugged', 'water-off', 'gas-off', 'cold', 'flap-open', 'pulled-out'];

/** A deed as it is done in a case: what it is to the machine, what it takes. */
export interface Done {
  id: string;
  pocket: PocketId;
  say: string;
  how: string;
  deed: Deed;
  minutes: number;
  waits?: number;
  money?: number;
  station?: string;
  task?: string;
  instrument?: string;
  /** It says nothing of what can make what was told. */
  far?: true;
  /** Its way back, where it is made. */
  back?: string;
  is:
    | { a: 'set-up'; setup: SetUp; made: boolean }
    | { a: 'draining' }
    | { a: 'look'; check: Check }
    | { a: 'figure'; measure: PracticeMeasure }
    | { a: 'fix'; cause: number }
    | { a: 'try' }
    | { a: 'ready' };
}

const NOTHING: Deed = { open: [], close: [] };
const set = (acts: Acts): Deed => ({ open: [acts], close: [] });

/** What a machine’s own tasks have done before them, in the order in which it is made. */
function setUpsOfMachine({ machine }: PracticeCase): SetUp[] {
  const used = new Set(tasksOf(machine).flatMap((task) => setUpIdsOf(task, machine)));
  return PREPARES.flatMap((id) => SETUPS.filter((one) => one.id === id && used.has(id)));
}

/** All that can be done in a case, whether it can now or not. */
export function deedsOf(game: PracticeCase, state: PracticeState): Done[] {
  const { machine } = game;
  return [
    ...setUpsOfMachine(game).map((setup) => prepared(game, state, setup)),
    ...(isWasher(machine.kind) && state.world.litres > 0 ? [drained(game, state)] : []),
    ...looksOf(game, state),
    ...measured(game),
    ...fixesOf(game, state),
    tried(game),
    leftReady(game, state),
  ];
}

/** A set-up, or its way back where it is made: how a done one reads. */
const BACK: Readonly<Record<string, string>> = spoken({
  unplugged: 'Plug it in',
  'water-off': 'Open the tap',
  'gas-off': 'Open it, smell at it',
  'flap-open': 'Shut the flap',
  'pulled-out': 'Push it back',
});

function prepared({ machine }: PracticeCase, state: PracticeState, setup: SetUp): Done {
  const steps = setup.steps.filter(({ when }) => holds(when, machine));
  const open = steps.map(({ acts }) => acts).filter(({ cools }) => !cools);
  const cools = steps.some(({ acts }) => acts.cools);
  const waits = cools ? minutesToCool(state.world, isWasher(machine.kind)) : 0;
  const make: Acts[] = [
    ...open,
    ...(cools ? [{ at: 'outside', does: { cool: 'yes' } } as const] : []),
  ];
  const made = facts(make);
  const isMade = made.every(([fact, value]) => state.world.facts[fact] === value);
  const back = BACK[setup.id];
  const one = {
    id: `prep:${setup.id}`,
    pocket: 'prepare' as const,
    minutes: setup.minutes,
    is: { a: 'set-up', setup, made: isMade } as const,
  };
  if (!isMade || !back) {
    const how = steps.map(({ do: what }) => what).join(' ');
    return { ...one, say: setup.name, how, deed: { open: make, close: [] }, waits };
  }
  const undo = steps.length ? setup.undo.filter(({ when }) => holds(when, machine)) : [];
  return {
    ...one,
    say: setup.name,
    back,
    how: undo.map(({ do: what }) => what).join(' '),
    minutes: Math.min(2, setup.minutes),
    deed: {
      open: made
        .filter(([fact]) => !fact.endsWith('Tight'))
        .map(([fact]) => ({ at: 'outside', does: { [fact]: HOME[fact] } })),
      close: [],
    },
  };
}

const facts = (acts: readonly Acts[]): [keyof typeof HOME, string][] =>
  acts.flatMap(({ does = {} }) => Object.entries(does) as [keyof typeof HOME, string][]);

function drained({ machine }: PracticeCase, { world }: PracticeState): Done {
  const { by, ...deed } = deedOfDraining(machine);
  const { trays, buckets } = tripsFor(world.litres);
  const minutes = {
    hose: world.litres / THIN_HOSE,
    filter: trays * PER_TRAY,
    scoop: buckets * PER_BUCKET,
  };
  const say = {
    hose: 'Let it out by the thin hose',
    filter: 'Let it out, a turn at a time',
    scoop: 'Scoop the water out',
  };
  return {
    id: 'prep:let-out',
    pocket: 'prepare',
    say: world.litres > SUMP ? say[by] : 'Let the last litre out',
    how: 'Half a tray at a time, emptied and set back: what is carried must not spill.',
    deed,
    minutes: Math.max(1, Math.round(minutes[by])),
    station: 'pump-filter',
    is: { a: 'draining' },
  };
}

function looksOf({ trouble, machine, hidden }: PracticeCase, state: PracticeState): Done[] {
  const explains = trouble.explaining(hidden.reported);
  return trouble.checks
    .map((check): Done => ({
      id: `look:${check.id}`,
      pocket: 'look',
      say: check.ask,
      how: check.how,
      deed: deedOfLook(check.id, check.stages ?? [], machine),
      minutes: minutesLeft(check.minutes, stagesOf(check), state.made),
      ...(trouble.tellsOf(check.id, explains) ? {} : { far: true }),
      is: { a: 'look', check },
    }))
    .sort((a, b) => Number(a.far ?? false) - Number(b.far ?? false) || a.minutes - b.minutes);
}

function measured(game: PracticeCase): Done[] {
  const deeds: Partial<Record<PracticeMeasure['id'], Deed>> = {
    drain: set({ at: 'outside', needs: { power: ['on'], filter: ['in'] } }),
    bucket: set({ at: 'outside', needs: { power: ['on'], cool: ['yes'], filter: ['in'] } }),
    fill: deedOfLook('flow-bucket', ['pulled-out', 'fill-hose-off'], game.machine),
    air: set({ at: 'outside', needs: { power: ['on'], duct: ['on'] } }),
    drying: set({
      at: 'outside',
      needs: { power: ['on'], duct: ['on'], gas: ['open'], place: ['home'] },
    }),
  };
  return PRACTICE_MEASURES.filter(({ fits }) => fits(game)).map((measure): Done => ({
    id: `measure:${measure.id}`,
    pocket: 'measure',
    say: measure.say,
    how: 'As the instrument of this name takes it; a hand is off by some percent.',
    deed: deeds[measure.id] ?? NOTHING,
    minutes: measure.minutes,
    ...(measure.waits ? { waits: measure.waits } : {}),
    instrument: measure.instrument,
    is: { a: 'figure', measure },
  }));
}

const WHO_DOES: Record<TroubleCause['fix']['who'], string> = spoken({
  you: 'You can do it yourself.',
  skilled: 'It is for somebody handy, with the manual.',
  professional: 'Somebody trained comes for it.',
});

function fixesOf(game: PracticeCase, state: PracticeState): Done[] {
  const { trouble, machine, hidden } = game;
  const belief = beliefOf(game, state);
  const explains = trouble.explaining(hidden.reported);
  return trouble.causes
    .map((cause, i) => ({ cause, i, chance: belief.causes[i]! }))
    .filter(({ i, chance }) => chance >= (explains[i] ? HARDLY : SURELY) || state.fixed.includes(i))
    .sort((a, b) => b.chance - a.chance)
    .map(({ cause: { fix, station, id }, i }): Done => {
      const stages: readonly Stage[] = fix.who === 'you' ? (fix.stages ?? []) : [];
      return {
        id: `fix:${id}`,
        pocket: 'repair',
        say: fix.say,
        how: WHO_DOES[fix.who],
        deed: deedOfFix(stages, machine),
        minutes: minutesLeft(fix.minutes, stagesOf(fix), state.made),
        money: fix.who === 'professional' ? CALL_OUT : 0,
        station,
        ...(fix.task && fix.who === 'you' ? { task: fix.task } : {}),
        is: { a: 'fix', cause: i },
      };
    });
}

/** What has to be so before it is run; where it leaks then is told by what runs out. */
function tried({ machine }: PracticeCase): Done {
  const washer = isWasher(machine.kind);
  return {
    id: 'prove:try',
    pocket: 'prove',
    say: washer ? 'Rinse and spin: is it gone?' : 'Run a load: is it gone?',
    how: washer
      ? 'Run it and watch what you came for. A drip at the filter shows only while its flap is open, a drip at the fill hose only from behind.'
      : 'Run it and watch what you came for. Air beside a joint shows only from behind.',
    deed: set({
      at: 'outside',
      needs: washer ? { power: ['on'], tap: ['open'] } : { power: ['on'], gas: ['open'] },
    }),
    minutes: 3,
    waits: washer ? 25 : 60,
    is: { a: 'try' },
  };
}

function leftReady({ machine }: PracticeCase, { world }: PracticeState): Done {
  const open = strayFacts(world.facts).filter((fact) => !fact.endsWith('Tight'));
  const minutes = open.reduce((sum, fact) => sum + (fact === 'place' ? 4 : 1), 0);
  return {
    id: 'prove:ready',
    pocket: 'prove',
    say: 'Leave it ready',
    how: isWasher(machine.kind)
      ? 'All back in and shut, pushed back, tap open, plug in.'
      : 'All back in and shut, pushed back, plug in.',
    deed: {
      open: open.map((fact) => ({ at: 'outside', does: { [fact]: HOME[fact] } })),
      close: [],
    },
    minutes,
    is: { a: 'ready' },
  };
}

/** What would come of it now. */
export function outcomeNow(game: PracticeCase, state: PracticeState, one: Done): Outcome {
  const outcome = doIn(state.world, one.deed, game.machine);
  if (outcome.is !== 'done') return outcome;
  const { world } = outcome;
  const washer = isWasher(game.machine.kind);
  return { ...outcome, world: pass(world, one.minutes + (one.waits ?? 0), washer) };
}

/** What the tray takes of a spill. @param spilled litres @returns litres */
export const caught = (spilled: number, tray: boolean): number =>
  tray ? Math.min(TRAY, spilled) : 0;

/** What can be done in a case, each with its price. */
export const actionsOf = (game: PracticeCase, state: PracticeState): PracticeAction[] =>
  deedsOf(game, state).map((one) => actionOf(game, state, one));

function actionOf(game: PracticeCase, state: PracticeState, one: Done): PracticeAction {
  const outcome = outcomeNow(game, state, one);
  const spilled = outcome.is === 'done' ? outcome.spilled : 0;
  const done = isDone(state, one);
  return {
    id: one.id,
    pocket: one.pocket,
    say: one.say,
    how: one.how,
    minutes: one.minutes,
    waits: Math.round(one.waits ?? 0),
    spills: spilled - caught(spilled, state.tray),
    money: one.money ?? 0,
    done,
    notYet: done && one.is.a !== 'set-up' ? '' : whyNotYet(outcome),
    ...(one.station ? { station: one.station } : {}),
    ...(one.task ? { task: one.task } : {}),
    ...(one.instrument ? { instrument: one.instrument } : {}),
    ...(one.far ? { far: true } : {}),
    ...(one.back ? { back: one.back } : {}),
  };
}

const whyNotYet = (outcome: Outcome): string =>
  outcome.is === 'not yet'
    ? (NOT_YET[outcome.wants.fact]?.[outcome.wants.values[0]!] ?? 'not yet')
    : '';

function isDone({ world, answers, fixed, proved }: PracticeState, { is, deed }: Done): boolean {
  switch (is.a) {
    case 'set-up':
      return is.made;
    case 'draining':
      return world.litres === 0;
    case 'look':
      return answers[is.check.id] !== undefined;
    case 'figure':
      return false;
    case 'fix':
      return fixed.includes(is.cause);
    case 'try':
      return proved;
    case 'ready':
      return deed.open.length === 0;
  }
}

/** The steps of a repair’s own task, for whoever does it step by step. */
export const stepsOfFix = ({ machine }: PracticeCase, task: string) =>
  planVisit(
    [{ machineId: 'practice', task: taskOf(machine, task).id }],
    [{ ...machine, id: 'practice' }],
  ).steps;
