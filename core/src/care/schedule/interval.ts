import type { Household, Machine } from '../../model/schemas.js';
import type { Circumstance, Programme } from '../../model/vocabulary.js';
import { VERY_HARD_FROM } from '../../measure/water/scale.js';
import { spoken } from '../../regions/spoken.js';
import { many } from '../../units/many.js';
import type { Interval, Task } from '../catalogue/types.js';
import { inDriver } from '../catalogue/interval-figure.js';

export const CIRCUMSTANCE_NAMES: Record<Circumstance, string> = spoken({
  pets: 'a pet that sheds',
  softener: 'softener or dryer sheets in use',
  overdose: 'more detergent than the label says',
  'cool-washes': 'mostly cool cycles',
  'muddy-clothes': 'muddy or clay-laden clothes',
  fleece: 'fleece or new towels',
  'door-shut': 'the door kept shut',
  'hard-water': 'hard water',
  'long-duct': 'a riser or two or more elbows in the duct',
  'unheated-room': 'a cellar or unheated room',
});

/** Something about the household that speeds one task up. */
export interface SpeedUp {
  circumstance: Circumstance;
  multiplier: number;
  /** The household set this multiplier itself. */
  own?: true;
}

/** What of the household's profile acts on a task of a machine. */
export function speedUps(
  task: Task,
  machine: Pick<Machine, 'features' | 'habits'>,
  household: Pick<Household, 'hardness' | 'multipliers'>,
): SpeedUp[] {
  const { features, habits } = machine;
  const present: Circumstance[] = [...habits];
  if ((household.hardness ?? 0) > VERY_HARD_FROM) present.push('hard-water');
  if (features.riser === 'yes' || (features.elbows ?? 0) >= 2) present.push('long-duct');
  if (features.room === 'unheated') present.push('unheated-room');
  return present.flatMap((circumstance) => {
    const usual = task.speeds[circumstance];
    if (usual === undefined) return [];
    const own = household.multipliers?.[circumstance];
    const multiplier = own ?? usual;
    if (multiplier === 1) return [];
    return [{ circumstance, multiplier, ...(own === undefined ? {} : { own: true as const }) }];
  });
}

/** The factor by which an interval is multiplied where it fouls faster, 0 to 1. */
export const paceOf = (speeds: readonly SpeedUp[]): number =>
  1 / speeds.reduce((product, { multiplier }) => product * multiplier, 1);

/** Circumstances that speak of what is washed or dried; a load with a programme speaks for itself. */
const OF_LOADS: readonly Circumstance[] = ['cool-washes', 'muddy-clothes', 'fleece'];

/**
 * What a load of each programme counts for on a task. A load whose programme was noted counts for
 * what it was, so what the profile says of loads in general is taken off again.
 */
export function weightsOf(
  task: Task,
  speeds: readonly SpeedUp[],
): Partial<Record<Programme, number>> {
  const general = speeds
    .filter(({ circumstance }) => OF_LOADS.includes(circumstance))
    .reduce((product, { multiplier }) => product * multiplier, 1);
  const of = (programme: Programme) => (task.programmes?.[programme] ?? 1) / general;
  return { cool: of('cool'), hot: of('hot'), heavy: of('heavy') };
}

/** The interval in force for a task, scaled by the profile and by what was learned. */
export interface InForce {
  /** As the school gives it. */
  school: Interval;
  speedUps: SpeedUp[];
  /** Loads bound, always given where loads drive the fouling. */
  loads?: number;
  /** Days bound, where the school gives days or months and something scales them. */
  days?: number;
  /** Months bound by the calendar, where nothing scales it. */
  months?: number;
}

/**
 * The bounds of an interval after a change of pace.
 * @param pace what the school's interval is multiplied by: below 1 is sooner
 */
export function scaled(task: Task, school: Interval, speeds: SpeedUp[], pace: number): InForce {
  const inForce: InForce = { school, speedUps: speeds };
  if (school.everyLoad) return { ...inForce, loads: 1 };
  if (school.loads !== undefined || task.driver === 'loads') {
    inForce.loads = inDriver(school, 'loads') * pace;
  }
  if (pace === 1) {
    if (school.months !== undefined) inForce.months = school.months;
    if (school.days !== undefined) inForce.days = school.days;
  } else if (school.months !== undefined || school.days !== undefined) {
    inForce.days = inDriver({ ...school, loads: Infinity }, 'days') * pace;
  }
  return inForce;
}

/** An interval in words: "every 2 months or 43 loads, whichever comes first". */
export function sayInterval(
  interval: Pick<InForce, 'loads' | 'days' | 'months'> & Pick<Interval, 'sign'>,
): string {
  if (interval.sign !== undefined) return `only ${interval.sign}`;
  const parts: string[] = [];
  if (interval.months !== undefined) {
    parts.push(interval.months === 1 ? 'month' : many(interval.months, 'month'));
  }
  if (interval.days !== undefined) {
    const days = Math.max(1, Math.round(interval.days));
    const weeks = days / 7;
    parts.push(
      Number.isInteger(weeks) && weeks > 1 && weeks < 9
        ? many(weeks, 'week')
        : days === 1
          ? 'day'
          : many(days, 'day'),
    );
  }
  if (interval.loads !== undefined) {
    const loads = Math.max(1, Math.round(interval.loads));
    parts.push(loads === 1 ? 'load' : many(loads, 'load'));
  }
  return `every ${parts.join(' or ')}${parts.length > 1 ? ', whichever comes first' : ''}`;
}
