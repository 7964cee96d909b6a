import { bagSeconds } from '../../measure/input/readings.js';
import { airFromDuty } from './air-from-duty.js';

/** A load of a vented dryer that heats by electricity, as its meter told it. UTC milliseconds. */
export interface AiredLoad {
  id: string;
  at: number;
  /** Share of time that its heater was on while the load was wet, 0 to 1, and its W. */
  duty: number;
  heater: number;
}

/** A reading of the air out of a few loads. */
export interface AirReading {
  /** The loads that it is of: the middle one gives its instant. */
  of: string[];
  at: number;
  /** Seconds in which a bag at the hood would fill. */
  seconds: number;
  /** It may be quicker: the limit did not cut. */
  atMost: boolean;
}

/** Loads of one reading: what one of them has by chance, the others have not. Judgement. */
const LOADS = 3;

/**
 * What loads tell of the air, three to a reading: relative to this machine's own clean, nothing more. Where the limit
 * thermostat does not cut, there is a reading only right after a clean, as what the air had at least.
 * @param loads of one machine, in their order
 * @param cleans UTC milliseconds at which its way of the air was cleaned
 */
export function airReadings(loads: readonly AiredLoad[], cleans: readonly number[]): AirReading[] {
  const readings: AirReading[] = [];
  const edges = [...cleans].sort((a, b) => a - b);
  for (let k = -1; k < edges.length; k++) {
    const [from, to] = [edges[k] ?? -Infinity, edges[k + 1] ?? Infinity];
    const between = loads.filter(({ at }) => at >= from && at < to);
    for (let i = 0; i + LOADS <= between.length; i += LOADS) {
      const reading = readingOf(between.slice(i, i + LOADS));
      if (reading && (!reading.atMost || (k >= 0 && i === 0))) readings.push(reading);
    }
  }
  return readings;
}

function readingOf(loads: readonly AiredLoad[]): AirReading | undefined {
  const flows = loads
    .map((load) => airFromDuty(load))
    .map((air) =>
      'more' in air ? { flow: air.more, open: true } : { flow: air.flow, open: false },
    )
    .sort((a, b) => a.flow - b.flow);
  const middle = flows[flows.length >> 1]!;
  // Two that are open and one that is not tell two things.
  if (flows.some(({ open }) => open !== middle.open)) return undefined;
  return {
    of: loads.map(({ id }) => id),
    at: loads[loads.length >> 1]!.at,
    seconds: bagSeconds(middle.flow),
    atMost: middle.open,
  };
}
