import { randomInt, randomLcg, randomNormal, randomPoisson } from 'd3-random';
import {
  plusDays,
  startOf,
  taskOf,
  type Day,
  type EntryDraft,
  type Grade,
  type Programme,
} from '@needlecase/core';
import { CARE, FINDS, MACHINES, PEOPLE, type DemoCare, type DemoMachine } from './household.js';

const DAYS = 730;
const SEED = 0.2718;

/** Days ago on which the house was empty. */
const AWAY = [
  { from: 470, to: 455 },
  { from: 128, to: 112 },
];

/** A random source and what hangs on it, all from one seed. */
class Chance {
  readonly #source = randomLcg(SEED);
  readonly unit = () => this.#source();
  readonly normal = randomNormal.source(this.#source)(0, 1);
  readonly poisson = (mean: number) => randomPoisson.source(this.#source)(mean)();
  readonly whole = (from: number, below: number) => randomInt.source(this.#source)(from, below)();
  pick<T>(from: readonly T[]): T {
    return from[this.whole(0, from.length)]!;
  }
}

export interface DemoEntry extends EntryDraft {
  machine: DemoMachine;
}

/**
 * Two years of believable entries up to a day, the same for the same day.
 * @param today calendar date in `zone`
 */
export function history(today: Day, zone: string): DemoEntry[] {
  const chance = new Chance();
  const at = (daysAgo: number, hour: number) => {
    const minutes = Math.round(chance.unit() * 59);
    const start = startOf(plusDays(today, -daysAgo), zone);
    return new Date(start + hour * 3_600_000 + minutes * 60_000).toISOString();
  };
  const loads = (Object.keys(MACHINES) as DemoMachine[]).flatMap((machine) =>
    loadsOf(machine, chance, at),
  );
  const care = CARE.flatMap((one) => careOf(one, loads, chance, at));
  const others = [...drainCase(at), ...slowDryer(chance, at), ...habits(loads, chance)];
  return [...loads, ...care, ...others].sort((a, b) => a.at.localeCompare(b.at));
}

type At = (daysAgo: number, hour: number) => string;

const isAway = (daysAgo: number) => AWAY.some(({ from, to }) => daysAgo <= from && daysAgo >= to);

function loadsOf(machine: DemoMachine, chance: Chance, at: At): DemoEntry[] {
  const entries: DemoEntry[] = [];
  const perDay = MACHINES[machine].loadsPerWeek / 7;
  for (let daysAgo = DAYS; daysAgo >= 1; daysAgo--) {
    if (isAway(daysAgo)) continue;
    const weekend = daysAgo % 7 < 2 ? 1.5 : 0.8;
    const count = Math.min(4, chance.poisson(perDay * weekend));
    for (let i = 0; i < count; i++) {
      const hour = chance.whole(7, 21);
      entries.push({
        machine,
        kind: 'load',
        count: 1,
        at: at(daysAgo, hour),
        author: chance.pick(PEOPLE),
        ...programmeOf(machine, chance),
      });
    }
  }
  return entries;
}

/** Most loads are as usual; the studio's are clay more often than not. */
function programmeOf(machine: DemoMachine, chance: Chance): { programme?: Programme } {
  const roll = chance.unit();
  if (machine === 'studio-washer') return roll < 0.35 ? { programme: 'heavy' } : {};
  if (machine !== 'cellar-washer') return {};
  if (roll < 0.12) return { programme: 'cool' };
  if (roll < 0.17) return { programme: 'hot' };
  return roll < 0.22 ? { programme: 'heavy' } : {};
}

/** What somebody noted with the loads of the last three weeks. */
function habits(loads: readonly DemoEntry[], chance: Chance): DemoEntry[] {
  const from = loads
    .map(({ at }) => at)
    .sort()
    .at(-50)!;
  return loads
    .filter(({ at }) => at > from)
    .flatMap(({ machine, at, author }): DemoEntry[] => {
      const often = (share: number, entry: Omit<DemoEntry, 'machine' | 'at'>): DemoEntry[] =>
        chance.unit() < share ? [{ machine, at, ...(author ? { author } : {}), ...entry }] : [];
      if (machine === 'cellar-dryer') {
        return often(0.8, { kind: 'done', task: 'lint-screen-brush' });
      }
      if (machine === 'top-dryer') {
        return [
          ...often(0.6, { kind: 'done', task: 'lint-screen-brush' }),
          ...often(0.9, { kind: 'done', task: 'tank-empty' }),
        ];
      }
      return [
        ...often(0.5, { kind: 'habit', habit: 'pockets' }),
        ...often(0.4, { kind: 'habit', habit: 'measured' }),
        ...(machine === 'cellar-washer' ? often(0.5, { kind: 'done', task: 'gasket-wipe' }) : []),
      ];
    });
}

/** Every time a task was done, with the grade that its real fouling would show. */
function careOf(care: DemoCare, loads: readonly DemoEntry[], chance: Chance, at: At): DemoEntry[] {
  const days: number[] = [];
  for (let daysAgo = care.last; daysAgo < DAYS - 20;) {
    const { neglected } = care;
    if (!neglected || daysAgo > neglected.from || daysAgo <= neglected.to) days.push(daysAgo);
    daysAgo += Math.max(9, Math.round(care.every * (0.85 + chance.unit() * 0.35)));
  }
  const taps = loads.filter(({ machine }) => machine === care.machine).map(({ at: when }) => when);
  let lastAt: string | undefined;
  let rescued = false;
  return days.reverse().map((daysAgo) => {
    // The neglect ended with a clean of its own, told in `drainCase`.
    if (care.neglected && daysAgo < care.neglected.to && !rescued) {
      rescued = true;
      lastAt = at(care.neglected.to, 9);
    }
    const when = at(daysAgo, chance.whole(9, 19));
    const loadsSince = taps.filter((tap) => tap <= when && (!lastAt || tap > lastAt)).length;
    const daysSince = lastAt ? (Date.parse(when) - Date.parse(lastAt)) / 86_400_000 : care.every;
    const n = taskOf(MACHINES[care.machine], care.task).driver === 'days' ? daysSince : loadsSince;
    const fouling = care.rate * n * Math.exp(0.25 * chance.normal());
    const grade = ([0.1, 0.3, 0.6, 0.9].findIndex((edge) => fouling < edge) + 5) % 5;
    const found =
      care.task === 'pump-filter' && fouling > 0.2
        ? [...new Set([chance.pick(FINDS), chance.pick(FINDS)])].map((what) => ({
            what,
            count: chance.whole(1, 4),
          }))
        : [];
    lastAt = when;
    return {
      machine: care.machine,
      kind: 'done',
      task: care.task,
      grade: grade as Grade,
      at: when,
      author: chance.pick(PEOPLE),
      ...(found.length ? { found, trays: chance.whole(1, 3) } : {}),
    };
  });
}

/** The work that ended the solved case: the filter was forgotten until the washer stood full. */
function drainCase(at: At): DemoEntry[] {
  return [
    {
      machine: 'cellar-washer',
      kind: 'done',
      task: 'pump-filter',
      grade: 4,
      trays: 9,
      at: at(352, 9),
      author: 'Wren',
      found: [
        { what: 'hair grip', count: 5 },
        { what: 'coin', count: 2 },
        { what: 'dog fluff', count: 1 },
      ],
      note: 'A plug of felt and fluff as big as a fist. The impeller turned freely afterwards.',
    },
  ];
}

/** The case open today: drying in the cellar takes longer from month to month. */
function slowDryer(chance: Chance, at: At): DemoEntry[] {
  const machine = 'cellar-dryer';
  const minutes = [227, 190, 150, 118, 92, 64, 43, 27, 12, 4].map((daysAgo, i): DemoEntry => {
    const value = Math.round(
      58 + 0.09 * (228 - daysAgo) + 0.35 * i * i * 0.4 + 2 * chance.normal(),
    );
    return {
      machine,
      kind: 'reading',
      station: 'duct-run',
      quantity: 'drying-minutes',
      value,
      unit: 'min',
      at: at(daysAgo, 20),
      author: chance.pick(PEOPLE),
    };
  });
  return [
    {
      machine,
      kind: 'reading',
      station: 'duct-run',
      quantity: 'bag-fill-time',
      value: 1.9,
      unit: 's',
      at: at(227, 17),
      author: 'Odo',
    },
    ...minutes,
    {
      machine,
      kind: 'reading',
      station: 'duct-run',
      quantity: 'bag-fill-time',
      value: 5.2,
      unit: 's',
      at: at(2, 18),
      author: 'Odo',
    },
  ];
}
