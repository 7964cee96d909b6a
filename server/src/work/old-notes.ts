import { createHash } from 'node:crypto';
import {
  checkEntry,
  checkSupplyOf,
  completed,
  toldAgain,
  type Entry,
  type FieldProblem,
  type NotesKept,
  type OldNotes,
} from '@needlecase/core';
import type { Store } from '../store/store.js';
import { undo } from './entries.js';
import { householdOf } from './household.js';

interface Origin {
  zone: string;
  author: string;
}
type Note = OldNotes['notes'][number];

/** What cannot be kept, each at its place. */
export function noteProblems(store: Store, notes: readonly Note[], now: number): FieldProblem[] {
  const { zone } = householdOf(store);
  const supplies = store.supplies.list();
  return notes.flatMap(({ entry }, i) => {
    const machine = entry.machineId ? store.machines.get(entry.machineId) : undefined;
    return [...checkEntry(entry, machine, now, zone), ...checkSupplyOf(entry, supplies)].map(
      ({ field, message }) => ({ field: `notes.${i}.entry.${field}`, message }),
    );
  });
}

/**
 * Keeps notes from before. One that was taken in before, as it was written, is passed over; one that was taken back
 * since stands again. Lines that are written alike are as many as they are.
 */
export function keepNotes(store: Store, notes: readonly Note[], origin: Origin): NotesKept {
  const household = store.household.get()!.id;
  const seen = new Map<string, number>();
  const kept: NotesKept = { added: 0, known: 0, ids: [] };
  for (const { written, entry } of notes) {
    const number = (seen.get(written) ?? 0) + 1;
    seen.set(written, number);
    const id = idOf(household, written, number);
    const there = store.entries.get(id);
    const last = there && standing(store, there);
    if (last && last.kind !== 'undone') {
      kept.known++;
      continue;
    }
    const machine = entry.machineId ? store.machines.get(entry.machineId) : undefined;
    const { id: _given, author: _named, ...draft } = completed(entry, machine);
    const added = last
      ? store.entries.add({ ...toldAgain({ ...there, ...draft }) }, { ...origin, revises: last.id })
      : store.entries.add({ ...draft, id, source: 'import' }, origin);
    kept.added++;
    kept.ids.push(added.id);
  }
  return kept;
}

/** Takes notes back that came in together. @returns how many */
export function undoNotes(store: Store, ids: readonly string[], { zone, author }: Origin): number {
  const entries = ids.flatMap((id) => {
    const entry = store.entries.get(id);
    const own = entry?.source === 'import' && entry.kind !== 'undone' && !entry.revisedBy;
    return own ? [entry] : [];
  });
  return undo(store, entries, zone, author).length;
}

/** What stands in the place of an entry now. */
function standing(store: Store, entry: Entry): Entry {
  let last = entry;
  for (let next; (next = store.entries.revisionOf(last.id));) last = next;
  return last;
}

/** A name of its own for a line of notes in a house (RFC 9562, version 8). */
function idOf(household: string, written: string, number: number): string {
  const bytes = createHash('sha256').update(`${household}\n${number}\n${written}`).digest();
  bytes[6] = (bytes[6]! & 0x0f) | 0x80;
  bytes[8] = (bytes[8]! & 0x3f) | 0x80;
  const hex = bytes.subarray(0, 16).toString('hex');
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
}
