import {
  MeasureProblem,
  readFields,
  type Fields,
  type Given,
  type Working,
} from '../input/fields.js';
import { CM, figure } from '../../units/wording.js';
import { tripsFor, tubLitres } from './tub.js';

export const TUB_FIELDS = {
  height: {
    label: 'Height of the water',
    dimension: 'length',
    least: 0,
    most: 0.8,
    metric: 'cm',
    us: 'in',
  },
  radius: {
    label: 'Radius of the drum',
    dimension: 'length',
    least: 0.15,
    most: 0.4,
    metric: 'cm',
    us: 'in',
    seldom: true,
  },
  depth: {
    label: 'Depth of the drum',
    dimension: 'length',
    least: 0.15,
    most: 0.8,
    metric: 'cm',
    us: 'in',
    seldom: true,
  },
  tray: {
    label: 'Your tray holds',
    dimension: 'volume',
    least: 0.0005,
    most: 0.02,
    metric: 'L',
    us: 'gal',
    optional: true,
    seldom: true,
  },
  bucket: {
    label: 'Your bucket holds',
    dimension: 'volume',
    least: 0.003,
    most: 0.03,
    metric: 'L',
    us: 'gal',
    optional: true,
    seldom: true,
  },
  hose: {
    label: 'Flow of the thin hose',
    dimension: 'flow',
    least: 0.1 / 60_000,
    most: 10 / 60_000,
    metric: 'L/min',
    us: 'gal/min',
    optional: true,
    seldom: true,
  },
} as const satisfies Fields;

/** m³, where nothing else is said: a shallow tray and a household bucket. */
const TRAY = 0.003;
const BUCKET = 0.01;
/** What a drain-down hose gives, m³/s: 1.5 L a minute. Judgement. */
const THIN_HOSE = 1.5 / 60_000;

export interface TubWater {
  litres: number;
  trays: number;
  buckets: number;
  /** By the thin hose. */
  minutes: number;
  working: Working[];
}

/**
 * Water standing in a machine, and how often a tray or bucket has to be carried.
 * @param lying a front loader's drum lies, a top loader's stands
 * @throws MeasureProblem
 */
export function tubWater(given: Given<typeof TUB_FIELDS>, lying = true): TubWater {
  const {
    height,
    radius,
    depth,
    hose = THIN_HOSE,
    tray = TRAY,
    bucket = BUCKET,
  } = readFields(given, TUB_FIELDS);
  const most = lying ? 2 * radius : depth;
  if (height > most + 1e-9) {
    throw new MeasureProblem([
      {
        field: 'height',
        message: `Give a number from 0 to ${figure(most, 'length', CM)}: the drum is no higher.`,
      },
    ]);
  }
  const litres = lying
    ? tubLitres(Math.min(height, 2 * radius), { radius, depth })
    : Math.PI * radius * radius * height * 1000;
  const cm = (value: number) => figure(value, 'length', CM);
  return {
    litres,
    ...tripsFor(litres, { tray: tray * 1000, bucket: bucket * 1000 }),
    minutes: litres / 1000 / hose / 60,
    working: [
      {
        what: 'Water',
        how: lying
          ? `a segment of a lying cylinder, radius ${cm(radius)}, ${cm(depth)} deep, ${cm(height)} high: ${figure(litres / 1000, 'volume')}; the sump below holds a little more`
          : `a standing cylinder, radius ${cm(radius)}, ${cm(height)} high: ${figure(litres / 1000, 'volume')}`,
      },
      {
        what: 'Trips',
        how: `a tray of ${figure(tray, 'volume')} carried half full, a bucket of ${figure(bucket, 'volume')} with ${figure(0.8 * bucket, 'volume')} in it`,
      },
    ],
  };
}
