import type { ChemicalEvent } from '../../chemistry/guard.js';
import type { EntryKind } from '../../model/entry-kinds.js';
import { isQuantity, quantityOf, type QuantityId } from '../../model/quantities.js';
import {
  isSignalFigure,
  type Active,
  type Grade,
  type Programme,
  type ProofResult,
  type SignalFigure,
} from '../../model/vocabulary.js';
import type { Day } from '../../units/calendar.js';
import { isWrong, readReading } from '../../units/reading.js';
import { TASKS } from '../catalogue/data/tasks.js';
import { Openings, type Opening } from './openings.js';
import type { LoadCount, Usage } from './load-counts.js';

/** An entry of one machine as the engines need it. */
export interface Fact {
  entryId: string;
  kind: EntryKind;
  /** UTC instant, milliseconds. */
  at: number;
  /** Calendar date in the zone it was entered in. */
  day: Day;
  task?: string;
  grade?: Grade;
  count?: number;
  programme?: Programme;
  quantity?: string;
  value?: number;
  unit?: string;
  device?: string;
  placement?: string;
  habit?: string;
  step?: string;
  result?: ProofResult;
  product?: string;
  actives?: readonly Active[];
  /** Where a product was used, or the only place that was rinsed. */
  station?: string;
  part?: string;
}

/** What the record says of one machine, by what the engines ask. */
export interface Past {
  /** By task. */
  openings: Map<string, Openings>;
  /** By the task that a figure tells about; what tells of none stands by itself. */
  readings: Map<string, Measured[]>;
  /** The latest figure of each quantity. */
  latest: Map<string, Measured>;
  taps: LoadCount[];
  /** Days on which a habit was kept, by habit. */
  habits: Map<string, Set<Day>>;
  /** Cleaning products used and rinses, in order of time. */
  chemicals: ChemicalEvent[];
  /** In order of time. */
  proofs: ProofEvent[];
  /** When somebody knew why a figure of its meter had changed: of all of them where none is told. */
  explained: Explained[];
  /** In order of time. */
  replaced: Replaced[];
}

/** A part that was replaced, by its id, or what was at a station where it is not told which. */
export interface Replaced {
  entryId: string;
  /** UTC milliseconds. */
  at: number;
  day: Day;
  station: string;
  part?: string;
}

/** A reason that somebody knew. UTC milliseconds. */
export interface Explained {
  at: number;
  figure?: SignalFigure;
}

/** What the record says of one machine, ready for due dates. */
export interface History extends Omit<Past, 'taps'> {
  usage: Usage;
}

const MEASURING = new Map<string, string[]>();
for (const { id, measures } of TASKS) {
  for (const { quantity } of measures ?? []) listAt(MEASURING, quantity).push(id);
}
/** Where figures stand that tell of no task. */
const OF_NO_TASK = '';
const COVERED = new Map(TASKS.flatMap(({ id, covers }) => (covers ? [[id, covers] as const] : [])));

/** Sorts the entries of one machine; entries that were corrected or undone are not given. */
export function gather(facts: Iterable<Fact>): Past {
  const past: Sorted = {
    openings: new Map(),
    readings: new Map(),
    latest: new Map(),
    taps: [],
    habits: new Map(),
    chemicals: [],
    proofs: [],
    explained: [],
    replaced: [],
  };
  for (const fact of facts) add(past, fact);
  past.chemicals.sort((a, b) => a.at - b.at);
  past.proofs.sort((a, b) => a.at - b.at);
  past.replaced.sort((a, b) => a.at - b.at);
  for (const list of past.readings.values()) list.sort((a, b) => a.at - b.at);
  const openings = new Map([...past.openings].map(([task, list]) => [task, new Openings(list)]));
  return { ...past, openings };
}

type Sorted = Omit<Past, 'openings'> & { openings: Map<string, Opening[]> };

