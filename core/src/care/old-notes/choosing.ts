import { kindOfEntry } from '../../model/entry-kinds.js';
import type { EntryDraft, Machine } from '../../model/schemas.js';
import { stationsOf, tasksOf } from '../catalogue/lookup.js';

/* What somebody makes of a line of old notes that was understood otherwise than it was meant. */

/** A note and nothing more; and what it was understood as where that is no work: loads, a code, a part. */
export const NOTE = 'note';
export const AS_IT_IS = 'as it is';

const isOther = ({ kind }: EntryDraft): boolean =>
  kind === 'load' || kind === 'code' || kind === 'replaced';

/** What a line may be, by the ids of a machine's tasks. */
export const choicesFor = (draft: EntryDraft, machine: Machine | undefined): string[] => [
  ...(isOther(draft) ? [AS_IT_IS] : []),
  NOTE,
  ...(machine ? tasksOf(machine).map(({ id }) => id) : []),
];

/** Which of its choices a line is now. */
export const choiceOf = (draft: EntryDraft): string =>
  draft.task ?? (isOther(draft) ? AS_IT_IS : NOTE);

/** Whether it tells all that an entry of its kind needs: loads, work and codes are of a machine. */
export const isWhole = (draft: EntryDraft): boolean =>
  kindOfEntry(draft.kind).needs.every((field) => draft[field] !== undefined);

/** The same of another machine; a note where that one has no such work, or no such part. */
export function ofMachine(draft: EntryDraft, machine: Machine | undefined): EntryDraft {
  const { machineId: _before, ...rest } = draft;
  const { task, station } = rest;
  const has =
    machine !== undefined &&
    (task === undefined || tasksOf(machine).some(({ id }) => id === task)) &&
    (station === undefined || stationsOf(machine).some(({ id }) => id === station));
  const of = machine ? { machineId: machine.id } : {};
  const moved = { ...rest, ...of };
  return has ? moved : noteOf(moved);
}

/** The same about other work: a task of its machine, or a note. What was looked at is looked at again. */
export function aboutWork(draft: EntryDraft, choice: string): EntryDraft {
  if (choice === AS_IT_IS) return draft;
  const note = noteOf(draft);
  if (choice === NOTE) return note;
  return { ...note, kind: draft.kind === 'opened' ? 'opened' : 'done', task: choice };
}

function noteOf(draft: EntryDraft): EntryDraft {
  const { task: _task, station: _at, count: _count, code: _code, ...rest } = draft;
  return { ...rest, kind: 'note' };
}
