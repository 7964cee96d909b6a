import type { LoadCycle } from '../../model/schemas.js';
import { USUAL_WAYS, type Ways } from './cycles.js';

/* What a person says of loads that were found: that two are one, or that one is two. The finder learns from it. */

/** A load as it is kept. */
export interface KeptLoad {
  /** UTC instant, ISO. */
  from: string;
  cycle: LoadCycle;
}

const MINUTE = 60_000;
/** Of loads further apart than this nobody says that they are one, ms. */
export const MOST_APART = 90 * MINUTE;
/** From here on a heater is on, W; what draws no more than so much, rests. Common practice. */
const HEATER = 900;
const RESTS = 8;
/** A pause is learned with so much to spare, minutes. */
const SPARE = 0.5;
const [LEAST_PAUSE, MOST_PAUSE] = [2, 90];

const at = (instant: string): number => Date.parse(instant);
const minutesBetween = (from: string, to: string): number => (at(to) - at(from)) / MINUTE;

/**
 * Two loads as the one that they were, the earlier first.
 * @throws RangeError where they are too far apart
 */
export function joined(first: KeptLoad, second: KeptLoad): KeptLoad {
  const pause = minutesBetween(first.cycle.to, second.from);
  if (pause * MINUTE > MOST_APART || pause < -1) throw new RangeError('They are too far apart.');
  const [a, b] = [first.cycle, second.cycle];
  const { duty: _d, heater: _h, wash: _w, joined: before = 0, ...figures } = a;
  return {
    from: first.from,
    cycle: {
      ...figures,
      to: b.to,
      wattHours: a.wattHours + b.wattHours,
      peak: Math.max(a.peak, b.peak),
      heating: a.heating + b.heating,
      motor: a.motor + b.motor,
      idle: a.idle + b.idle + Math.max(0, pause),
      unread: a.unread + b.unread,
      joined: Math.max(before, b.joined ?? 0, rounded(Math.max(0, pause))),
    },
  };
}

/**
 * A load as the two that it was: parted in its longest pause.
 * @param watts of each of its minutes, W; null where nothing was read
 * @returns nothing where no pause is to be seen in it
 */
export function parted(
  { from, cycle }: KeptLoad,
  watts: readonly (number | null)[],
): [KeptLoad, KeptLoad] | undefined {
  const pause = longestPause(watts);
  if (!pause) return undefined;
  const start = at(from);
  const instant = (minute: number): string => new Date(start + minute * MINUTE).toISOString();
  const length = pause.to - pause.from;
  const part = (a: number, b: number, to: string): KeptLoad => ({
    from: a === 0 ? from : instant(a),
    cycle: { ...figuresOf(watts.slice(a, b)), to },
  });
  const first = part(0, pause.from, instant(pause.from));
  const second = part(pause.to, watts.length, cycle.to);
  return [first, { ...second, cycle: { ...second.cycle, parted: length } }];
}

interface Pause {
  from: number;
  /** Exclusive. */
  to: number;
}
/** The longest run of minutes at rest that lies within. */
function longestPause(watts: readonly (number | null)[]): Pause | undefined {
  let best: Pause | undefined;
  let from = -1;
  watts.forEach((value, i) => {
    const rests = value === null || value <= RESTS;
    if (rests && from < 0) from = i;
    if (rests || from < 0) return;
    if (from > 0 && (!best || i - from > best.to - best.from)) best = { from, to: i };
    from = -1;
  });
  return best;
}

function figuresOf(watts: readonly (number | null)[]): Omit<LoadCycle, 'to'> {
  const known = watts.filter((value) => value !== null);
  const count = (is: (value: number) => boolean) => known.filter(is).length;
  return {
    wattHours: rounded(known.reduce((sum, value) => sum + value, 0) / 60),
    peak: Math.max(0, ...known),
    heating: count((value) => value >= HEATER),
    motor: count((value) => value > RESTS && value < HEATER),
    idle: count((value) => value <= RESTS),
    unread: watts.length - known.length,
  };
}

const rounded = (value: number): number => Math.round(10 * value) / 10;

/** What a machine's loads that were put right by hand tell of its ways: its longest pause within a load. */
export function waysOf(cycles: readonly Pick<LoadCycle, 'joined' | 'parted'>[]): Ways {
  const usual = USUAL_WAYS.pause / MINUTE;
  const together = cycles.flatMap((one) => (one.joined === undefined ? [] : one.joined + SPARE));
  const apart = cycles.flatMap((one) => (one.parted === undefined ? [] : one.parted - SPARE));
  const pause = Math.min(Math.max(usual, ...together), ...apart);
  return { pause: Math.min(MOST_PAUSE, Math.max(LEAST_PAUSE, pause)) * MINUTE };
}
