import { dayOf, type Day } from '../../units/calendar.js';
import { findShifts, type DriftFigure, type Shift } from './drift.js';
import type { PriorSpread } from './baseline.js';

/** A load that a meter told, as drift looks at it. UTC milliseconds. */
export interface MeteredLoad {
  id: string;
  from: number;
  to: number;
  wattHours: number;
  /** Minutes that nobody read. */
  unread: number;
}

/** Something that the figures of a machine's meter tell, while it holds. */
export interface Signal {
  machineId: string;
  /** The load at which it was seen: a signal is the same as long as that is. */
  seen: string;
  day: Day;
  /** "Drying takes 18 % longer for the same energy since 12 October (12 to 25 %)" is made of these. */
  percent: number;
  low: number;
  high: number;
  /** Minutes of a usual load, before and now. */
  usual: number;
  now: number;
  /** How many loads it rests on, since it began. */
  loads: number;
  /** Hours that it costs in thirty days, at the loads of the last thirty. */
  hours: number;
  /** What is told of it in a case of trouble. */
  finding: 'slow-drift';
}

/** Between loads of one dryer, of minutes for the same energy: the natural logarithm's. Judgement; checked in drift.spec. */
const PRIOR: PriorSpread = { sigma: 0.1, loads: 10 };
/** What is shorter or takes less tells nothing of drying. */
const LEAST_MINUTES = 15;
const LEAST_WATT_HOURS = 300;
/** A load of which more was not read is left out. */
const MOST_UNREAD = 0.1;
/** Less of a change is within what nobody would do anything about. Judgement. */
const LEAST_PERCENT = 8;
const MINUTE = 60_000;
const MONTH = 30 * 86_400_000;

/**
 * Whether drying got slower for the same energy, which stands for the water in the load: the last shift that holds.
 * @param loads of one dryer, in their order
 * @param cleans UTC milliseconds at which a clean of its way of the air was proved
 * @param zone IANA name, for the day
 */
export function slowDrying(
  machineId: string,
  loads: readonly MeteredLoad[],
  cleans: readonly number[],
  zone: string,
): Signal | undefined {
  const telling = loads.filter(({ from, to, wattHours, unread }) => {
    const minutes = (to - from) / MINUTE;
    return (
      minutes >= LEAST_MINUTES && wattHours >= LEAST_WATT_HOURS && unread <= MOST_UNREAD * minutes
    );
  });
  const figures = telling.map(({ id, from, to, wattHours }): DriftFigure => ({
    id,
    at: from,
    value: (to - from) / MINUTE / (wattHours / 1000),
  }));
  const shift = findShifts(figures, cleans, PRIOR).at(-1);
  if (!shift || shift.back || percentOf(shift.factor) < LEAST_PERCENT) return undefined;
  // Proved since, though no load has come to show it yet.
  if (cleans.some((at) => at >= shift.from.at)) return undefined;
  return told(machineId, shift, telling, zone);
}

const percentOf = (factor: number): number => Math.round(100 * (factor - 1));

function told(
  machineId: string,
  shift: Shift,
  loads: readonly MeteredLoad[],
  zone: string,
): Signal {
  const since = loads.filter(({ from }) => from >= shift.from.at);
  const minutes = since.reduce((sum, { from, to }) => sum + (to - from) / MINUTE, 0) / since.length;
  const last = loads.at(-1)!.from;
  const lately = loads.filter(({ from }) => from > last - MONTH).length;
  const usual = minutes / shift.factor;
  return {
    machineId,
    seen: shift.seen.id,
    day: dayOf(shift.from.at, zone),
    percent: percentOf(shift.factor),
    low: percentOf(shift.low),
    high: percentOf(shift.high),
    usual: Math.round(usual),
    now: Math.round(minutes),
    loads: since.length,
    hours: Math.round((10 * lately * (minutes - usual)) / 60) / 10,
    finding: 'slow-drift',
  };
}
