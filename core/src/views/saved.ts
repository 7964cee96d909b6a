import { knowsTask, stationById, taskOf } from '../care/catalogue/lookup.js';
import type { Entry, Machine } from '../model/schemas.js';
import { DRYING } from '../model/vocabulary.js';
import { dayOf, type Day } from '../units/calendar.js';
import { quantile } from './charts.js';

/** What one clean of the way of the air saved. */
export interface SavedByClean {
  machine: string;
  day: Day;
  /** Tasks that were done. */
  what: string[];
  /** The middle of the last loads before it and of the first after it: kWh, minutes. */
  before: { energy: number; minutes: number };
  after: { energy: number; minutes: number };
  /** Metered loads since then, until the next clean. */
  loads: number;
  /** What they took less than before: kWh, hours. Less than nothing where it took more. */
  energy: number;
  hours: number;
}

/** So many loads on either side of a clean are compared; with fewer than the least nothing is told. Judgement. */
const MOST = 10;
const LEAST = 3;
/** Those of a longer time are of another season, ms. Judgement. */
const NEAR = 45 * 86_400_000;
/** What is done within this time is one clean, ms. */
const TOGETHER = 86_400_000;

interface Metered {
  at: number;
  energy: number;
  minutes: number;
}

/**
 * What the cleans of a dryer's way of air saved: as if each load after one had gone on taking what the last before it
 * took. Only of machines with a meter.
 * @param entries work and loads in the order of time @param from cleans since then, UTC milliseconds
 */
export function savedByCare(
  machines: readonly Machine[],
  entries: Iterable<Entry>,
  from: number,
  zone: string,
): SavedByClean[] {
  const drying = new Map(
    machines
      .filter(({ kind }) => (DRYING as readonly string[]).includes(kind))
      .map((machine) => [machine.id, { machine, loads: [] as Metered[], cleans: [] as Clean[] }]),
  );
  for (const entry of entries) {
    const one = entry.machineId === undefined ? undefined : drying.get(entry.machineId);
    if (!one) continue;
    const at = Date.parse(entry.at);
    const { cycle, task } = entry;
    if (entry.kind === 'load' && cycle) {
      const minutes = (Date.parse(cycle.to) - at) / 60_000;
      one.loads.push({ at, energy: cycle.wattHours / 1000, minutes });
    } else if (entry.kind === 'done' && task !== undefined && clearsAir(one.machine, task)) {
      const last = one.cleans.at(-1);
      const { name } = taskOf(one.machine, task);
      if (last && at - last.to <= TOGETHER) {
        last.to = at;
        if (!last.what.includes(name)) last.what.push(name);
      } else one.cleans.push({ at, to: at, what: [name] });
    }
  }
  return [...drying.values()]
    .flatMap(({ machine, loads, cleans }) =>
      cleans.flatMap(({ at, to, what }, i): SavedByClean[] => {
        if (at < from) return [];
        const since = cleans[i - 1]?.to ?? -Infinity;
        const until = cleans[i + 1]?.at ?? Infinity;
        const earlier = loads.filter(
          (load) => load.at < at && load.at > Math.max(since, at - NEAR),
        );
        const later = loads.filter((load) => load.at > to && load.at < until);
        const [before, after] = [
          earlier.slice(-MOST),
          later.filter((load) => load.at < to + NEAR).slice(0, MOST),
        ];
        if (before.length < LEAST || after.length < LEAST) return [];
        const [was, is] = [middle(before), middle(after)];
        return [
          {
            ...{ machine: machine.name, day: dayOf(at, zone), what, before: was, after: is },
            loads: later.length,
            energy: (was.energy - is.energy) * later.length,
            hours: ((was.minutes - is.minutes) * later.length) / 60,
          },
        ];
      }),
    )
    .sort((a, b) => a.day.localeCompare(b.day));
}

interface Clean {
  at: number;
  /** When the last of its tasks was done. */
  to: number;
  what: string[];
}

/** Whether a task opens the way of the air; what is done with each load is done before and after alike. */
function clearsAir(machine: Machine, id: string): boolean {
  if (!knowsTask(machine, id)) return false;
  const { station, habit } = taskOf(machine, id);
  return !habit && stationById(station).line === 'air';
}

const middle = (loads: readonly Metered[]): { energy: number; minutes: number } => {
  const of = (figure: 'energy' | 'minutes') =>
    quantile(
      loads.map((load) => load[figure]).sort((a, b) => a - b),
      0.5,
    );
  return { energy: of('energy'), minutes: of('minutes') };
};
