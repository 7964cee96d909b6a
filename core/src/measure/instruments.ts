import type { VentRunInput } from '../model/vent-runs.js';
import { DRYERS, MACHINE_KINDS, VENTED, WASHERS, type MachineKind } from '../model/vocabulary.js';
import type { Amount } from '../units/quantity.js';
import type { DRUM_FIELDS } from './air/drum-input.js';
import type { DRYING_FIELDS } from './air/drying-test.js';
import type { EXHAUST_FIELDS } from './air/exhaust-air.js';
import type { ANEMOMETER_FIELDS, BAG_FIELDS } from './air/hood-air.js';
import type { SCREEN_FIELDS, ScreenFilm } from './air/lint-screen.js';
import type { SensorInput } from './air/moisture-sensor.js';
import type { COST_FIELDS } from './cost.js';
import type { Given } from './input/fields.js';
import type { RepairQuestion } from './repair.js';
import type { DOSE_FIELDS, DoseQuestion } from './mix/dose.js';
import type { VINEGAR_SODA_FIELDS } from './mix/vinegar-soda.js';
import type { DRAIN_FIELDS } from './water/drain-test.js';
import type { FILL_FIELDS } from './water/fill-flow.js';
import type { Higher, LEVEL_FIELDS, Thread } from './water/level.js';
import type { SCALE_FIELDS, WashTemperature } from './water/scale.js';
import type { PlumbingCode, STANDPIPE_FIELDS } from './water/standpipe.js';
import type { TUB_FIELDS } from './water/tub-water.js';

/*
 * Every instrument, one row each. The screens' list and addresses, the finder, whose machines it is for,
 * and the API's routes with the schemas of what they take and give come from here; the schemas are made
 * from the types of `work` when the program is built (tools/instrument-schemas.ts). What an instrument
 * reckons with is fetched when it is used.
 */

export interface Instrument {
  /** In addresses, and the file of its screen: web/src/app/measure/instruments/NAME.component.ts. */
  name: string;
  title: string;
  /** The question that it answers. */
  question: string;
  line: 'air' | 'water';
  kinds: readonly MachineKind[];
  /** The station where what it measures is to be found. */
  station?: string;
  /** Other words that people use for it. */
  words?: string;
  /** Its name in the API, where that is another. */
  api?: string;
  /**
   * Figures with their units in, the result with its working out, in the core's own units: m, m³/s, Pa,
   * kg, s, °C.
   * @throws MeasureProblem
   */
  work: (input: never) => Promise<object>;
}

