/*
 * What can stand in the log, one row a kind. What an entry must and may tell, whether it can be entered by
 * hand and is printed, and who reads it follow from here; its words are in care/record/entry-words.ts.
 */

/** What an entry may tell beside when, where, by whom and in which words. */
export type ToldField =
  | 'count'
  | 'programme'
  | 'cycle'
  | 'grade'
  | 'found'
  | 'trays'
  | 'used'
  | 'quantity'
  | 'value'
  | 'unit'
  | 'code'
  | 'habit'
  | 'supply'
  | 'product'
  | 'actives'
  | 'step'
  | 'result'
  | 'part'
  | 'cost'
  | 'device'
  | 'placement';

export interface KindOfEntry {
  /** In lists, of several: "Loads". */
  label: string;
  /** Where it can be entered by hand: the answer to "what?". */
  byHand?: string;
  needs: readonly (ToldField | 'machineId' | 'station' | 'task' | 'caseId' | 'note')[];
  /** Told as well, where somebody wants to. */
  allows: readonly ToldField[];
  /** Printed on a machine's record: it tells somebody who comes to look at the machine something. */
  telling: boolean;
  /**
   * Who reads it: the machine's history, by what drives fouling alone or with all it tells; the stock of
   * supplies.
   */
  history?: 'columns' | 'all';
  stock?: true;
}

const KINDS_OF_ENTRY = {
  load: {
    label: 'Loads',
    byHand: 'Loads',
    needs: ['machineId'],
    allows: ['count', 'programme', 'cycle'],
    telling: false,
    history: 'columns',
  },
  opened: {
    label: 'Looked at',
    byHand: 'Looked at, left alone',
    needs: ['machineId', 'task'],
    allows: ['grade', 'found', 'trays', 'used'],
    telling: true,
    history: 'columns',
  },
  done: {
    label: 'Work done',
    byHand: 'Work that was done',
    needs: ['machineId', 'task'],
    allows: ['grade', 'found', 'trays', 'used'],
    telling: true,
    history: 'columns',
    stock: true,
  },
  reading: {
    label: 'Readings',
    needs: ['machineId', 'quantity', 'value', 'unit'],
    allows: ['device', 'placement'],
    telling: true,
    history: 'all',
  },
  code: {
    label: 'Codes',
    byHand: 'A code on the display',
    needs: ['machineId', 'code'],
    allows: [],
    telling: true,
  },
  replaced: {
    label: 'Parts replaced',
    byHand: 'A part that was replaced',
    needs: ['machineId', 'station'],
    allows: ['part', 'cost'],
    telling: true,
    history: 'all',
  },
  called: {
    label: 'Somebody called in',
    byHand: 'Somebody was called in',
    needs: ['machineId', 'note'],
    allows: ['cost'],
    telling: true,
  },
  note: { label: 'Notes', byHand: 'A note', needs: ['note'], allows: [], telling: true },
  habit: {
    label: 'Habits kept',
    needs: ['machineId', 'habit'],
    allows: [],
    telling: false,
    history: 'columns',
  },
  stock: {
    label: 'Supplies counted',
    needs: ['supply', 'value'],
    allows: ['unit'],
    telling: false,
    stock: true,
  },
  bought: {
    label: 'Supplies bought',
    needs: ['supply', 'value'],
    allows: ['unit'],
    telling: false,
    stock: true,
  },
  chemical: {
    label: 'Cleaning products used',
    needs: ['machineId', 'product', 'actives'],
    allows: [],
    telling: true,
    history: 'all',
  },
  rinse: {
    label: 'Rinses',
    needs: ['machineId'],
    allows: [],
    telling: true,
    history: 'all',
  },
  proof: {
    label: 'Proofs',
    needs: ['machineId', 'task', 'step', 'result'],
    allows: [],
    telling: true,
    history: 'all',
  },
  explained: {
    label: 'Reasons known',
    needs: ['machineId', 'note'],
    // Which figure of its meter is meant; all of them where none is told.
    allows: ['quantity'],
    telling: true,
    history: 'columns',
  },
  case: {
    label: 'Cases closed',
    needs: ['machineId', 'caseId', 'note'],
    allows: [],
    telling: true,
  },
  undone: { label: 'Undone', needs: [], allows: [], telling: false },
} as const satisfies Record<string, KindOfEntry>;

export type EntryKind = keyof typeof KINDS_OF_ENTRY;
export const ENTRY_KINDS = Object.keys(KINDS_OF_ENTRY) as EntryKind[];

/** The row of a kind of entry. */
export const kindOfEntry = (kind: EntryKind): KindOfEntry => KINDS_OF_ENTRY[kind];

/** The kinds of which something holds, such as those that the engines read. */
export const entryKindsWhere = (holds: (kind: KindOfEntry) => boolean): EntryKind[] =>
  ENTRY_KINDS.filter((kind) => holds(kindOfEntry(kind)));
