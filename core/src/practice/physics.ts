import { dryLoad } from '../measure/air/drum.js';
import { ventRun, USUAL_BLOWER, type VentRun } from '../measure/air/vent-run.js';
import type { VentPiece } from '../measure/air/vent-pieces.js';
import { USUAL_DRAIN } from '../measure/water/drain-test.js';
import { SLOW_FILL } from '../measure/water/fill-flow.js';
import { hasDuct, isWasher } from '../model/vocabulary.js';
import type { Body } from '../world/acts.js';
import { between, chancesFor } from './chance.js';

/*
 * What of a machine has a figure, as it really is: its figures follow from what is wrong with it by the instruments' own
 * models. What a hand measures of them is off by as much as hands are.
 */

/** The water's way out, m³/s; `share` is what the machine lets through of its own clean flow, `pipe` what the pipe takes. */
export interface HiddenDrain {
  clean: number;
  share: number;
  pipe: number;
}

/** A vented dryer's way of air, and what its load takes; m³/s, minutes. */
export interface HiddenAir {
  run: VentRun;
  flow: number;
  load: PracticeLoad;
  minutes: number;
}

/** A load in a dryer; kg, kg/kg, W, °C, 0 to 1. */
export interface PracticeLoad {
  dry: number;
  moisture: number;
  target: number;
  heater: number;
  room: number;
  humidity: number;
  /** It is not heated. */
  cold?: boolean;
}

export interface Physics {
  drain?: HiddenDrain;
  /** From the fill hose, m³/s. */
  fill?: number;
  air?: HiddenAir;
}

/** W of a vented dryer's heater, the load it is asked about, the room. Common practice. */
export const PRACTICE_LOAD: PracticeLoad = {
  dry: 3,
  moisture: 0.6,
  target: 0.03,
  heater: 5400,
  room: 18,
  humidity: 0.5,
};

type Range = readonly [number, number];
/** What is left of the flow out of the machine, and into the pipe, by what is wrong. Judgement. */
const MACHINE_LEAVES: Readonly<Record<string, Range>> = {
  'filter-clogged': [0.22, 0.48],
  'impeller-jammed': [0.1, 0.3],
  'drain-hose-closed': [0.22, 0.48],
  'suds-lock': [0.35, 0.48],
  'pump-failed': [0, 0],
  'control-fault': [0.1, 0.3],
};
const PIPE_LEAVES: Readonly<Record<string, Range>> = {
  'trap-clogged': [0.25, 0.48],
  'house-drain-blocked': [0.2, 0.45],
};
const NARROWS = { ...MACHINE_LEAVES, ...PIPE_LEAVES };
/** What is well lets through so much of its own clean flow; what is wrong and does not show yet, so much. */
const WELL: Range = [0.9, 1];
const NOT_YET: Range = [0.82, 0.92];

/**
 * How a machine is in figures.
 * @param causes ids of what is wrong @param shows what it shows, by symptom and look
 * @param seed of the case, a number of 32 bits
 */
export function physicsOf(
  body: Body,
  causes: readonly string[],
  shows: ReadonlyMap<string, boolean>,
  seed: number,
): Physics {
  return {
    ...(isWasher(body.kind)
      ? { drain: drainOf(causes, shows, seed), fill: fillOf(shows, seed) }
      : {}),
    ...(hasDuct(body.kind) ? { air: airOf(causes, shows, seed) } : {}),
  };
}

/** Signs of a drain that is held back. */
export const SLOW_SIGNS = ['drains-slowly', 'wont-drain', 'hum-no-flow', 'backs-up'] as const;

function drainOf(
  causes: readonly string[],
  shows: ReadonlyMap<string, boolean>,
  seed: number,
): HiddenDrain {
  const random = chancesFor(seed, 'drain');
  const clean = between(random, [USUAL_DRAIN.least, USUAL_DRAIN.most]);
  const slow = SLOW_SIGNS.some((id) => shows.get(id));
  const left = (leaves: Readonly<Record<string, Range>>) => {
    const here = causes.filter((cause) => leaves[cause]);
    const well = between(random, WELL);
    return here.reduce(
      (flow, cause) => flow * between(random, slow ? leaves[cause]! : NOT_YET),
      well,
    );
  };
  const [share, pipe] = [left(MACHINE_LEAVES), left(PIPE_LEAVES)];
  if (shows.get('wont-drain')) return { clean, share: 0, pipe };
  // It shows, and nothing that is wrong narrows the way: chance made it so today.
  const chance = slow && !causes.some((cause) => NARROWS[cause]);
  return { clean, share: chance ? between(random, [0.35, 0.48]) : share, pipe };
}

function fillOf(shows: ReadonlyMap<string, boolean>, seed: number): number {
  const random = chancesFor(seed, 'fill');
  return SLOW_FILL * between(random, shows.get('flow-bucket') ? [0.25, 0.75] : [1.3, 1.9]);
}

