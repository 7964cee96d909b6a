import { sayProduct } from '../../chemistry/products.js';
import type { EntryKind } from '../../model/entry-kinds.js';
import { quantityOf } from '../../model/quantities.js';
import type { Entry, EntryDraft } from '../../model/schemas.js';
import type { Programme, ProofResult, UnitSystem } from '../../model/vocabulary.js';
import { many } from '../../units/many.js';
import { presentAmount } from '../../units/present-unit.js';
import { LOAD_HABITS } from '../catalogue/data/habits.js';
import { PARTS } from '../catalogue/data/parts.js';
import { isStation, knowsTask, NO_MACHINE, stationById, taskOf } from '../catalogue/lookup.js';
import type { Build } from '../catalogue/types.js';

const PROOF_WORDS: Record<ProofResult, string> = {
  good: 'Proved right',
  bad: 'Did not hold',
  planned: 'To be looked at after the next load',
};

const PROGRAMME_NAMES: Record<Programme, string> = {
  cool: 'cool',
  hot: 'hot',
  heavy: 'heavily soiled',
};

type Told = Entry | EntryDraft;

/** The words of each kind of entry. */
const WORDS: Record<EntryKind, (entry: Told, machine: Build | undefined) => string> = {
  load: ({ count = 1, programme }) =>
    `${many(count, 'load')} counted${programme ? ` (${PROGRAMME_NAMES[programme]})` : ''}`,
  done: (entry, machine) => taskName(entry, machine) ?? 'Work done',
  opened: ({ station }) => `Looked at, left alone: ${stationName(station) ?? 'a station'}`,
  reading: ({ quantity, value, unit, device, placement }) =>
    `${quantityOf(quantity)?.logged ?? quantity ?? 'Reading'} ${value} ${unit}${
      device === undefined ? '' : ` (${[device, placement].filter(Boolean).join(', ')})`
    }`,
  code: ({ code }) => `Code on the display: ${code}`,
  replaced: ({ part, station }) =>
    `Replaced: ${partName(part) ?? stationName(station) ?? 'a part'}`,
  called: () => 'Somebody was called in',
  note: () => 'Note',
  habit: ({ habit }) => LOAD_HABITS.find(({ id }) => id === habit)?.name ?? 'A habit kept',
  stock: ({ value, unit = '' }) => `Supply counted: ${value} ${unit}`.trim(),
  bought: ({ value, unit = '' }) => `Supply bought: ${value} ${unit}`.trim(),
  chemical: ({ product }) => `Used: ${sayProduct(product)}`,
  rinse: ({ station }) =>
    station === undefined ? 'A full rinse has run' : `Rinsed: ${stationName(station) ?? station}`,
  proof: (entry, machine) =>
    `${PROOF_WORDS[entry.result ?? 'good']}: ${lowerFirst(taskName(entry, machine) ?? 'the work')}`,
  explained: () => 'The reason of a signal is known',
  case: () => 'Case of trouble closed',
  undone: () => 'Undone',
};

/**
 * An entry in a few words, for the log.
 * @param machine the machine it is of, for tasks that the household added
 * @example sayEntry({ kind: 'load', count: 2, at }) // "2 loads counted"
 */
export const sayEntry = (entry: Told, machine?: Build): string => WORDS[entry.kind](entry, machine);

/**
 * An entry in a few words, its figure in the household's units; where those are others than the log's, with what was
 * recorded beside it.
 * @example sayEntryIn(fill, 'us') // "In ten seconds the tap gave 3.96 gal (recorded: 15 L)"
 */
export function sayEntryIn(entry: Told, units: UnitSystem, machine?: Build): string {
  const { kind, quantity, value, unit } = entry;
  const row = quantityOf(quantity);
  if (kind !== 'reading' || !row || value === undefined || unit === undefined) {
    return sayEntry(entry, machine);
  }
  const own = presentAmount({ value, unit }, row.dimension, units);
  if (own.unit === unit) return sayEntry(entry, machine);
  const shown = { ...entry, value: Number(own.value.toPrecision(3)), unit: own.unit };
  return `${sayEntry(shown, machine)} (recorded: ${value} ${unit})`;
}

const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

const partName = (part: string | undefined): string | undefined => {
  const name = PARTS.find(({ id }) => id === part)?.name;
  return name && lowerFirst(name);
};

const stationName = (station: string | undefined): string | undefined =>
  station !== undefined && isStation(station) ? stationById(station).name.toLowerCase() : undefined;

const taskName = ({ task }: Told, machine: Build | undefined): string | undefined =>
  task !== undefined && knowsTask(machine, task)
    ? taskOf(machine ?? NO_MACHINE, task).name
    : undefined;
