import { describe, expect, it } from 'vitest';
import type { ProofResult } from '../../model/vocabulary.js';
import { MS_PER_DAY } from '../../units/calendar.js';
import { procedureById, tasksOf } from '../catalogue/lookup.js';
import { Openings } from '../record/openings.js';
import { openProofs } from './proofs.js';
import type { ProofEvent } from '../record/history.js';
import { checkEntry, completed } from '../record/entry-rules.js';
import { sayEntry } from '../record/entry-words.js';
import { entriesOf } from './visit-entries.js';
import { emptyProgress, isProof } from './progress.js';
import { planVisit } from './plan.js';
import { machine } from '../../model/testing.js';
import { Usage } from '../record/load-counts.js';

const washer = machine('front-load-washer', { features: { dispenser: 'drawer' } });
const NOW = Date.parse('2026-06-15T10:00:00Z');
const ago = (days: number): number => NOW - days * MS_PER_DAY;

const said = (
  daysAgo: number,
  result: ProofResult,
  task = 'dispenser',
  step = 'flush',
): ProofEvent => ({
  entryId: `${task}${daysAgo}`,
  at: ago(daysAgo),
  task,
  step,
  result,
});

function asked(proofs: ProofEvent[], loads: number[] = [], cleaned: number[] = []) {
  const openings = new Openings(
    cleaned.map((days) => ({
      entryId: `d${days}`,
      at: ago(days),
      day: '2026-06-01',
      task: 'dispenser',
      cleaned: true,
    })),
  );
  const usage = new Usage(
    loads.map((days) => ({ at: ago(days), count: 1 })),
    5,
  );
  return openProofs(washer, { proofs, openings: new Map([['dispenser', openings]]), usage }, NOW);
}

describe('open proofs', () => {
  it('are asked for once a load has run, not before', () => {
    expect(asked([said(2, 'planned')])).toEqual([]);
    expect(asked([said(2, 'planned')], [3])).toEqual([]);
    expect(asked([said(2, 'planned')], [1])).toMatchObject([
      { task: 'dispenser', step: 'flush', state: 'ask', station: 'dispenser', since: ago(2) },
    ]);
  });

  it('are closed by an answer, and wait for another load when put off', () => {
    expect(asked([said(3, 'planned'), said(1, 'good')], [2])).toEqual([]);
    expect(asked([said(3, 'planned'), said(1, 'planned')], [2])).toEqual([]);
    expect(asked([said(3, 'planned'), said(1, 'planned')], [2, 0.5])).toHaveLength(1);
  });

  it('stay open where it did not hold, until it does or the task was done again', () => {
    expect(asked([said(3, 'bad')], [], [4])).toMatchObject([{ state: 'bad' }]);
    expect(asked([said(3, 'bad'), said(1, 'good')])).toEqual([]);
    expect(asked([said(3, 'bad')], [], [1])).toEqual([]);
  });

  it('pass over what the machine no longer has', () => {
    expect(asked([said(3, 'bad', 'own-gone')])).toEqual([]);
    expect(asked([said(3, 'bad', 'dispenser', 'no-such-step')])).toEqual([]);
  });
});

describe('proofs in a visit', () => {
  const task = { machineId: washer.id, task: 'gasket-folds' };
  const plan = planVisit([task], [washer]);
  const visit = (ticks: string[], proofs = {}) => ({
    id: washer.id,
    version: 1,
    state: 'active' as const,
    tasks: [task],
    progress: {
      ...emptyProgress(),
      ticked: Object.fromEntries(ticks.map((key) => [key, '2026-06-15T09:00:00Z'])),
      proofs,
    },
    startedAt: '2026-06-15T08:00:00Z',
    changedAt: '2026-06-15T09:00:00Z',
  });
  const all = plan.steps.map(({ key }) => key);
  const proof = plan.steps.find(isProof)!;

  it('are recorded as they were answered, and planned where only the next load can tell', () => {
    const results = (proofs = {}) =>
      entriesOf(visit(all, proofs), [washer], NOW)
        .filter(({ kind }) => kind === 'proof')
        .map(({ step, result }) => [step, result]);
    expect(results()).toEqual([['fold-look', 'planned']]);
    expect(results({ [proof.key]: 'bad' })).toEqual([['fold-look', 'bad']]);
    const entry = entriesOf(visit(all, { [proof.key]: 'bad' }), [washer], NOW).at(-1)!;
    expect(checkEntry(completed(entry), washer, NOW)).toEqual([]);
    expect(sayEntry(entry)).toBe('Did not hold: clean the gasket folds');
  });

  it('are not recorded of work that was left out', () => {
    expect(entriesOf(visit([proof.key], { [proof.key]: 'good' }), [washer], NOW)).toEqual([]);
  });

  it('are there for every task: run at once, or planned', () => {
    for (const kind of ['front-load-washer', 'vented-dryer', 'condenser-dryer'] as const) {
      for (const { id } of tasksOf(machine(kind))) {
        const proofs = procedureById(id).proof.filter(({ rinses }) => !rinses);
        expect(proofs.length, id).toBeGreaterThan(0);
      }
    }
  });

  it('say which proof a task does not have', () => {
    const draft = {
      kind: 'proof',
      machineId: washer.id,
      task: 'dispenser',
      at: '2026-06-15T09:00:00Z',
    } as const;
    const wrong = checkEntry({ ...draft, step: 'nonsense', result: 'good' }, washer, NOW);
    expect(wrong).toEqual([{ field: 'step', message: 'This task has no such proof.' }]);
    const stray = checkEntry({ ...draft, kind: 'done', result: 'good' }, washer, NOW);
    expect(stray.map(({ field }) => field)).toEqual(['result']);
  });
});
