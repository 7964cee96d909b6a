import { readFields, type Fields, type Given, type Working } from '../input/fields.js';
import type { Amount } from '../../units/quantity.js';
import { figure } from '../../units/wording.js';

/** Air at the hood by an anemometer over an opening. */
export const ANEMOMETER_FIELDS = {
  speed: { label: 'Speed at the hood', dimension: 'speed', least: 0.1, most: 30 },
  area: { label: 'Opening', dimension: 'area', least: 5e-4, most: 0.1, metric: 'cm²', us: 'in²' },
} as const satisfies Fields;

/** Air at the hood by the time a bag takes to fill. */
export const BAG_FIELDS = {
  bag: {
    label: 'The bag holds',
    dimension: 'volume',
    least: 0.01,
    most: 0.5,
    metric: 'L',
    us: 'gal',
  },
  seconds: { label: 'Time until it is taut', dimension: 'time', least: 0.3, most: 120 },
} as const satisfies Fields;

/** This machine's own best. */
const BEST_FIELDS = {
  best: {
    label: 'This machine’s own best',
    dimension: 'flow',
    least: 0.001,
    most: 0.3,
    optional: true,
  },
} as const satisfies Fields;

/** m³/s of a machine's own best, where it was given. @throws MeasureProblem */
export const bestGiven = (best: Amount | undefined): number | undefined =>
  readFields({ best }, BEST_FIELDS).best;

/** Healthy at the hood, m³/s (100 to 200 ft³/min; common practice). */
export const HEALTHY_FLOW = { least: 0.047, most: 0.094 } as const;

export interface HoodAir {
  /** m³/s. */
  flow: number;
  verdict: 'weak' | 'healthy' | 'strong';
  /** Share of this machine's own best, where it is known. */
  ofBest?: number;
  working: Working[];
}

/**
 * By an anemometer.
 * @param best this machine’s own best, m³/s
 * @throws MeasureProblem
 */
export function hoodAirBySpeed(given: Given<typeof ANEMOMETER_FIELDS>, best?: number): HoodAir {
  const { speed, area } = readFields(given, ANEMOMETER_FIELDS);
  return judged(speed * area, best, `${figure(speed, 'speed')} × ${figure(area, 'area')}`);
}

/**
 * By the bag test. @throws MeasureProblem
 * @example hoodAirByBag({ bag: { value: 113, unit: 'L' }, seconds: { value: 2, unit: 's' } }).flow // 0.0565
 */
export function hoodAirByBag(given: Given<typeof BAG_FIELDS>, best?: number): HoodAir {
  const { bag, seconds } = readFields(given, BAG_FIELDS);
  return judged(bag / seconds, best, `${figure(bag, 'volume')} in ${figure(seconds, 'time')}`);
}

const ROUND = { digits: 2 };

function judged(flow: number, best: number | undefined, from: string): HoodAir {
  const { least, most } = HEALTHY_FLOW;
  return {
    flow,
    verdict: flow < least ? 'weak' : flow > most ? 'strong' : 'healthy',
    ...(best === undefined ? {} : { ofBest: flow / best }),
    working: [
      { what: 'Air', how: `${from} is ${figure(flow, 'flow')}` },
      {
        what: 'Healthy',
        how: `${figure(least, 'flow', ROUND)} to ${figure(most, 'flow', ROUND)}, common practice; your own best counts for more`,
      },
    ],
  };
}
