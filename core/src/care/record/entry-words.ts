import { sayProduct } from '../../chemistry/products.js';
import type { EntryKind } from '../../model/entry-kinds.js';
import { quantityOf } from '../../model/quantities.js';
import type { Entry, EntryDraft } from '../../model/schemas.js';
import type { Programme, ProofResult } from '../../model/vocabulary.js';
import { many } from '../../units/many.js';
import { LOAD_HABITS } from '../catalogue/data/habits.js';
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
  reading: ({ quantity, value, unit }) =>
    `${quantityOf(quantity)?.logged ?? quantity ?? 'Reading'} ${value} ${unit}`,
  code: ({ code }) => `Code on the display: ${code}`,
  replaced: ({ station }) => `Replaced: ${stationName(station) ?? 'a part'}`,
  note: () => 'Note',
  habit: ({ habit }) => LOAD_HABITS.find(({ id }) => id === habit)?.name ?? 'A habit kept',
  stock: ({ value, unit = '' }) => `Supply counted: ${value} ${unit}`.trim(),
  bought: ({ value, unit = '' }) => `Supply bought: ${value} ${unit}`.trim(),
  chemical: ({ product }) => `Used: ${sayProduct(product)}`,
  rinse: ({ station }) =>
    station === undefined ? 'A full rinse has run' : `Rinsed: ${stationName(station) ?? station}`,
  proof: (entry, machine) =>
    `${PROOF_WORDS[entry.result ?? 'good']}: ${lowerFirst(taskName(entry, machine) ?? 'the work')}`,
  case: () => 'Case of trouble closed',
  undone: () => 'Undone',
};

/**
 * An entry in a few words, for the log.
 * @param machine the machine it is of, for tasks that the household added
 * @example sayEntry({ kind: 'load', count: 2, at }) // "2 loads counted"
 */
export const sayEntry = (entry: Told, machine?: Build): string => WORDS[entry.kind](entry, machine);

const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

const stationName = (station: string | undefined): string | undefined =>
  station !== undefined && isStation(station) ? stationById(station).name.toLowerCase() : undefined;

const taskName = ({ task }: Told, machine: Build | undefined): string | undefined =>
  task !== undefined && knowsTask(machine, task)
    ? taskOf(machine ?? NO_MACHINE, task).name
    : undefined;