function add(past: Sorted, fact: Fact): void {
  const { entryId, at, day, task, grade } = fact;
  switch (fact.kind) {
    case 'load':
      past.taps.push(tapOf(fact));
      break;
    case 'opened':
    case 'done': {
      if (task === undefined) break;
      const cleaned = fact.kind === 'done';
      const opening: Opening = { entryId, at, day, task, cleaned };
      listAt(past.openings, task).push(grade === undefined ? opening : { ...opening, grade });
      // What is done along the way is clean as well, though nobody graded it by itself.
      if (!cleaned) break;
      for (const covered of COVERED.get(task) ?? []) listAt(past.openings, covered).push(opening);
      break;
    }
    case 'reading': {
      const { quantity } = fact;
      const value = valueOf(fact);
      if (value === undefined || !isQuantity(quantity)) break;
      const taken = takenWith(fact);
      const measured: Measured = {
        ...{ entryId, at, day, quantity, value },
        ...(taken === undefined ? {} : { taken }),
      };
      if (at >= (past.latest.get(quantity)?.at ?? -Infinity)) past.latest.set(quantity, measured);
      for (const id of MEASURING.get(quantity) ?? [OF_NO_TASK])
        listAt(past.readings, id).push(measured);
      break;
    }
    case 'proof': {
      const { step, result } = fact;
      if (task !== undefined && step !== undefined && result !== undefined) {
        past.proofs.push({ entryId, at, task, step, result });
      }
      break;
    }
    case 'chemical':
    case 'rinse': {
      const { kind, product, actives = [], station } = fact;
      const event: ChemicalEvent = { entryId, at, kind, actives };
      if (product !== undefined) event.product = product;
      if (station !== undefined) event.station = station;
      past.chemicals.push(event);
      break;
    }
    case 'explained':
      past.explained.push({
        at,
        ...(isSignalFigure(fact.quantity) ? { figure: fact.quantity } : {}),
      });
      break;
    case 'replaced': {
      const { station, part } = fact;
      if (station === undefined) break;
      past.replaced.push({ entryId, at, day, station, ...(part === undefined ? {} : { part }) });
      break;
    }
    case 'habit':
      if (fact.habit === undefined) break;
      past.habits.set(fact.habit, (past.habits.get(fact.habit) ?? new Set()).add(day));
      break;
  }
}

/**
 * A reading in the unit of its quantity. Files from before units were looked at hold some in others, and
 * some of no known quantity: those tell nothing.
 */
function valueOf({ quantity, value, unit }: Fact): number | undefined {
  const own = quantityOf(quantity)?.unit;
  if (value === undefined || own === undefined) return undefined;
  if (unit === undefined || unit === own) return value;
  const reading = readReading({ quantity, value, unit });
  return isWrong(reading) ? undefined : reading.value;
}

/** Loads counted, as use is reckoned from. */
export const tapOf = ({
  at,
  count = 1,
  programme,
}: Pick<Fact, 'at' | 'count' | 'programme'>): LoadCount => ({
  at,
  count,
  ...(programme ? { programme } : {}),
});

function listAt<T>(map: Map<string, T[]>, key: string): T[] {
  const list = map.get(key) ?? [];
  if (list.length === 0) map.set(key, list);
  return list;
}

/** A figure read at a machine. */
export interface Measured {
  entryId: string;
  at: number;
  day: Day;
  quantity: QuantityId;
  value: number;
  /** With what it was taken, where that matters: figures of another are not held against it. */
  taken?: string;
}

/** With what a figure was taken, and where it lay; nothing where any instrument tells the same. */
export const takenWith = ({
  device,
  placement,
}: Pick<Fact, 'device' | 'placement'>): string | undefined =>
  device === undefined ? undefined : [device, placement ?? ''].join(', ');

/** What was said of a proof: it holds, it does not, or it is to be asked after the next load. */
export interface ProofEvent {
  entryId: string;
  /** UTC instant, milliseconds. */
  at: number;
  task: string;
  step: string;
  result: ProofResult;
}
