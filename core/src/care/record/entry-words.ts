import type { Entry, EntryDraft } from '../../model/schemas.js';
import { sayProduct } from '../../chemistry/products.js';
import type { Programme, ProofResult } from '../../model/vocabulary.js';
import { many } from '../../units/calendar.js';
import { knowsTask, stationById, taskOf, NO_MACHINE } from '../catalogue/lookup.js';
import type { Build } from '../catalogue/types.js';
import { LOAD_HABITS } from '../catalogue/data/habits.js';

const QUANTITY_NAMES: Record<string, string> = {
  'drain-time': 'Drained empty in',
  'bag-fill-time': 'Bag at the hood full in',
  'drying-minutes': 'A load dried in',
  'pump-out-time': 'Half a litre pumped out in',
  'fill-litres': 'In ten seconds the tap gave',
  'exhaust-water': 'The air at the hood carried out',
  'standing-water': 'Water standing in the tub:',
  'pipe-over-weir': 'Top of the standpipe over its trap:',
  'hose-top': 'Highest point of the drain hose:',
  'hose-inserted': 'Drain hose inside its pipe:',
};

const PROOF_WORDS: Record<ProofResult, string> = {
  good: 'Proved right',
  bad: 'Did not hold',
  planned: 'To be looked at after the next load',
};

const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

const PROGRAMME_NAMES: Record<Programme, string> = {
  cool: 'cool',
  hot: 'hot',
  heavy: 'heavily soiled',
};

/**
 * An entry in a few words, for the log.
 * @param machine the machine it is of, for tasks that the household added
 */
export function sayEntry(entry: Entry | EntryDraft, machine?: Build): string {
  switch (entry.kind) {
    case 'load':
      return `${many(entry.count ?? 1, 'load')} counted${entry.programme ? ` (${PROGRAMME_NAMES[entry.programme]})` : ''}`;
    case 'done':
      return entry.task && knowsTask(machine, entry.task)
        ? taskOf(machine ?? NO_MACHINE, entry.task).name
        : 'Work done';
    case 'opened':
      return `Looked at, left alone: ${entry.station ? stationById(entry.station).name.toLowerCase() : 'a station'}`;
    case 'reading':
      return `${QUANTITY_NAMES[entry.quantity ?? ''] ?? entry.quantity ?? 'Reading'} ${entry.value} ${entry.unit}`;
    case 'code':
      return `Code on the display: ${entry.code}`;
    case 'replaced':
      return `Replaced: ${entry.station ? stationById(entry.station).name.toLowerCase() : 'a part'}`;
    case 'note':
      return 'Note';
    case 'habit':
      return LOAD_HABITS.find(({ id }) => id === entry.habit)?.name ?? 'A habit kept';
    case 'stock':
      return `Supply counted: ${entry.value} ${entry.unit ?? ''}`.trim();
    case 'bought':
      return `Supply bought: ${entry.value} ${entry.unit ?? ''}`.trim();
    case 'chemical':
      return `Used: ${sayProduct(entry.product)}`;
    case 'rinse':
      return entry.station
        ? `Rinsed: ${stationById(entry.station).name.toLowerCase()}`
        : 'A full rinse has run';
    case 'proof':
      return `${PROOF_WORDS[entry.result ?? 'good']}: ${entry.task && knowsTask(machine, entry.task) ? lowerFirst(taskOf(machine ?? NO_MACHINE, entry.task).name) : 'the work'}`;
    case 'case':
      return 'Case of trouble closed';
    case 'undone':
      return 'Undone';
  }
}
