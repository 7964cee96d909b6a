import { DRYERS, DRYING, MACHINE_KINDS, VENTED, WASHERS, type MachineKind } from './vocabulary.js';
import { spoken } from '../regions/spoken.js';

/*
 * What is measured at a machine and kept in its log, one row a quantity. Whatever speaks of a quantity
 * reads it here: what an entry or a case may hold, in which unit it is kept, the words of the log, of a
 * step, of a case and of the reasons for a date, which instrument takes it.
 */

/** What a reading is of, as the log keeps it. */
export interface Quantity {
  /** Of `DIMENSIONS` (units/quantity.ts); a figure in any of its units is taken and converted. */
  dimension:
    | 'time'
    | 'volume'
    | 'length'
    | 'evaporation'
    | 'mass'
    | 'ratio'
    | 'slope'
    | 'shaking'
    | 'turning'
    | 'loudness';
  /** The unit that the log keeps it in, and that `least` and `most` are in. */
  unit: string;
  /** What can be; outside it somebody slipped. */
  least: number;
  most: number;
  /** Which way is better, where one is. */
  better?: 'less' | 'more';
  /** In the log, before the figure: "Drained empty in". */
  logged: string;
  /** At the field where it is typed: "Seconds until empty". */
  asked: string;
  /** Among the reasons for a date, before the figure: "emptying took". */
  reason?: string;
  /** The instrument that takes it, by its name. */
  instrument?: string;
  /** The station that it measures; absent where it is of the machine as a whole. */
  station?: string;
  /** A meter takes it by itself: nobody is asked for it. */
  byMeter?: true;
  /** As a proof in a case of trouble. */
  proof?: {
    label: string;
    /** How it is taken, in a sentence. */
    how: string;
    /** Kinds of machines on which it is taken. */
    kinds: readonly MachineKind[];
    /** Symptoms that it measures. */
    of: readonly string[];
    /** It holds only where the figure is so many times the one before. */
    times?: number;
    /** It is not told in times but in so much more or less of its unit: a level. */
    apart?: number;
    /** It is counted with a timer. */
    timed?: true;
  };
}

