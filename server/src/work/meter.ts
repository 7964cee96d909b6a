import {
  dayOf,
  matchTaps,
  plusDays,
  startOf,
  toldAgain,
  type Entry,
  type FieldProblem,
  type LoadCycle,
  type Machine,
  type MeterImport,
  type MeterKept,
  type MeterView,
} from '@needlecase/core';
import { AHEAD } from '@needlecase/core/loads/log/meter-reader';
import { UNREAD } from '@needlecase/core/loads/log/power-series';
import type { Store } from '../store/store.js';
import { unpacked } from '../store/meter-days.js';
import { undo } from './entries.js';
import type { Told } from './signals.js';
import { namesFor, programmesFor, waysFor } from './meter-by-hand.js';
import { keepAir } from './meter-air.js';

const MINUTE = 60_000;
const DAY = 86_400_000;
/** How far from a load a tap of it may be, ms: as far as `matchTaps` looks. */
const NEAR = DAY;

const startOfDay = (day: string): number => Date.parse(`${day}T00:00:00Z`);

/** What cannot be taken in, each at its place. */
export function meterProblems({ loads, days }: MeterImport, now: number): FieldProblem[] {
  const problems: FieldProblem[] = [];
  const wrong = (field: string, message: string) => problems.push({ field, message });
  let last = -Infinity;
  loads.forEach(({ from, to }, i) => {
    const [begun, over] = [Date.parse(from), Date.parse(to)];
    if (over <= begun || over - begun > DAY) {
      wrong(`loads.${i}.to`, 'A load ends after it began, and within a day.');
    }
    if (begun < last)
      wrong(`loads.${i}.from`, 'Loads are told in their order, one after the other.');
    if (over > now + AHEAD) wrong(`loads.${i}.to`, 'This is in the future.');
    last = Math.max(last, over);
  });
  const seen = new Set<string>();
  days.forEach(({ day, minutes }, i) => {
    if (seen.has(day)) wrong(`days.${i}.day`, 'This day is there twice.');
    seen.add(day);
    if (startOfDay(day) > now + AHEAD) wrong(`days.${i}.day`, 'This is in the future.');
    if (!unpacked(Buffer.from(minutes, 'base64'))) {
      wrong(`days.${i}.minutes`, 'Give 1440 watts of 16 bits, deflated, in base64.');
    }
  });
  return problems;
}

/** Whether two loads are one: more than half of the shorter lies in the other. */
const isSame = (a: Span, b: Span): boolean =>
  Math.min(a.to, b.to) - Math.max(a.from, b.from) > 0.5 * Math.min(a.to - a.from, b.to - b.from);

interface Span {
  from: number;
  to: number;
}
const spanOf = ({ at, cycle }: Pick<Entry, 'at' | 'cycle'>): Span => ({
  from: Date.parse(at),
  to: Date.parse(cycle?.to ?? at),
});

/**
 * Keeps what a meter told of a machine: loads that it told before, struck out or not, are passed over; what somebody
 * tapped takes the meter's figures, and keeps its programme.
 */
export function keepMeter(
  store: Store,
  machine: Machine,
  { loads, days }: MeterImport,
  origin: Origin,
): MeterKept {
  for (const { day, minutes } of days) {
    store.meterDays.keep(machine.id, day, unpacked(Buffer.from(minutes, 'base64'))!);
  }
  return { ...keepLoads(store, machine, loads, origin), days: days.length };
}

interface Origin {
  zone: string;
  author: string;
}
type ToldLoad = MeterImport['loads'][number];
const UNKNOWN_MINUTES = 1;
/** What somebody put right stays as they said. */
const isByHand = ({ joined, parted }: LoadCycle): boolean =>
  joined !== undefined || parted !== undefined;

/** Loads of a meter against those that are there, from some hours before them on. */
function against(store: Store, machine: Machine, loads: readonly ToldLoad[]) {
  const spans = loads.map(({ from, to }) => ({ from: Date.parse(from), to: Date.parse(to) }));
  const there = store.entries.loadsBetween(
    machine.id,
    spans[0]!.from - NEAR,
    spans.at(-1)!.to + NEAR,
  );
  const told = there.filter(({ source, cycle }) => source === 'meter' && cycle);
  const found = loads.map((load, i) => {
    const span = spans[i]!;
    const same = told.filter((one) => isSame(spanOf(one), span));
    // A part of it that was missing has been read since.
    const filled = same.find(
      ({ revisedBy, cycle }) =>
        !revisedBy && !isByHand(cycle!) && cycle!.unread - load.unread > UNKNOWN_MINUTES,
    );
    return { load, span, same: same.length > 0, filled };
  });
  return { there, found };
}

/** Whether a meter's loads tell anything that is not there yet. */
export function tellsMore(store: Store, machine: Machine, loads: readonly ToldLoad[]): boolean {
  if (!loads.length) return false;
  return against(store, machine, loads).found.some(({ same, filled }) => !same || filled);
}

