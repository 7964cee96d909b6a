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

/** What the air is held against: this machine's own best, and its heater. */
const AGAINST_FIELDS = {
  best: {
    label: 'This machine’s own best',
    dimension: 'flow',
    least: 0.001,
    most: 0.3,
    optional: true,
  },
  heater: { label: 'Its heater', dimension: 'power', least: 300, most: 9000, optional: true },
} as const satisfies Fields;

/** What air at the hood is held against; m³/s and W. */
export interface Against {
  best?: number | undefined;
  /** 5,400 W unless it is known. */
  heater?: number | undefined;
}

/** What was given of it. @throws MeasureProblem */
export const againstGiven = (given: { best?: Amount; heater?: Amount }): Against =>
  readFields(given, AGAINST_FIELDS);

/** Healthy at the hood, m³/s (100 to 200 ft³/min), of a dryer with a heater of 5.4 kW. Common practice. */
const HEALTHY_FLOW = { least: 0.047, most: 0.094 } as const;
const OF_HEATER = 5400;

/**
 * Healthy at the hood, m³/s: a weaker heater moves less air, since it warms it by as much (judgement).
 * @param heater W
 */
export const healthyFlow = (heater = OF_HEATER): { least: number; most: number } => ({
  least: (HEALTHY_FLOW.least * heater) / OF_HEATER,
  most: (HEALTHY_FLOW.most * heater) / OF_HEATER,
});

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
 * @throws MeasureProblem
 */
export function hoodAirBySpeed(
  given: Given<typeof ANEMOMETER_FIELDS>,
  against: Against = {},
): HoodAir {
  const { speed, area } = readFields(given, ANEMOMETER_FIELDS);
  return judged(speed * area, against, `${figure(speed, 'speed')} × ${figure(area, 'area')}`);
}

/**
 * By the bag test. @throws MeasureProblem
 * @example hoodAirByBag({ bag: { value: 113, unit: 'L' }, seconds: { value: 2, unit: 's' } }).flow // 0.0565
 */
export function hoodAirByBag(given: Given<typeof BAG_FIELDS>, against: Against = {}): HoodAir {
  const { bag, seconds } = readFields(given, BAG_FIELDS);
  return judged(bag / seconds, against, `${figure(bag, 'volume')} in ${figure(seconds, 'time')}`);
}

const ROUND = { digits: 2 };

function judged(flow: number, { best, heater = OF_HEATER }: Against, from: string): HoodAir {
  const { least, most } = healthyFlow(heater);
  return {
    flow,
    verdict: flow < least ? 'weak' : flow > most ? 'strong' : 'healthy',
    ...(best === undefined ? {} : { ofBest: flow / best }),
    working: [
      { what: 'Air', how: `${from} is ${figure(flow, 'flow')}` },
      {
        what: 'Healthy',
        how: `${figure(least, 'flow', ROUND)} to ${figure(most, 'flow', ROUND)} with a heater of ${figure(heater, 'power', ROUND)}, common practice; this machine’s own best counts for more`,
      },
    ],
  };
}
