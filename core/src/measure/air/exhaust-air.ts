import {
  MeasureProblem,
  readFields,
  type Fields,
  type Given,
  type Working,
} from '../input/fields.js';
import { figure } from '../../units/wording.js';
import { ATMOSPHERE } from './properties.js';
import { humidityRatio, moistVolume, saturation } from './psychrometrics.js';

/** Vapour is at most so much of the air's pressure in a dryer's exhaust. Judgement. */
const MOST_VAPOUR = 0.5;

export const EXHAUST_FIELDS = {
  room: { label: 'Temperature of the room', dimension: 'temperature', least: -10, most: 45 },
  roomHumidity: {
    label: 'Humidity of the room',
    dimension: 'ratio',
    least: 0.01,
    most: 1,
    metric: '%',
    us: '%',
  },
  exhaust: { label: 'Temperature at the hood', dimension: 'temperature', least: -10, most: 110 },
  exhaustHumidity: {
    label: 'Humidity at the hood',
    dimension: 'ratio',
    least: 0.01,
    most: 1,
    metric: '%',
    us: '%',
  },
  flow: { label: 'Air at the hood', dimension: 'flow', least: 0.001, most: 0.3 },
} as const satisfies Fields;

export interface ExhaustAir {
  /** kg of water a second that the air carries out. */
  water: number;
  /** kg a kg of dry air, in the room and at the hood. */
  ratios: { room: number; exhaust: number };
  working: Working[];
}

/**
 * Water that the air takes out, by what it holds before and after. @throws MeasureProblem
 * Psychrometrics: ASHRAE Handbook, Fundamentals 2017, chapter 1, through PsychroLib.
 */
export function exhaustAir(given: Given<typeof EXHAUST_FIELDS>): ExhaustAir {
  const { room, roomHumidity, exhaust, exhaustHumidity, flow } = readFields(given, EXHAUST_FIELDS);
  if (exhaust <= room) {
    throw new MeasureProblem([
      {
        field: 'exhaust',
        message: `Give more than the ${figure(room, 'temperature')} of the room: a dryer’s exhaust is warmer. Measure while it heats.`,
      },
    ]);
  }
  const vapour = exhaustHumidity * saturation(exhaust);
  if (vapour >= MOST_VAPOUR * ATMOSPHERE) {
    const most = Math.floor(100 * ((MOST_VAPOUR * ATMOSPHERE) / saturation(exhaust)));
    throw new MeasureProblem([
      {
        field: 'exhaustHumidity',
        message: `Give at most ${most} %: at ${figure(exhaust, 'temperature')} more vapour than that is no air any more. Hold the probe at the hood until it is steady.`,
      },
    ]);
  }
  const ratios = {
    room: humidityRatio(room, roomHumidity),
    exhaust: humidityRatio(exhaust, exhaustHumidity),
  };
  if (ratios.exhaust < ratios.room) {
    throw new MeasureProblem([
      {
        field: 'exhaustHumidity',
        message: `This air holds ${(1000 * ratios.exhaust).toFixed(1)} g of water a kg, less than the room’s ${(1000 * ratios.room).toFixed(1)}: nothing dries so. Measure both again, the hood while a wet load heats.`,
      },
    ]);
  }
  const volume = moistVolume(exhaust, ratios.exhaust);
  const water = (flow / volume) * (ratios.exhaust - ratios.room);
  const g = (ratio: number) => `${(1000 * ratio).toFixed(2)} g/kg`;
  return {
    water,
    ratios,
    working: [
      {
        what: 'Water in the air',
        how: `${g(ratios.room)} in the room, ${g(ratios.exhaust)} at the hood`,
      },
      {
        what: 'Dry air',
        how: `${figure(flow, 'flow')} at ${volume.toFixed(4)} m³ a kg of dry air: ${(flow / volume).toFixed(4)} kg/s`,
      },
      {
        what: 'Water out',
        how: `the difference times the dry air: ${(60_000 * water).toFixed(0)} g a minute`,
      },
    ],
  };
}

/** kg of water a kg of dry air in the room, where both of its figures can be; nothing otherwise. */
export function roomRatio({
  room,
  roomHumidity,
}: Pick<Given<typeof EXHAUST_FIELDS>, 'room' | 'roomHumidity'>): number | undefined {
  const { room: warmth, roomHumidity: humidity } = EXHAUST_FIELDS;
  try {
    const read = readFields({ room, roomHumidity }, { room: warmth, roomHumidity: humidity });
    return humidityRatio(read.room, read.roomHumidity);
  } catch {
    return undefined;
  }
}
