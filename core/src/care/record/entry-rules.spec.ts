import { describe, expect, it } from 'vitest';
import type { EntryDraft } from '../../model/schemas.js';
import { checkEntry, completed } from './entry-rules.js';
import { sayEntry } from './entry-words.js';
import { machine } from '../../model/testing.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const washer = machine('front-load-washer');
const load: EntryDraft = { kind: 'load', machineId: washer.id, at: '2026-06-15T09:00:00Z' };

describe('checkEntry', () => {
  it.each<[string, Partial<EntryDraft>, (keyof EntryDraft)[]]>([
    ['a load', {}, []],
    ['a clock a little fast', { at: '2026-06-15T10:05:00Z' }, []],
    ['the far future', { at: '2126-06-15T09:00:00Z' }, ['at']],
    ['the far past', { at: '1889-06-15T09:00:00Z' }, ['at']],
    ['work without its task', { kind: 'done' }, ['task']],
    ['a task of another machine', { kind: 'done', task: 'duct-run' }, ['task']],
    [
      'a task at another station',
      { kind: 'done', task: 'dispenser', station: 'gasket' },
      ['station'],
    ],
    ['a station of another machine', { kind: 'note', note: 'x', station: 'hood' }, ['station']],
    ['a reading without its figure', { kind: 'reading' }, ['quantity', 'value', 'unit']],
    ['an empty note', { kind: 'note', note: '' }, ['note']],
    ['a number of notes', { kind: 'note', note: 'x', count: 2 }, ['count']],
    ['an undoing out of nowhere', { kind: 'undone' }, ['kind']],
  ])('%s', (_what, change, fields) => {
    const problems = checkEntry({ ...load, ...change }, washer, NOW);
    expect(problems.map(({ field }) => field)).toEqual(fields);
  });

  it('knows no machine that is not there', () => {
    expect(checkEntry(load, undefined, NOW)).toEqual([
      { field: 'machineId', message: 'There is no such machine.' },
    ]);
  });

  it('refuses what happened before the machine came into use, in the household’s days', () => {
    const since = { ...washer, inUseSince: '2026-06-10' };
    const before = { ...load, at: '2026-06-09T21:59:00Z' };
    expect(checkEntry(before, since, NOW, 'Europe/Vienna')).toEqual([
      {
        field: 'at',
        message:
          'The machine came into use on 10 June 2026. Give a later time, or change that date under House.',
      },
    ]);
    const after = { ...load, at: '2026-06-09T22:01:00Z' };
    expect(checkEntry(after, since, NOW, 'Europe/Vienna')).toEqual([]);
  });

  it.each<[Partial<EntryDraft>, string]>([
    [{ kind: 'habit', habit: 'juggling' }, 'habit'],
    [{ kind: 'habit' }, 'habit'],
    [{ kind: 'note', note: 'x', programme: 'hot' }, 'programme'],
    [{ kind: 'stock', supply: 'vinegar' }, 'value'],
    [{ kind: 'bought', supply: 'vinegar', value: -1 }, 'value'],
  ])('%j is wrong at %s', (change, field) => {
    const { count: _count, ...bare } = load;
    expect(checkEntry({ ...bare, ...change }, washer, NOW).map((one) => one.field)).toEqual([
      field,
    ]);
  });

  it('fills in one load, and a task’s station', () => {
    expect(completed(load).count).toBe(1);
    expect(completed({ ...load, kind: 'done', task: 'gasket-folds' }).station).toBe('gasket');
  });
});

describe('sayEntry', () => {
  it.each<[Partial<EntryDraft>, string]>([
    [{ count: 1 }, '1 load counted'],
    [{ count: 3 }, '3 loads counted'],
    [{ kind: 'done', task: 'pump-filter' }, 'Clean the pump filter'],
    [{ kind: 'opened', station: 'gasket' }, 'Looked at, left alone: door gasket'],
    [{ kind: 'reading', quantity: 'drain-time', value: 48, unit: 's' }, 'Drained empty in 48 s'],
    [{ kind: 'code', code: 'E-18' }, 'Code on the display: E-18'],
    [{ count: 2, programme: 'hot' }, '2 loads counted (hot)'],
    [{ kind: 'habit', habit: 'pockets' }, 'Pockets emptied'],
    [{ kind: 'bought', supply: 'vinegar', value: 1000, unit: 'ml' }, 'Supply bought: 1000 ml'],
  ])('%j', (change, said) => {
    expect(sayEntry({ ...load, ...change })).toBe(said);
  });
});