/** Keeps loads that a meter told, in their order. */
export function keepLoads(
  store: Store,
  machine: Machine,
  loads: readonly ToldLoad[],
  origin: Origin,
): MeterKept {
  const kept: MeterKept = { added: 0, matched: 0, known: 0, days: 0, ids: [] };
  if (!loads.length) return kept;
  const { zone } = origin;
  const { there, found } = against(store, machine, loads);
  for (const { load, filled } of found) {
    if (!filled) continue;
    const { from, ...cycle } = load;
    const { name, tapped } = filled.cycle!;
    const said = { ...(name ? { name } : {}), ...(tapped ? { tapped } : {}) };
    const draft = { ...toldAgain(filled), at: from, cycle: { ...cycle, ...said } };
    store.entries.add(draft, { zone, author: filled.author, revises: filled.id });
  }
  const fresh = found.filter(({ same }) => !same);
  kept.known = found.length - fresh.length;
  const taps = there.filter(({ source, revisedBy }) => source !== 'meter' && !revisedBy);
  const matched = matchTaps(
    fresh.map(({ span }) => span),
    taps.map(({ id, at, count = 1 }) => ({ id, at: Date.parse(at), count })),
  );
  const left = new Map(taps.map((tap) => [tap.id, tap.count ?? 1]));
  fresh.forEach(({ load: { from, ...cycle } }, i) => {
    const tap = taps.find(({ id }) => id === matched[i]);
    const rest = tap ? left.get(tap.id)! - 1 : 0;
    if (tap) left.set(tap.id, rest);
    const entry = store.entries.add(
      {
        ...{ kind: 'load', machineId: machine.id, at: from, count: 1, source: 'meter' },
        cycle: tap ? { ...cycle, tapped: true } : cycle,
        ...(tap?.programme ? { programme: tap.programme } : {}),
        ...(tap?.note ? { note: tap.note } : {}),
      },
      // The last of its loads takes a tap's place.
      tap && rest === 0 ? { ...origin, revises: tap.id } : origin,
    );
    kept.ids.push(entry.id);
    if (tap) kept.matched++;
    else kept.added++;
  });
  // Of a tap of several loads some may have been found: the others stay a tap.
  for (const tap of taps) {
    const rest = left.get(tap.id)!;
    if (rest === 0 || rest === (tap.count ?? 1)) continue;
    store.entries.add(
      { ...toldAgain(tap), count: rest },
      { zone, author: tap.author, revises: tap.id },
    );
  }
  if (fresh.length) kept.ids.push(...keepAir(store, machine, origin));
  return kept;
}

/**
 * Takes loads of a meter back that came in together; what somebody had tapped stands again as it did.
 * @returns how many
 */
export function undoMeter(
  store: Store,
  machine: Machine,
  ids: readonly string[],
  { zone, author }: { zone: string; author: string },
): number {
  const standing = ids.flatMap((id) => {
    const entry = store.entries.get(id);
    const own = entry?.machineId === machine.id && entry.source === 'meter' && !entry.revisedBy;
    return own ? [entry] : [];
  });
  for (const entry of standing) {
    const tap = entry.revises === undefined ? undefined : store.entries.get(entry.revises);
    if (tap) store.entries.add(toldAgain(tap), { zone, author: tap.author, revises: entry.id });
    else undo(store, [entry], zone, author);
  }
  return standing.filter(({ kind }) => kind === 'load').length;
}

const MONTH = 30;

/** A machine's meter on a day of the house; the last that was read where none is asked for. */
export function meterView(
  store: Store,
  machine: Machine,
  zone: string,
  { all: signals, short }: Pick<Told, 'all' | 'short'>,
  asked?: string,
): MeterView {
  const ends = store.meterDays.ends(machine.id);
  const own = {
    ...{ names: {}, pause: waysFor(store, machine).pause / MINUTE, signals, short },
    programmes: programmesFor(store, machine),
  };
  const nothing = { watts: [], loads: [], month: { loads: 0, kWh: 0 }, ...own };
  if (!ends) return nothing;
  const first = dayOf(startOfDay(ends.first), zone);
  const last = dayOf(
    startOfDay(ends.last) + lastMinute(store, machine.id, ends.last) * MINUTE,
    zone,
  );
  const day = asked ?? last;
  const [from, to] = [startOf(day, zone), startOf(plusDays(day, 1), zone)];
  const days = store.meterDays.between(machine.id, utcDay(from), utcDay(to));
  const watts = Array.from({ length: Math.round((to - from) / MINUTE) }, (_, i) => {
    const at = from + i * MINUTE;
    const read = days.get(utcDay(at))?.[Math.floor((at % DAY) / MINUTE)] ?? UNREAD;
    return read === UNREAD ? null : read;
  });
  const standing = (since: number, until: number) =>
    store.entries.loadsBetween(machine.id, since, until).filter(({ revisedBy }) => !revisedBy);
  const month = standing(startOf(plusDays(day, 1 - MONTH), zone), to).filter(({ cycle }) => cycle);
  const wattHours = month.reduce((sum, { cycle }) => sum + cycle!.wattHours, 0);
  const loads = standing(from, to);
  return {
    ...{ first, last, day, from: new Date(from).toISOString(), watts, loads },
    ...own,
    names: namesFor(store, machine, loads),
    month: { loads: month.length, kWh: wattHours / 1000 },
  };
}

const utcDay = (at: number): string => new Date(at).toISOString().slice(0, 10);

/** The last minute of a day that was read. */
const lastMinute = (store: Store, machineId: string, day: string): number =>
  store.meterDays.get(machineId, day)?.findLastIndex((watts) => watts !== UNREAD) ?? 0;
