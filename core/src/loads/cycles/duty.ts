/*
 * How much of the time the heater was on while the load was wet.
 *
 *   W   ┌┐┌──┐ ┌─┐ ┌─┐ ┌─┐ ┌┐  ┌┐
 *       │└┘  │ │ │ │ │ │ │ ││  ││
 *   ────┘    └─┘ └─┘ └─┘ └─┘└──┘└────  motor alone
 *       warm  └ wet, and the limit cuts ┘ └ nearly dry: the thermostat cuts
 */

/** The heater of a load, as its watts have it. */
export interface HeaterDuty {
  /** Share of the time that it was on, 0 to 1, while the load was wet. */
  duty: number;
  /** W of the heater, and of the motor alone. */
  heater: number;
  motor: number;
}

/** Minutes at the start in which all is warmed up. */
export const WARMS_FOR = 6;
/** It is surely wet until this share of the time in which it heats. */
export const WET_UNTIL = 0.5;
/** A heater takes more than the motor by so much at least, W. */
const LEAST_HEATER = 500;
const LEAST_MINUTES = 20;

/**
 * How much of the time a dryer's heater was on while the load was wet.
 * @param watts of its programme, in even bins from the first one on; NaN where nothing was read
 * @param bin length of a bin, milliseconds
 * @returns nothing where it has no heater, or heats too short a time to tell
 */
export function heaterDuty(watts: ArrayLike<number>, bin: number): HeaterDuty | undefined {
  const perMinute = 60_000 / bin;
  const read = Array.from(watts).filter((value) => !Number.isNaN(value));
  if (read.length < LEAST_MINUTES * perMinute) return undefined;
  const sorted = read.toSorted((a, b) => a - b);
  // The heater is fully on for a while at the start; the motor runs alone for some minutes at the end.
  const full = sorted[Math.floor(0.98 * (sorted.length - 1))]!;
  const alone = read.slice(-Math.max(2, Math.floor(3 * perMinute)));
  const motor = alone.toSorted((a, b) => a - b)[alone.length >> 1]!;
  const heater = full - motor;
  if (heater < LEAST_HEATER) return undefined;
  const on = (value: number): boolean => value > motor + heater / 2;
  let last = read.length - 1;
  while (last > 0 && !on(read[last]!)) last--;
  const [from, to] = [Math.floor(WARMS_FOR * perMinute), Math.floor(WET_UNTIL * last)];
  if (to - from < 4 * perMinute) return undefined;
  let sum = 0;
  for (let i = from; i < to; i++) sum += Math.min(1, Math.max(0, (read[i]! - motor) / heater));
  return { duty: sum / (to - from), heater, motor };
}
