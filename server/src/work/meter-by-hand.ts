import {
  toldAgain,
  type Entry,
  type EntryDraft,
  type LoadCycle,
  type Machine,
  type MeterView,
} from '@needlecase/core';
import { joined, parted, waysOf, type KeptLoad } from '@needlecase/core/loads/cycles/by-hand';
import type { Ways } from '@needlecase/core/loads/cycles/cycles';
import { programmeNames } from '@needlecase/core/loads/cycles/named';
import { programmesOf } from '@needlecase/core/loads/cycles/programmes';
import { UNREAD } from '@needlecase/core/loads/log/power-series';
import { invalid } from '../http/problem.js';
import type { Store } from '../store/store.js';
import { undo } from './entries.js';

const MINUTE = 60_000;
const DAY = 86_400_000;
const YEAR = 366 * DAY;

interface Origin {
  zone: string;
  author: string;
}
type MeteredEntry = Entry & { cycle: LoadCycle };

/** A load of a machine that its meter told, as it stands. @throws 422 where there is no such one */
function loadOf(store: Store, machine: Machine, id: string, field: string): MeteredEntry {
  const entry = store.entries.get(id);
  const stands = entry?.machineId === machine.id && entry.kind === 'load' && !entry.revisedBy;
  if (!stands || !entry.cycle) {
    throw invalid([{ field, message: 'There is no such load of its meter, or not any more.' }]);
  }
  return entry as MeteredEntry;
}

const keptOf = ({ at, cycle }: MeteredEntry): KeptLoad => ({ from: at, cycle });
const draftWith = (entry: MeteredEntry, { from, cycle }: KeptLoad): EntryDraft => ({
  ...toldAgain(entry),
  ...{ at: from, cycle },
});

/** Two loads were one. @returns the entry that stands for it */
export function joinLoads(
  store: Store,
  machine: Machine,
  ids: readonly string[],
  origin: Origin,
): Entry {
  const [first, second] = ids
    .map((id, i) => loadOf(store, machine, id, `ids.${i}`))
    .sort((a, b) => a.at.localeCompare(b.at)) as [MeteredEntry, MeteredEntry];
  let both: KeptLoad;
  try {
    both = joined(keptOf(first), keptOf(second));
  } catch (problem) {
    if (!(problem instanceof RangeError)) throw problem;
    throw invalid([{ field: 'ids', message: 'These two are too far apart to be one load.' }]);
  }
  undo(store, [second], origin.zone, origin.author);
  return store.entries.add(draftWith(first, both), { ...origin, revises: first.id });
}

/** One load was two: it is parted in its longest pause. @returns the entries that stand for them */
export function partLoad(store: Store, machine: Machine, id: string, origin: Origin): Entry[] {
  const load = loadOf(store, machine, id, 'id');
  const two = parted(keptOf(load), minutesOf(store, machine, load));
  if (!two) {
    throw invalid([
      { field: 'id', message: 'No pause is to be seen in it, where it could be parted.' },
    ]);
  }
  const [first, second] = two;
  const { note: _note, photos: _photos, ...rest } = draftWith(load, second);
  return [
    store.entries.add(draftWith(load, first), { ...origin, revises: load.id }),
    store.entries.add({ ...rest, source: 'meter' }, origin),
  ];
}

/** What a load's programme is called; nothing where the name is to go. */
export function nameLoad(
  store: Store,
  machine: Machine,
  { id, name }: { id: string; name: string },
  origin: Origin,
): Entry {
  const load = loadOf(store, machine, id, 'id');
  const { name: _before, ...cycle } = load.cycle;
  const called = name.trim();
  const named = { from: load.at, cycle: called ? { ...cycle, name: called } : cycle };
  return store.entries.add(draftWith(load, named), { ...origin, revises: load.id });
}

/** Watts of a load's minutes, as its meter told them. */
function minutesOf(store: Store, machine: Machine, { at, cycle }: MeteredEntry): (number | null)[] {
  const [from, to] = [Date.parse(at), Date.parse(cycle.to)];
  const dayOf = (instant: number) => new Date(instant).toISOString().slice(0, 10);
  const days = store.meterDays.between(machine.id, dayOf(from), dayOf(to));
  return Array.from({ length: Math.max(1, Math.round((to - from) / MINUTE)) }, (_, i) => {
    const instant = from + i * MINUTE;
    const watts = days.get(dayOf(instant))?.[Math.floor((instant % DAY) / MINUTE)] ?? UNREAD;
    return watts === UNREAD ? null : watts;
  });
}

function metered(store: Store, machine: Machine): MeteredEntry[] {
  const now = Date.now();
  return store.entries
    .loadsBetween(machine.id, now - YEAR, now + DAY)
    .filter((entry): entry is MeteredEntry => !entry.revisedBy && entry.cycle !== undefined);
}

/** A machine's own ways, as its loads that were put right by hand tell them. */
export const waysFor = (store: Store, machine: Machine): Ways =>
  waysOf(metered(store, machine).map(({ cycle }) => cycle));

/** What the programmes of some loads are called, by the loads' entries. */
export function namesFor(
  store: Store,
  machine: Machine,
  loads: readonly Entry[],
): Record<string, string> {
  const all = metered(store, machine);
  if (!all.some(({ cycle }) => cycle.name !== undefined)) return {};
  const names = programmeNames(
    all.map(({ id, at, cycle }) => ({ id, from: Date.parse(at), cycle })),
  );
  return Object.fromEntries(
    loads.flatMap(({ id }) => {
      const name = names.get(id);
      return name === undefined ? [] : [[id, name]];
    }),
  );
}

/** Programmes are those of so long, ms; of fewer loads, or beyond so many, nothing is told. */
const LATELY = 100 * DAY;
const LEAST_ALIKE = 2;
const MOST_PROGRAMMES = 8;

/** The programmes that a machine's loads of late are of, as their figures have it. */
export function programmesFor(store: Store, machine: Machine): MeterView['programmes'] {
  const since = Date.now() - LATELY;
  const loads = metered(store, machine)
    .map(({ id, at, cycle }) => ({ id, from: Date.parse(at), cycle }))
    .filter(({ from }) => from >= since)
    .sort((a, b) => a.from - b.from);
  return programmesOf(loads)
    .filter(({ ids, name }) => ids.length >= LEAST_ALIKE || name !== undefined)
    .slice(0, MOST_PROGRAMMES)
    .map(({ ids, ...programme }) => ({ ...programme, loads: ids.length, last: ids.at(-1)! }));
}
