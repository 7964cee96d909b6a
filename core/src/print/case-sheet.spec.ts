import { describe, expect, it } from 'vitest';
import type { CaseRecord, Happening } from '../model/schemas.js';
import { household, machine } from '../model/testing.js';
import { CASE_ENDINGS, MACHINE_KINDS } from '../model/vocabulary.js';
import { ENDING_WORDS } from '../trouble/cases/say.js';
import { caseState } from '../trouble/cases/state.js';
import { CHECKS } from '../trouble/data/checks.js';
import { isFinding, symptomsOf } from '../trouble/diagnosis/diagnosis.js';
import { troubleView } from '../views/trouble.js';
import { caseSheet } from './case-sheet.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const record = (...happenings: Happening[]): CaseRecord => ({
  id: 'case',
  machineId: 'washer',
  events: happenings.map((one, i) => ({
    ...one,
    id: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
    at: new Date(NOW - (happenings.length - i) * 3_600_000).toISOString(),
  })),
});
const washer = machine('front-load-washer', { name: 'Cellar washer' });
const sheetOf = (one: CaseRecord, whose = washer) => {
  const { answers } = caseState(one);
  const view = troubleView({ kind: whose.kind, features: {} }, answers);
  return caseSheet(one, whose, household(), view, NOW);
};
const rowsOf = (sheet: ReturnType<typeof sheetOf>, heading: string) =>
  sheet.sections.find((section) => section.heading === heading)!.rows.map((row) => row.join(' | '));

const slow: Happening = { kind: 'answer', finding: 'drains-slowly', answer: 'yes' };

describe('a case on paper', () => {
  it('tells what was seen apart from what was checked', () => {
    const checks = CHECKS.filter(({ id }) => isFinding(id, 'front-load-washer'));
    const sheet = sheetOf(
      record(
        slow,
        ...checks.map(({ id }): Happening => ({ kind: 'answer', finding: id, answer: 'no' })),
      ),
    );
    expect(rowsOf(sheet, 'What was seen')).toEqual(['It drains slowly | yes']);
    expect(rowsOf(sheet, 'What was checked')).toEqual(checks.map(({ ask }) => `no | ${ask}`));
    expect(sheet.title).toBe('Cellar washer: It drains slowly');
    expect(sheet.lead).toContain('open');
  });

  it('lists the likeliest first, at most six, in percent with their station', () => {
    const rows = rowsOf(sheetOf(record(slow)), 'What it may be');
    expect(rows.length).toBeGreaterThan(0);
    expect(rows.length).toBeLessThanOrEqual(6);
    const chances = rows.map((row) => Number.parseInt(row, 10));
    expect(chances).toEqual([...chances].sort((a, b) => b - a));
    expect(rows.every((row) => /^\d+ % \| .+ \| .+/.test(row))).toBe(true);
  });

  it('sets the figure before the work beside the one after it', () => {
    const sheet = sheetOf(
      record(
        slow,
        { kind: 'measure', quantity: 'drain-time', value: 190, unit: 's' },
        { kind: 'fix', cause: 'filter-clogged', task: 'pump-filter' },
        { kind: 'measure', quantity: 'drain-time', value: 75, unit: 's' },
      ),
    );
    expect(rowsOf(sheet, 'Figures')).toEqual(['Seconds until the drum is empty | 190 s | 75 s']);
  });

  it.each(CASE_ENDINGS)('closed as "%s" says so, and what came of it', (ending) => {
    const sheet = sheetOf(record(slow, { kind: 'close', ending }));
    expect(sheet.lead).toContain(ENDING_WORDS[ending]);
    expect(sheet.sections.map(({ heading }) => heading)).toContain('What came of it');
  });

  it.each(MACHINE_KINDS)('of a %s has a line for each thing that happened', (kind) => {
    const told = symptomsOf(kind).map(({ id }): Happening => ({
      kind: 'answer',
      finding: id,
      answer: 'yes',
    }));
    const sheet = sheetOf(record(...told), machine(kind));
    expect(rowsOf(sheet, 'Everything in order')).toHaveLength(told.length);
    expect(rowsOf(sheet, 'What was seen')).toHaveLength(told.length);
    for (const { columns, rows, none } of sheet.sections) {
      expect(none.length).toBeGreaterThan(0);
      expect(rows.every((row) => row.length === columns.length)).toBe(true);
      expect(rows.flat().join()).not.toMatch(/undefined|NaN|\[object/);
    }
  });
});
