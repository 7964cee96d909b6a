import {
  MeasureProblem,
  readFields,
  type Fields,
  type Given,
  type Working,
} from '../input/fields.js';
import { figure } from '../../units/wording.js';
import { boneDry, DRY_ENOUGH, ROOM_DRY } from './moisture.js';

export const DRYING_FIELDS = {
  dry: { label: 'Dry weight, as it lies in the room', dimension: 'mass', least: 0.2, most: 15 },
  wet: { label: 'Wet weight', dimension: 'mass', least: 0.2, most: 45 },
  after: { label: 'Weight afterwards', dimension: 'mass', least: 0.2, most: 45 },
  minutes: {
    label: 'Time in the dryer',
    dimension: 'time',
    least: 120,
    most: 21600,
    metric: 'min',
    us: 'min',
  },
  energy: {
    label: 'Energy by a meter',
    dimension: 'energy',
    least: 0.05,
    most: 15,
    optional: true,
  },
} as const satisfies Fields;

/** Loads by their class, kg of dry cloth. Common practice. */
export const LOAD_CLASSES = [
  { id: 'small', say: 'A small load: shirts and linen', dry: 1.5 },
  { id: 'usual', say: 'A usual mixed load', dry: 3 },
  { id: 'towels', say: 'Towels', dry: 3.5 },
  { id: 'bedding', say: 'Bed linen for two', dry: 4 },
  { id: 'full', say: 'A full drum', dry: 6 },
] as const;

/** Remaining moisture by the washer's spin, rpm; at 400 to 600 rpm 80 to 100 % is normal. Common practice. */
export const SPIN_MOISTURE: readonly (readonly [rpm: number, moisture: number])[] = [
  [400, 1],
  [600, 0.8],
  [800, 0.67],
  [1000, 0.6],
  [1200, 0.53],
  [1400, 0.5],
  [1600, 0.45],
];
/** Wetter than the spin allows by so much is the washer's doing. Judgement. */
const WETTER = 0.08;
/**
 * Heat that a load takes, J: to warm cloth, water and drum by 30 K, and to turn the water to vapour. A
 * machine gives its heat evenly, so minutes go with it. Figures as in the drum model.
 */
const WARMS_BY = 30;
const PER_KG = { cloth: 1340, water: 4186, vapour: 2.43e6 } as const;
const DRUM_METAL = 9000;
const heatOf = (bone: number, before: number, water: number): number =>
  WARMS_BY * (bone * PER_KG.cloth + bone * before * PER_KG.water + DRUM_METAL) +
  water * PER_KG.vapour;
/** The load that minutes are told for: kg of bone-dry cloth, and moisture to moisture. */
const REFERENCE_LOAD = { bone: 3, from: 0.6, to: ROOM_DRY } as const;
/** Most moisture that cloth can hold without dripping, kg/kg. */
const MOST_MOISTURE = 3;

export interface DryingTest {
  /** kg of water a kg of bone-dry cloth. */
  moisture: { before: number; after: number };
  /** kg. */
  water: number;
  /** kg a second. */
  rate: number;
  /** kWh a kg of water, where a meter was read. */
  energyPerKg?: number;
  /** Minutes that the reference load would have taken. */
  normalised: number;
  /** What the spin should leave; wetter than that is the washer's fault. */
  expected?: number;
  fault: 'washer' | 'none';
  dryEnough: boolean;
  working: Working[];
}

/** What a spin leaves in the cloth, kg/kg. @param rpm 400 to 2000 */
export function spinMoisture(rpm: number): number {
  const [first, last] = [SPIN_MOISTURE[0]!, SPIN_MOISTURE.at(-1)!];
  if (rpm <= first[0]) return first[1];
  if (rpm >= last[0]) return last[1];
  const at = SPIN_MOISTURE.findIndex(([speed]) => speed >= rpm);
  const [a, b] = [SPIN_MOISTURE[at - 1]!, SPIN_MOISTURE[at]!];
  return a[1] + ((rpm - a[0]) / (b[0] - a[0])) * (b[1] - a[1]);
}

/**
 * What a weighed load tells: how much water, how fast, and how long a usual load would have taken.
 * @param spin rpm of the washer's spin before, if it is known
 * @throws MeasureProblem
 */
export function dryingTest(given: Given<typeof DRYING_FIELDS>, spin?: number): DryingTest {
  const { dry, wet, after, minutes: seconds, energy } = readFields(given, DRYING_FIELDS);
  const problems = [];
  if (wet <= dry) problems.push({ field: 'wet', message: 'Give more than the dry weight.' });
  else if (wet > dry * (1 + MOST_MOISTURE)) {
    problems.push({
      field: 'wet',
      message: `Give up to ${figure(dry * (1 + MOST_MOISTURE), 'mass')}: cloth holds at most three times its weight of water (RMC 300 %).`,
    });
  }
  if (after > wet) problems.push({ field: 'after', message: 'Give at most the wet weight.' });
  else if (after < dry * 0.93) {
    problems.push({ field: 'after', message: 'This is lighter than the dry cloth. Weigh again.' });
  } else if (wet - after < 0.02) {
    problems.push({ field: 'after', message: 'No water went out: give less than the wet weight.' });
  }
  if (spin !== undefined && !(spin >= 400 && spin <= 2000)) {
    problems.push({ field: 'spin', message: 'Give a number from 400 to 2000 rpm.' });
  }
  if (problems.length) throw new MeasureProblem(problems);
  const bone = boneDry(dry);
  const moisture = { before: (wet - bone) / bone, after: (after - bone) / bone };
  const water = wet - after;
  const minutes = seconds / 60;
  const reference = REFERENCE_LOAD.bone * (REFERENCE_LOAD.from - REFERENCE_LOAD.to);
  const share =
    heatOf(REFERENCE_LOAD.bone, REFERENCE_LOAD.from, reference) /
    heatOf(bone, moisture.before, water);
  const normalised = minutes * share;
  const expected = spin === undefined ? undefined : spinMoisture(spin);
  const percent = (share: number) => `${Math.round(100 * share)} %`;
  return {
    moisture,
    water,
    rate: water / seconds,
    ...(energy === undefined ? {} : { energyPerKg: energy / water }),
    normalised,
    ...(expected === undefined ? {} : { expected }),
    fault: expected !== undefined && moisture.before > expected + WETTER ? 'washer' : 'none',
    dryEnough: moisture.after <= DRY_ENOUGH,
    working: [
      {
        what: 'Moisture',
        how: `water over bone-dry cloth, ${figure(bone, 'mass')} (what lies dry in a room holds ${percent(ROOM_DRY)} of water): ${percent(moisture.before)} before, ${percent(moisture.after)} after; up to ${percent(DRY_ENOUGH)} is dry enough`,
      },
      {
        what: 'Water out',
        how: `${figure(water, 'mass')} in ${Math.round(minutes)} min: ${Math.round((60_000 * water) / seconds)} g a minute`,
      },
      {
        what: 'A usual load',
        how: `${figure(REFERENCE_LOAD.bone, 'mass')} from ${percent(REFERENCE_LOAD.from)} to ${percent(REFERENCE_LOAD.to)} is ${figure(reference, 'mass')} of water, and takes ${share.toFixed(2)} times the heat of this load, warming up counted in: ${Math.round(normalised)} min`,
      },
    ],
  };
}