/** A common run: a hose, a rise, three elbows, a level piece, the hood. Lengths in m. */
const PIECES: readonly VentPiece[] = [
  { is: 'screen', blocked: 0 },
  { is: 'hose', length: 1.2, stretched: true },
  { is: 'elbow', angle: 90, radius: '4-in' },
  { is: 'straight', length: 1.5, direction: 'up' },
  { is: 'elbow', angle: 90, radius: '4-in' },
  { is: 'straight', length: 2.4, direction: 'level' },
  { is: 'hood', state: 'free', screened: false },
];
const CLEAN_RUN: VentRun = {
  pieces: PIECES,
  material: 'smooth-metal',
  diameter: 0.102,
  lining: 0,
  temperature: 60,
  blower: USUAL_BLOWER,
};

type Changes = (run: VentRun, bad: boolean, random: () => number) => VentRun;
const pieces = (change: (piece: VentPiece) => VentPiece): ((run: VentRun) => VentRun) => {
  return (run) => ({ ...run, pieces: run.pieces.map(change) });
};
const narrowed =
  (bad: Range, mild: Range): Changes =>
  (run, isBad, random) => ({
    ...run,
    pieces: run.pieces.flatMap((piece): VentPiece[] =>
      piece.is === 'hose'
        ? [piece, { is: 'narrow', diameter: between(random, isBad ? bad : mild) }]
        : [piece],
    ),
  });
const screen =
  (bad: Range, mild: Range): Changes =>
  (run, isBad, random) => {
    const blocked = between(random, isBad ? bad : mild);
    return pieces((piece) => (piece.is === 'screen' ? { ...piece, blocked } : piece))(run);
  };
/** What is wrong with the way of the air, as a change of the run. Judgement. */
const AIR_CHANGES: Readonly<Record<string, Changes>> = {
  'screen-loaded': screen([0.86, 0.92], [0.6, 0.75]),
  'screen-coated': screen([0.86, 0.92], [0.6, 0.75]),
  'well-matted': narrowed([0.034, 0.042], [0.055, 0.065]),
  'blower-packed': (run, bad) => ({
    ...run,
    blower: {
      shutOff: run.blower.shutOff * (bad ? 0.25 : 0.6),
      freeFlow: run.blower.freeFlow * (bad ? 0.5 : 0.8),
    },
  }),
  'hose-crushed': narrowed([0.03, 0.04], [0.05, 0.065]),
  'duct-lined': (run, bad, random) => ({
    ...run,
    lining: between(random, bad ? [0.024, 0.029] : [0.008, 0.014]),
  }),
  'low-point': narrowed([0.03, 0.04], [0.05, 0.065]),
  'hood-stuck': (run, bad) =>
    pieces((piece) =>
      piece.is === 'hood' ? { ...piece, state: bad ? 'stuck' : 'linted', screened: bad } : piece,
    )(run),
  'run-too-long': (run, bad) =>
    pieces((piece) =>
      piece.is === 'straight' ? { ...piece, length: piece.length * (bad ? 6 : 3) } : piece,
    )(run),
};

/** What is wrong with the load or its heat, by cause: kg, kg/kg, and whether it heats at all. Judgement. */
const LOAD_CHANGES: Readonly<Record<string, { dry?: number; moisture?: number; cold?: true }>> = {
  overfilled: { dry: 5.5 },
  'load-too-wet': { moisture: 0.95 },
  'heater-fault': { cold: true },
  'air-only': { cold: true },
  'half-breaker': { cold: true },
  'gas-valve-shut': { cold: true },
  'cut-out-tripped': { cold: true },
};

function airOf(
  causes: readonly string[],
  shows: ReadonlyMap<string, boolean>,
  seed: number,
): HiddenAir {
  const random = chancesFor(seed, 'air');
  const bad = shows.get('weak-air') === true || shows.get('long-drying') === true;
  const run = causes.reduce(
    (changed, cause) => AIR_CHANGES[cause]?.(changed, bad, random) ?? changed,
    CLEAN_RUN,
  );
  const load = causes.reduce((all, cause) => ({ ...all, ...LOAD_CHANGES[cause] }), {
    ...PRACTICE_LOAD,
    cold: false,
  });
  const { flow } = ventRun(run);
  return { run, flow, load, minutes: minutesBy(flow, load) };
}

/** Minutes that a load takes in so much air, m³/s; endless where it is not heated. */
export const minutesBy = (flow: number, load: PracticeLoad = PRACTICE_LOAD): number =>
  load.cold ? Infinity : dryLoad({ ...load, flow }).minutes;

/** The run of a vented dryer with nothing in its way. */
export const CLEAN_AIR = { run: CLEAN_RUN, flow: ventRun(CLEAN_RUN).flow };
