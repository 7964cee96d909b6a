import type { Entry, EntryDraft } from '../../model/schemas.js';

/** The entry that marks another as undone, at the same place and time. */
export const undoing = ({ machineId, station, task, at }: Entry): EntryDraft => ({
  kind: 'undone',
  at,
  source: 'log',
  ...(machineId ? { machineId } : {}),
  ...(station ? { station } : {}),
  ...(task ? { task } : {}),
});

/** What an undone entry told, to be told again. */
export function toldAgain(entry: Entry): EntryDraft {
  const {
    id: _id,
    revises: _revises,
    revisedBy: _revisedBy,
    recordedAt: _recordedAt,
    runId: _runId,
    zone: _zone,
    ...draft
  } = entry;
  return draft;
}