export const INSTRUMENTS = [
  {
    name: 'vent-run',
    title: 'Vent run',
    question: 'Where does the pressure go on the way out?',
    line: 'air',
    kinds: VENTED,
    station: 'duct-run',
    words: 'duct pipe elbows hose length code pressure',
    work: async (input: VentRunInput) => (await import('./air/vent-input.js')).ventRunAnswer(input),
  },
  {
    name: 'hood-air',
    title: 'Air at the hood',
    question: 'How much air comes out?',
    line: 'air',
    kinds: VENTED,
    station: 'hood',
    words: 'airflow bag anemometer weak',
    work: async ({
      bag,
      seconds,
      speed,
      area,
      ...against
    }: Given<typeof BAG_FIELDS & typeof ANEMOMETER_FIELDS> & {
      best?: Amount;
      heater?: Amount;
    }) => {
      const { againstGiven, hoodAirByBag, hoodAirBySpeed } = await import('./air/hood-air.js');
      const own = againstGiven(against);
      return bag || seconds
        ? hoodAirByBag({ bag, seconds }, own)
        : hoodAirBySpeed({ speed, area }, own);
    },
  },
  {
    name: 'exhaust-air',
    title: 'Water in the exhaust',
    question: 'How much water goes out a minute?',
    line: 'air',
    kinds: VENTED,
    station: 'hood',
    words: 'humidity moisture grams psychrometer',
    work: async (input: Given<typeof EXHAUST_FIELDS>) =>
      (await import('./air/exhaust-air.js')).exhaustAir(input),
  },
  {
    name: 'drying-test',
    title: 'Drying test',
    question: 'Was this load slow, or just wet?',
    line: 'air',
    kinds: DRYERS,
    words: 'minutes weigh scales long drying spin',
    work: async ({ spin, ...figures }: Given<typeof DRYING_FIELDS> & { spin?: number }) =>
      (await import('./air/drying-test.js')).dryingTest(figures, spin),
  },
  {
    name: 'drum-model',
    title: 'Drum model',
    question: 'Why does a narrow way suddenly cost so much?',
    line: 'air',
    kinds: VENTED,
    words: 'simulation load heater temperature',
    work: async (input: Given<typeof DRUM_FIELDS>) =>
      (await import('./air/drum-input.js')).drumModel(input),
  },
  {
    name: 'lint-screen',
    title: 'Water on the lint screen',
    question: 'Is there a film you cannot see?',
    line: 'air',
    kinds: DRYERS,
    station: 'lint-screen',
    words: 'filter film coating softener sheets pour',
    work: async ({ film, ...figures }: Given<typeof SCREEN_FIELDS> & { film?: ScreenFilm }) =>
      (await import('./air/lint-screen.js')).lintScreen(figures, film),
  },
  {
    name: 'moisture-sensor',
    title: 'Moisture sensor',
    question: 'Do the two strips still tell damp from dry?',
    line: 'air',
    kinds: DRYERS,
    station: 'sensor',
    words: 'meter ohm automatic damp',
    work: async (input: SensorInput) =>
      (await import('./air/moisture-sensor.js')).moistureSensor(input),
  },
  {
    name: 'running-cost',
    title: 'Running cost',
    question: 'What does today’s restriction cost a year?',
    line: 'air',
    kinds: VENTED,
    words: 'money energy kWh price hours',
    work: async ({
      price,
      loadsPerWeek,
      ...figures
    }: Given<typeof COST_FIELDS> & { price: number; loadsPerWeek: number }) =>
      (await import('./cost.js')).runningCost(figures, { price, loadsPerWeek }),
  },
  {
    name: 'repair-or-replace',
    title: 'Repair or replace',
    question: 'Up to which bill does a repair pay?',
    line: 'water',
    kinds: MACHINE_KINDS,
    words: 'new machine price bill age years worth money',
    work: async (input: RepairQuestion) => (await import('./repair.js')).repairOrReplace(input),
  },
  {
    name: 'tub-water',
    title: 'Water in the tub',
    question: 'How many trays, how many minutes?',
    line: 'water',
    kinds: WASHERS,
    station: 'tub',
    words: 'full standing litres bucket',
    work: async ({ lying, ...figures }: Given<typeof TUB_FIELDS> & { lying?: boolean }) =>
      (await import('./water/tub-water.js')).tubWater(figures, lying),
  },
  {
    name: 'drain-test',
    title: 'Drain test',
    question: 'Is it draining slowly, and where?',
    line: 'water',
    kinds: WASHERS,
    station: 'pump-filter',
    words: 'pump seconds flow slow',
    work: async (input: Given<typeof DRAIN_FIELDS>) =>
      (await import('./water/drain-test.js')).drainTest(input),
  },
  {
    name: 'fill-flow',
    title: 'Fill flow',
    question: 'Does enough water come in?',
    line: 'water',
    kinds: WASHERS,
    station: 'inlet-screen',
    words: 'tap inlet bucket slow',
    work: async (input: Given<typeof FILL_FIELDS>) =>
      (await import('./water/fill-flow.js')).fillFlow(input),
  },
  {
    name: 'standpipe',
    title: 'Standpipe and hose',
    question: 'Can it siphon, slip out or overflow?',
    line: 'water',
    kinds: WASHERS,
    station: 'standpipe',
    words: 'drain hose height trap siphon',
    work: async ({ code, ...figures }: Given<typeof STANDPIPE_FIELDS> & { code?: PlumbingCode }) =>
      (await import('./water/standpipe.js')).standpipe(figures, code),
  },
  {
    name: 'dose',
    title: 'Dose',
    question: 'How much detergent does this load need?',
    line: 'water',
    kinds: WASHERS,
    station: 'dispenser',
    words: 'detergent powder liquid spoon',
    work: async ({ load, hardness, ...question }: Given<typeof DOSE_FIELDS> & DoseQuestion) =>
      (await import('./mix/dose.js')).dose({ load, hardness }, question),
  },
  {
    name: 'mix',
    api: 'vinegar-soda',
    title: 'Mix',
    question: 'What goes with what, and what must never meet?',
    line: 'water',
    kinds: WASHERS,
    station: 'tub',
    words: 'vinegar soda bleach chlorine acid cleaner',
    work: async (input: Given<typeof VINEGAR_SODA_FIELDS>) =>
      (await import('./mix/vinegar-soda.js')).vinegarAndSoda(input),
  },
  {
    name: 'scale',
    title: 'Scale',
    question: 'Is descaling worth it yet?',
    line: 'water',
    kinds: WASHERS,
    station: 'tub',
    words: 'limescale hardness citric descale',
    work: async ({
      temperature,
      ...figures
    }: Given<typeof SCALE_FIELDS> & { temperature?: WashTemperature }) =>
      (await import('./water/scale.js')).scaleGrown(figures, temperature),
  },
  {
    name: 'level',
    title: 'Level',
    question: 'Which foot, how many turns, which way?',
    line: 'water',
    kinds: WASHERS,
    station: 'whole',
    words: 'feet balance walks bubble shakes',
    work: async ({
      thread,
      higherAcross = 'right',
      higherAlong = 'front',
      ...figures
    }: Given<typeof LEVEL_FIELDS> & {
      thread?: Thread;
      higherAcross?: Higher['across'];
      higherAlong?: Higher['along'];
    }) =>
      (await import('./water/level.js')).level(figures, thread, {
        across: higherAcross,
        along: higherAlong,
      }),
  },
] as const satisfies readonly Instrument[];

