import type { MeterImport } from '../../model/schemas.js';
import type { Cycle } from './cycles.js';
import type { WashFigures } from './wash.js';

/** A load as it is kept: figures to a tenth, since a meter tells no more. */
export function toldLoad(cycle: Cycle): MeterImport['loads'][number] {
  const { from, to, wattHours, peak, heating, motor, idle, unread, duty, heater, wash } = cycle;
  return {
    ...{ from: new Date(from).toISOString(), to: new Date(to).toISOString() },
    ...{ wattHours: tenth(wattHours), peak: tenth(peak) },
    ...{ heating: tenth(heating), motor: tenth(motor), idle: tenth(idle), unread: tenth(unread) },
    ...(duty === undefined ? {} : { duty: Number(duty.toFixed(3)) }),
    ...(heater === undefined ? {} : { heater: tenth(heater) }),
    ...(wash && Object.keys(wash).length ? { wash: toldWash(wash) } : {}),
  };
}

const toldWash = (wash: WashFigures): WashFigures =>
  Object.fromEntries(Object.entries(wash).map(([name, value]) => [name, tenth(value as number)]));

const tenth = (value: number): number => Math.round(10 * value) / 10;