/** Every quantity, by the name that the log keeps. Ranges are judgement; how it is taken, common practice. */
export const QUANTITIES = spoken({
  'drain-time': {
    dimension: 'time',
    unit: 's',
    least: 1,
    most: 7200,
    better: 'less',
    logged: 'Drained empty in',
    asked: 'Seconds until empty',
    reason: 'emptying took',
    instrument: 'drain-test',
    station: 'pump-filter',
    proof: {
      label: 'Seconds until the drum is empty',
      how: 'Start the drain cycle with the usual water in, and count until the pump runs dry.',
      kinds: WASHERS,
      timed: true,
      of: ['wont-drain', 'drains-slowly', 'getting-worse', 'wont-spin', 'gurgle', 'code-drain'],
    },
  },
  'fill-litres': {
    dimension: 'volume',
    unit: 'L',
    least: 0,
    most: 100,
    better: 'more',
    logged: 'In ten seconds the tap gave',
    asked: 'Litres in ten seconds',
    instrument: 'fill-flow',
    station: 'inlet-screen',
    proof: {
      label: 'Litres from the fill hose in ten seconds',
      how: 'Shut the tap, take the hose off, hold it in a bucket, and open the tap for ten seconds.',
      kinds: WASHERS,
      of: ['slow-fill', 'no-fill', 'code-fill'],
    },
  },
  'drying-minutes': {
    dimension: 'time',
    unit: 'min',
    least: 1,
    most: 1440,
    better: 'less',
    logged: 'A load dried in',
    asked: 'Minutes the load took',
    reason: 'a load took',
    instrument: 'drying-test',
    proof: {
      label: 'Minutes that a usual load takes',
      how: 'The same kind and size of load each time, on the same cycle.',
      kinds: DRYING,
      of: [
        'long-drying',
        'slow-drift',
        'hot-laundry',
        'auto-damp',
        'heat-stops-early',
        'overheats',
      ],
    },
  },
  'bag-fill-time': {
    dimension: 'time',
    unit: 's',
    least: 0.1,
    most: 3600,
    better: 'less',
    logged: 'Bag at the hood full in',
    asked: 'Seconds until the bag is full',
    reason: 'the bag at the hood took',
    instrument: 'hood-air',
    station: 'hood',
    proof: {
      label: 'Seconds until the bag at the hood is full',
      how: 'Hold a bin bag over the hood while the dryer runs without heat, and count until it is taut.',
      kinds: VENTED,
      timed: true,
      of: ['weak-air', 'long-drying', 'hot-damp-behind'],
    },
  },
  'meter-air': {
    dimension: 'time',
    unit: 's',
    least: 0.1,
    most: 3600,
    better: 'less',
    logged: 'By its heater’s watts, a bag at the hood would fill in',
    asked: 'Seconds that a bag would take',
    reason: 'by its heater’s watts a bag at the hood would take',
    station: 'duct-run',
    byMeter: true,
  },
  'run-minutes': {
    dimension: 'time',
    unit: 'min',
    least: 0.1,
    most: 1440,
    better: 'more',
    logged: 'It ran until it stopped by itself for',
    asked: 'Minutes until it stopped',
    proof: {
      label: 'Minutes until it stopped by itself',
      how: 'The same cycle with a usual load. It held where it runs three times as long as before, or to its end: five minutes before, fifteen and more after.',
      kinds: DRYING,
      of: ['stops-minutes', 'heat-stops-early', 'code-drain', 'tank-lamp'],
      times: 3,
      timed: true,
    },
  },
  'pump-out-time': {
    dimension: 'time',
    unit: 's',
    least: 0.5,
    most: 3600,
    better: 'less',
    logged: 'Half a litre pumped out in',
    asked: 'Seconds until pumped out',
    station: 'condensate-sump',
  },
  'exhaust-water': {
    dimension: 'evaporation',
    unit: 'g/min',
    least: 0,
    most: 1000,
    logged: 'The air at the hood carried out',
    asked: 'Grams of water a minute',
    instrument: 'exhaust-air',
    station: 'hood',
  },
  'lint-mass': {
    dimension: 'mass',
    unit: 'g',
    least: 0.1,
    most: 20000,
    better: 'less',
    logged: 'Lint brushed out:',
    asked: 'Grams of lint',
    station: 'duct-run',
  },
  'blocked-before': {
    dimension: 'ratio',
    unit: '%',
    least: 0,
    most: 100,
    better: 'less',
    logged: 'Blocked before the work:',
    asked: 'Per cent blocked',
    station: 'screen-well',
  },
  'blocked-after': {
    dimension: 'ratio',
    unit: '%',
    least: 0,
    most: 100,
    better: 'less',
    logged: 'Still blocked after it:',
    asked: 'Per cent still blocked',
    station: 'screen-well',
  },
  'standing-water': {
    dimension: 'volume',
    unit: 'L',
    least: 0,
    most: 400,
    logged: 'Water standing in the tub:',
    asked: 'Litres standing in the tub',
    instrument: 'tub-water',
    station: 'tub',
  },
  'pipe-over-weir': {
    dimension: 'length',
    unit: 'cm',
    least: 0,
    most: 400,
    logged: 'Top of the standpipe over its trap:',
    asked: 'Centimetres from the trap to the top of the pipe',
    instrument: 'standpipe',
    station: 'standpipe',
  },
  'hose-top': {
    dimension: 'length',
    unit: 'cm',
    least: 0,
    most: 400,
    logged: 'Highest point of the drain hose:',
    asked: 'Centimetres from the floor to the top of the hose',
    instrument: 'standpipe',
    station: 'standpipe',
  },
  'hose-inserted': {
    dimension: 'length',
    unit: 'cm',
    least: 0,
    most: 200,
    logged: 'Drain hose inside its pipe:',
    asked: 'Centimetres of hose inside the pipe',
    instrument: 'standpipe',
    station: 'standpipe',
  },
  'phone-tilt': {
    dimension: 'slope',
    unit: 'mm/m',
    least: 0,
    most: 150,
    better: 'less',
    logged: 'By a phone it stands off level by',
    asked: 'Millimetres a metre off level',
    instrument: 'level',
    station: 'whole',
    proof: {
      label: 'Millimetres a metre off level, by the phone',
      how: 'Lay the same phone on the machine, turn it half round in between, and read both ways; the larger counts.',
      kinds: WASHERS,
      of: ['walks', 'even-part-loads', 'spin-tries'],
    },
  },
  'spin-shake': {
    dimension: 'shaking',
    unit: 'm/s²',
    least: 0.001,
    most: 200,
    better: 'less',
    logged: 'In the spin it shook the phone by',
    asked: 'How hard the spin shakes the phone',
    instrument: 'spin',
    station: 'tub',
    proof: {
      label: 'How hard the spin shakes the phone',
      how: 'The same phone on the same place of the lid, the same cycle, a load like the one before.',
      kinds: WASHERS,
      of: ['walks', 'even-part-loads', 'spin-tries', 'roar'],
    },
  },
  'spin-speed': {
    dimension: 'turning',
    unit: 'rpm',
    least: 60,
    most: 2400,
    better: 'more',
    logged: 'By the phone it spun at',
    asked: 'Turns a minute of the spin',
    instrument: 'spin',
    station: 'tub',
  },
  'sound-level': {
    dimension: 'loudness',
    unit: 'dB',
    least: 0,
    most: 100,
    better: 'less',
    logged: 'On the phone’s own scale it is as loud as',
    asked: 'How loud the phone hears it',
    instrument: 'sound',
    station: 'whole',
    proof: {
      label: 'How loud the phone hears it',
      how: 'The same phone on the same place, the same part of the cycle, nothing else running.',
      kinds: MACHINE_KINDS,
      apart: 3,
      of: ['roar', 'rumble', 'rattle-pump', 'hum-no-flow', 'squeal', 'scrape'],
    },
  },
  'screen-light': {
    dimension: 'ratio',
    unit: '%',
    least: 0.5,
    most: 100,
    better: 'more',
    logged: 'The screen let through of the light',
    asked: 'Per cent of the light that the screen lets through',
    reason: 'of the light the screen let through',
    instrument: 'light',
    station: 'lint-screen',
    proof: {
      label: 'Per cent of the light that the screen lets through',
      how: 'The screen before the same lamp, with bare lamp all round it in the picture.',
      kinds: DRYERS,
      of: ['long-drying', 'slow-drift', 'weak-air', 'hot-laundry'],
    },
  },
  'sieve-light': {
    dimension: 'ratio',
    unit: '%',
    least: 0.5,
    most: 100,
    better: 'more',
    logged: 'The sieve let through of the light',
    asked: 'Per cent of the light that the sieve lets through',
    instrument: 'light',
  },
} as const satisfies Record<string, Quantity>);

export type QuantityId = keyof typeof QUANTITIES;
export const QUANTITY_IDS = Object.keys(QUANTITIES) as QuantityId[];

/** Whether a name is that of a quantity. */
export const isQuantity = (name: string | undefined): name is QuantityId =>
  name !== undefined && Object.hasOwn(QUANTITIES, name);

/** The row of a quantity, where the name is one. */
export const quantityOf = (name: string | undefined): Quantity | undefined =>
  isQuantity(name) ? QUANTITIES[name] : undefined;
