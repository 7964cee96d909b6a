import { matchTaps, toldAgain, type Entry } from '@needlecase/core';
import type { Store } from '../store/store.js';
import { undo } from './entries.js';

/** How far from a tap its load may have begun, ms: as far as `matchTaps` looks, and the load itself. */
const NEAR = 36 * 3_600_000;

type Metered = Entry & { cycle: NonNullable<Entry['cycle']> };

/**
 * Sees to it that a tap of loads that a meter told before counts nothing twice: the meter's load takes its place, with
 * what was said in it; of a tap of several those that were not told stay a tap.
 */
export function reconcileTap(store: Store, tap: Entry, zone: string): void {
  const { machineId, count = 1, programme, note, author } = tap;
  if (tap.kind !== 'load' || tap.cycle || machineId === undefined) return;
  const at = Date.parse(tap.at);
  if (!store.entries.hasMetered(machineId, at - NEAR, at + NEAR)) return;
  const told = store.entries
    .loadsBetween(machineId, at - NEAR, at + NEAR)
    .filter((one): one is Metered => one.cycle !== undefined && !one.revisedBy)
    .filter((one) => !isTapped(store, one));
  const matched = matchTaps(
    told.map((one) => ({ from: Date.parse(one.at), to: Date.parse(one.cycle.to) })),
    [{ id: tap.id, at, count }],
  );
  const own = told.filter((_, i) => matched[i] === tap.id);
  const said = { ...(programme ? { programme } : {}), ...(note ? { note } : {}) };
  own.forEach((load, i) => {
    const draft = { ...toldAgain(load), ...said, cycle: { ...load.cycle, tapped: true as const } };
    // The last of a tap's loads takes its place.
    const takesPlace = own.length === count && i === own.length - 1;
    if (takesPlace) undo(store, [load], zone, author);
    store.entries.add(draft, { zone, author, revises: takesPlace ? tap.id : load.id });
  });
  const rest = count - own.length;
  if (own.length && rest) {
    store.entries.add({ ...toldAgain(tap), count: rest }, { zone, author, revises: tap.id });
  }
}

/** Whether somebody tapped what a meter told: it says so, or took a tap's place. */
function isTapped(store: Store, { cycle, revises }: Metered): boolean {
  if (cycle.tapped) return true;
  for (let id = revises; id !== undefined;) {
    const before = store.entries.get(id);
    if (before && before.source !== 'meter') return true;
    id = before?.revises;
  }
  return false;
}

/**
 * Takes a tap back whose place a meter's load took: the load stays, since it ran, and nothing of what was said in the
 * tap.
 * @returns the load as it stands then; nothing where no such load took its place
 */
export function untap(store: Store, tap: Entry, zone: string, author: string): Entry | undefined {
  const load = tap.revisedBy === undefined ? undefined : store.entries.get(tap.revisedBy);
  if (tap.cycle || !load?.cycle?.tapped || load.revisedBy) return undefined;
  const { programme: _p, note: _n, ...rest } = toldAgain(load);
  const { tapped: _t, ...cycle } = load.cycle;
  return store.entries.add({ ...rest, cycle }, { zone, author, revises: load.id });
}