type Row = (typeof INSTRUMENTS)[number];
export type InstrumentName = Row['name'];

/** What each instrument takes in over the API, and what it answers, by its name. */
export type InstrumentInputs = { [R in Row as R['name']]: Parameters<R['work']>[0] };
export type InstrumentAnswers = { [R in Row as R['name']]: Awaited<ReturnType<R['work']>> };

/** What a screen tells of its instrument. */
export type InstrumentScreen = Omit<Instrument, 'work' | 'api'>;

/** Taken by the phone’s own sensors: what they feel stays on the phone, so no route of the API has them. */
export const PHONE_INSTRUMENTS = [
  {
    name: 'spin',
    title: 'Spin',
    question: 'Does it shake harder than it used to?',
    line: 'water',
    kinds: WASHERS,
    station: 'tub',
    words: 'phone shake vibration rpm speed bangs walks sensor',
  },
  {
    name: 'sound',
    title: 'Sound',
    question: 'Is it louder than it was, and how does it sound?',
    line: 'water',
    kinds: MACHINE_KINDS,
    station: 'whole',
    words: 'phone microphone noise rumble roar bearings hum loud listen',
  },
  {
    name: 'light',
    title: 'Light through a screen',
    question: 'How much of the screen is shut?',
    line: 'air',
    kinds: MACHINE_KINDS,
    words: 'phone camera photo picture mesh blocked lint film sieve',
  },
] as const satisfies readonly InstrumentScreen[];
export type PhoneInstrument = (typeof PHONE_INSTRUMENTS)[number]['name'];

/** Every instrument that has a screen. */
export const INSTRUMENT_SCREENS: readonly (InstrumentScreen & {
  name: InstrumentName | PhoneInstrument;
})[] = [...INSTRUMENTS, ...PHONE_INSTRUMENTS];

/** What the screen of an instrument tells. */
export const instrumentNamed = (name: InstrumentName | PhoneInstrument): InstrumentScreen =>
  INSTRUMENT_SCREENS.find((one) => one.name === name)!;
