import { alike, far, placeOf, programmeNames, type NameableLoad, type Place } from './named.js';

/** Loads that are like each other, which one programme made. */
export interface ProgrammeOfLoads {
  /** What somebody calls it. */
  name?: string;
  /** Of a usual load. */
  minutes: number;
  wattHours: number;
  /** In their order. */
  ids: string[];
}

/** So many of the last ones tell what is usual of a programme: with the water's warmth it goes to and fro in a year. */
const LAST = 8;

/**
 * Programmes by what their loads take: each load goes to the programme that it is most like, or begins another.
 * @param loads of one machine, in their order
 * @returns those of the most loads first
 */
export function programmesOf(loads: readonly NameableLoad[]): ProgrammeOfLoads[] {
  const names = programmeNames(loads);
  const groups: { middle: Place; loads: NameableLoad[] }[] = [];
  for (const load of loads) {
    const place = placeOf(load);
    const near = groups
      .map((group) => ({ group, far: far(group.middle, place) }))
      .sort((a, b) => a.far - b.far)[0];
    if (!near || !alike(near.far)) {
      groups.push({ middle: place, loads: [load] });
      continue;
    }
    const { group } = near;
    group.loads.push(load);
    const share = 1 / Math.min(LAST, group.loads.length);
    group.middle = {
      minutes: group.middle.minutes + share * (place.minutes - group.middle.minutes),
      energy: group.middle.energy + share * (place.energy - group.middle.energy),
    };
  }
  return groups
    .map(({ middle, loads: own }) => {
      const name = commonest(own.flatMap(({ id }) => names.get(id) ?? []));
      return {
        ...(name === undefined ? {} : { name }),
        minutes: Math.round(Math.exp(middle.minutes)),
        wattHours: Math.round(Math.exp(middle.energy)),
        ids: own.map(({ id }) => id),
      };
    })
    .sort((a, b) => b.ids.length - a.ids.length);
}

function commonest(names: readonly string[]): string | undefined {
  const counts = new Map<string, number>();
  for (const name of names) counts.set(name, (counts.get(name) ?? 0) + 1);
  return [...counts].sort(([, a], [, b]) => b - a)[0]?.[0];
}
