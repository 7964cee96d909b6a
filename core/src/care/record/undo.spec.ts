import { describe, expect, it } from 'vitest';
import { check } from '../../model/check.js';
import type { Entry } from '../../model/schemas.js';
import { toldAgain, undoing } from './undo.js';

const ID = '00000000-0000-4000-8000-00000000000a';
const done: Entry = {
  id: ID,
  machineId: '00000000-0000-4000-8000-000000000001',
  kind: 'done',
  task: 'pump-filter',
  station: 'pump-filter',
  grade: 3,
  note: 'A coin and a hair clip',
  used: [{ supply: 'vinegar', amount: 250 }],
  photos: ['00000000-0000-4000-8000-00000000000b'],
  at: '2026-06-14T10:00:00Z',
  author: 'household',
  source: 'run',
  zone: 'Europe/Vienna',
  recordedAt: '2026-06-14T10:00:05Z',
  runId: '00000000-0000-4000-8000-00000000000c',
};

describe('undoing an entry', () => {
  it('is an entry itself, at the same machine, station, task and time', () => {
    const draft = undoing(done);
    expect(draft).toEqual({
      kind: 'undone',
      at: done.at,
      source: 'log',
      machineId: done.machineId,
      station: 'pump-filter',
      task: 'pump-filter',
    });
    expect(check('EntryDraft', draft)).toEqual([]);
  });

  it('of an entry of the house, without a machine, names none', () => {
    const { machineId: _m, station: _s, task: _t, ...ofHouse } = done;
    expect(Object.keys(undoing(ofHouse)).sort()).toEqual(['at', 'kind', 'source']);
  });
});

describe('telling an undone entry again', () => {
  it('tells all that was told, and nothing that the server adds', () => {
    const again = toldAgain({ ...done, revises: ID, revisedBy: ID });
    expect(check('EntryDraft', again)).toEqual([]);
    expect(again).toEqual({
      machineId: done.machineId,
      kind: 'done',
      task: 'pump-filter',
      station: 'pump-filter',
      grade: 3,
      note: 'A coin and a hair clip',
      used: [{ supply: 'vinegar', amount: 250 }],
      photos: ['00000000-0000-4000-8000-00000000000b'],
      at: done.at,
      author: 'household',
      source: 'run',
    });
  });
});
