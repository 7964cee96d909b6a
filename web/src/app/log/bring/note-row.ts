import { sayEntry, type EntryDraft, type Machine } from '@needlecase/core';
import type { NoteLine } from '@needlecase/core/care/old-notes/read-notes';

/** What somebody said of a line: that it is as it was understood, that it is something else, or that it stays out. */
export interface Decided {
  draft?: EntryDraft;
  out?: true;
}

/** A line as it is shown. */
export interface NoteRow {
  line: NoteLine;
  draft: EntryDraft | undefined;
  /** Why somebody is to look at it; nothing where it is clear, or was looked at. */
  doubt: string;
  out: boolean;
  said: string;
}

const DOUBTS: Record<NoteLine['doubts'][number], string> = {
  machine: 'which machine',
  task: 'which work',
  day: 'which day of the month',
};

export function rowOf(
  line: NoteLine,
  decided: Decided | undefined,
  machines: readonly Machine[],
): NoteRow {
  const draft = decided?.draft ?? line.draft;
  const machine = machines.find(({ id }) => id === draft?.machineId);
  return {
    line,
    draft,
    out: decided?.out === true || draft === undefined,
    doubt: decided || !draft ? '' : line.doubts.map((doubt) => DOUBTS[doubt]).join(', '),
    said: draft ? `${machine?.name ?? 'the household'}: ${sayEntry(draft, machine)}` : '',
  };
}
