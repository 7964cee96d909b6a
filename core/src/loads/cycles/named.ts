import type { LoadCycle } from '../../model/schemas.js';

/** A load of which somebody may have said what programme it was. */
export interface NameableLoad {
  id: string;
  /** UTC milliseconds. */
  from: number;
  cycle: Pick<LoadCycle, 'to' | 'wattHours' | 'name'>;
}

/** How far loads of one programme lie from each other in the mean: of ln minutes and ln energy. Common practice. */
const OF_MINUTES = 0.1;
const OF_ENERGY = 0.2;
/** What lies further than so many of them is another programme. */
const ALIKE = 2;
const MINUTE = 60_000;

/**
 * Programmes by name: those that somebody named, and of the others those that are like one of them in minutes and
 * energy.
 * @returns the name of each load that has one, by its id
 */
export function programmeNames(loads: readonly NameableLoad[]): Map<string, string> {
  const known = loads.flatMap((load) =>
    load.cycle.name === undefined ? [] : [{ name: load.cycle.name, ...placeOf(load) }],
  );
  return new Map(
    loads.flatMap((load): [string, string][] => {
      if (load.cycle.name !== undefined) return [[load.id, load.cycle.name]];
      const place = placeOf(load);
      const nearest = known
        .map((one) => ({ name: one.name, far: far(one, place) }))
        .sort((a, b) => a.far - b.far)[0];
      return nearest && alike(nearest.far) ? [[load.id, nearest.name]] : [];
    }),
  );
}

/** Where a load lies among others: ln minutes, ln watt hours. */
export interface Place {
  minutes: number;
  energy: number;
}

/** How far two loads lie from each other, in what loads of one programme do. */
export const far = (a: Place, b: Place): number =>
  Math.hypot((a.minutes - b.minutes) / OF_MINUTES, (a.energy - b.energy) / OF_ENERGY);
/** Whether loads so far from each other are of one programme. */
export const alike = (distance: number): boolean => distance <= ALIKE;

/** Where a load lies: ln minutes, ln watt hours. */
export const placeOf = ({ from, cycle }: NameableLoad): Place => ({
  minutes: Math.log(Math.max(1, (Date.parse(cycle.to) - from) / MINUTE)),
  energy: Math.log(Math.max(1, cycle.wattHours)),
});
