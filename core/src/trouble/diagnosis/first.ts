import { DRYING, isWasher, type MachineKind } from '../../model/vocabulary.js';
import { tasksOf } from '../../care/catalogue/lookup.js';
import type { Build } from '../../care/catalogue/types.js';
import { spoken } from '../../regions/spoken.js';
import { DOOR_RUNGS, type Rung, type RungId } from '../data/door-ladder.js';
import type { Answers } from './diagnosis.js';
import type { Situation } from './priors.js';

/** What is done before any look: because of it the looks themselves would hurt or flood. */
export interface FirstThing {
  id: 'water' | 'not-used' | 'door';
  title: string;
  /** In this order. */
  do: readonly string[];
  why: string;
  /** The instrument that measures it. */
  instrument?: string;
}

/** What is known of the water behind a locked door. */
export type WaterLevel = 'unknown' | 'none' | 'water';

/** Chance of a restriction on the air line from which a hot dryer is not used. Judgement. */
const SUSPECTED = 0.3;
/** Fouling from which a station is overdue; 1 is where trouble begins. */
const OVERDUE = 0.9;
const AIR_TASKS = [
  'duct-run',
  'hood',
  'transition-hose',
  'screen-well',
  'heat-exchanger',
  'fluff-rinse',
];
const HOT_SIGNS = ['overheats', 'hot-laundry', 'burning-smell', 'hot-damp-behind'];
const HOT_CODES = ['overheat', 'air'];

const said = (answers: Answers, id: string): boolean =>
  answers[id] === 'yes' || answers[id] === 'partly';

/** Whether water stands in a washer, by what was told. */
export function waterLevel({ codes = [] }: Situation, answers: Answers): WaterLevel {
  if (said(answers, 'wont-drain') || answers['locked-empty'] === 'no') return 'water';
  if (answers['locked-empty'] === 'yes') return 'none';
  const drainCode = said(answers, 'code-drain') || codes.some((one) => one.class === 'drain');
  return drainCode && said(answers, 'door-locked') ? 'water' : 'unknown';
}

/**
 * What comes before any look, by what was told and what the records say.
 * @param airLine chance, 0 to 1, that something restricts the air line
 */
export function firstThings(situation: Situation, answers: Answers, airLine: number): FirstThing[] {
  const { kind } = situation;
  return [
    ...(isWasher(kind) && waterLevel(situation, answers) === 'water'
      ? [WATER[kind] ?? WATER_IN_A_TUB]
      : []),
    ...hotDryer(situation, answers, airLine),
  ];
}

function hotDryer(situation: Situation, answers: Answers, airLine: number): FirstThing[] {
  const { kind, fouling = {}, codes = [] } = situation;
  const hot =
    HOT_SIGNS.some((id) => said(answers, id)) ||
    codes.some((one) => HOT_CODES.includes(one.class ?? ''));
  // A way that nobody has looked into is no clean way.
  const overdue = tasksOf(situation).some(
    ({ id }) => AIR_TASKS.includes(id) && (fouling[id] ?? 1) >= OVERDUE,
  );
  const dries = (DRYING as readonly MachineKind[]).includes(kind);
  return dries && hot && (overdue || airLine >= SUSPECTED) ? [NOT_USED] : [];
}

const NOT_USED: FirstThing = spoken({
  id: 'not-used',
  title: 'Do not use this dryer until its air line was cleaned',
  do: [
    'Stop it, take everything out at once and spread it outdoors; then pull its plug.',
    'Clean the way of the air first: screen and well, hose, duct and hood, or the heat exchanger; in a washer-dryer the lint rinse.',
    'Only then let it run, with somebody beside it, and see whether it still gets hot.',
  ],
  why: 'Hot air that cannot get away heats lint, and lint burns. A smell of burning that went away was a warning.',
});

const WATER_STEPS = [
  'Stop the cycle, shut the tap, pull the plug. After a hot cycle let it cool: three to eight hours for a full drum. Tomorrow is safe; else measure the first cup: under 40 °C (104 °F).',
  'Measure how high the water stands at the glass: it tells litres, buckets, minutes, and which way to let it out.',
  'Leave the drain hose where it is. Lowered, it lets the whole drum run: raise its end above the water and it stops.',
  'Do not move or tip the machine. Scoop, sponge or a wet-and-dry vacuum through the door, where the water is below its sill.',
];
const WATER_IN_A_TUB: FirstThing = {
  id: 'water',
  title: 'First the water: measure it before you open or lower anything',
  do: WATER_STEPS,
  why: 'A full drum holds four buckets or more. What is opened below it lets all of it run.',
  instrument: 'tub-water',
};
/** A top loader is scooped out from above. */
const WATER: Partial<Record<MachineKind, FirstThing>> = {
  'top-load-washer': {
    ...WATER_IN_A_TUB,
    do: [
      WATER_STEPS[0]!,
      'Open the lid and measure how high the water stands: it tells litres, buckets and minutes.',
      WATER_STEPS[2]!,
      'Do not move or tip the machine. Scoop the water out from above with a jug.',
    ],
  },
};
spoken([WATER_STEPS, WATER_IN_A_TUB, WATER]);

/** The rungs of a locked door, each with its cost, for a machine and what is known of the water. */
export function doorLadder({ features }: Pick<Build, 'features'>, level: WaterLevel): Rung[] {
  const behind = features.filterAccess === 'behind';
  const out: RungId = behind ? 'drain-behind' : 'drain-front';
  const order: RungId[] =
    level === 'unknown'
      ? ['level']
      : level === 'none'
        ? ['wait', 'reset', 'plug-out', out, 'filter', 'plug-out-again', 'pull', 'call']
        : ['cut', 'cool', 'measure', out, 'filter', 'wait', 'plug-out-again', 'pull', 'call'];
  return order.map((id): Rung => DOOR_RUNGS[id]);
}
